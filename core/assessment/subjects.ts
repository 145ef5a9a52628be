import { partId } from '#core/job/document'
import { waysTogether } from '#core/system/together'
import type { System } from '#core/system/system'
import { mid, type Subjects } from './check'

/** The subjects a kind of check is about, in this system. */
export const subjectsOf: { readonly [K in keyof Subjects]: (system: System) => readonly Subjects[K][] } = {
  battery: () => [{ name: 'New battery', path: 'candidate' }],
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
          return [{ unit: lane.link, lane, name: `The DC-DC on ${mid(lane.name)}`, path: lane.id }]
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
      .filter((charger) => charger.$entered('feeds') === 'starting')
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
  run: ({ many }) =>
    many.runs.map((view) => ({ view, id: partId(view.$path), name: view.$name, path: view.$path })),
  fitting: ({ many }) =>
    many.fittings.map((view) => ({ id: partId(view.$path), name: view.$name, path: view.$path })),
  lane: ({ lanes }) => lanes.map((lane) => ({ lane, name: lane.name, path: lane.id })),
}

/**
 * The subjects of one system, those of a kind put together once: which there are hangs on no value that may be
 * assumed, whatever the views of them show.
 */
export class SubjectsOnce {
  private readonly known = new Map<keyof Subjects, readonly Subjects[keyof Subjects][]>()

  of(kind: keyof Subjects, system: System): readonly Subjects[keyof Subjects][] {
    const known = this.known.get(kind)
    if (known) return known
    const subjects = subjectsOf[kind](system)
    this.known.set(kind, subjects)
    return subjects
  }
}
