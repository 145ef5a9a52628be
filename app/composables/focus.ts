import { useActiveElement } from '@vueuse/core'

/** Whether the keys go to an element that a selector matches. */
export function useFocusOn(selector: string) {
  const active = useActiveElement()
  return computed(() => active.value?.matches(selector) ?? false)
}

/** Elements that take typing. */
export const entries = 'input, textarea, select'
