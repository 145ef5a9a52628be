import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { ShopSettings as Shop } from '../../server/repositories/shop'
import { metric } from '#core/units/display'
import { readRecalled } from '../utils/recalled'

const kept = 'jovial-anchor.shop'
const unset: Shop = { name: '', rules: {}, units: metric, version: 0 }

/**
 * What the shop has set: its rules and how it writes quantities. Kept in the browser for when the server is
 * away.
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
