import type { Locator, Page } from '@playwright/test'
import { fieldAt, knownAt, partName, partsOf, type AnyPart, type JobDocument } from '#core/job/document'
import {
  partKinds,
  stationIds,
  usualHow,
  type ChoiceField,
  type Field,
  type How,
  type Known,
  type PartKind,
  type PartKindId,
  type Row,
  type RowsField,
} from '#core/job/fields'

/** A person's work for typing a survey. */
export interface Effort {
  keys: number
  tabs: number
  taps: number
  /** How often “how known” was chosen. */
  sources: number
  scrolledPx: number
}

/** The focused element, as a person sees it. */
interface InHand {
  readonly field: string | null
  readonly label: string
  readonly isButton: boolean
}

const heads: Readonly<Record<string, (job: JobDocument['job']) => unknown>> = {
  'Job number': () => null,
  'Vehicle or vessel': (job) => job.name,
  Customer: (job) => job.customer,
  Contact: (job) => job.contact,
  'Registration or hull number': (job) => job.registration,
  'Where it is': (job) => job.location,
}

const letters: Readonly<Record<How, string>> = {
  measured: 'm',
  maker: 'd',
  label: 'l',
  customer: 'c',
  assumed: 'a',
}

/** The fewest letters by which a list tells an option from the others. */
function shortest(field: ChoiceField, option: string): string {
  const words = Object.values(field.options).map((word) => word.toLowerCase())
  const own = field.options[option]!
  for (let length = 1; length < own.length; length++) {
    const start = own.slice(0, length)
    if (words.filter((word) => word.startsWith(start.toLowerCase())).length === 1) return start
  }
  return own
}

/** The cells of a table of readings as they stand on paper, row by row. */
const cellsOnPaper = ({ columns }: RowsField, value: unknown): string[] =>
  (value as readonly Row[]).flatMap((row) => columns.map(({ name }) => String(row[name])))

/** Counts scrolling. Scrolling by the page itself when a station opens is not a person's work. */
export async function countScrolling(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    const at = new WeakMap<EventTarget, number>()
    const seen = window as unknown as { scrolledPx: number; opening: boolean }
    seen.scrolledPx = 0
    seen.opening = false
    document.addEventListener(
      'scroll',
      ({ target }) => {
        const top = target === document ? window.scrollY : (target as HTMLElement).scrollTop
        if (!seen.opening) seen.scrolledPx += Math.abs(top - (at.get(target!) ?? 0))
        at.set(target!, top)
      },
      { capture: true, passive: true },
    )
  })
  return () => page.evaluate(() => (window as unknown as { scrolledPx: number }).scrolledPx)
}

/** Tells the watch that a station opens, and when it has. */
const opening = (page: Page, is: boolean): Promise<void> =>
  page.evaluate(
    (now) =>
      new Promise((resolve) => {
        const tell = (): void => {
          Object.assign(window, { opening: now })
          resolve()
        }
        if (now) tell()
        else requestAnimationFrame(() => requestAnimationFrame(tell))
      }),
    is,
  )

/** The parts of a paper by station, each with its values. */
const partsOnPaper = (paper: JobDocument, kind: PartKindId): readonly AnyPart[] =>
  partsOf(paper, kind).map(({ part }) => part)

/** The remaining work for a value, if the job already has another or the same. */
type Todo = 'nothing' | 'confirm' | 'say how' | 'enter'
function todo(field: Field, known: Known<unknown>, there: Known<unknown> | undefined): Todo {
  if (there?.value == null || JSON.stringify(there.value) !== JSON.stringify(known.value)) return 'enter'
  if (there.how === known.how) return 'nothing'
  return known.how === usualHow(field) ? 'confirm' : 'say how'
}

/**
 * Whether one press confirms a station's initial values: several are as assumed, and none of the others stays
 * assumed, because the paper does not mention it.
 */
function restHolds(paper: JobDocument, start: JobDocument, kind: PartKindId): boolean {
  const fields: Readonly<Record<string, Field>> = partKinds[kind].fields
  const written = partsOnPaper(paper, kind)
  const each = partsOf(start, kind).flatMap(({ part }, i) =>
    Object.entries(fields).flatMap(([name, field]) => {
      const there = part[name] as Known<unknown> | undefined
      if (there?.value == null || there.how !== 'assumed') return []
      const known = written[i]?.[name] as Known<unknown> | undefined
      return [known?.value == null ? 'silent' : todo(field, known, there)]
    }),
  )
  return each.filter((one) => one === 'confirm').length > 1 && !each.includes('silent')
}

/** Paths of the values of a station that have to be entered, or whose source has to be said; names count as well. */
function workOn(paper: JobDocument, start: JobDocument, kind: PartKindId): Set<string> {
  const fields: Readonly<Record<string, Field>> = partKinds[kind].fields
  const there = partsOf(start, kind)
  return new Set(
    partsOf(paper, kind).flatMap(({ part, path }, i) => {
      const own = there[i]
      const unnamed = part.name && !own?.part.name ? [`${path}/name`] : []
      const values = Object.entries(fields).flatMap(([name, field]) => {
        const known = part[name] as Known<unknown> | undefined
        if (known?.value == null) return []
        const what = todo(field, known, own?.part[name] as Known<unknown> | undefined)
        return what === 'enter' || what === 'say how' ? [`${own?.path ?? path}/${name}`] : []
      })
      return [...unnamed, ...values]
    }),
  )
}

/** Someone who types a survey from paper, and the work it takes. */
abstract class Surveyor {
  readonly effort: Effort = { keys: 0, tabs: 0, taps: 0, sources: 0, scrolledPx: 0 }

  /** @param start the job as it is before the first key or tap */
  constructor(
    protected readonly page: Page,
    protected readonly paper: JobDocument,
    protected readonly start: JobDocument,
  ) {}

  abstract survey(): Promise<Effort>
}

/** Someone who types with the keys alone. */
export class Typist extends Surveyor {
  private async press(key: string): Promise<void> {
    if (key === 'Tab') this.effort.tabs++
    else this.effort.keys++
    await this.page.keyboard.press(key)
  }
  private async type(text: string): Promise<void> {
    this.effort.keys += text.length
    await this.page.keyboard.type(text)
  }

  private inHand(): Promise<InHand> {
    return this.page.evaluate(() => {
      const at = document.activeElement as HTMLElement
      return {
        field: at.closest<HTMLElement>('[data-field]')?.dataset.field ?? null,
        label:
          at.ariaLabel ??
          (at as HTMLInputElement).labels?.[0]?.querySelector('span')?.textContent ??
          at.textContent?.trim() ??
          '',
        isButton: at.tagName === 'BUTTON' && at.getAttribute('role') !== 'radio',
      }
    })
  }

  private isInButtons(): Promise<boolean> {
    return this.page.evaluate(() => document.activeElement?.getAttribute('role') === 'radio')
  }

  async survey(): Promise<Effort> {
    const scrolled = await countScrolling(this.page)
    await this.press('w')
    await this.head()
    for (const kind of stationIds) {
      await this.press('PageDown')
      await this.station(kind)
    }
    this.effort.scrolledPx = await scrolled()
    return this.effort
  }

  /** Fills in the job's own data, entry by entry. */
  private async head(): Promise<void> {
    for (const from of Object.values(heads)) {
      const text = from(this.paper.job)
      if (typeof text === 'string' && text !== '') await this.type(text)
      await this.press('Enter')
    }
  }

  private async station(kind: PartKindId): Promise<void> {
    const parts = partsOnPaper(this.paper, kind)
    const { many } = partKinds[kind] as PartKind
    let last = ''
    let part = -1
    let left = many ? new Set<string>() : fieldsOn(parts[0]!)
    if (!many) part = 0
    const work = workOn(this.paper, this.start, kind)
    const holds = restHolds(this.paper, this.start, kind)
    for (let i = 0; i < 400; i++) {
      // The rest is as assumed: one key says so.
      const { field, label, isButton } = await this.inHand()
      if (holds && work.size === 0 && field !== null) return void (await this.press('#'))
      if (field !== null) {
        const { partPath, field: asked } = fieldAt(field)!
        if (many && partPath !== last && last !== '') part++
        last = partPath
        const name = field.slice(field.lastIndexOf('/') + 1)
        left.delete(name)
        const known = parts[part]![name] as Known<unknown> | undefined
        const isWork = work.delete(field)
        if (await this.fill(asked, known, knownAt(this.start, field), holds)) continue
        if (isWork && holds && work.size === 0) continue
      } else if (isButton && /^(Seldom needed|More of)/.test(label)) {
        const more = left.size > 0
        await this.press(more ? 'Enter' : part + 1 < parts.length ? 'Tab' : 'PageUp')
        if (!more && part + 1 >= parts.length) return void (await this.press('PageDown'))
        continue
      } else if (isButton) {
        if (label.startsWith('Next')) return
        if (part + 1 >= parts.length) return
        await this.press('Enter')
        continue
      } else if (label === 'Name') {
        if (many) left = fieldsOn(parts[++part]!)
        last = ''
        const named = partsOf(this.start, kind)[part]?.part.name
        if (parts[part]!.name && !named) await this.type(String(parts[part]!.name))
        work.delete(`${kind}/${partsOf(this.paper, kind)[part]?.id ?? ''}/name`)
        await this.press('Enter')
        continue
      } else await this.fillOther(kind, label, parts[part])
      if (left.size === 0 && part + 1 >= parts.length && field !== null) return
      await this.press('Enter')
    }
    throw new Error(`The station ${kind} has no end`)
  }

  /** Fills a value in. @returns whether that went on to the next by itself */
  private async fill(
    field: Field,
    known: Known<unknown> | undefined,
    there: Known<unknown> | undefined,
    holds: boolean,
  ): Promise<boolean> {
    if (known?.value == null) return false
    const what = todo(field, known, there)
    if (what === 'nothing' || (what === 'confirm' && holds)) return false
    if (what === 'confirm') {
      await this.press('=')
      return true
    }
    if (what === 'enter') await this.enter(field, known)
    if (field.type === 'rows') await this.press('Tab')
    if (known.how === undefined || (what === 'enter' && known.how === usualHow(field))) return false
    await this.press('Tab')
    await this.press(letters[known.how])
    this.effort.sources++
    return false
  }

  private async enter(field: Field, known: Known<unknown>): Promise<void> {
    const value = String(known.value)
    if (field.type === 'rows')
      for (const [i, cell] of cellsOnPaper(field, known.value).entries()) {
        if (i > 0) await this.press('Enter')
        await this.type(cell)
      }
    else if (field.type === 'choice')
      await ((await this.isInButtons())
        ? this.press(String(Object.keys(field.options).indexOf(value) + 1))
        : this.type(shortest(field, value)))
    else await this.type(value)
  }

  /** An entry that is no field: the owner of a part. */
  private async fillOther(kind: PartKindId, label: string, part: AnyPart | undefined): Promise<void> {
    const refers = (partKinds[kind] as PartKind).refers
    if (refers?.label === label && part?.[refers.field])
      await this.type(partName(this.paper, String(part[refers.field])))
  }
}

const fieldsOn = (part: AnyPart): Set<string> =>
  new Set(
    Object.entries(part).flatMap(([name, known]) =>
      known !== null && typeof known === 'object' && (known as Known<unknown>).value != null ? [name] : [],
    ),
  )

/** Someone who types on a phone: taps, the keypad, and its key for the next field. */
export class Thumb extends Surveyor {
  private async tap(at: Locator): Promise<void> {
    this.effort.taps++
    await at.tap()
  }
  /** Types into an entry: by the key for the next field where that leads there, else by a tap on it. */
  private async type(at: Locator, text: string): Promise<void> {
    if (!(await this.isInHand(at)) && !(await this.goOnTo(at))) await this.tap(at)
    this.effort.keys += text.length + 1
    await this.page.keyboard.type(text)
    await this.page.keyboard.press('Enter')
  }
  private isInHand(at: Locator): Promise<boolean> {
    return at.evaluate((element) => element === document.activeElement)
  }
  /** From the entry in hand over one that stays empty: nearer than a tap. */
  private async goOnTo(at: Locator): Promise<boolean> {
    const isNext = await at.evaluate((element) => {
      const steps = [...document.querySelectorAll<HTMLElement>('[data-sheet] [data-step]')].filter((step) =>
        step.checkVisibility(),
      )
      const inHand = document.activeElement as HTMLElement
      if (!(inHand instanceof HTMLInputElement) || !steps.includes(inHand)) return false
      // The key goes from text to text within a part.
      const own = steps.filter(
        (step) =>
          step instanceof HTMLInputElement && step.closest('[data-part]') === inHand.closest('[data-part]'),
      )
      return own[own.indexOf(inHand) + 1] === element
    })
    if (!isNext) return false
    this.effort.keys++
    await this.page.keyboard.press('Enter')
    return this.isInHand(at)
  }

  async survey(): Promise<Effort> {
    const { page } = this
    const scrolled = await countScrolling(page)
    await page.getByRole('button', { name: 'Walk-round' }).tap()
    await this.tap(page.locator('[data-station="job"] h3 button'))
    await this.head()
    for (const kind of stationIds) {
      await opening(page, true)
      await this.tap(page.getByTestId('next-station'))
      await opening(page, false)
      const holds = restHolds(this.paper, this.start, kind)
      for (const [i, part] of partsOnPaper(this.paper, kind).entries()) await this.part(kind, i, part, holds)
      if (holds) await this.tap(page.getByTestId('confirm-rest'))
    }
    this.effort.scrolledPx = await scrolled()
    return this.effort
  }

  private async head(): Promise<void> {
    for (const [label, from] of Object.entries(heads)) {
      const text = from(this.paper.job)
      if (typeof text !== 'string' || text === '') continue
      const at = this.page.getByLabel(label, { exact: true })
      await at.fill('')
      await this.type(at, text)
    }
  }

  private async part(kind: PartKindId, i: number, part: AnyPart, holds: boolean): Promise<void> {
    const { page } = this
    const { many, one, fields } = partKinds[kind] as PartKind
    const sections = page.locator(`[data-part^="${kind}"]`)
    if (many && (await sections.count()) <= i)
      await this.tap(page.getByRole('button', { name: `Add ${one.toLowerCase()}` }))
    const section = sections.nth(i)
    const path = (await section.getAttribute('data-part'))!
    if (part.name && !partsOf(this.start, kind)[i]?.part.name)
      await this.type(section.getByLabel('Name', { exact: true }), String(part.name))
    await this.refer(kind, section, part)
    const shown = Object.entries(fields).toSorted(
      ([, a], [, b]) => Number(a.detail ?? false) - Number(b.detail ?? false),
    )
    for (const [name, field] of shown) {
      const known = part[name] as Known<unknown> | undefined
      if (known?.value != null) await this.value(`${path}/${name}`, field, known, holds)
    }
  }

  /** The owner of the part. Parts that come later in the walk-round are joined automatically. */
  private async refer(kind: PartKindId, section: Locator, part: AnyPart): Promise<void> {
    const { refers } = partKinds[kind] as PartKind
    const target = refers && part[refers.field] ? partName(this.paper, String(part[refers.field])) : null
    const list = section.getByLabel(refers?.label ?? '', { exact: true })
    if (!target || (await list.locator('option', { hasText: target }).count()) === 0) return
    if ((await list.locator('option:checked').textContent())?.trim() === target) return
    this.effort.taps += 2
    await list.selectOption({ label: target })
  }

  private async value(path: string, field: Field, known: Known<unknown>, holds: boolean): Promise<void> {
    const what = todo(field, known, knownAt(this.start, path))
    if (what === 'nothing' || (what === 'confirm' && holds)) return
    const at = this.page.locator(`[data-field="${path}"]`)
    if (!(await at.isVisible()))
      await this.tap(
        this.page
          .locator(`[data-part="${path.slice(0, path.lastIndexOf('/'))}"]`)
          .getByRole('button', { name: /^(Seldom needed|More of)/ }),
      )
    const row = this.page.locator(`div:has(> div > [data-field="${path}"])`)
    if (what === 'confirm') return this.tap(row.getByRole('button', { name: / holds: / }))
    if (what === 'enter') await this.enter(at, field, known)
    if (known.how === undefined || (what === 'enter' && known.how === usualHow(field))) return
    this.effort.sources++
    this.effort.taps += 2
    await row.getByLabel(/^How .* is known$/).selectOption(known.how)
  }

  private async enter(at: Locator, field: Field, known: Known<unknown>): Promise<void> {
    if (field.type === 'rows') {
      for (const [i, cell] of cellsOnPaper(field, known.value).entries())
        await this.type(at.locator('input').nth(i), cell)
      return
    }
    if (field.type === 'quantity') return this.type(at, String(known.value))
    if ((await at.getAttribute('role')) === 'radiogroup')
      return this.tap(at.locator(`[data-option="${String(known.value)}"]`))
    this.effort.taps += 2
    await at.selectOption(String(known.value))
  }
}
