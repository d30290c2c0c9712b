import { parseTemplate } from 'url-template'

// Links from a place to one's own editor, by a URI template (RFC 6570). What folders there are is a matter of the
// machine, so all of this is kept in this browser alone.

const KEY = 'oddbeacon.editor'

export interface EditorSettings {
  template: string
  /** The folder that holds a clone of each repository, under the repository's name; may be empty. */
  root: string
  /** Other folders: repository = folder, one a line. */
  folders: string
}

/** A place in a file of a repository. */
export interface EditorPlace {
  repository: string
  path: string
  line?: number
  column?: number
}

export const noEditor = (): EditorSettings => ({ template: '', root: '', folders: '' })

export function editorSettings(): EditorSettings {
  try {
    return { ...noEditor(), ...JSON.parse(localStorage.getItem(KEY) ?? '{}') }
  } catch {
    return noEditor() // what was kept cannot be read
  }
}
export function keepEditor(settings: EditorSettings) {
  localStorage.setItem(KEY, JSON.stringify(settings))
}

/** What a template may name, with what it stands for. */
export const variables: [string, string][] = [
  ['file', 'the path of the file on this machine'],
  ['folder', 'the folder of its repository on this machine'],
  ['path', 'the path in the repository'],
  ['repository', 'the name of the repository'],
  ['line', 'the number of the line'],
  ['column', 'the number of the column'],
]
const LOCAL = ['file', 'folder']
const NEVER = ['javascript:', 'data:', 'vbscript:', 'blob:']

const named = (template: string): string[] =>
  [...template.matchAll(/\{[+#./;?&]?([^{}]*)\}/g)].flatMap(([, list]) =>
    list!.split(',').map(one => one.replace(/(\*|:\d+)$/, '')),
  )

/** The lines of folders that say nothing, and what each of the others says. */
function foldersOf(text: string): { folders: Map<string, string>; wrong?: string } {
  const folders = new Map<string, string>()
  let wrong: string | undefined
  for (const line of text.split('\n').map(one => one.trim())) {
    const [, repository, folder] = /^(\S+)\s*=\s*(\S.*)$/.exec(line) ?? []
    if (repository && folder) folders.set(repository, folder)
    else if (line) wrong ??= line
  }
  return { folders, wrong }
}

/** What is wrong with settings; empty if nothing is. */
export function editorProblem(settings: EditorSettings): string {
  const { template, folders } = settings
  if (!template.trim()) return ''
  if (!/^[a-z][a-z0-9+.-]*:/i.test(template)) return 'A link begins with a scheme and a colon, as in editor:'
  if (NEVER.some(scheme => template.toLowerCase().startsWith(scheme)))
    return 'A link of that scheme would run a script.'
  const left = template.replace(/\{[+#./;?&]?[A-Za-z0-9_]+(\*|:\d+)?(,[A-Za-z0-9_]+(\*|:\d+)?)*\}/g, '')
  if (/[{}]/.test(left)) return 'A brace is not closed, or holds something else than names.'
  const strange = named(template).find(name => !variables.some(([known]) => known === name))
  if (strange) return `There is no ${strange}: a template may name ${variables.map(([name]) => name).join(', ')}.`
  const { wrong } = foldersOf(folders)
  return wrong ? `Write a repository, =, and its folder: “${wrong}” is something else.` : ''
}

const joined = (folder: string, rest: string): string =>
  `${folder.replace(/[/\\]+$/, '')}${folder.includes('\\') ? `\\${rest.replaceAll('/', '\\')}` : `/${rest}`}`

/** The link to a place; undefined if settings do not say where to. */
export function editorLink(settings: EditorSettings, place: EditorPlace): string | undefined {
  if (!settings.template.trim() || editorProblem(settings)) return undefined
  const folder =
    foldersOf(settings.folders).folders.get(place.repository) ??
    (settings.root.trim() ? joined(settings.root.trim(), place.repository) : undefined)
  if (!folder && named(settings.template).some(name => LOCAL.includes(name))) return undefined
  return parseTemplate(settings.template.trim()).expand({
    repository: place.repository,
    path: place.path,
    line: place.line ?? 1,
    column: place.column ?? 1,
    ...(folder ? { folder, file: joined(folder, place.path) } : {}),
  })
}

/** Opens a place in one's editor. @returns whether settings say how */
export function openInEditor(place: EditorPlace): boolean {
  const link = editorLink(editorSettings(), place)
  if (link) window.location.assign(link)
  return !!link
}
