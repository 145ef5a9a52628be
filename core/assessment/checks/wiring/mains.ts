import { listInSentence, joinText, nameInSentence } from '#core/units/format'
import { check, word } from '#core/assessment/check'
import { hasRuns } from '#core/wiring/wiring'
import type { View } from '#core/system/scene'
import type { System } from '#core/system/system'

/** Sources of mains voltage on board besides the inverters: shore power by its chargers, a generator. */
const suppliesOf = ({ many }: System): readonly string[] =>
  [...many.chargers, ...many.generators].map(({ $name }) => nameInSentence($name))

/** Whether an inverter and shore can feed one socket at the same time. */
const meetsShore = ({ transferSwitch, sockets }: View<'inverters'>): boolean =>
  transferSwitch === 'none' && sockets === 'shared'

const mains = check({
  id: 'wiring.mains',
  title: 'Mains side',
  about: 'battery',
  takesTime: true,
  why: 'Mains voltage kills. An inverter connected to shore power at a socket is destroyed when both are on.',
  judge(_subject, system) {
    const { inverters } = system.many
    const supplies = suppliesOf(system)
    if (!hasRuns(system) || supplies.length + inverters.length === 0) return null
    const meeting = supplies.length === 0 ? [] : inverters.filter(meetsShore)
    const names = (some: readonly View<'inverters'>[]): string[] =>
      some.map(({ $name }) => nameInSentence($name))
    return {
      verdict: meeting.length > 0 ? 'suits-once-changed' : 'suits',
      compared: [
        word('shore and inverter', meeting.length > 0 ? 'meet' : 'never meet'),
        word('wanted', 'never meet'),
      ],
      limit: { kind: 'physics', text: 'two AC sources out of phase' },
      formula: () =>
        joinText(
          `fed from mains: ${listInSentence(supplies) || 'nothing'}`,
          `; gives mains voltage: ${listInSentence(names(inverters)) || 'nothing'}`,
        ),
      summary: () =>
        meeting.length > 0
          ? joinText(
              `Sockets of ${listInSentence(names(meeting))} are fed by shore `,
              'or a generator too, and no transfer switch parts the two.',
            )
          : `A licensed person does the mains side of ${listInSentence([...supplies, ...names(inverters)])}.`,
      remedies: meeting.map(({ $path }) => ({ id: 'inverter.transfer', on: $path }) as const),
      cautions: () => [
        joinText(
          'Leave the mains side, its earth and its residual-current ',
          'protection to a licensed person and the local code.',
        ),
      ],
    }
  },
})

export const checks = [mains] as const
