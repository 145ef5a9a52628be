import { settingsOf } from '#core/assessment/checks/range'
import { isCharging } from '#core/assessment/checks/charger'
import type { Setting } from '#core/assessment/check'
import { sharesBus } from '#core/system/energy'
import type { System } from '#core/system/system'

/** A card to stick inside the locker: one unit and what it is set to. */
export interface SettingsCard {
  readonly unit: string
  readonly settings: readonly Setting[]
}

/** Settings of the battery monitor, from the bank and the shop's rules: what makes its per cent mean something. */
function monitorOf({ bank, rules, lanes }: System): SettingsCard {
  const absorbs = lanes.flatMap((lane) => (lane.kind === 'charger' ? [lane.charger.absorptionV] : lane.kind === 'alternator' && lane.link.kind === 'dcdc' ? [lane.link.absorptionV] : []))
  const least = absorbs.length > 0 ? Math.min(...absorbs) : bank.lowV
  return {
    unit: 'Battery monitor',
    settings: [
      { label: 'Capacity', value: bank.ah, unit: 'Ah' },
      { label: 'Charged voltage', value: Math.round((Math.max(bank.ocv(1), least - 0.2 * bank.scale)) * 100) / 100, unit: 'V' },
      { label: 'Tail current', value: Math.round(rules.tailRateC * 100), unit: '%' },
      { label: 'Charged detection time', value: 3, unit: 'min' },
      { label: 'Charge efficiency', value: 99, unit: '%' },
      { label: 'Discharge floor', value: 100 - rules.usableLithium, unit: '%' },
    ],
  }
}

/** The settings cards of a system: each charging unit, what holds the alternator, the stops of a hybrid bank, the monitor. */
export function settingsCards(system: System): SettingsCard[] {
  const { bank, rules, lanes, one } = system
  return system.scene.asUsual(() => [
    ...lanes.flatMap((lane): SettingsCard[] => {
      const unit = lane.kind === 'charger' ? lane.charger : lane.kind === 'solar' ? lane.solar : lane.kind === 'alternator' ? lane.link : null
      if (unit && isCharging(unit)) return [{ unit: lane.kind === 'alternator' ? `DC-DC on ${lane.name.replace(/^The /, 'the ')}` : lane.name, settings: settingsOf(unit, lane, system) }]
      if (lane.kind !== 'alternator') return []
      const { alternator, link } = lane
      const held: SettingsCard[] = alternator.regulator === 'external' ? [{ unit: `Regulator of ${lane.name.replace(/^The /, 'the ')}`, settings: [
        { label: 'Voltage', value: alternator.regulatorV, unit: 'V' }, { label: 'Float, once the battery takes little', value: 13.5 * bank.scale, unit: 'V' }, ...(alternator.limitA < 9999 ? [{ label: 'Current', value: alternator.limitA, unit: 'A' } as const] : []),
      ] }] : []
      return link.kind === 'duty' ? [...held, { unit: 'Duty-cycling relay', settings: [{ label: 'Opens above', value: link.opensAboveA, unit: 'A' }, { label: 'Stays open for', value: link.offTimeS, unit: 's' }] }] : held
    }),
    ...(sharesBus(system) && one.use.chargeStop === 'yes' ? [{ unit: 'Stops of the lithium', settings: [{ label: 'Charge stop', value: rules.chargeStopV * bank.scale, unit: 'V' }, { label: 'Discharge stop', value: rules.dischargeStopV * bank.scale, unit: 'V' }] } satisfies SettingsCard] : []),
    monitorOf(system),
  ]).value
}
