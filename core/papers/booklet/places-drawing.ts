import type { WiredJob } from '#core/assessment/wired'
import { path, shape, text, type Shape } from '#core/drawing/shape'
import { fittingPlaces } from '#core/job/parts/network'
import type { Write } from '#core/units/format'
import type { Post } from '#core/wiring/network'
import { numberedPosts, type NumberedPost } from '#core/wiring/numbered'
import { ratingWords } from '#core/wiring/words'

const ink = '#1C2A30'
const soft = '#525B5F'
const box = { width: 118, height: 62 } as const
const gap = 22
const margin = 8
const rowHeight = 26
/** Letters of a name that fit a box, and of one next to a branch. */
const boxLetters = 17
const branchLetters = 52

const cut = (words: string, letters: number): string =>
  words.length > letters ? `${words.slice(0, letters - 1).trimEnd()}…` : words
const whereOf = ({ place }: Post): string => (place ? fittingPlaces[place] : '')

/** The main path from the battery to the first bar, and the fuses at that bar. */
function mainPath({ network }: WiredJob): {
  readonly main: readonly Post[]
  readonly branches: readonly NumberedPost[]
} {
  const runs = network.runs.filter(({ state }) => state !== 'goes')
  const byId = new Map(network.posts.map((post) => [post.id, post]))
  const isThere = (post: Post | undefined): post is Post =>
    post !== undefined && post.state !== 'goes' && post.pole === 'positive'
  const neighbours = (id: string, isMain: boolean): Post[] =>
    runs
      .filter(({ role }) => !isMain || role === 'main')
      .flatMap(({ from, to }) => (from === id ? [to] : to === id ? [from] : []))
      .map((other) => byId.get(other))
      .filter(isThere)
  const first = network.posts.filter(
    (post) => isThere(post) && post.kind === 'battery' && post.of === 'candidate',
  )
  const main: Post[] = []
  const waiting = [...first]
  const seen = new Set<string>()
  for (let post = waiting.shift(); post; post = waiting.shift()) {
    if (seen.has(post.id)) continue
    seen.add(post.id)
    main.push(post)
    if (post.kind !== 'bar') waiting.push(...neighbours(post.id, true))
  }
  const bars = main.filter(({ kind }) => kind === 'bar')
  const atBars = new Set(bars.flatMap(({ id }) => neighbours(id, false)).map(({ id }) => id))
  const branches = numberedPosts(network, ['fuse']).filter(({ id }) => atBars.has(id) && !seen.has(id))
  const shown = main.filter(({ kind, fitting }) => kind === 'bar' || fitting?.number)
  return { main: [...first.slice(0, 1), ...shown], branches }
}

/** A part in a box: its number and rating, its name, its place. */
function boxOf(post: Post, x: number, y: number, q: Write): Shape[] {
  const { fitting, kind } = post
  const isBattery = kind === 'battery'
  const head = isBattery
    ? 'Battery +'
    : [fitting?.number, fitting && kind !== 'bar' && ratingWords(fitting, q)].filter(Boolean).join('  ')
  const name = isBattery ? post.name.replace(/, positive$/, '') : post.name
  const lines = [head, cut(name, boxLetters), whereOf(post)].filter(Boolean)
  return [
    shape('rect', {
      x,
      y,
      width: box.width,
      height: box.height,
      rx: kind === 'switch' ? 14 : 3,
      fill: '#fff',
      stroke: ink,
      'stroke-width': kind === 'fuse' || kind === 'switch' ? 2 : 1,
    }),
    ...lines.map((words, i) => text(x + 8, y + 18 + i * 17, words, i === 0 ? ink : soft, i === 0)),
  ]
}

/** Boxes in a row of the drawing. */
const mostInRow = 4

interface Place {
  readonly x: number
  readonly y: number
}

/** From one box to the next, in its row or down to the row below. */
const lineBetween = (a: Place, b: Place): Shape => {
  const middle = a.x + box.width / 2
  const bottom = a.y + box.height
  return a.y === b.y
    ? path(`M${a.x + box.width} ${a.y + box.height / 2}H${b.x}`, ink, 2.5)
    : path(`M${middle} ${bottom}V${bottom + gap / 2}H${b.x + box.width / 2}V${b.y}`, ink, 2.5)
}

/** A fuse at the bar, and the conductor that it protects. */
function branchOf(post: ReturnType<typeof mainPath>['branches'][number], { x, y }: Place, q: Write): Shape[] {
  const words = [post.name, whereOf(post)].filter(Boolean).join(' · ')
  return [
    path(`M${x} ${y}H${x + 22}`, ink, 1.5),
    text(x + 28, y + 5, `${post.fitting.number}  ${ratingWords(post.fitting, q)}`, ink, true),
    text(x + 120, y + 5, cut(words, branchLetters), soft),
  ]
}

/** Battery, main fuse, switch and bar as boxes, and under them the fuses at the bar: only the positive side. */
export function placesDrawing(wired: WiredJob, q: Write): Shape {
  const { main, branches } = mainPath(wired)
  const rows = Math.ceil(main.length / mostInRow)
  const place = (i: number): Place => ({
    x: margin + (i % mostInRow) * (box.width + gap),
    y: margin + Math.floor(i / mostInRow) * (box.height + gap),
  })
  const width = mostInRow * (box.width + gap) - gap + 2 * margin
  const lines = main.slice(1).map((_, i) => lineBetween(place(i), place(i + 1)))
  const trunkX = margin + 20
  const below = margin + rows * (box.height + gap)
  const last = place(main.length - 1)
  const trunk =
    branches.length === 0
      ? []
      : [
          path(
            `M${last.x + box.width / 2} ${last.y + box.height}V${below - gap / 2}H${trunkX}V${below + (branches.length - 1) * rowHeight + 14}`,
            ink,
            1.5,
          ),
        ]
  const twigs = branches.flatMap((post, i) => branchOf(post, { x: trunkX, y: below + i * rowHeight + 14 }, q))
  const height = below + branches.length * rowHeight + margin
  return shape(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `0 0 ${width} ${height}`,
      width,
      height,
      'font-size': 13,
      'font-family': 'text-latin',
    },
    ...lines,
    ...trunk,
    ...main.flatMap((post, i) => boxOf(post, place(i).x, place(i).y, q)),
    ...twigs,
  )
}
