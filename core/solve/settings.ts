import { inside } from '#core/units/format'
import { isCharging, type AlternatorLane, type Lane } from '#core/system/lanes'
import { settingsOf } from '#core/assessment/checks/range'
import type { Setting } from '#core/assessment/check'
import { sharesBus } from '#core/system/energy'
import type { System } from '#core/system/system'

/** A card to stick inside the locker: one unit and what it is set to. */
export interface SettingsCard {
  readonly unit: string
  readonly settings: readonly Setting[]
}

/**
 * Settings of the battery monitor, from the bank and the shop's rules: what makes its per cent mean
 * something.
 */
function monitorOf({ bank, rules, lanes }: System): SettingsCard {
  const absorbs = lanes.flatMap((lane) =>
    lane.kind === 'charger'
      ? [lane.charger.absorptionV]
      : lane.kind === 'alternator' && lane.link.kind === 'dcdc'
        ? [lane.link.absorptionV]
        : [],
  )
  const least = absorbs.length > 0 ? Math.min(...absorbs) : bank.lowV
  return {
    unit: 'Battery monitor',
    settings: [
      { label: 'Capacity', value: bank.ah, unit: 'Ah' },
      {
        label: 'Charged voltage',
        value: Math.round(Math.max(bank.ocv(1), least - 0.2 * bank.scale) * 100) / 100,
        unit: 'V',
      },
      { label: 'Tail current', value: Math.round(rules.tailRateC * 100), unit: '%' },
      { label: 'Charged detection time', value: 3, unit: 'min' },
      { label: 'Charge efficiency', value: 99, unit: '%' },
      { label: 'Discharge floor', value: 100 - rules.usableLithium, unit: '%' },
    ],
  }
}

/** What a regulator holds a full battery at, V of 12 (engineering default), and never more than its maker allows. */
const floatOnceFullV = 13.5

function regulatorCard({ alternator, name }: AlternatorLane, { bank }: System): SettingsCard[] {
  if (alternator.regulator !== 'external') return []
  const floatV = Math.min(floatOnceFullV * bank.scale, bank.maxFloatV)
  const current: Setting[] =
    alternator.limitA === null ? [] : [{ label: 'Current', value: alternator.limitA, unit: 'A' }]
  return [
    {
      unit: `Regulator of ${inside(name)}`,
      settings: [
        { label: 'Voltage', value: alternator.regulatorV, unit: 'V' },
        { label: 'Float, once the battery takes little', value: floatV, unit: 'V' },
        ...current,
      ],
    },
  ]
}

function dutyCard({ link }: AlternatorLane): SettingsCard[] {
  if (link.kind !== 'duty') return []
  return [
    {
      unit: 'Duty-cycling relay',
      settings: [
        { label: 'Opens above', value: link.opensAboveA, unit: 'A' },
        { label: 'Stays open for', value: link.offTimeS, unit: 's' },
      ],
    },
  ]
}

function laneCards(lane: Lane, system: System): SettingsCard[] {
  switch (lane.kind) {
    case 'charger':
      return [{ unit: lane.name, settings: settingsOf(lane.charger, lane, system) }]
    case 'solar':
      return [{ unit: lane.name, settings: settingsOf(lane.solar, lane, system) }]
    case 'alternator':
      if (isCharging(lane.link))
        return [{ unit: `DC-DC on ${inside(lane.name)}`, settings: settingsOf(lane.link, lane, system) }]
      return [...regulatorCard(lane, system), ...dutyCard(lane)]
    case 'source':
      return []
  }
}

function stopsCard(system: System): SettingsCard[] {
  const { bank, rules, one } = system
  if (!sharesBus(system) || one.use.chargeStop !== 'yes') return []
  return [
    {
      unit: 'Stops of the lithium',
      settings: [
        { label: 'Charge stop', value: rules.chargeStopV * bank.scale, unit: 'V' },
        { label: 'Discharge stop', value: rules.dischargeStopV * bank.scale, unit: 'V' },
      ],
    },
  ]
}

/**
 * The settings cards of a system: each charging unit, what holds the alternator, the stops of a hybrid bank,
 * the monitor.
 */
export const settingsCards = (system: System): SettingsCard[] => [
  ...system.lanes.flatMap((lane) => laneCards(lane, system)),
  ...stopsCard(system),
  monitorOf(system),
]
