import { describe, expect, it } from 'vitest'
import type { RouteLocationNormalizedLoaded } from 'vue-router'
import { pageAfterSignIn, problemOf } from '../src/signIn'

const at = (name: string, fullPath: string, query: Record<string, string> = {}) =>
  ({ name, fullPath, query }) as unknown as RouteLocationNormalizedLoaded

describe('signing in', () => {
  it('leads back to the page that was asked for', () => {
    expect(pageAfterSignIn(at('search', '/?text=tide'))).toBe('/?text=tide')
    expect(pageAfterSignIn(at('sign-in', '/sign-in', { back: '/device?code=BCDF-GHJK' }))).toBe(
      '/device?code=BCDF-GHJK',
    )
  })

  it.each(['//elsewhere.example', '/\\elsewhere.example', 'https://elsewhere.example', '/sign-in?back=/', ''])(
    'leads nowhere else: %s',
    back => expect(pageAfterSignIn(at('sign-in', '/sign-in', { back }))).toBe('/'),
  )

  it('explains what it knows, and repeats nothing that a link says', () => {
    expect(problemOf(at('sign-in', '/sign-in', { problem: 'name-taken' }))).toContain('take its password off')
    expect(problemOf(at('sign-in', '/sign-in', { problem: 'constructor' }))).toBe('That did not work. Begin again.')
    expect(problemOf(at('sign-in', '/sign-in'))).toBe('')
    expect(problemOf(at('search', '/', { problem: 'name-taken' }))).toBe('')
  })
})
