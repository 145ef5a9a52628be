import type { ShelfPart } from '#core/shelf/kinds'
import { readKept } from '../device/answers'
import { wholeShelf } from '../device/keeper'
import type { Answer, WholePage } from '../utils/api'

/** The whole shelf, page by page, once the page that needs it is there. Null until then. */
export function useWholeShelf() {
  const shelf = shallowRef<readonly ShelfPart[] | null>(null)
  const isOutOfReach = ref(false)
  onMounted(async () => {
    const parts: ShelfPart[] = []
    for (let after: string | null = ''; after !== null;) {
      const answer: Answer<WholePage> = await readKept<WholePage>(wholeShelf(after))
      if (answer.kind !== 'ok') return void (isOutOfReach.value = true)
      parts.push(...answer.data.parts)
      after = answer.data.next
    }
    shelf.value = parts
  })
  return { shelf, isOutOfReach }
}
