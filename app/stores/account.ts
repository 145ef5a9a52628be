import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Role } from '../../server/repositories/actor'
import { forgetKept } from '../device/database'
import { ask, whenSignedOut } from '../utils/api'
import { readRecalled, recalled } from '../utils/recalled'

interface Session {
  /** Whether people sign in here; otherwise the application answers on one machine only. */
  readonly isShop: boolean
  readonly person: { readonly id: string; readonly name: string; readonly role: Role } | null
  /** Whether the first owner is still to come. */
  readonly needsOwner: boolean
}

/** Somebody who has a PIN on this device. */
interface PinPerson {
  readonly id: string
  readonly name: string
}

const kept = 'jovial-anchor.session'
const oneMachine: Session = { isShop: false, person: null, needsOwner: false }

/** Who is signed in. Kept in the browser for when the server cannot be reached. */
export const useAccount = defineStore('account', () => {
  const session = shallowRef<Session>(oneMachine)
  /** Who may come in to this device with a PIN. */
  const pinPeople = shallowRef<readonly PinPerson[]>([])

  async function load(): Promise<void> {
    const now = await readRecalled('/api/session', kept, oneMachine)
    const before = recalled(kept, oneMachine)
    session.value = now
    if (session.value.person?.id !== before.person?.id) await forgetKept()
    localStorage.setItem(kept, JSON.stringify(session.value))
    if (session.value.isShop) void loadPinPeople()
  }
  async function loadPinPeople(): Promise<void> {
    const answer = await ask<readonly PinPerson[]>('/api/session/pin')
    if (answer.kind === 'ok') pinPeople.value = answer.data
  }
  // The session was ended elsewhere.
  whenSignedOut(() => {
    if (!session.value.isShop || !session.value.person) return
    session.value = { ...session.value, person: null }
    const { currentRoute } = useRouter()
    void navigateTo({ path: '/sign-in', query: { to: currentRoute.value.fullPath } })
  })

  const isShop = computed(() => session.value.isShop)
  const person = computed(() => session.value.person)
  /** Whose changes are made here; empty on one machine. */
  const owner = computed(() => person.value?.id ?? '')
  /** Whether the person may erase a customer, and take the whole workshop out or in. */
  const mayErase = computed(() => !session.value.isShop || person.value?.role === 'owner')
  /** Whether the person may issue papers, change rules and the shelf, and delete. */
  const mayDecide = computed(
    () => !session.value.isShop || (person.value?.role ?? 'apprentice') !== 'apprentice',
  )
  const mustSignIn = computed(() => session.value.isShop && !session.value.person)
  const needsOwner = computed(() => session.value.needsOwner)
  /** Whether somebody else may come in to this device with a PIN. */
  const canSwitch = computed(() => pinPeople.value.some(({ id }) => id !== owner.value))
  return {
    pinPeople,
    canSwitch,
    loadPinPeople,
    isShop,
    person,
    owner,
    mayDecide,
    mayErase,
    mustSignIn,
    needsOwner,
    load,
  }
})
