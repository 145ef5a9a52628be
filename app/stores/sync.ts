import { useEventListener, useIntervalFn, watchDebounced } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { unmade } from '#core/sync/order'
import { changesOf, draftChanges, draftsBy, draftsOfOthers, type UnsavedDraft } from '../device/drafts'
import { isReachable } from '../device/connection'
import { keepRecentJobs, keepShelf } from '../device/keeper'
import type { QueuedPhoto } from '../device/database'
import { dropPhoto, photoChanges, queuedPhotos, queuePhoto } from '../device/photos'
import { endedWindows, inOneWindow } from '../device/windows'
import { ask, type PhotoRow } from '../utils/api'
import { useAccount } from './account'
import { useJob } from './job'

const everyMs = 15_000
const countAfterMs = 250
const notFound = 404

/** The changes and photos of this device that wait for the server, of whichever job. */
export const useSync = defineStore('sync', () => {
  const account = useAccount()
  const bench = useJob()
  const owner = computed(() => account.person?.id ?? '')
  const drafts = shallowRef<readonly UnsavedDraft[]>([])
  const photos = shallowRef<readonly QueuedPhoto[]>([])
  const ofOthers = shallowRef(0)

  async function count(): Promise<void> {
    drafts.value = draftsBy(owner.value)
    ofOthers.value = draftsOfOthers(owner.value)
    photos.value = await queuedPhotos(owner.value)
  }
  // Every key writes a draft: they are counted once the typing rests.
  watchDebounced([draftChanges, photoChanges, owner], count, { immediate: true, debounce: countAfterMs })

  /** Changes and photos that wait. */
  const waiting = computed(
    () => drafts.value.reduce((sum, draft) => sum + changesOf(draft), 0) + photos.value.length,
  )

  let underWay: Promise<void> | null = null
  /** Sends all that waits, job by job and photo by photo; then fetches what this device should keep. */
  function run(): Promise<void> {
    underWay ??= sendAll().finally(() => {
      underWay = null
    })
    return underWay
  }

  async function sendAll(): Promise<void> {
    if (account.mustSignIn) return
    const hasEnded = await endedWindows()
    for (const { job, window } of draftsBy(owner.value)) if (hasEnded(window)) await bench.resume(job)
    await inOneWindow('sync', sendPhotosAndFetch)
  }

  async function sendPhotosAndFetch(): Promise<void> {
    for (const photo of await queuedPhotos(owner.value)) {
      if (photo.refused === null && !(await sendPhoto(photo))) return
    }
    await keepRecentJobs()
    await keepShelf()
  }

  /** Sends a photo; it goes from the queue once the server has it. False where the server cannot be reached. */
  async function sendPhoto(photo: QueuedPhoto): Promise<boolean> {
    const { id, job, station, name, takenBy, takenAt } = photo
    // The server must know the job first.
    if (draftsBy(owner.value).some((draft) => draft.job === job && draft.version === unmade)) return true
    const query = new URLSearchParams({ who: takenBy, station, name, id, at: takenAt })
    const answer = await ask<PhotoRow>(`/api/jobs/${job}/photos?${query}`, {
      method: 'POST',
      headers: { 'content-type': photo.picture.type },
      body: photo.picture,
    })
    if (answer.kind === 'unreachable') return false
    if (answer.kind === 'ok') await dropPhoto(id)
    else if (answer.status !== notFound) await queuePhoto({ ...photo, refused: answer.refused.error })
    else await queuePhoto({ ...photo, refused: 'This job was deleted.' })
    return true
  }

  function start(): void {
    const go = (): void => void run()
    useIntervalFn(go, everyMs)
    useEventListener(window, 'online', () => {
      bench.saveNow()
      go()
    })
    useEventListener(window, 'storage', () => void count())
    watch(isReachable, (reachable) => reachable && go())
    go()
  }

  return { drafts, photos, waiting, ofOthers, run, start }
})
