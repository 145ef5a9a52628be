// Going from one entry of the survey to the next by the keyboard. Entries carry `data-step`.

const isThere = (element: HTMLElement): boolean => element.checkVisibility()

/** The focusable element of an entry: itself, or the button of a row that Tab reaches. */
const focusable = (step: HTMLElement): HTMLElement =>
  step.getAttribute('role') === 'radiogroup'
    ? (step.querySelector<HTMLElement>('[tabindex="0"]') ?? step)
    : step.matches('input, select, textarea, button')
      ? step
      : (step.querySelector('input') ?? step)

export function focusStep(step: HTMLElement): void {
  const target = focusable(step)
  target.focus({ preventScroll: true })
  target.scrollIntoView({ block: 'nearest' })
  if (target instanceof HTMLInputElement && target.type === 'text') target.select()
}

/** Goes to the first entry within, if there is one. */
export function firstStep(within: ParentNode): void {
  const first = [...within.querySelectorAll<HTMLElement>('[data-step]')].find(isThere)
  if (first) focusStep(first)
}

/** The entry after an element; undefined after the last. */
export const stepAfter = (within: ParentNode, from: HTMLElement): HTMLElement | undefined =>
  [...within.querySelectorAll<HTMLElement>('[data-step]')].find(
    (step) =>
      isThere(step) &&
      !step.contains(from) &&
      from.compareDocumentPosition(step) & Node.DOCUMENT_POSITION_FOLLOWING,
  )

/** Goes to the entry after an element, if there is one. */
export function nextStep(within: ParentNode, from: HTMLElement): void {
  const next = stepAfter(within, from)
  if (next) focusStep(next)
}

/** Whether Enter is pressed in an entry of one line. */
export function isEntered({ target, isComposing }: KeyboardEvent): boolean {
  const at = target as HTMLElement
  const isButton = at.tagName === 'BUTTON' && at.role !== 'radio'
  return at.tagName !== 'TEXTAREA' && !isButton && !isComposing
}

/** The next text entry of the same part: a keypad is useful for it. */
function textAfter(within: ParentNode, from: HTMLElement): HTMLElement | undefined {
  const part = from.closest('[data-part]')
  let next = stepAfter(within, from)
  while (next && next.closest('[data-part]') === part && !(next instanceof HTMLInputElement))
    next = stepAfter(within, next)
  return next?.closest('[data-part]') === part ? next : undefined
}

/**
 * Enter moves to the next entry within the element. On a phone it goes from text to text: choices between them are
 * tapped, and the keypad stays up.
 * @param isTouched whether fingers are used
 */
export function enterStep(within: ParentNode, event: KeyboardEvent, isTouched: boolean): void {
  if (!isEntered(event)) return
  event.preventDefault()
  const from = event.target as HTMLElement
  const text = isTouched && from instanceof HTMLInputElement ? textAfter(within, from) : undefined
  if (text) focusStep(text)
  else nextStep(within, from)
}
