import type { Bank } from '#core/system/bank'
import { sharesBus } from '#core/system/energy'
import type { System } from '#core/system/system'
import { warningOf } from '#core/system/warning'
import type { Write } from '#core/units/format'
import type { Section } from '../blocks'
import { paragraphs, points, steps, told } from './sentences'

/** The battery in the cold. */
export function coldSection({ bank, q }: System): Section[] {
  const { coldCut, heater, heaterStartC, dischargeColdC } = bank.each
  return told(
    'In the cold',
    `Lithium must not be charged below ${q(bank.coldLimitC, '°C')}. It would be damaged for good.`,
    coldCut === 'yes'
      ? 'The battery blocks charging by itself when its cells are that cold.'
      : 'The battery does not block this by itself. Switch the chargers off when it is that cold.',
    heater === 'yes' &&
      `Below ${q(heaterStartC, '°C')} a heater warms the cells first. Charging then starts later.`,
    `Your loads still run, down to ${q(dischargeColdC, '°C')}.`,
  )
}

const voltageAt = [100, 90, 50, 20, 10] as const

/** How to read the charge. */
export function monitorSection({ bank, one, q }: System): Section[] {
  switch (one.use.monitor) {
    case 'shunt':
      return told(
        'Reading the monitor',
        'The monitor counts all current in and out. Trust its per cent, not the voltage.',
        'Charge until it shows 100 % about once a month. That keeps it true.',
      )
    case 'bms':
      return told(
        'Reading the monitor',
        'The battery shows its charge on your phone.',
        'Charge it fully about once a month. That keeps the figure true.',
      )
    case 'partial':
      return told(
        'Reading the monitor',
        'Your phone shows one of several batteries. The others may have less charge.',
        'Charge fully about once a month. That keeps the figure true.',
      )
    default:
      return [byVoltage(bank, q)]
  }
}

/** How to read the charge from the voltage alone. */
const byVoltage = (bank: Bank, q: Write): Section => ({
  heading: 'Reading the voltage',
  blocks: [
    ...paragraphs(
      'You have no monitor that counts current. The voltage is only a rough guide.',
      'Read it after an hour with nothing on and nothing charging.',
    ),
    {
      kind: 'facts',
      facts: voltageAt.map((percent) => ({
        label: q(percent, '%'),
        value: `about ${q(bank.ocv(percent / 100), 'V')}`,
      })),
    },
  ],
})

/** What the customer notices before the battery switches itself off. */
export function alarmSection(system: System): Section[] {
  switch (warningOf(system)) {
    case 'alarm':
    case 'device':
      return told(
        'When the alarm sounds',
        'The battery is about to switch itself off.',
        'Switch off what you can spare. Start charging soon.',
      )
    case 'stop':
      return told(
        'When the loads go off by themselves',
        'The battery has stopped them, before it must switch itself off.',
        'Switch off what you can spare. Start charging soon.',
      )
    case null:
      return told(
        'No alarm',
        'Nothing warns you before the battery switches itself off.',
        'Look at its charge every day, and before the night.',
      )
  }
}

/** When the battery switches itself off, and how to bring it back. */
export const switchOffSection = ({ bank, q }: System): Section[] => [
  ...points(
    'When the battery switches itself off',
    `It is empty: below ${q(bank.bmsUnderV, 'V')}.`,
    `It is charged too high: above ${q(bank.bmsOverV, 'V')}. It then only refuses to charge.`,
    'The current is too large, or there is a short circuit.',
    'It is too cold to charge, or too hot.',
  ),
  ...steps(
    'How to bring it back',
    'Switch off all loads.',
    'Let it warm up or cool down if it is too cold or too hot.',
    'If it was empty, connect a charger or start the engine.',
    'If it was overloaded, leave the largest load off.',
    'Wait a few minutes. Then switch on one load after another.',
    'If it stays off, or you smell or see something unusual, call us. Do not bridge it.',
  ),
]

/** Charge in which it is stored, %. */
const storedPercent = 60
/** The charge at which stored lithium is topped up, 0 to 1. */
const toppedUpAt = 0.2

/** Storage over winter. */
export function storageSection(system: System): Section[] {
  const { bank, one, q } = system
  const weeks = one.use.layupWeeks
  return steps(
    'Storage over winter',
    `Charge or discharge it to about ${q(storedPercent, '%')}.`,
    'Turn the main switch off. A bilge pump or alarm wired past it still draws current.',
    ...(sharesBus(system)
      ? ['Disconnect the lead-acid battery from it. Keep that one charged.']
      : ['Leave no charger on it.']),
    `Look at its voltage every 3 months. Charge it if it rests below ${q(bank.ocv(toppedUpAt), 'V')}.`,
    ...(weeks > 26 ? [`It rests for ${weeks} weeks with you: do this at least twice.`] : []),
    `In spring, let it warm to above ${q(bank.coldLimitC, '°C')} before you charge.`,
  )
}

/** Prohibitions. */
export const neverSection = ({ bank, q, lanes }: System): Section[] =>
  points(
    'Never',
    'Never jump-start an engine from this battery.',
    `Never charge it below ${q(bank.coldLimitC, '°C')}.`,
    `Never charge it above ${q(bank.absoluteV, 'V')}.`,
    'Never connect an old charger, or one for lead-acid, without asking us.',
    'Never use a program named equalise, repair or desulfation.',
    lanes.some(({ kind }) => kind === 'alternator') &&
      'Never turn the main switch off while the engine runs.',
    'Never fit a larger fuse. Find out why it blew.',
    'Never open the battery, and keep metal tools away from its posts.',
  )

/** When to come back. */
export const comeBackSection = (contact: string): Section[] => [
  ...points(
    'Come back to us',
    'After the first month: we tighten the connections again.',
    'Once a year: we test the charging and the capacity.',
    'At once, if a cable or fuse gets hot, or the battery switches off again.',
    'Before you add a load, a source or another battery.',
  ),
  ...told('How to reach us', contact),
  ...told(
    'Please note',
    'Mains, gas and work in the engine space are for licensed people.',
    'The makers’ instructions and local rules come before this booklet.',
  ),
]
