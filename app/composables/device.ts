import { useLocalStorage } from '@vueuse/core'

/** The name under which changes from this device are recorded, until there are accounts. */
export const useDeviceName = () =>
  useLocalStorage('jovial-anchor.device', () =>
    matchMedia('(pointer: coarse)').matches ? 'Phone' : 'Bench laptop',
  )

/**
 * Who saved something, as it is told here: what comes by the name of this device is not someone else's, but from
 * another page of it, or a device of the same name.
 */
export const savedBy = (by: string, device: string): string =>
  by === device ? `Another page or device named ${by}` : by

/** Whether single keys act as shortcuts; people who dictate switch them off. */
export const useSingleKeys = () => useLocalStorage('jovial-anchor.single-keys', true)
