import { useEventListener } from '@vueuse/core'

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Keys that lead to the views of the shop, from every view. */
export const shopKeys: Readonly<Record<string, () => void>> = {
  'g t': () => void navigateTo('/today'),
  'g j': () => void navigateTo('/'),
  'g k': () => void navigateTo('/craft'),
  'g h': () => void navigateTo('/shelf'),
  'g r': () => void navigateTo('/rules'),
}

/**
 * Single keys, and two in a row for `g` and a letter. None acts while typing, in a dialog, or when
 * the person switched them off; undo and redo with Ctrl always do outside a field.
 */
export function useKeys(actions: Readonly<Record<string, () => void>>): void {
  const single = useSingleKeys()
  let before = ''
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (isTyping(event.target) || document.querySelector('[role="dialog"]')) return
    const control = event.ctrlKey || event.metaKey
    if (event.altKey || (!control && !single.value)) return
    const key = control ? `Ctrl+${event.shiftKey ? 'Shift+' : ''}${event.key.toUpperCase()}` : event.key
    const pair = before === 'g' && !control ? `g ${key}` : key
    before = control ? '' : key
    const action = actions[pair] ?? actions[key]
    if (!action) return
    event.preventDefault()
    before = key === 'g' ? 'g' : ''
    action()
  })
}
