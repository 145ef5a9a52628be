import { firstOf, withId } from '#core/collections/held'
import { inSentence, nameInSentence, joinText } from '#core/units/format'
import { check, number, word } from '#core/assessment/check'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Post } from '#core/wiring/network'
import { bankPost } from '#core/wiring/propose/bars'
import { hasRuns, wiringIn, type Wiring } from '#core/wiring/wiring'
import { partId } from '#core/job/document'
import type { AlternatorLane } from '#core/system/lanes'

/** Positive battery posts that an alternator reaches, through diodes too. */
function batteriesFrom(alternator: string, wiring: Wiring, passes: (post: Post) => boolean): readonly Post[] {
  const { network, ways } = wiring
  const unit = network.units.find(({ id }) => id === alternator)
  if (!unit) return []
  const starts = [unit.plus]
  // The list grows while it is walked.
  for (const start of starts) {
    const reached = new Set(ways.joinedTo(start, passes).map(({ id }) => id))
    for (const diode of network.units)
      if (diode.kind === 'diode' && reached.has(diode.plus) && !starts.includes(diode.out))
        starts.push(diode.out)
  }
  return starts
    .flatMap((start) => ways.joinedTo(start, passes))
    .filter(({ kind, pole }) => kind === 'battery' && pole === 'positive')
}

/** The name of a post inside a sentence. */
const the = ({ name }: Post): string =>
  /^the /i.test(name) ? nameInSentence(name) : `the ${inSentence(name)}`

const isPositive = ({ pole }: Post): boolean => pole === 'positive'

/** The link’s fuse moved to the battery’s side of the switch, or a surge protector. */
function partedRemedies({ link, alternator }: AlternatorLane): readonly RemedyRef[] {
  const canMove = link.kind !== 'dcdc' && link.kind !== 'switch'
  return [
    ...(canMove
      ? ([{ id: 'fitting.battery-side', on: `fittings/${partId(link.$path)}-fuse` }] as const)
      : []),
    { id: 'alternator.surge-protector', on: alternator.$path },
  ]
}

const engineSwitch = check({
  id: 'wiring.engine-switch',
  title: 'Switch between the alternator and its battery',
  topic: 'switch between the alternator and its battery',
  about: 'alternator',
  takesTime: true,
  why: joinText(
    'Opening that switch while the engine runs leaves the alternator without a battery. ',
    'Its voltage spike destroys diodes and electronics.',
  ),
  judge({ lane, name }, system) {
    if (!hasRuns(system) || lane.link.kind === 'none') return null
    const wiring = wiringIn(system)
    const id = partId(lane.alternator.$path)
    const all = batteriesFrom(id, wiring, isPositive)
    if (all.length === 0) return null
    const kept = batteriesFrom(id, wiring, (post) => isPositive(post) && post.kind !== 'switch')
    const isShunted = lane.alternator.$entered('machine') === 'magnet'
    const isGuarded = lane.alternator.surgeProtector === 'yes' || isShunted
    const isParted = kept.length === 0
    const switches = wiring.ways
      .joinedTo(withId(wiring.network.units, id).plus, isPositive)
      .filter(({ kind }) => kind === 'switch')
      .map(the)
    const names = switches.join(' or ')
    const guard = isGuarded ? '; protected' : ''
    const only = `${name} charges only through ${names}.`
    return {
      verdict: isParted && !isGuarded ? 'suits-once-changed' : 'suits',
      compared: [
        word('between alternator and battery', isParted ? names : 'no switch'),
        word('wanted', 'no switch, or a surge protector'),
      ],
      limit: { kind: 'physics', text: 'the field of an alternator decays slowly' },
      formula: () =>
        isParted
          ? `every way from ${nameInSentence(name)} to a battery leads through ${names}${guard}`
          : `without a switch between: ${kept.map(the).join(', ')}`,
      summary: () =>
        !isParted
          ? `No switch can separate ${nameInSentence(name)} from ${the(firstOf(kept))}.`
          : isGuarded
            ? `${only} ${isShunted ? 'Its regulator' : 'A surge protector'} limits the spike if someone opens it.`
            : `${only} Opening it while the engine runs destroys the alternator.`,
      cautions: () => (isParted ? [`Never open ${names} while the engine runs. Put a label on it.`] : []),
      remedies: isParted && !isGuarded ? partedRemedies(lane) : [],
    }
  },
})

const addMainSwitch: RemedyRef = { id: 'fitting.add', on: 'fittings/main-switch' }
const openByHand: RemedyRef = { id: 'layup.disconnect', on: 'candidate' }

const isolation = check({
  id: 'wiring.isolation',
  title: 'One switch for the lay-up',
  about: 'battery',
  takesTime: true,
  why: 'A load that stays on through the winter empties the battery below its cut-off.',
  judge(_subject, system) {
    const { one, rules, q } = system
    if (!hasRuns(system) || one.use.layupWeeks <= rules.standWeeks) return null
    const wiring = wiringIn(system)
    const mainSwitch = wiring.ways.post('main-switch')
    const isSwitched = mainSwitch?.kind === 'switch'
    const live = drawingWith(wiring, isSwitched).map(inSentence)
    const names = live.join(', ')
    // Without bars and a switch the few leads come off by hand: a motorcycle.
    const isDisconnectedByHand = !mainSwitch && rules.layupSchool === 'rest'
    const isLeft = !isSwitched && !isDisconnectedByHand && live.length > 0
    const weeks = q(one.use.layupWeeks, 'weeks')
    return {
      verdict: isLeft ? 'suits-once-changed' : 'suits',
      compared: [
        number('still connected', isDisconnectedByHand ? 0 : live.length, ''),
        number('wanted', 0, ''),
      ],
      limit: one.use.$origin('layupWeeks'),
      formula: () =>
        live.length === 0
          ? 'every load is behind the main switch'
          : joinText(
              `${isSwitched ? 'on the battery side of the main switch' : 'no main switch'}: `,
              `${names}; lay-up ${weeks}`,
            ),
      summary: () =>
        isLeft
          ? `No switch isolates the loads for ${weeks} of lay-up. Still connected: ${names}.`
          : isSwitched
            ? live.length === 0
              ? 'With the main switch off, nothing draws during the lay-up.'
              : `The main switch isolates the loads. Always on: ${names}.`
            : 'For the lay-up, take the positive lead off the battery.',
      cautions: () =>
        isSwitched && live.length > 0 ? [`Check what ${names} draws over ${weeks} of lay-up.`] : [],
      remedies: isLeft ? [mainSwitch ? addMainSwitch : openByHand] : [],
    }
  },
})

/** Names of loads, inverters and starters that stay connected with the main switch open, or if there is none. */
function drawingWith({ network, ways }: Wiring, isSwitched: boolean): readonly string[] {
  const passes = (post: Post): boolean => isPositive(post) && !(isSwitched && post.kind === 'switch')
  const live = new Set(ways.joinedTo(bankPost, passes).map(({ id }) => id))
  return network.units.flatMap((unit) => {
    const draws = ['load', 'inverter', 'starter'].includes(unit.kind)
    return draws && live.has(unit.plus) ? [unit.name] : []
  })
}

export const checks = [engineSwitch, isolation] as const
