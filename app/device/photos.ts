import { ref } from 'vue'
import { withDevice, type QueuedPhoto } from './database'

/** Counts changes of the queue. */
export const photoChanges = ref(0)

/** Puts a photo in the queue, or changes it there. False where the browser has no room. */
export async function queuePhoto(photo: QueuedPhoto): Promise<boolean> {
  const isKept = await withDevice(async (database) => {
    await database.put('photos', photo)
    return true
  }, false)
  photoChanges.value++
  return isKept
}

export async function dropPhoto(id: string): Promise<void> {
  await withDevice((database) => database.delete('photos', id), undefined)
  photoChanges.value++
}

/** Photos that a person has taken here and the server has not, oldest first. */
export async function queuedPhotos(owner: string): Promise<readonly QueuedPhoto[]> {
  const all = await withDevice((database) => database.getAll('photos'), [])
  return all
    .filter((photo) => photo.owner === owner)
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt) || a.id.localeCompare(b.id))
}
