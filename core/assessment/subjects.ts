import { partId } from '#core/job/document'
import { waysTogether } from '#core/system/together'
import type { System } from '#core/system/system'
import { nameInSentence } from '#core/units/format'
import type { Subjects } from './check'

const ofView = <V extends { readonly $path: string; readonly $name: string }>(view: V) => ({
  view,
  id: partId(view.$path),
  name: view.$name,
  path: view.$path,
})

/** The subjects a kind of check is about, in this system. */
export const subjectsOf: { readonly [K in keyof Subjects]: (system: System) => readonly Subjects[K][] } = {
  // A battery that was not entered is not spoken of.
  battery: ({ one }) => (one.candidate.$isEntered ? [{ name: 'New battery', path: 'candidate' }] : []),
  starting: ({ many }) =>
    many.startingBatteries.map((starting) => ({ starting, name: starting.$name, path: starting.$path })),
  device: ({ many }) => many.devices.map((device) => ({ device, name: device.$name, path: device.$path })),
  unit: ({ lanes }) =>
    lanes.flatMap((lane): Subjects['unit'][] => {
      switch (lane.kind) {
        case 'charger':
          return [{ unit: lane.charger, lane, name: lane.name, path: lane.id }]
        case 'solar':
          return [{ unit: lane.solar, lane, name: lane.name, path: lane.id }]
        case 'alternator':
          return [{ unit: lane.link, lane, name: `The DC-DC on ${nameInSentence(lane.name)}`, path: lane.id }]
        case 'source':
          return []
      }
    }),
  alternator: ({ lanes }) =>
    lanes.flatMap((lane) =>
      lane.kind === 'alternator' ? [{ lane, name: lane.name, path: lane.link.$path }] : [],
    ),
  solar: ({ lanes }) =>
    lanes.flatMap((lane) => (lane.kind === 'solar' ? [{ lane, name: lane.name, path: lane.id }] : [])),
  source: ({ lanes }) =>
    lanes.flatMap((lane) => (lane.kind === 'source' ? [{ lane, name: lane.name, path: lane.id }] : [])),
  cable: ({ lanes, many }) =>
    many.conductors.map((cable) => ({
      cable,
      lane: lanes.find(({ id }) => id === cable.$of),
      name: cable.$name,
      path: cable.$path,
    })),
  startCharger: ({ many }) => {
    const [starting] = many.startingBatteries
    return many.chargers
      .filter((charger) => ['starting', 'both'].includes(String(charger.$entered('feeds'))))
      .flatMap((charger) =>
        starting ? [{ charger, starting, name: charger.$name, path: charger.$path }] : [],
      )
  },
  together: waysTogether,
  inverter: ({ many }) =>
    many.inverters.map((inverter) => ({ inverter, name: inverter.$name, path: inverter.$path })),
  dcLoad: ({ many }) =>
    many.loads
      .filter(({ supply }) => supply === 'dc')
      .map((load) => ({ load, name: load.$name, path: load.$path })),
  run: ({ many }) => many.runs.map(ofView),
  fitting: ({ many }) => many.fittings.map(ofView),
  lane: ({ lanes }) => lanes.map((lane) => ({ lane, name: lane.name, path: lane.id })),
}

/** Kinds of which there may be hundreds: only the one that is asked for is looked at. */
const alone = { run: 'runs', fitting: 'fittings' } as const
type Alone = keyof typeof alone
const isAlone = (kind: keyof Subjects): kind is Alone => Object.hasOwn(alone, kind)

function subjectAlone(kind: Alone, system: System, place: number): Subjects[Alone] | undefined {
  const view = system.part(alone[kind], place)
  return view && (ofView(view) as Subjects[Alone])
}

/** One of the subjects of a kind. @param place which of them */
export const subjectAt = (
  kind: keyof Subjects,
  system: System,
  place: number,
): Subjects[keyof Subjects] | undefined =>
  isAlone(kind) ? subjectAlone(kind, system, place) : subjectsOf[kind](system)[place]

/**
 * The subjects of one system, each built once. Which subjects exist depends on no value that can be assumed, so all
 * views of the system share them.
 */
export class SubjectsOnce {
  private readonly known = new Map<keyof Subjects, (Subjects[keyof Subjects] | undefined)[]>()

  at(kind: keyof Subjects, system: System, place: number): Subjects[keyof Subjects] | undefined {
    let known = this.known.get(kind)
    if (!known) this.known.set(kind, (known = isAlone(kind) ? [] : [...subjectsOf[kind](system)]))
    if (isAlone(kind)) known[place] ??= subjectAlone(kind, system, place)
    return known[place]
  }
}
