import { nameInSentence, joinText } from '#core/units/format'
import { check } from '#core/assessment/check'
import type { Post } from '#core/wiring/network'
import { highestChargeV } from '#core/wiring/charge-voltage'
import { wiringIn, type Wiring } from '#core/wiring/wiring'
import { fuseInterruptA, type FuseFamily } from '#core/physics/fuses'
import { nearFuseFamily } from '#core/system/cables'
import type { PartPath } from '#core/job/document'
import type { View } from '#core/system/scene'
import { interruptAgainst } from '../conductor/conductor'

const shortCircuit = check({
  id: 'battery.short-circuit',
  title: 'Short circuit and fuses',
  about: 'battery',
  takesTime: true,
  why: joinText(
    'Lithium delivers thousands of amperes into a short. ',
    'A fuse of the wrong family melts and continues to burn.',
  ),
  judge(_subject, system) {
    const { many, q } = system
    if (many.conductors.length === 0) return null
    const wiring = wiringIn(system)
    const fuses = many.conductors.flatMap((cable) => {
      const post = nearFuseOf(cable.$path, wiring)
      const family = nearFuseFamily(cable)
      return post && family ? [surveyedFuse(cable, family, post, wiring)] : []
    })
    if (fuses.length === 0) return null
    const marginA = ({ interruptsA, shortA }: SurveyedFuse): number => interruptsA - shortA
    const { cable, interruptsA, shortA, volts } = fuses.reduce((a, b) => (marginA(b) < marginA(a) ? b : a))
    return interruptAgainst(
      {
        name: `the fuse of ${nameInSentence(cable.$name)}`,
        shortA,
        interruptsA,
        volts,
        limit:
          cable.fuseAicA === null
            ? { kind: 'assumed', text: 'typical interrupt rating of its family; check the maker’s sheet' }
            : cable.$origin('fuseAicA'),
      },
      {
        short: {
          at: 'there',
          formula: () =>
            `every source feeding a bolted short there, through its own leads: ${q(shortA, 'A')}`,
        },
        sterner: () => [{ id: 'fuse.main', on: 'conductors', value: Math.ceil(shortA) }],
        q,
      },
    )
  },
})

interface SurveyedFuse {
  readonly cable: View<'conductors'>
  readonly interruptsA: number
  readonly shortA: number
  readonly volts: number
}

/** The fuse nearest the battery of a surveyed cable, with the short that the wiring has there. */
function surveyedFuse(
  cable: View<'conductors'>,
  family: FuseFamily,
  post: Post,
  { solved }: Wiring,
): SurveyedFuse {
  const volts = highestChargeV(post)
  const interruptsA = cable.fuseAicA ?? fuseInterruptA(family, volts)
  return { cable, interruptsA, volts, shortA: solved.shortNearA(post.id) }
}

/** The fuse of a surveyed cable at which a short is largest: the one nearest the battery. */
function nearFuseOf(cable: PartPath, { network, ways, solved }: Wiring): Post | null {
  const ends = network.runs.filter((run) => run.cable === cable).flatMap(({ from, to }) => [from, to])
  const posts = ends.map((id) => ways.post(id)).filter((post): post is Post => post?.kind === 'fuse')
  const [first, ...others] = posts
  if (!first) return null
  return others.reduce((a, b) => (solved.shortNearA(b.id) > solved.shortNearA(a.id) ? b : a), first)
}

export const checks = [shortCircuit] as const
