// npm run weather: the made-up weather of Port Larkspur and of the mountain station, as EPW files. The same
// every time.
import { mkdir, writeFile } from 'node:fs/promises'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { clearSky, sunAt } from '#core/weather/sun'

interface Place {
  readonly file: string
  readonly name: string
  readonly latitude: number
  readonly longitude: number
  readonly heightM: number
  readonly meanC: number
  readonly yearC: number
  readonly dayC: number
  readonly coldSnaps: number
  readonly cloud: number
  readonly seed: number
}
const places: readonly Place[] = [
  {
    file: 'port-larkspur',
    name: 'Port Larkspur',
    latitude: 50.4,
    longitude: -4.1,
    heightM: 6,
    meanC: 11.2,
    yearC: 5.6,
    dayC: 2.6,
    coldSnaps: 3,
    cloud: 0.58,
    seed: 17,
  },
  {
    file: 'hollin-fell',
    name: 'Hollin Fell Mountain Station',
    latitude: 54.6,
    longitude: -3.2,
    heightM: 780,
    meanC: 4.1,
    yearC: 7.4,
    dayC: 3.1,
    coldSnaps: 9,
    cloud: 0.66,
    seed: 23,
  },
]
const hourMs = 3_600_000
const days = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]

function yearOf({
  name,
  latitude,
  longitude,
  heightM,
  meanC,
  yearC,
  dayC,
  coldSnaps,
  cloud,
  seed,
}: Place): string {
  const generator = xoroshiro128plus(seed)
  const uniform = (): number => uniformFloat64(generator)
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
  const snaps = Array.from({ length: coldSnaps }, () => ({
    day: (330 + uniform() * 120) % 365,
    deep: 5 + uniform() * 6,
    long: 2 + uniform() * 4,
  }))
  const lines = [
    `LOCATION,${name},-,-,made up,000000,${latitude},${longitude},0.0,${heightM.toFixed(1)}`,
    'DESIGN CONDITIONS,0',
    'TYPICAL/EXTREME PERIODS,0',
    'GROUND TEMPERATURES,0',
    'HOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0',
    'COMMENTS 1,Invented for demonstration; the place and the year do not exist',
    'COMMENTS 2,npm run weather',
    'DATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31',
  ]
  const start = Date.UTC(2025, 0, 1)
  let [warmth, clouds] = [0, cloud]
  let hourOfYear = 0
  days.forEach((length, month) => {
    for (let day = 1; day <= length; day++) {
      warmth = 0.8 * warmth + 1.6 * normal()
      clouds = Math.min(1, Math.max(0, 0.55 * clouds + 0.45 * cloud + 0.22 * normal()))
      for (let hour = 0; hour < 24; hour++, hourOfYear++) {
        const date = hourOfYear / 24
        const snap = snaps.reduce((sum, s) => {
          const off = Math.min(Math.abs(date - s.day), 365 - Math.abs(date - s.day))
          return sum - (off < s.long ? s.deep * (1 - off / s.long) : 0)
        }, 0)
        const airC =
          meanC -
          yearC * Math.cos(((date - 20) * 2 * Math.PI) / 365) -
          dayC * (1.1 - clouds) * Math.cos(((hour - 3) * Math.PI) / 12) +
          warmth +
          snap
        const { altitude } = sunAt(start + (hourOfYear + 0.5) * hourMs, latitude, longitude)
        const sky = clearSky(altitude)
        const through = Math.max(0, 1 - clouds * (0.85 + 0.3 * uniform()))
        const beam = sky.beam * through
        const diffuse = sky.diffuse * (1 + 1.8 * clouds) * (clouds > 0.9 ? 0.8 : 1)
        const global = beam * Math.max(0, Math.sin(altitude)) + diffuse
        const n = Math.round
        lines.push(
          [
            2025,
            month + 1,
            day,
            hour + 1,
            60,
            'C9',
            airC.toFixed(1),
            (airC - 3).toFixed(1),
            80,
            101000,
            n(sky.beam),
            n(sky.beam),
            300,
            n(global),
            n(beam),
            n(diffuse),
            0,
            0,
            0,
            0,
            220,
            (3 + 2 * uniform()).toFixed(1),
            n(clouds * 10),
            n(clouds * 10),
            9999,
            99999,
            9,
            999999999,
            20,
            0.1,
            0,
            88,
            0.2,
            0,
            1,
          ].join(','),
        )
      }
    }
  })
  return `${lines.join('\r\n')}\r\n`
}

const folder = new URL('../public/weather/', import.meta.url)
await mkdir(folder, { recursive: true })
for (const place of places) await writeFile(new URL(`${place.file}.epw`, folder), yearOf(place))
