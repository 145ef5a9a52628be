import type { ThemeColours } from '../composables/theme-colours'
import { channels, type ChannelId } from '#core/simulation/record'

/** A band of the timeline: channels of one unit. */
export interface Band {
  readonly title: string
  readonly unit: string
  /** Its channels for one system. */
  readonly alone: readonly ChannelId[]
  /** Its channels where several systems are compared. */
  readonly compared: readonly ChannelId[]
}

/** Channels that are yes or no: one row above the other. */
export const yesNoRows: readonly ChannelId[] = ['allowed', 'sunThere', 'engineThere', 'mainsThere']

export const coldBand: Band = {
  title: 'Charge wanted and allowed',
  unit: '',
  alone: yesNoRows,
  compared: ['allowed'],
}
export const bands: readonly Band[] = [
  {
    title: 'Charge',
    unit: '%',
    alone: ['soc', 'leadSoc', 'startSoc', 'startSoc2'],
    compared: ['soc', 'leadSoc'],
  },
  {
    title: 'Currents',
    unit: 'A',
    alone: ['engineA', 'mainsA', 'solarA', 'sourceA', 'loadA', 'lfpA', 'leadA'],
    compared: ['engineA'],
  },
  { title: 'Voltages', unit: 'V', alone: ['houseV', 'startV', 'startV2'], compared: ['houseV'] },
  {
    title: 'Temperatures',
    unit: '°C',
    alone: ['alternatorC', 'alternatorC2', 'cellC', 'placeC'],
    compared: ['alternatorC', 'alternatorC2', 'cellC'],
  },
  coldBand,
]

export type Dash = 'solid' | 'dashed' | 'dotted'
interface Look {
  readonly colour: keyof ThemeColours
  readonly dash: Dash
  /** The name of the line next to the title of its band. */
  readonly name: string
}
/** The same colour and dash for the same thing everywhere; readable without colour. */
export const looks: Readonly<Partial<Record<ChannelId, Look>>> = {
  soc: { colour: 'sea', dash: 'solid', name: 'lithium' },
  leadSoc: { colour: 'changed', dash: 'dashed', name: 'lead' },
  startSoc: { colour: 'soft', dash: 'dotted', name: 'starting battery' },
  startSoc2: { colour: 'soft', dash: 'dashed', name: 'second starting battery' },
  engineA: { colour: 'bad', dash: 'solid', name: 'engine' },
  mainsA: { colour: 'sea', dash: 'dashed', name: 'mains' },
  solarA: { colour: 'changed', dash: 'solid', name: 'sun' },
  sourceA: { colour: 'suits', dash: 'dashed', name: 'other' },
  loadA: { colour: 'ink', dash: 'dotted', name: 'loads' },
  lfpA: { colour: 'measure', dash: 'solid', name: 'into lithium' },
  leadA: { colour: 'changed', dash: 'dashed', name: 'into lead' },
  houseV: { colour: 'sea', dash: 'solid', name: 'house' },
  startV: { colour: 'bad', dash: 'dashed', name: 'starting side' },
  startV2: { colour: 'bad', dash: 'dotted', name: 'second starting side' },
  alternatorC: { colour: 'bad', dash: 'solid', name: 'alternator' },
  alternatorC2: { colour: 'bad', dash: 'dashed', name: 'second alternator' },
  cellC: { colour: 'measure', dash: 'solid', name: 'cells' },
  placeC: { colour: 'soft', dash: 'dotted', name: 'battery place' },
  sunThere: { colour: 'changed', dash: 'solid', name: 'sun' },
  engineThere: { colour: 'bad', dash: 'solid', name: 'engine' },
  mainsThere: { colour: 'sea', dash: 'solid', name: 'mains' },
  allowed: { colour: 'suits', dash: 'solid', name: 'allowed' },
}
/** The short name of a line by the label of its channel. */
export const shortNames: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(looks).map(([id, { name }]) => [channels[id as ChannelId].label, name]),
)
/** Colour and dash of the systems that are compared, in order. */
export const systemLooks: readonly Omit<Look, 'name'>[] = [
  { colour: 'bad', dash: 'solid' },
  { colour: 'sea', dash: 'dashed' },
  { colour: 'changed', dash: 'dotted' },
  { colour: 'measure', dash: 'solid' },
  { colour: 'suits', dash: 'dashed' },
]
