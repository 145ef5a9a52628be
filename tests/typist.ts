import type { Locator, Page } from '@playwright/test'
import { fieldAt, partName, partsOf, type AnyPart, type JobDocument } from '#core/job/document'
import {
  partKinds,
  stationIds,
  type ChoiceField,
  type Field,
  type How,
  type Known,
  type PartKind,
  type PartKindId,
} from '#core/job/fields'
import { formatRows } from '#core/job/rows'
import { asButtons } from '../app/utils/survey'

/** What typing a survey costs a person. */
export interface Effort {
  keys: number
  tabs: number
  taps: number
  /** How often “how known” was chosen. */
  sources: number
  scrolledPx: number
}

/** What has the focus, as somebody sees it. */
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

/** A value as it stands on paper: the number in the unit of the survey. */
function onPaper(field: Field, value: unknown): string {
  if (field.type === 'choice') return field.options[value as string]!
  return field.type === 'rows' ? formatRows(value as never, field) : String(value)
}

/** Watches how far anything is scrolled. What the page itself moves when a station opens is no work of a hand. */
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

/** The parts of a paper by station, each with what is entered in it. */
const partsOnPaper = (paper: JobDocument, kind: PartKindId): readonly AnyPart[] =>
  partsOf(paper, kind).map(({ part }) => part)

/** Somebody who types a survey from paper with the keys alone. */
export class Typist {
  readonly effort: Effort = { keys: 0, tabs: 0, taps: 0, sources: 0, scrolledPx: 0 }
  private source: How | null = null

  constructor(
    private readonly page: Page,
    private readonly paper: JobDocument,
  ) {}

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
      const step = at.closest<HTMLElement>('[data-step]')
      return {
        field: step?.dataset.field ?? null,
        label:
          (at as HTMLInputElement).labels?.[0]?.querySelector('span')?.textContent ??
          at.textContent?.trim() ??
          '',
        isButton: at.tagName === 'BUTTON' && at.getAttribute('role') !== 'radio',
      }
    })
  }

  async survey(): Promise<Effort> {
    const scrolled = await countScrolling(this.page)
    await this.press('w')
    for (const kind of stationIds) {
      if (kind !== stationIds[0]) await this.press('PageDown')
      await this.station(kind)
    }
    this.effort.scrolledPx = await scrolled()
    return this.effort
  }

  private async station(kind: PartKindId): Promise<void> {
    const parts = partsOnPaper(this.paper, kind)
    const { many } = partKinds[kind] as PartKind
    let last = ''
    let part = -1
    let left = many ? new Set<string>() : fieldsOn(parts[0]!)
    if (!many) part = 0
    for (let i = 0; i < 400; i++) {
      const { field, label, isButton } = await this.inHand()
      if (field !== null) {
        const { partPath, field: asked } = fieldAt(field)!
        if (many && partPath !== last && last !== '') part++
        last = partPath
        const name = field.slice(field.lastIndexOf('/') + 1)
        left.delete(name)
        await this.fill(asked, parts[part]![name] as Known<unknown> | undefined)
      } else if (isButton && label.startsWith('Seldom needed')) {
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
        if (parts[part]!.name) await this.type(String(parts[part]!.name))
        await this.press('Enter')
        continue
      } else await this.fillOther(kind, label, parts[part])
      if (left.size === 0 && part + 1 >= parts.length && field !== null) return
      await this.press('Enter')
    }
    throw new Error(`The station ${kind} has no end`)
  }

  private async fill(field: Field, known: Known<unknown> | undefined): Promise<void> {
    if (known?.value == null) return
    const text = field.type === 'choice' ? shortest(field, String(known.value)) : onPaper(field, known.value)
    if (asButtons(field) && field.type === 'choice')
      await this.press(String(Object.keys(field.options).indexOf(String(known.value)) + 1))
    else await this.type(text)
    if (known.how === undefined || known.how === this.source) return
    await this.press('Tab')
    await this.press(letters[known.how])
    this.effort.sources++
    if (known.how !== 'assumed') this.source = known.how
  }

  /** An entry that is no field: of the job's head, or what a part belongs to. */
  private async fillOther(kind: PartKindId, label: string, part: AnyPart | undefined): Promise<void> {
    const refers = (partKinds[kind] as PartKind).refers
    const value =
      kind === 'use'
        ? heads[label]?.(this.paper.job)
        : refers?.label === label && part?.[refers.field]
          ? partName(this.paper, String(part[refers.field]))
          : null
    if (typeof value === 'string' && value !== '') await this.type(value)
  }
}

const fieldsOn = (part: AnyPart): Set<string> =>
  new Set(
    Object.entries(part).flatMap(([name, known]) =>
      known !== null && typeof known === 'object' && (known as Known<unknown>).value != null ? [name] : [],
    ),
  )

const buttonOf: Readonly<Partial<Record<How, string>>> = {
  label: 'Label',
  maker: 'Maker’s data',
  measured: 'Meter',
  customer: 'Customer',
}

/** Somebody who types a survey from paper on a phone: taps, the keypad, and its key for the next field. */
export async function surveyByTouch(page: Page, paper: JobDocument): Promise<Effort> {
  const effort: Effort = { keys: 0, tabs: 0, taps: 0, sources: 0, scrolledPx: 0 }
  const scrolled = await countScrolling(page)
  let source: How | null = null
  const tap = async (at: Locator): Promise<void> => {
    effort.taps++
    await at.tap()
  }
  const sayHow = async (how: How | undefined, path: string): Promise<void> => {
    if (how === undefined || how === source) return
    if (how !== 'assumed') source = how
    effort.sources++
    const button = buttonOf[how]
    if (button)
      return tap(page.getByRole('group', { name: 'Copying from' }).getByRole('button', { name: button }))
    effort.taps += 2
    await page.locator(`div:has(> div > [data-field="${path}"])`).getByLabel(/^How/).selectOption(how)
  }
  const enter = async (path: string, field: Field, known: Known<unknown>): Promise<void> => {
    const at = page.locator(`[data-field="${path}"]`)
    if (!(await at.isVisible()))
      await tap(
        page.locator(`[data-part="${path.slice(0, path.lastIndexOf('/'))}"]`).getByText(/^Seldom needed/),
      )
    if (known.how !== 'assumed') await sayHow(known.how, path)
    if (field.type === 'choice' && asButtons(field))
      await tap(at.locator(`[data-option="${String(known.value)}"]`))
    else if (field.type === 'choice') {
      effort.taps += 2
      await at.selectOption(String(known.value))
    } else {
      if (!(await at.evaluate((element) => element === document.activeElement))) await tap(at)
      const text = onPaper(field, known.value)
      effort.keys += text.length + 1
      await page.keyboard.type(text)
      await page.keyboard.press('Enter')
    }
    if (known.how === 'assumed') await sayHow('assumed', path)
  }

  await page.getByRole('button', { name: 'Walk-round' }).tap()
  await tap(page.locator(`[data-station="${stationIds[0]}"] h3 button`))
  for (const kind of stationIds) {
    const { many, refers, fields } = partKinds[kind] as PartKind
    if (kind === 'use')
      for (const [label, from] of Object.entries(heads)) {
        const text = from(paper.job)
        if (typeof text !== 'string' || text === '') continue
        const at = page.getByLabel(label, { exact: true })
        if (!(await at.evaluate((element) => element === document.activeElement))) await tap(at)
        effort.keys += text.length + 1
        await page.keyboard.type(text)
        await page.keyboard.press('Enter')
      }
    const sections = page.locator(`[data-part^="${kind}"]`)
    for (const [i, part] of partsOnPaper(paper, kind).entries()) {
      if (many && (await sections.count()) <= i)
        await tap(
          page.getByRole('button', { name: `Add ${(partKinds[kind] as PartKind).one.toLowerCase()}` }),
        )
      const section = sections.nth(i)
      const path = await section.getAttribute('data-part')
      if (part.name) {
        const name = section.getByLabel('Name', { exact: true })
        if (!(await name.evaluate((element) => element === document.activeElement))) await tap(name)
        effort.keys += String(part.name).length + 1
        await page.keyboard.type(String(part.name))
        await page.keyboard.press('Enter')
      }
      // What stands later in the walk-round is joined by itself.
      const target = refers && part[refers.field] ? partName(paper, String(part[refers.field])) : null
      const list = section.getByLabel(refers?.label ?? '', { exact: true })
      const isThere = target && (await list.locator('option', { hasText: target }).count()) > 0
      if (isThere && (await list.locator('option:checked').textContent())?.trim() !== target) {
        effort.taps += 2
        await list.selectOption({ label: target })
      }
      const shown = Object.entries(fields).toSorted(
        ([, a], [, b]) => Number(a.detail ?? false) - Number(b.detail ?? false),
      )
      for (const [name, field] of shown) {
        const known = part[name] as Known<unknown> | undefined
        if (known?.value != null) await enter(`${path}/${name}`, field, known)
      }
    }
    if (kind === stationIds.at(-1)) break
    await opening(page, true)
    await tap(page.getByTestId('next-station'))
    await opening(page, false)
  }
  effort.scrolledPx = await scrolled()
  return effort
}
