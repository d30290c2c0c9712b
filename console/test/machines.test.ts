import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import MachinesPage from '../src/pages/MachinesPage.vue'
import * as requests from '../src/requests'
import type { Machine, Machines } from '../src/wire'

vi.mock('../src/requests')
const asked = vi.mocked(requests)
const machine = (name: string, more: Partial<Machine> = {}): Machine => ({
  name,
  address: `http://${name}.quillhaven.example:7420/`,
  peerAddress: `${name}.quillhaven.example:7441`,
  isReached: true,
  state: 'serving',
  isAnswering: false,
  isInCharge: false,
  joined: '2026-04-01T05:00:00Z',
  files: 120,
  bytes: 3e9,
  missing: 0,
  brought: 1e6,
  mirrors: 7,
  mirrorsBehind: 0,
  ...more,
})
const cluster = (...machines: Machine[]): Machines => ({ cluster: 'ferries', objects: 's3://ferries/index', machines })

beforeEach(() => vi.resetAllMocks())

async function page(all: Machines) {
  asked.machines.mockResolvedValue(all)
  const mounted = mount(MachinesPage, { global: { stubs: { RouterLink: true } } })
  await flushPromises()
  return mounted
}

it('tells what each machine holds and lacks', async () => {
  const mounted = await page(
    cluster(
      machine('lamp', { isAnswering: true, isInCharge: true }),
      machine('keel', { state: 'joining', missing: 3, mirrorsBehind: 2, isReached: false }),
      machine('wake', { isReached: false }),
    ),
  )
  expect(mounted.text()).toContain('3 machines of ferries')
  expect(mounted.text()).toContain('s3://ferries/index')
  const [lamp, keel, wake] = mounted.findAll('[data-machine]')
  expect(lamp!.text()).toContain('this page is from here')
  expect(lamp!.text()).toContain('in charge')
  expect(lamp!.text()).toContain('nothing')
  expect(keel!.text()).toContain('is bringing what the others have')
  expect(keel!.text()).toContain('3 files')
  expect(keel!.text()).toContain('2 behind')
  expect(keel!.text()).not.toContain('not reached')
  expect(wake!.text()).toContain('not reached from here at wake.quillhaven.example:7441')
})

it('takes a machine out when that is confirmed', async () => {
  const mounted = await page(cluster(machine('lamp', { isAnswering: true }), machine('keel', { state: 'gone' })))
  const forget = mounted.find('[data-machine=keel] button')
  expect(forget.text()).toBe('Forget')
  vi.spyOn(window, 'confirm').mockReturnValueOnce(false).mockReturnValueOnce(true)
  await forget.trigger('click')
  expect(asked.retireMachine).not.toHaveBeenCalled()
  asked.retireMachine.mockResolvedValue(cluster(machine('lamp', { isAnswering: true })))
  await forget.trigger('click')
  await flushPromises()
  expect(asked.retireMachine).toHaveBeenCalledWith('keel')
  expect(mounted.findAll('[data-machine]')).toHaveLength(1)
  expect(mounted.get('[role=status]').text()).toBe('keel is taken out.')
  expect(mounted.findAll('[data-machine=lamp] button'), 'the last one stays').toHaveLength(0)
})

it('says what went wrong, and that one machine is no cluster', async () => {
  asked.machines.mockRejectedValueOnce(new Error('Your role does not allow this.'))
  const refused = mount(MachinesPage, { global: { stubs: { RouterLink: true } } })
  await flushPromises()
  expect(refused.get('[role=alert]').text()).toBe('Your role does not allow this.')
  const alone = await page({ cluster: '', objects: '', machines: [] })
  expect(alone.text()).toContain('This service is one machine.')
})
