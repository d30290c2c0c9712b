import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { actions, groups, hint, isKey, keyFor, setKey, usualKeys } from '../src/keys'
import SettingsPage from '../src/pages/SettingsPage.vue'
import { useLayout } from '../src/state/layout'

const press = (key: string) => new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true })

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('keys', () => {
  it('give no key to two actions that are taken at the same time', () => {
    for (const { names } of groups) {
      const keys = names.map(name => actions[name].key)
      expect(new Set(keys).size).toBe(keys.length)
    }
    const shared = groups.filter(({ title }) => /results|lines/.test(title)).flatMap(({ names }) => names)
    expect(new Set(shared.map(keyFor)).size).toBe(shared.length)
  })

  it('are set, kept, and as they were again', () => {
    expect(isKey(press('n'), 'next')).toBe(true)
    expect(setKey('next', 'j')).toBe('')
    expect(isKey(press('n'), 'next')).toBe(false)
    expect(isKey(press('j'), 'next')).toBe(true)
    expect(hint('next')).toBe('Key: j')
    expect(isKey(press('n'), 'nextChange')).toBe(true) // of another place
    expect(useLayout().layout.keys).toEqual({ next: 'j' })
    expect(setKey('next', 'n')).toBe('')
    expect(useLayout().layout.keys).toEqual({})
    setKey('next', 'j')
    usualKeys()
    expect(keyFor('next')).toBe('n')
  })

  it('are refused where another action has them, and where they mean something already', () => {
    expect(setKey('next', 'p')).toMatch(/^p is taken: previous hit/)
    expect(setKey('fold', 'v')).toMatch(/^v is taken/) // of all results
    expect(setKey('box', 'm')).toMatch(/^m is taken/)
    expect(setKey('next', 'Enter')).toMatch(/^Take a letter/)
    expect(setKey('next', ' ')).toMatch(/^Take a letter/)
    expect(useLayout().layout.keys).toEqual({})
  })

  it('are set by pressing them on the page of settings', async () => {
    const page = mount(SettingsPage)
    await page.get('[data-action=next]').trigger('click')
    expect(page.get('[data-action=next]').text()).toBe('press it')
    window.dispatchEvent(press('p'))
    await page.vm.$nextTick()
    expect(page.get('[role=alert]').text()).toContain('p is taken')
    window.dispatchEvent(press('J'))
    await page.vm.$nextTick()
    expect(page.get('[data-action=next]').text()).toBe('Shift J')
    expect(keyFor('next')).toBe('J')
    window.dispatchEvent(press('x')) // nothing is asked for any more
    expect(keyFor('next')).toBe('J')
    await page.get('[data-part=usual]').trigger('click')
    expect(page.get('[data-action=next]').text()).toBe('n')
    page.unmount()
  })
})
