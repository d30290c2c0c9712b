import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, nextTick } from 'vue'
import BranchList from '../src/parts/BranchList.vue'
import FileMenu from '../src/parts/FileMenu.vue'
import PaneEdge from '../src/parts/PaneEdge.vue'
import { keepEditor } from '../src/editorLinks'
import { useLayout } from '../src/state/layout'

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

describe('the edge of a pane', () => {
  const edgeOf = (before: boolean) => {
    const frame = mount(
      defineComponent({
        components: { PaneEdge },
        data: () => ({ before }),
        template: `<div><p/><PaneEdge pane="preview" label="Width" :least="100" :most="400" :before="before" /><p/></div>`,
      }),
    )
    for (const pane of frame.element.querySelectorAll('p'))
      pane.getBoundingClientRect = () => ({ width: useLayout().layout.widths.preview ?? 200 }) as DOMRect
    const edge = frame.get('[role=separator]')
    edge.element.setPointerCapture = () => {}
    return edge
  }

  it('is moved with the arrow keys, no further than it may', async () => {
    const edge = edgeOf(true)
    await edge.trigger('keydown', { key: 'ArrowRight' })
    expect(useLayout().layout.widths.preview).toBe(216)
    for (let i = 0; i < 30; i++) await edge.trigger('keydown', { key: 'ArrowRight' })
    expect(useLayout().layout.widths.preview).toBe(400)
    expect(edge.attributes('aria-valuenow')).toBe('400')
    await edge.trigger('keydown', { key: 'Home' })
    expect(useLayout().layout.widths).toEqual({})
  })

  it('makes what stands behind it wider to the left', async () => {
    const edge = edgeOf(false)
    await edge.trigger('keydown', { key: 'ArrowLeft' })
    expect(useLayout().layout.widths.preview).toBe(216)
  })

  it('is dragged, and let go', async () => {
    const edge = edgeOf(true)
    const send = (type: string, x: number) =>
      edge.element.dispatchEvent(new MouseEvent(type, { clientX: x, bubbles: true }))
    send('pointermove', 500)
    expect(useLayout().layout.widths).toEqual({})
    send('pointerdown', 10)
    send('pointermove', 60)
    expect(useLayout().layout.widths.preview).toBe(250)
    send('pointerup', 60)
    send('pointermove', 90)
    expect(useLayout().layout.widths.preview).toBe(250)
    await edge.trigger('dblclick')
    expect(useLayout().layout.widths).toEqual({})
  })
})

describe('what is listed beside a file', () => {
  const RouterLink = { props: ['to'], template: '<a :data-to="JSON.stringify(to)"><slot /></a>' }

  it('leads to log, blame, download and editor', async () => {
    const props = { repository: 'tidewatch', path: 'src/gauge.py', rev: 'main', line: 7 }
    const menu = mount(FileMenu, { props, global: { components: { RouterLink } }, attachTo: document.body })
    expect(menu.find('[data-go]').exists()).toBe(false)
    await menu.get('[data-part=file-menu]').trigger('click')
    expect(JSON.parse(menu.get('[data-go=blame]').attributes('data-to')!)).toEqual({
      name: 'file',
      query: { in: 'tidewatch', path: 'src/gauge.py', rev: 'main', line: '7', blame: 'true' },
    })
    expect(menu.get('[data-go=download]').attributes('download')).toBe('gauge.py')
    expect(menu.find('[data-go=editor]').exists()).toBe(false)
    expect(menu.find('[data-go=settings]').exists()).toBe(true)
    menu.unmount()

    keepEditor({ template: 'e:{+file}:{line}', root: '/w', folders: '' })
    const other = mount(FileMenu, { props, global: { components: { RouterLink } }, attachTo: document.body })
    await other.get('[data-part=file-menu]').trigger('click')
    expect(other.get('[data-go=editor]').attributes('href')).toBe('e:/w/tidewatch/src/gauge.py:7')
    other.unmount()
  })
})

describe('branches of a scope', () => {
  it('are those of its repositories, the commonest first', async () => {
    const asked: string[] = []
    vi.stubGlobal('fetch', (url: string) => {
      asked.push(url)
      const of = (name: string, ...branches: string[]) => ({
        name,
        branches: branches.map(branch => ({ name: branch })),
      })
      const all = [of('a', 'main', 'v2.0'), of('b', 'main'), of('c', 'main', 'winter')]
      return Promise.resolve(new Response(JSON.stringify(all)))
    })
    const list = mount(BranchList, { props: { modelValue: [], repositories: ['a', 'b', 'c'] } })
    await flushPromises()
    expect(asked[0]).toContain('name=a')
    const labels = list.findAll('label').map(label => label.text())
    expect(labels).toEqual(['main3 repositories', 'v2.0a', 'winterc'])
    await list.findAll('input')[1]!.trigger('change')
    await nextTick()
    expect(list.emitted('update:modelValue')).toEqual([[['v2.0']]])
  })
})
