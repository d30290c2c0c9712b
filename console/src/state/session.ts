import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { follow, stopFollowing } from '../desk'
import * as requests from '../requests'
import { useLayout } from './layout'
import type { FirstAdministrator, SignedIn, AccountRole, SessionInfo } from '../wire'

const PERSON = 'oddbeacon.person'
/** What a browser remembers is of one person: earlier searches and opened files go when another signs in. */
function keepOnlyWhatIsOf(person: string) {
  const before = localStorage.getItem(PERSON)
  if (before !== null && before !== person) forget()
  localStorage.setItem(PERSON, person)
}
function forget() {
  for (const key of Object.keys(localStorage)) if (key !== 'oddbeacon.theme') localStorage.removeItem(key)
}

const order: AccountRole[] = ['reader', 'maintainer', 'administrator']

/** Who is signed in, at a service where people sign in. */
export const useSession = defineStore('session', () => {
  const loaded = ref(false)
  const accounts = ref(false)
  const person = ref<SignedIn>()
  /** What the accounts of the issuer are called that one can sign in with. */
  const issuer = ref<string>()
  /** Whether some repositories can be searched without signing in. */
  const guests = ref(false)
  /** Whether the pages can be used: somebody is signed in, or nobody needs to be. */
  const open = computed(() => loaded.value && (!accounts.value || guests.value || !!person.value))

  async function take(info: SessionInfo) {
    if (info.person) {
      keepOnlyWhatIsOf(info.person.name)
      await follow()
      useLayout().load()
    }
    accounts.value = info.accounts
    guests.value = info.guests
    person.value = info.person ?? undefined
    issuer.value = info.issuer ?? undefined
    loaded.value = true
  }

  /** Asks the service; one that is gone is asked again, as the page says elsewhere. */
  async function load() {
    try {
      await take(await requests.session())
    } catch {
      if (!loaded.value) setTimeout(() => void load(), 2_000)
    }
  }

  /** Whether whoever uses the page may do what a role may. */
  function may(role: AccountRole): boolean {
    if (!accounts.value) return true
    return person.value ? order.indexOf(person.value.role) >= order.indexOf(role) : guests.value && role === 'reader'
  }

  async function signIn(name: string, password: string) {
    await take(await requests.signIn(name, password))
  }

  async function first(wanted: FirstAdministrator) {
    await take(await requests.firstAdministrator(wanted))
  }

  /** Everything that was shown goes with the page: the next person at this browser sees none of it. */
  async function signOut(everywhere: boolean) {
    await requests.signOut(everywhere)
    stopFollowing()
    forget()
    location.assign('/')
  }

  requests.whenSignedOut(() => {
    if (!accounts.value) return
    person.value = undefined
    stopFollowing()
  })

  return { loaded, accounts, guests, person, issuer, open, load, may, signIn, first, signOut }
})
