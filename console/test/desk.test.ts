import { beforeEach, describe, expect, it, vi } from 'vitest'
import { follow, keep, read, stopFollowing } from '../src/desk'
import { openedFiles, rememberOpened } from '../src/opened'
import * as requests from '../src/requests'

vi.mock('../src/requests')
const asked = vi.mocked(requests)

beforeEach(() => {
  vi.resetAllMocks()
  vi.useFakeTimers()
  localStorage.clear()
  stopFollowing()
  asked.keepOnDesk.mockResolvedValue()
})

describe('what follows a person', () => {
  it('stays in the browser where nobody signs in', async () => {
    keep('opened', ['tidewatch/a.txt'])
    await vi.runAllTimersAsync()
    expect(read('opened')).toEqual(['tidewatch/a.txt'])
    expect(asked.keepOnDesk).not.toHaveBeenCalled()
  })

  it('is joined with what this browser has, the latest first, each once', async () => {
    rememberOpened('tidewatch', 'here.txt')
    asked.desk.mockResolvedValue({
      opened: ['tidewatch/there.txt', 'tidewatch/here.txt'],
      layout: { dense: true },
      searches: 'not a list',
    })
    await follow()
    expect(openedFiles()).toEqual(['tidewatch/here.txt', 'tidewatch/there.txt'])
    expect(read('layout')).toEqual({ dense: true })
    expect(read('searches')).toEqual([])
  })

  it('is sent once for many changes in a row', async () => {
    asked.desk.mockResolvedValue({})
    await follow()
    rememberOpened('tidewatch', 'a.txt')
    rememberOpened('tidewatch', 'b.txt')
    await vi.runAllTimersAsync()
    expect(asked.keepOnDesk.mock.calls).toEqual([['opened', ['tidewatch/b.txt', 'tidewatch/a.txt']]])
  })

  it('is not sent any more after signing out', async () => {
    asked.desk.mockResolvedValue({})
    await follow()
    rememberOpened('tidewatch', 'a.txt')
    stopFollowing()
    await vi.runAllTimersAsync()
    expect(asked.keepOnDesk).not.toHaveBeenCalled()
  })

  it('does without a service that is gone', async () => {
    asked.desk.mockRejectedValue(new Error('gone'))
    keep('opened', ['tidewatch/a.txt'])
    await follow()
    expect(openedFiles()).toEqual(['tidewatch/a.txt'])
  })
})
