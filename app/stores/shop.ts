import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { ShopSettings as Shop } from '../../server/repositories/shop'
import { metric } from '#core/units/display'
import { readRecalled } from '../utils/recalled'

const kept = 'jovial-anchor.shop'
const unset: Shop = { name: '', rules: {}, units: metric, version: 0 }

/**
 * The shop's settings: its rules and its units. Stored in the browser for times without the server.
 */
export const useShop = defineStore('shop', () => {
  const shop = shallowRef<Shop>(unset)

  function take(next: Shop): void {
    shop.value = next

    localStorage.setItem(kept, JSON.stringify(next))
  }

  async function load(): Promise<void> {
    take(await readRecalled('/api/shop', kept, unset))
  }

  return { shop, take, load }
})
