import type { ShelfPart } from '#core/shelf/kinds'
import { read, type Answer, type WholePage } from '../utils/api'

/** The whole shelf, page by page, once the page that needs it is there. Null until then. */
export function useWholeShelf() {
  const shelf = shallowRef<readonly ShelfPart[] | null>(null)
  const isOutOfReach = ref(false)
  onMounted(async () => {
    const parts: ShelfPart[] = []
    let after: string | null = null
    do {
      const answer: Answer<WholePage> = await read<WholePage>(
        `/api/shelf/whole?${new URLSearchParams(after === null ? {} : { after })}`,
      )
      if (answer.kind !== 'ok') return void (isOutOfReach.value = true)
      parts.push(...answer.data.parts)
      after = answer.data.next
    } while (after !== null)
    shelf.value = parts
  })
  return { shelf, isOutOfReach }
}
