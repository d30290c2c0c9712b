import { expect, test } from 'vitest'
import { isGood } from './tickets'

test('a ticket is good until it expires', () => {
  const ticket = { serial: '1', zone: 'coast' as const, expiry: '2025-07-01T12:00:00Z', code: 'a|b|c|d' }
  expect(isGood(ticket, new Date('2025-07-01T11:59:00Z'))).toBe(true)
  expect(isGood(ticket, new Date('2025-07-01T12:01:00Z'))).toBe(false)
})
