import type { RouteLocationNormalizedLoaded } from 'vue-router'

/** Why somebody who came back from the issuer is not signed in: the words of the address, and what to do. */
const problems: Record<string, string> = {
  refused: 'You were not let in there, or chose not to go on.',
  stale: 'That took longer than ten minutes, or was begun in another browser. Begin again.',
  'issuer-gone': 'Those accounts cannot be reached now. Try again in a while, or sign in with a password.',
  'answer-wrong':
    'The answer that came back cannot be trusted, so it was not taken. Begin again; if it stays so, ask an administrator.',
  'no-name': 'The name of your account there cannot be the name of an account here. Ask an administrator.',
  'name-taken':
    'There is an account of this name already, which signs in otherwise. An administrator can take its password off, and it is yours.',
  ended: 'Your account here was ended. Ask an administrator.',
  'not-now': 'Nobody can sign in now: the service cannot read its records. Try again in a while.',
}

/** What is wrong, by the address of the page; empty if nothing is. Only what is known is said: links can be made by anybody. */
export function problemOf(route: RouteLocationNormalizedLoaded): string {
  const word = route.query.problem
  if (route.name !== 'sign-in' || typeof word !== 'string') return ''
  return Object.hasOwn(problems, word) ? problems[word]! : 'That did not work. Begin again.'
}

/** Where somebody goes who has signed in: a page of the console, whatever the address says. */
export function pageAfterSignIn(route: RouteLocationNormalizedLoaded): string {
  if (route.name !== 'sign-in') return route.fullPath
  const back = route.query.back
  return typeof back === 'string' && /^\/(?![/\\])/.test(back) && !back.startsWith('/sign-in') ? back : '/'
}
