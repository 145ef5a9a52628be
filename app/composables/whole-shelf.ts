import type { ShelfPart } from '#core/shelf/kinds'
import { shelfPage, wholeShelf } from '../device/keeper'

/** The whole shelf, once the page that needs it is there. Null until then. */
export function useWholeShelf() {
  const shelf = shallowRef<readonly ShelfPart[] | null>(null)
  const isOutOfReach = ref(false)
  onMounted(async () => {
    shelf.value = await wholeShelf(shelfPage)
    isOutOfReach.value = shelf.value === null
  })
  return { shelf, isOutOfReach }
}
