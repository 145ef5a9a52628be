import { readChanged, readKept } from '../device/answers'
import type { QueuedPhoto } from '../device/database'
import { queuePhoto } from '../device/photos'
import type { PhotoRow } from '../utils/api'

/** A photo as a station shows it: on the server, or waiting on this device. */
export interface ShownPhoto extends Pick<PhotoRow, 'id' | 'station' | 'name' | 'takenBy' | 'takenAt'> {
  readonly address: string
  /** Null on the server. */
  readonly waits: { readonly refused: string | null } | null
}

const photos = shallowRef<readonly PhotoRow[]>([])
/** Addresses of pictures that wait on this device, by the id of the photo. */
const addresses = new Map<string, string>()
let of = ''
/** The latest request of the list: the answer to an earlier one is older than the shown list. */
let asked = 0

function addressOf({ id, picture }: QueuedPhoto): string {
  const known = addresses.get(id)
  if (known) return known
  const made = URL.createObjectURL(picture)
  addresses.set(id, made)
  return made
}

/** The photos of the job on the bench, with those that wait on this device. */
export function useJobPhotos() {
  const sync = useSync()
  const bench = useJob()
  const account = useAccount()
  const who = useDeviceName()

  async function load(job: string, from: typeof readKept = readKept): Promise<void> {
    if (of !== job) photos.value = []
    of = job
    const mine = ++asked
    const answer = await from<PhotoRow[]>(`/api/jobs/${job}/photos`)
    if (answer.kind === 'ok' && mine === asked) photos.value = answer.data
  }

  const shown = computed((): readonly ShownPhoto[] => {
    const there = photos.value.map((photo) => ({
      ...photo,
      address: `/api/jobs/${of}/photos/${photo.id}`,
      waits: null,
    }))
    const waiting = sync.photos
      .filter((photo) => photo.job === of && !there.some(({ id }) => id === photo.id))
      .map((photo) => ({ ...photo, address: addressOf(photo), waits: { refused: photo.refused } }))
    return [...there, ...waiting]
  })
  // A photo that was sent, by this window or by another, is on the server.
  watch([() => sync.sentPhotos, () => sync.photos.length], ([sent, count], [sentBefore, before]) => {
    if (of && (sent !== sentBefore || count < before)) void load(of, readChanged)
  })

  /** Keeps a photo on this device and sends it. False where the browser has no room. */
  async function add(station: string, name: string, picture: Blob): Promise<boolean> {
    const photo: QueuedPhoto = {
      id: crypto.randomUUID(),
      job: bench.id,
      station,
      name: name.slice(0, 120),
      takenBy: signedAs(who.value),
      takenAt: new Date().toISOString(),
      owner: account.owner,
      picture,
      refused: null,
    }
    const isKept = await queuePhoto(photo)
    void sync.run()
    return isKept
  }
  return { photos: shown, load, add }
}
