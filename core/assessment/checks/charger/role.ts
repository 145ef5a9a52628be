import { listInSentence, joinText, nameInSentence } from '#core/units/format'
import { check, number, word, type Subjects } from '#core/assessment/check'
import { dcdcInput } from '#core/system/currents'
import type { System } from '#core/system/system'
import { absorption, equalise, float, temperatureCompensation } from './charger'
import { current } from './charger-current'

/** Whether one of a unit's own checks leaves nothing but another in its place. */
const mustGo = (subject: Subjects['unit'], system: System): boolean =>
  [absorption, float, equalise, temperatureCompensation, current].some(
    ({ judge }) => judge(subject, system)?.verdict === 'does-not-suit',
  )

const role = check({
  id: 'charger.role',
  title: 'The charger’s other duties',
  about: 'unit',
  why: joinText(
    'A converter often carries the fuse block. ',
    'A charger with two outputs often charges the starting battery. Replace both functions.',
  ),
  judge(subject, system) {
    const { lane, name } = subject
    if (lane.kind !== 'charger') return null
    const { charger } = lane
    const roles = [
      ...(charger.holdsFuseBlock === 'yes' ? ['the DC fuse block'] : []),
      ...(charger.feeds === 'both' ? ['the starting battery’s charge'] : []),
      ...(charger.kind === 'combi' ? ['the inverter'] : []),
    ]
    const goes = roles.length > 0 && mustGo(subject, system)
    return {
      verdict: goes ? 'suits-once-changed' : 'suits',
      compared: [
        word('other duties', roles.length > 0 ? roles.join(', ') : 'nothing'),
        word('when replaced', roles.length > 0 ? 'must be replaced too' : 'nothing is lost'),
      ],
      limit: charger.$origin('holdsFuseBlock'),
      formula: () =>
        roles.length === 0
          ? 'charges only the house bank'
          : `${goes ? 'must go' : 'may stay'}; also provides: ${roles.join(', ')}`,
      summary: () =>
        roles.length === 0
          ? `${name} charges the house bank and does nothing else.`
          : `${name} also provides ${listInSentence(roles)}${goes ? ', which must be replaced too' : ''}.`,
      remedies: goes ? [{ id: 'charger.make-good', on: charger.$path }] : [],
      cautions: () =>
        roles.length > 0 && !goes
          ? [`If you remove ${nameInSentence(name)}, replace ${listInSentence(roles)} too.`]
          : [],
    }
  },
})

const feedsDcdc = check({
  id: 'charger.feeds-dcdc',
  title: 'Mains charger behind a DC-DC',
  about: 'alternator',
  why: joinText(
    'A charger on the starting battery raises its voltage. ',
    'The DC-DC takes that for a running engine, so the charger never leaves absorption.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { link } = lane
    const { many } = system
    if (link.kind !== 'dcdc') return null
    const charger = many.chargers.find((other) => other.feeds !== 'house')
    const fed = charger !== undefined || lane.starting.fedByCharger === 'yes'
    if (!fed) return null
    const bad = link.signal === 'voltage'
    const drawsA = dcdcInput(lane, system).amps
    return {
      verdict: bad ? 'suits-once-changed' : 'suits',
      compared: [
        number('DC-DC draws', drawsA, 'A'),
        charger ? number('charger gives', charger.ratedA, 'A') : word('charger gives', 'a trickle'),
      ],
      limit: { kind: 'physics', text: 'voltage alone cannot tell a charger from an engine' },
      formula: () =>
        joinText(
          'starts on ',
          link.signal === 'wire'
            ? 'a wire: engine off → off'
            : `voltage: charger on → ${q(drawsA, 'A')} drawn from it`,
        ),
      summary: () =>
        bad
          ? joinText(
              `The DC-DC on ${nameInSentence(name)} starts on voltage, `,
              'so it runs off the mains charger of the starting battery, ',
              'which then never finishes.',
            )
          : joinText(
              `The DC-DC on ${nameInSentence(name)} waits for its wire, `,
              'so the mains charger of the starting battery can finish.',
            ),
      remedies: bad ? [{ id: 'dcdc.signal-wire', on: link.$path }] : [],
    }
  },
})

export const checks = [role, feedsDcdc] as const
