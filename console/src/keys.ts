import { useLayout } from './state/layout'
import { without } from './toggled'

// The keys of single letters, which everybody may set otherwise. Arrows, Enter, and those with Ctrl or Alt stay.

/** Where a key is taken: pages that share a place must not give one key twice. */
const places = {
  results: 'in a list of results',
  lines: 'in a list of lines',
  files: 'in a list of files',
  file: 'in a file',
  difference: 'in a difference',
  log: 'in a log',
  worklist: 'in a worklist',
} as const
type Place = keyof typeof places

interface Action {
  place: Place
  key: string
  meaning: string
}
export const actions = {
  box: { place: 'results', key: '/', meaning: 'to the search box' },
  preview: { place: 'results', key: 'v', meaning: 'shows the file of the hit beside the list, or hides it' },
  keys: { place: 'results', key: '?', meaning: 'this list' },
  copy: { place: 'lines', key: 'c', meaning: 'copies repository/path:line of the hit' },
  fold: { place: 'lines', key: 'f', meaning: 'folds or unfolds the file of the hit' },
  foldAll: { place: 'lines', key: 'F', meaning: 'folds or unfolds all files' },
  foldRepository: { place: 'lines', key: 'g', meaning: 'folds or unfolds the repository of the hit' },
  grow: { place: 'lines', key: 'e', meaning: 'more of the file around the hit' },
  logOf: { place: 'lines', key: 'l', meaning: 'the log of the file of the hit' },
  blameOf: { place: 'lines', key: 'b', meaning: 'opens the hit with where each line comes from' },
  editor: { place: 'lines', key: 'w', meaning: 'opens the hit in your editor, once the settings say how' },
  dense: { place: 'lines', key: 'd', meaning: 'dense list, or roomy' },
  moreContext: { place: 'lines', key: '+', meaning: 'more context lines' },
  lessContext: { place: 'lines', key: '-', meaning: 'fewer context lines' },
  mark: { place: 'files', key: 'm', meaning: 'marks a file' },
  next: { place: 'file', key: 'n', meaning: 'next hit; after the last one, the next file that has some' },
  previous: { place: 'file', key: 'p', meaning: 'previous hit; before the first one, the file before' },
  back: { place: 'file', key: 'b', meaning: 'back to the list' },
  outline: { place: 'file', key: 'o', meaning: 'to the outline' },
  blame: { place: 'file', key: 'l', meaning: 'where each line comes from' },
  counterpart: { place: 'file', key: 't', meaning: 'to its test, or from a test to what it tests' },
  search: { place: 'file', key: 's', meaning: 'searches for what is selected, or the name that was clicked' },
  again: { place: 'file', key: 'd', meaning: 'searches for where the selected code is written again' },
  fileEditor: { place: 'file', key: 'w', meaning: 'opens it in your editor, once the settings say how' },
  nextChange: { place: 'difference', key: 'n', meaning: 'next change' },
  previousChange: { place: 'difference', key: 'p', meaning: 'previous change' },
  backFromDifference: { place: 'difference', key: 'b', meaning: 'back' },
  compare: { place: 'log', key: 'x', meaning: 'marks a commit; two of them can be compared' },
  nextItem: { place: 'worklist', key: 'j', meaning: 'next item' },
  previousItem: { place: 'worklist', key: 'k', meaning: 'previous item' },
  claim: { place: 'worklist', key: 'c', meaning: 'claims the item, or lets it go' },
  done: { place: 'worklist', key: 'd', meaning: 'the item is done' },
  skip: { place: 'worklist', key: 's', meaning: 'the item stays as it is, and asks why' },
  open: { place: 'worklist', key: 'o', meaning: 'opens the item again' },
} as const satisfies Record<string, Action>
export type ActionName = keyof typeof actions
const names = Object.keys(actions) as ActionName[]
export const groups = (Object.keys(places) as Place[]).map(place => ({
  title: places[place],
  names: names.filter(name => actions[name].place === place),
}))

/** The key of an action: one's own, or the usual one. */
export const keyFor = (name: ActionName): string => useLayout().layout.keys[name] ?? actions[name].key

/** Whether a key that was pressed is that of an action. */
export const isKey = (event: KeyboardEvent, name: ActionName): boolean => event.key === keyFor(name)

/** As it is told to people. */
export const printed = (key: string): string => (/^\p{Lu}$/u.test(key) ? `Shift ${key}` : key === '-' ? '−' : key)

/** For a button that a key presses as well. */
export const hint = (name: ActionName): string => `Key: ${printed(keyFor(name))}`

const meets = (one: Place, other: Place) =>
  one === other ||
  (one === 'results' && (other === 'lines' || other === 'files')) ||
  (other === 'results' && (one === 'lines' || one === 'files'))

/** The action that has a key already where another one would take it. */
export function holderOf(key: string, name: ActionName): ActionName | undefined {
  return names.find(
    other => other !== name && keyFor(other) === key && meets(actions[other].place, actions[name].place),
  )
}

/** Sets the key of an action. @returns why it cannot be; empty if it is set */
export function setKey(name: ActionName, key: string): string {
  if ([...key].length !== 1 || !key.trim()) return 'Take a letter, a digit or a sign: other keys have their meaning.'
  const holder = holderOf(key, name)
  if (holder) return `${printed(key)} is taken: ${actions[holder].meaning}. Give that another key first.`
  const { layout } = useLayout()
  const others = without(layout.keys, name)
  layout.keys = key === actions[name].key ? others : { ...others, [name]: key }
  return ''
}

export function usualKeys() {
  useLayout().layout.keys = {}
}
