import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import TranslationPanel from '../src/parts/TranslationPanel.vue'
import type { Translations } from '../src/wire'

const RouterLink = { props: ['to'], template: '<a :data-to="JSON.stringify(to)"><slot /></a>' }
const found: Translations = {
  repository: 'app',
  branch: 'main',
  commit: 'c0ffee',
  key: 'zone.all',
  languages: [
    { language: 'de', path: 'de.json', line: 3, text: '"all": "Alle"' },
    { language: 'en', path: 'en.json', line: 2, text: '"all": "All"' },
  ],
  form: 'tickets.zone.all',
  uses: [{ repository: 'app', branch: 'main', path: 'src/a.ts', line: 7, text: "t('tickets.zone.all')" }],
  usesTotal: 1,
  exact: true,
}
const shown = (translations: Translations) =>
  mount(TranslationPanel, { props: { translations }, global: { components: { RouterLink } } })

describe('a translated text', () => {
  it('leads to the other languages and to the code that shows it', () => {
    const panel = shown(found)
    const links = panel.findAll('[data-part=languages] a').map(link => JSON.parse(link.attributes('data-to')!))
    expect(links.map(link => link.query)).toEqual([
      { in: 'app', path: 'de.json', line: '3' },
      { in: 'app', path: 'en.json', line: '2' },
    ])
    expect(panel.get('[data-part=shown-by]').text()).toContain('1 line of code names it')
    const all = JSON.parse(panel.get('[data-part=shown-by] h3 a').attributes('data-to')!)
    expect(all.query).toEqual({ q: 'tickets.zone.all', case: 'match', word: 'true', notTrait: ['translation'] })
  })

  it('says so where no code names its key', () => {
    const panel = shown({ ...found, uses: [], usesTotal: 0 })
    expect(panel.get('[data-part=shown-by]').text()).toContain('No code names this key')
  })
})
