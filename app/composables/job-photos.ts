import { ask, type PhotoRow } from '../utils/api'

const photos = shallowRef<readonly PhotoRow[]>([])
let of = ''

/** The photos of the job on the bench. */
export function useJobPhotos() {
  async function load(job: string): Promise<void> {
    if (of !== job) photos.value = []
    of = job
    const answer = await ask<PhotoRow[]>(`/api/jobs/${job}/photos`)
    if (answer.kind === 'ok' && of === job) photos.value = answer.data
  }
  return { photos, load }
}
