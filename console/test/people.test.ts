import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import AccountPage from '../src/pages/AccountPage.vue'
import CredentialsPage from '../src/pages/CredentialsPage.vue'
import ChangesPage from '../src/pages/ChangesPage.vue'
import DevicePage from '../src/pages/DevicePage.vue'
import PeoplePage from '../src/pages/PeoplePage.vue'
import SignInForm from '../src/parts/SignInForm.vue'
import WhoSees from '../src/parts/WhoSees.vue'
import * as requests from '../src/requests'
import { useSession } from '../src/state/session'
import type { AccountInfo, AccountRole, CredentialInfo, Repository, SessionInfo, TokenInfo } from '../src/wire'

vi.mock('../src/requests')
const asked = vi.mocked(requests)
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['search', 'people', 'changes', 'device', 'repositories', 'credentials'].map(name => ({
    path: `/${name}`,
    name,
    component: {},
  })),
})
const signedIn = (role: AccountRole): SessionInfo => ({
  accounts: true,
  person: { name: 'edda', displayName: 'Edda Voss', role, teams: ['harbour-office'], token: null },
  issuer: null,
  guests: false,
})
async function session(info: SessionInfo) {
  asked.session.mockResolvedValue(info)
  const store = useSession()
  await store.load()
  return store
}

beforeEach(() => {
  vi.resetAllMocks()
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('who is signed in', () => {
  it('may do everything where nobody signs in', async () => {
    const store = await session({ accounts: false, person: null, issuer: null, guests: false })
    expect(store.open).toBe(true)
    expect(store.may('administrator')).toBe(true)
  })

  it('sees no page before signing in', async () => {
    const store = await session({ accounts: true, person: null, issuer: null, guests: false })
    expect(store.open).toBe(false)
    expect(store.may('reader')).toBe(false)
  })

  it('may do what the role and those below it may', async () => {
    const store = await session(signedIn('maintainer'))
    expect([store.may('reader'), store.may('maintainer'), store.may('administrator')]).toEqual([true, true, false])
  })

  it('is a guest where some repositories are for anybody', async () => {
    const store = await session({ accounts: true, person: null, issuer: null, guests: true })
    expect(store.open).toBe(true)
    expect([store.may('reader'), store.may('maintainer')]).toEqual([true, false])
  })

  it('finds nothing that another person left in the browser', async () => {
    await session(signedIn('reader'))
    localStorage.setItem('oddbeacon.theme', 'night')
    localStorage.setItem('oddbeacon.searches', '["secret"]')
    await session(signedIn('reader'))
    expect(localStorage.getItem('oddbeacon.searches')).toBe('["secret"]')
    await session({ ...signedIn('reader'), person: { ...signedIn('reader').person!, name: 'jonas' } })
    expect(localStorage.getItem('oddbeacon.searches')).toBeNull()
    expect(localStorage.getItem('oddbeacon.theme')).toBe('night')
  })

  it('is nobody any more when an answer says so', async () => {
    const store = await session(signedIn('reader'))
    asked.whenSignedOut.mock.calls[0]![0]()
    expect(store.open).toBe(false)
  })
})

describe('signing in', () => {
  it('says what is wrong and forgets the password', async () => {
    await session({ accounts: true, person: null, issuer: null, guests: false })
    asked.signIn.mockRejectedValue(new Error('There is no account of this name with this password.'))
    const form = mount(SignInForm, { global: { plugins: [router] } })
    await form.find('[name=username]').setValue('edda')
    await form.find('[name=password]').setValue('wrong')
    await form.find('form').trigger('submit')
    await flushPromises()
    expect(asked.signIn).toHaveBeenCalledWith('edda', 'wrong')
    expect(form.find('[role=alert]').text()).toContain('no account')
    expect((form.find('[name=password]').element as HTMLInputElement).value).toBe('')
    expect((form.find('[name=username]').element as HTMLInputElement).value).toBe('edda')
  })

  it('offers the accounts of the issuer first', async () => {
    await session({ accounts: true, person: null, issuer: 'Quillhaven accounts', guests: false })
    await router.push('/search?text=tide')
    const link = mount(SignInForm, { global: { plugins: [router] } }).find('[data-part=issuer]')
    expect(link.text()).toBe('Sign in with Quillhaven accounts')
    expect(link.attributes('href')).toBe('/sign-in/issuer?back=%2Fsearch%3Ftext%3Dtide')
  })

  it('opens the pages', async () => {
    const store = await session({ accounts: true, person: null, issuer: null, guests: false })
    asked.signIn.mockResolvedValue(signedIn('reader'))
    const form = mount(SignInForm, { global: { plugins: [router] } })
    await form.find('form').trigger('submit')
    await flushPromises()
    expect(store.open).toBe(true)
  })
})

describe('who sees a repository', () => {
  async function dialog(visibleTo: string[]) {
    asked.teams.mockResolvedValue(['engine-room', 'harbour-office'])
    asked.viewers.mockResolvedValue({
      visibleTo,
      people: [{ name: 'mira', displayName: 'Mira Quill', why: ['team:harbour-office', 'administrator'] }],
    })
    asked.setViewers.mockResolvedValue({ visibleTo, people: [] })
    const wrapper = mount(WhoSees, { attachTo: document.body })
    await wrapper.setProps({ repository: { name: 'tidewatch' } as Repository })
    await flushPromises()
    return wrapper
  }
  it('lists everybody who sees it now, and why', async () => {
    const wrapper = await dialog(['team:harbour-office'])
    expect(part('details').textContent).toContain('Mira Quill in harbour-office, administrator')
    wrapper.unmount()
  })

  const part = <T extends HTMLElement>(css: string) => document.body.querySelector<T>(css)!

  it('is shown as it is and saved as it was chosen', async () => {
    const wrapper = await dialog(['team:engine-room', 'person:edda'])
    const team = part<HTMLInputElement>('input[value=harbour-office]')
    expect(part<HTMLInputElement>('input[value=engine-room]').checked).toBe(true)
    team.click()
    part('form').dispatchEvent(new Event('submit'))
    await flushPromises()
    expect(asked.setViewers).toHaveBeenCalledWith('tidewatch', [
      'team:engine-room',
      'team:harbour-office',
      'person:edda',
    ])
    expect(wrapper.emitted('close')).toHaveLength(1)
    wrapper.unmount()
  })

  it('says that nobody does', async () => {
    const wrapper = await dialog([])
    expect(part('form').textContent).toContain('Nobody but administrators sees it.')
    wrapper.unmount()
  })
})

describe('one\u2019s account', () => {
  const token = (more: Partial<TokenInfo>): TokenInfo => ({
    id: 1,
    account: 'edda',
    name: 'Nightly report',
    role: 'reader',
    repositories: [],
    created: '2026-01-01T00:00:00Z',
    ends: '2126-01-01T00:00:00Z',
    lastUsed: null,
    ...more,
  })

  it('shows a new token once and marks ended ones', async () => {
    await session(signedIn('reader'))
    asked.tokens.mockResolvedValue([token({}), token({ id: 2, ends: '2026-01-02T00:00:00Z' })])
    asked.addToken.mockResolvedValue({ info: token({ id: 3, name: 'Pipeline' }), token: 'oddbeacon_xyz' })
    const page = mount(AccountPage, { global: { plugins: [router] } })
    await flushPromises()
    expect(page.findAll('tbody tr').map(row => row.text().includes('ended'))).toEqual([false, true])
    expect(page.findAll('option').map(option => option.text())).toEqual(['reader'])
    await page.find('input').setValue('Pipeline')
    await page.find('form').trigger('submit')
    await flushPromises()
    expect(asked.addToken).toHaveBeenCalledWith({ name: 'Pipeline', role: 'reader', days: 90, repositories: [] })
    expect(page.find('[data-part=issued]').text()).toContain('oddbeacon_xyz')
  })
})

describe('a program that waits', () => {
  it('is shown with its code, and refused', async () => {
    await session(signedIn('reader'))
    await router.push('/device?code=BCDF-GHJK')
    asked.decideDevice.mockResolvedValue({
      userCode: 'BCDF-GHJK',
      program: 'oddbeacon on pier-7',
      address: '127.0.0.1',
      token: null,
    })
    const page = mount(DevicePage, { global: { plugins: [router] } })
    await flushPromises()
    expect(asked.decideDevice).toHaveBeenCalledWith('BCDF-GHJK')
    expect(page.text()).toContain('oddbeacon on pier-7')
    expect(page.find('[data-part=code]').text()).toBe('BCDF-GHJK')
    await page.findAll('button')[0]!.trigger('click')
    await flushPromises()
    expect(asked.decideDevice).toHaveBeenLastCalledWith('BCDF-GHJK', false)
    expect(page.text()).toContain('It was refused')
  })
})

describe('people', () => {
  const account = (name: string, more: Partial<AccountInfo> = {}): AccountInfo => ({
    name,
    displayName: name.toUpperCase(),
    role: 'reader',
    teams: [],
    created: '2026-01-01T00:00:00Z',
    ended: null,
    ...more,
  })

  it('are filtered, and ended only when asked twice', async () => {
    asked.accounts.mockResolvedValue([account('edda', { teams: ['harbour-office'] }), account('jonas')])
    const page = mount(PeoplePage, { global: { plugins: [router] } })
    await flushPromises()
    await page.find('[aria-label="Filter people"]').setValue('harbour')
    expect(page.findAll('tbody tr')).toHaveLength(1)
    await page.find('[aria-label="End edda"]').trigger('click')
    expect(asked.endAccount).not.toHaveBeenCalled()
    await page
      .findAll('button')
      .find(button => button.text() === 'End')!
      .trigger('click')
    expect(asked.endAccount).toHaveBeenCalledWith('edda')
  })

  it('who ended have no buttons', async () => {
    asked.accounts.mockResolvedValue([account('nils', { ended: '2026-02-01T00:00:00Z' })])
    const page = mount(PeoplePage, { global: { plugins: [router] } })
    await flushPromises()
    expect(page.find('tbody').findAll('button')).toHaveLength(0)
    expect(page.find('tbody').text()).toContain('ended')
  })
})

describe('what was done', () => {
  it('comes in pages', async () => {
    const change = (id: number) => ({
      id,
      happened: '2026-01-01T00:00:00Z',
      account: null,
      token: null,
      address: '127.0.0.1',
      action: 'sign-in-failed',
      subject: '',
    })
    asked.changes.mockResolvedValueOnce({ changes: [change(9)], next: 9 })
    asked.changes.mockResolvedValueOnce({ changes: [change(8)], next: null })
    const page = mount(ChangesPage, { global: { plugins: [router] } })
    await flushPromises()
    expect(page.find('tbody').text()).toContain('nobody')
    await page
      .findAll('button')
      .find(button => button.text() === 'Show earlier ones')!
      .trigger('click')
    await flushPromises()
    expect(asked.changes).toHaveBeenLastCalledWith({}, 9)
    expect(page.findAll('tbody tr')).toHaveLength(2)
  })
})

describe('credentials', () => {
  it('are given to a host only when one of its keys is confirmed, and then forgotten', async () => {
    asked.credentials.mockResolvedValue([])
    asked.hostKeys.mockResolvedValue({
      host: 'git.quillhaven.example',
      keys: [{ type: 'ssh-ed25519', key: 'AAAA', fingerprint: 'SHA256:abc' }],
    })
    asked.giveCredential.mockResolvedValue({ host: 'git.quillhaven.example' } as CredentialInfo)
    const page = mount(CredentialsPage, { global: { plugins: [router] } })
    await flushPromises()
    await page.find('input').setValue('git.quillhaven.example')
    await page.find('textarea').setValue('a private key')
    const give = page.find('button[type=submit]')
    expect(give.attributes('disabled')).toBeDefined()
    await page.find('button[type=button]').trigger('click')
    await flushPromises()
    expect(page.text()).toContain('SHA256:abc')
    expect(give.attributes('disabled')).toBeDefined()
    await page.find('[type=checkbox]').setValue(true)
    expect(give.attributes('disabled')).toBeUndefined()
    await page.find('form').trigger('submit')
    await flushPromises()
    expect(asked.giveCredential).toHaveBeenCalledWith({
      host: 'git.quillhaven.example',
      kind: 'ssh-key',
      user: '',
      secret: 'a private key',
      hostKeys: ['ssh-ed25519 AAAA'],
    })
    expect((page.find('textarea').element as HTMLTextAreaElement).value).toBe('')
  })
})
