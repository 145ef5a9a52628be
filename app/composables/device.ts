import { useLocalStorage } from '@vueuse/core'

/** The name under which changes from this device are recorded, until there are accounts. */
export const useDeviceName = () =>
  useLocalStorage('jovial-anchor.device', () =>
    matchMedia('(pointer: coarse)').matches ? 'Phone' : 'Bench laptop',
  )

/** Whether single keys act as shortcuts; people who dictate switch them off. */
export const useSingleKeys = () => useLocalStorage('jovial-anchor.single-keys', true)
