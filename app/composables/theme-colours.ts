import { useMutationObserver } from '@vueuse/core'

const names = ['ink', 'soft', 'line', 'sea', 'rope', 'card', 'suits', 'changed', 'bad', 'measure'] as const
export type ThemeColours = Readonly<Record<(typeof names)[number], string>>

/** The colours of the theme for charts and drawings; new ones when the theme changes. */
export function useThemeColours() {
  const read = (): ThemeColours => {
    const style = getComputedStyle(document.documentElement)
    return Object.fromEntries(
      names.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
    ) as ThemeColours
  }
  const colours = shallowRef(read())
  useMutationObserver(
    () => document.documentElement,
    () => {
      colours.value = read()
    },
    { attributes: true, attributeFilter: ['data-theme'] },
  )
  return colours
}
