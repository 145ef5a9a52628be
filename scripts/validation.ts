// npm run validation: pictures for docs/physics.md, the simulation drawn over closed forms and published
// points.
import { Lead } from '#core/simulation/model/lead'
import { Simulation } from '#core/simulation/simulation'
import { mkdir, writeFile } from 'node:fs/promises'
import * as echarts from 'echarts'
import { steadyCaseC } from '#core/physics/alternator'
import { copettiChargeV, copettiDischargeV } from '#core/physics/lead'
import { openCircuitV } from '#core/physics/lfp'
import type { Plant, SidePlant } from '#core/simulation/plant'
import { runNow } from '#core/simulation/runs'
import {
  inputs,
  lead,
  lfp,
  plain as example,
  quiet,
  relay,
  starboard,
} from '#core/simulation/simulation.cases'
import { sharingOver } from '#core/simulation/sharing'

const { bms } = lfp
const plain: Plant = {
  ...example,
  name: 'validation',
  lfp: { ...lfp, bms: { ...bms, maxDischargeA: 300 } },
  sides: [
    {
      ...starboard,
      standbyA: 0.1,
      link: relay,
    },
  ],
}
/** The same with something of its alternator’s side changed. */
const side = (more: Partial<SidePlant>): Plant => ({ ...plain, sides: [{ ...plain.sides[0]!, ...more }] })

type Points = readonly (readonly [number, number])[]
interface Line {
  readonly name: string
  readonly data: Points
  readonly points?: true
}
const colours = ['#24505e', '#a8321f', '#8a560a', '#5a4a99', '#1a6656', '#525b5f']

async function draw(
  file: string,
  title: string,
  x: string,
  y: string,
  lines: readonly Line[],
): Promise<void> {
  const chart = echarts.init(null, null, { renderer: 'svg', ssr: true, width: 760, height: 380 })
  chart.setOption({
    backgroundColor: '#fbf8f1',
    title: { text: title, left: 10, top: 6, textStyle: { fontSize: 14, color: '#1c2a30' } },
    legend: { top: 30, left: 10, itemGap: 26, textStyle: { color: '#1c2a30', fontSize: 11 } },
    color: colours,
    animation: false,
    grid: { left: 60, right: 20, top: 74, bottom: 46 },
    xAxis: {
      type: 'value',
      name: x,
      nameLocation: 'middle',
      nameGap: 28,
      min: (v: { min: number }) => (v.min < 1 ? 0 : v.min),
      max: 'dataMax',
    },
    yAxis: { type: 'value', name: y, nameLocation: 'middle', nameGap: 40, scale: true },
    series: lines.map((line) => ({
      name: line.name,
      type: line.points ? 'scatter' : 'line',
      symbolSize: line.points ? 7 : 0,
      showSymbol: line.points ?? false,
      data: line.data,
    })),
  })
  await writeFile(new URL(`${file}.svg`, folder), chart.renderToSVGString())
  chart.dispose()
}
const folder = new URL('../docs/physics/', import.meta.url)
await mkdir(folder, { recursive: true })
const range = (from: number, to: number, n: number): number[] =>
  Array.from({ length: n + 1 }, (_, i) => from + ((to - from) * i) / n)

await draw(
  'copetti',
  'Lead, 12 V, 100 Ah (10 h), 25 °C: the battery of a run over Copetti’s equations',
  'state of charge, %',
  'V',
  [5, 10, 20]
    .flatMap((amps): Line[] => [
      {
        name: `run, ${amps} A drawn`,
        data: range(0.1, 1, 60).map((s) => [s * 100, new Lead(lead, s, 25).voltsAt(-amps)] as const),
      },
      {
        name: `equation, ${amps} A drawn`,
        points: true,
        data: range(0.1, 1, 9).map(
          (s) => [s * 100, 6 * copettiDischargeV(amps, Math.min(0.995, s), 100, 25)] as const,
        ),
      },
    ])
    .concat([
      {
        name: 'run, 10 A charged',
        data: range(0.1, 0.95, 60).map((s) => [s * 100, new Lead(lead, s, 25).voltsAt(10)] as const),
      },
      {
        name: 'equation, 10 A charged',
        points: true,
        data: range(0.1, 0.95, 9).map((s) => [s * 100, 6 * copettiChargeV(10, s, 100, 25)] as const),
      },
    ]),
)

const held = new Simulation(
  {
    ...plain,
    sides: [],
    chargers: [
      {
        name: 'c',
        stages: { maxA: 500, absorptionV: 13.4, absorptionH: 99, floatV: null, restartV: 13, tailA: 0 },
        ohm: 0.005,
        efficiency: 0.9,
        powerFactor: 1,
        supplyV: 230,
      },
    ],
  },
  { soc: 0.7, tempC: 25 },
)
const tail: [number, number][] = []
for (let t = 0; t <= 6 * 3600; t += 10) {
  held.advance(10, { ...quiet, mains: true })
  if (t % 600 === 0) tail.push([t / 3600, held.lfp!.amps])
}
const tauH = (0.011 * 20) / (openCircuitV(0.8, 12) - openCircuitV(0.7, 12))
await draw('tail', 'A held 13.4 V into a straight piece of the lithium curve: exponential', 'hours', 'A', [
  { name: 'run', data: tail },
  {
    name: `${tail[0]![1].toFixed(2)} A · e^(−t/τ), τ = R·Ah/ΔV = ${tauH.toFixed(1)} h`,
    points: true,
    data: range(0, 6, 12).map((h) => [h, tail[0]![1] * Math.exp(-h / tauH)] as const),
  },
])

const drive = runNow(
  'driving-day',
  side({ alternator: { ...plain.sides[0]!.alternator!, limitA: 80 } }),
  inputs,
)
const caseC = drive.series.t
  .map((t, i) => [t / 60, drive.series.values.alternatorC![i]!] as const)
  .filter(([t]) => t <= 90)
const steady = steadyCaseC(80, 200, 5000, 60, plain.sides[0]!.alternator!.heat!)
await draw(
  'case',
  'Alternator held to 80 A: case temperature against the first-order step',
  'minutes',
  '°C',
  [
    { name: 'run', data: caseC },
    {
      name: `${steady.toFixed(1)} °C − (… ) e^(−t/15 min)`,
      points: true,
      data: range(0, 90, 18).map((m) => [m, steady + (20 - steady) * Math.exp(-m / 15)] as const),
    },
  ],
)

const of = (title: string, plant: Plant): Line[] => {
  const run = runNow('driving-day', plant, inputs)
  return [
    {
      name: title,
      data: run.series.t
        .map((t, i) => [t / 60, run.series.values.alternatorC![i]!] as const)
        .filter(([t]) => t <= 180),
    },
  ]
}
const stages = { maxA: 30, absorptionV: 14.4, absorptionH: 2, floatV: null, restartV: 13.1, tailA: 10 }
await draw(
  'links',
  '200 A alternator, 200 Ah of lithium at 20 %: straight, DC-DC, duty-cycling relay (limit 100 °C)',
  'minutes',
  'case, °C',
  [
    ...of('straight relay', plain),
    ...of(
      '30 A DC-DC',
      side({
        link: {
          kind: 'dcdc',
          ohm: 0.005,
          stages,
          efficiency: 0.9,
          lowestV: 11.5,
          wire: true,
          backFeed: false,
        },
      }),
    ),
    ...of(
      'duty-cycling relay, 80 A',
      side({ link: { kind: 'duty', ohm: 0.005, opensAboveA: 80, sensesS: 10, offS: 60 } }),
    ),
  ],
)

await draw(
  'sharing',
  'Lead and lithium on one bus: who carries 20 A, and what charging at 40 A does',
  'charge of the lithium, %',
  'A into the battery',
  (
    [
      ['drawing 20 A', -20],
      ['at rest', 0],
      ['charging 40 A', 40],
    ] as const
  ).flatMap(([what, amps]): Line[] => {
    const points = sharingOver(plain.lfp!, lead, amps)
    return [
      { name: `lithium, ${what}`, data: points.map((p) => [p.soc * 100, p.lfpA] as const) },
      { name: `lead, ${what}`, data: points.map((p) => [p.soc * 100, p.leadA] as const) },
    ]
  }),
)
