import { useEventListener, useIntervalFn, watchDebounced } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { unmade } from '#core/sync/order'
import { waitingIn } from '#core/sync/saving'
import { allDrafts, draftChanges, draftsBy, type UnsavedDraft } from '../device/drafts'
import { isReachable } from '../device/connection'
import { keepRecentJobs, keepShelf } from '../device/keeper'
import type { QueuedPhoto } from '../device/database'
import { dropPhoto, photoChanges, queuedPhotos, queuePhoto } from '../device/photos'
import { endedWindows, inOneWindow } from '../device/windows'
import { ask, isNotFound, type PhotoRow } from '../utils/api'
import { useAccount } from './account'
import { useJob } from './job'

const everyMs = 15_000
const countAfterMs = 250

/** The changes and photos of this device that wait for the server, of whichever job. */
export const useSync = defineStore('sync', () => {
  const account = useAccount()
  const bench = useJob()
  const drafts = shallowRef<readonly UnsavedDraft[]>([])
  const photos = shallowRef<readonly QueuedPhoto[]>([])
  const ofOthers = shallowRef(0)
  /** Counts photos that the server took: one may be sent before it was ever counted as waiting. */
  const sentPhotos = shallowRef(0)

  async function count(): Promise<void> {
    const all = allDrafts()
    drafts.value = all.filter(({ owner }) => owner === account.owner)
    ofOthers.value = all.length - drafts.value.length
    photos.value = await queuedPhotos(account.owner)
  }
  // Every key writes a draft: they are counted once the typing rests.
  watchDebounced([draftChanges, photoChanges, () => account.owner], count, { debounce: countAfterMs })
  void count()

  /** Jobs that no server has yet. */
  const made = computed(() => drafts.value.filter(({ version }) => version === unmade))
  /** Changes and photos that wait. */
  const waiting = computed(
    () => drafts.value.reduce((sum, draft) => sum + waitingIn(draft), 0) + photos.value.length,
  )

  let underWay: Promise<void> | null = null
  /** Sends all waiting changes, job by job and photo by photo; then fetches the data for this device. */
  function run(): Promise<void> {
    underWay ??= sendAll().finally(() => {
      underWay = null
    })
    return underWay
  }

  async function sendAll(): Promise<void> {
    if (account.mustSignIn) return
    const hasEnded = await endedWindows()
    for (const { job, window } of draftsBy(account.owner)) if (hasEnded(window)) await bench.resume(job)
    await inOneWindow('sync', sendPhotosAndFetch)
  }

  async function sendPhotosAndFetch(): Promise<void> {
    const waitingPhotos = (await queuedPhotos(account.owner)).filter(({ refused }) => refused === null)
    // The server must know a job before its photos.
    const made = draftsBy(account.owner).filter(({ version }) => version === unmade)
    for (const photo of waitingPhotos)
      if (!made.some(({ job }) => job === photo.job) && !(await sendPhoto(photo))) return
    await keepRecentJobs()
    await keepShelf()
  }

  /** Sends a photo; it goes from the queue once the server has it. False where the server cannot be reached. */
  async function sendPhoto(photo: QueuedPhoto): Promise<boolean> {
    const { id, job, station, name, takenBy, takenAt } = photo
    const query = new URLSearchParams({ who: takenBy, station, name, id, at: takenAt })
    const answer = await ask<PhotoRow>(`/api/jobs/${job}/photos?${query}`, {
      method: 'POST',
      headers: { 'content-type': photo.picture.type },
      body: photo.picture,
    })
    if (answer.kind === 'unreachable') return false
    if (answer.kind === 'ok') {
      await dropPhoto(id)
      sentPhotos.value++
    } else {
      const refused = isNotFound(answer) ? 'This job was deleted.' : answer.refused.error
      await queuePhoto({ ...photo, refused })
    }
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

  return { drafts, made, photos, sentPhotos, waiting, ofOthers, run, start }
})
