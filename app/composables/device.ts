import { useLocalStorage } from '@vueuse/core'
import { computed, type WritableComputedRef } from 'vue'
import { useAccount } from '../stores/account'

/** The name under which changes are recorded: of the person who is signed in, or of this device on one machine. */
export function useDeviceName(): WritableComputedRef<string> {
  const session = useAccount()
  const device = useLocalStorage('jovial-anchor.device', () =>
    matchMedia('(pointer: coarse)').matches ? 'Phone' : 'Bench laptop',
  )
  return computed({
    get: () => session.person?.name ?? device.value,
    set: (name) => (device.value = name),
  })
}

/** The name that is saved with changes; never empty. */
export const signedAs = (name: string): string => name.trim() || 'Unnamed device'

/**
 * Who saved a change, in words. A change with the name of this device came from another page of it, or from another
 * device of the same name.
 */
export const savedBy = (by: string, device: string): string =>
  by === device ? `Another page or device named ${by}` : by

/** Whether single keys act as shortcuts; people who dictate switch them off. */
export const useSingleKeys = () => useLocalStorage('jovial-anchor.single-keys', true)
