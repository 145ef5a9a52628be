import { nameInSentence } from '#core/units/format'
import { isCharging, type AlternatorLane, type Lane } from '#core/system/lanes'
import { settingsOf } from '#core/assessment/checks/charger/range'
import type { Setting } from '#core/assessment/check'
import type { PartPath } from '#core/job/document'
import { sharesBus } from '#core/system/energy'
import { monitorSettings } from '#core/system/monitor'
import type { System } from '#core/system/system'

/** A card for the locker: one unit and its settings. */
export interface SettingsCard {
  readonly unit: string
  /** Path of the charger, controller, link or alternator; null for the monitor and the stops. */
  readonly of: PartPath | null
  readonly settings: readonly Setting[]
}

/** The card of the battery monitor, if there is one with a shunt. */
function monitorCard(system: System): SettingsCard[] {
  if (system.one.use.$entered('monitor') !== 'shunt') return []
  const set = monitorSettings(system)
  return [
    {
      unit: 'Battery monitor',
      of: null,
      settings: [
        { label: 'Capacity', value: set.capacityAh, unit: 'Ah' },
        { label: 'Charged voltage', value: set.chargedV, unit: 'V' },
        { label: 'Tail current', value: set.tailPercent, unit: '%' },
        { label: 'Charged detection time', value: set.detectionMin, unit: 'min' },
        { label: 'Charge efficiency', value: set.efficiencyPercent, unit: '%' },
        { label: 'Discharge floor', value: set.floorPercent, unit: '%' },
      ],
    },
  ]
}

/** Voltage of a regulator at a full battery, V at 12 V (engineering default), and never above the maker's limit. */
const floatOnceFullV = 13.5

function regulatorCard({ alternator, name }: AlternatorLane, { bank }: System): SettingsCard[] {
  if (alternator.regulator !== 'external') return []
  const floatV = Math.min(floatOnceFullV * bank.scale, bank.maxFloatV)
  const current: Setting[] =
    alternator.limitA === null ? [] : [{ label: 'Current', value: alternator.limitA, unit: 'A' }]
  return [
    {
      unit: `Regulator of ${nameInSentence(name)}`,
      of: alternator.$path,
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
      of: link.$path,
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
      return [{ unit: lane.name, of: lane.id, settings: settingsOf(lane.charger, lane, system) }]
    case 'solar':
      return [{ unit: lane.name, of: lane.id, settings: settingsOf(lane.solar, lane, system) }]
    case 'alternator':
      if (isCharging(lane.link))
        return [
          {
            unit: `DC-DC on ${nameInSentence(lane.name)}`,
            of: lane.id,
            settings: settingsOf(lane.link, lane, system),
          },
        ]
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
      of: null,
      settings: [
        { label: 'Charge stop', value: rules.chargeStopV * bank.scale, unit: 'V' },
        { label: 'Discharge stop', value: rules.dischargeStopV * bank.scale, unit: 'V' },
      ],
    },
  ]
}

/**
 * The settings cards of a system: each charging unit, the alternator's limit, the stops of a hybrid bank, the
 * monitor.
 */
export const settingsCards = (system: System): SettingsCard[] => [
  ...system.lanes.flatMap((lane) => laneCards(lane, system)),
  ...stopsCard(system),
  ...monitorCard(system),
]
