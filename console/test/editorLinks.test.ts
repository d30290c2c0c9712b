import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { editorLink, editorProblem, editorSettings, keepEditor, noEditor } from '../src/editorLinks'
import SettingsPage from '../src/pages/SettingsPage.vue'

const place = { repository: 'fare-gate', path: 'cmd/gate main.go', line: 12, column: 5 }
const link = (template: string, more = {}, at: object = place) =>
  editorLink({ ...noEditor(), template, root: '/home/ada/work', ...more }, at as typeof place)

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('a link to an editor', () => {
  it('is a URI template that is filled in', () => {
    expect(link('editor://open{?file,line,column}')).toBe(
      'editor://open?file=%2Fhome%2Fada%2Fwork%2Ffare-gate%2Fcmd%2Fgate%20main.go&line=12&column=5',
    )
    expect(link('editor://file{+file}:{line}')).toBe('editor://file/home/ada/work/fare-gate/cmd/gate%20main.go:12')
    expect(link('editor:{repository}{/path}#{line}', {}, { repository: 'a', path: 'b' })).toBe('editor:a/b#1')
    expect(link('editor:x{?folder}')).toBe('editor:x?folder=%2Fhome%2Fada%2Fwork%2Ffare-gate')
  })

  it('takes the folder of a repository, else that of all', () => {
    const folders = 'tidewatch = /srv/tide\n\nfare-gate= C:\\clones\\gate\\'
    expect(link('e:{+file}', { folders })).toBe('e:C:%5Cclones%5Cgate%5Ccmd%5Cgate%20main.go')
    expect(link('e:{+file}', { folders, root: '' }, { repository: 'tidewatch', path: 'a.py' })).toBe('e:/srv/tide/a.py')
    expect(link('e:{+file}', { folders, root: '' }, { repository: 'other', path: 'a.py' })).toBeUndefined()
    expect(link('e:{repository}', { root: '' }, { repository: 'other', path: 'a.py' })).toBe('e:other')
  })

  it.each([
    ['editor', 'begins with a scheme'],
    ['javascript:alert({line})', 'would run a script'],
    ['DATA:text/html,{path}', 'would run a script'],
    ['e:{file', 'A brace is not closed'],
    ['e:{}', 'A brace is not closed'],
    ['e:{?file,row}', 'There is no row'],
  ])('is refused as %s', (template, why) => {
    expect(editorProblem({ ...noEditor(), template })).toContain(why)
    expect(link(template)).toBeUndefined()
  })

  it('is refused with folders that say nothing', () => {
    expect(editorProblem({ ...noEditor(), template: 'e:{path}', folders: 'fare-gate /srv' })).toContain(
      'fare-gate /srv',
    )
    expect(editorProblem({ ...noEditor(), folders: 'fare-gate /srv' })).toBe('') // nothing is asked for
  })

  it('is kept by the page of settings once it is right', async () => {
    const page = mount(SettingsPage, { global: { stubs: { RouterLink: true } } })
    await page.get('[data-part=template]').setValue('e:{file')
    expect(page.get('[role=alert]').text()).toContain('A brace is not closed')
    expect(editorSettings().template).toBe('')
    await page.get('[data-part=template]').setValue('e:{+file}:{line}')
    expect(page.get('[data-part=example]').text()).toContain('Say where the clone of fare-gate is')
    await page.get('[data-part=root]').setValue('/clones')
    expect(page.get('[data-part=example] a').attributes('href')).toBe('e:/clones/fare-gate/README.md:12')
    expect(editorSettings()).toEqual({ template: 'e:{+file}:{line}', root: '/clones', folders: '' })
    page.unmount()
  })

  it('is none where what was kept cannot be read', () => {
    localStorage.setItem('oddbeacon.editor', '{')
    expect(editorSettings()).toEqual(noEditor())
    keepEditor({ ...noEditor(), root: '/a' })
    expect(editorSettings().root).toBe('/a')
  })
})
