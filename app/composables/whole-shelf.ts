import type { ShelfPart } from '#core/shelf/kinds'
import { isReachable } from '../device/connection'
import { shelfPage, wholeShelf } from '../device/keeper'

/**
 * The whole shelf, once the page that needs it is there. Null until then; asked for again once the server answers.
 */
export function useWholeShelf() {
  const shelf = shallowRef<readonly ShelfPart[] | null>(null)
  const isOutOfReach = ref(false)
  async function load() {
    shelf.value = await wholeShelf(shelfPage)
    isOutOfReach.value = shelf.value === null
  }
  onMounted(load)
  watch(isReachable, (is) => {
    if (is && isOutOfReach.value) void load()
  })
  return { shelf, isOutOfReach }
}
