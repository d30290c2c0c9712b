<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { openInEditor } from '../editorLinks'
import { isKey } from '../keys'
import { useRepositories } from '../state/repositories'
import { type FileHits, type Line, type Search, keyOf } from '../wire'
import FileResult from './FileResult.vue'

// The list of hits, by repository and file. Only what is in sight, and some around it, is drawn, so that it can be very long.
const props = defineProps<{
  files: FileHits[]
  search: Search
  dense: boolean
  previews: boolean
  looked?: { file: FileHits; line: Line }
}>()
const emit = defineEmits<{ look: [file: FileHits, line: Line]; whole: [file: FileHits]; above: [] }>()
const repositories = useRepositories()
const router = useRouter()
const list = ref<HTMLElement>()
const top = ref(0) // of the list in the page, in pixels

interface Group {
  repository: string
  branch: string
}
type Row = { group: Group; file?: undefined } | { group: Group; file: FileHits; index: number }
const rows = computed(() => {
  const result: Row[] = []
  let group: Group | undefined
  for (const [index, file] of props.files.entries()) {
    if (group?.repository !== file.repository || group.branch !== file.branch) {
      group = { repository: file.repository, branch: file.branch }
      result.push({ group })
    }
    result.push({ group, file, index })
  }
  return result
})
const title = repositories.title

// Folded files; they stay so until another search is asked.
const folded = ref(new Set<string>())
watch(
  () => props.search.text,
  () => {
    folded.value = new Set()
  },
)
const allFolded = computed(() => props.files.length > 0 && props.files.every(file => folded.value.has(keyOf(file))))
// Of a repository there are several groups where the order is not by path; they are folded together.
const keysOf = computed(() => {
  const keys = new Map<string, string[]>()
  for (const file of props.files) {
    const of = `${file.repository} ${file.branch}`
    const known = keys.get(of)
    if (known) known.push(keyOf(file))
    else keys.set(of, [keyOf(file)])
  }
  return keys
})
const keysIn = (group: Group) => keysOf.value.get(`${group.repository} ${group.branch}`) ?? []
const isFolded = (group: Group) => keysIn(group).every(key => folded.value.has(key))
function fold(file: FileHits) {
  const changed = new Set(folded.value)
  if (!changed.delete(keyOf(file))) changed.add(keyOf(file))
  folded.value = changed
}
function foldAll() {
  folded.value = allFolded.value ? new Set() : new Set(props.files.map(keyOf))
}
function foldGroup(group: Group) {
  const keys = keysIn(group)
  folded.value = isFolded(group)
    ? new Set([...folded.value].filter(key => !keys.includes(key)))
    : new Set([...folded.value, ...keys])
}

/** About how high a row will be, in pixels, before it is drawn. */
function estimate(index: number): number {
  const row = rows.value[index]
  if (!row?.file) return 32
  const lines = folded.value.has(keyOf(row.file))
    ? 0
    : row.file.excerpts.reduce((sum, excerpt) => sum + excerpt.lines.length, 0)
  return (props.dense ? 24 : 44) + lines * (props.dense ? 17 : 19.5)
}
const virtual = useWindowVirtualizer(
  computed(() => ({
    count: rows.value.length,
    estimateSize: estimate,
    overscan: 4,
    scrollMargin: top.value,
    getItemKey: (index: number) => {
      const row = rows.value[index]
      return row?.file ? keyOf(row.file) : `${index} ${row?.group.repository} ${row?.group.branch}`
    },
  })),
)
const drawn = computed(() => virtual.value.getVirtualItems())
const measure = (element: unknown) => {
  if (element instanceof HTMLElement) virtual.value.measureElement(element)
}
let observer: ResizeObserver | undefined
function place() {
  if (list.value?.offsetParent) top.value = list.value.getBoundingClientRect().top + window.scrollY
}
onMounted(() => {
  observer = new ResizeObserver(place) // what stands above the list grows and shrinks
  observer.observe(document.body)
  place()
})
onBeforeUnmount(() => observer?.disconnect())
watch(
  () => [props.dense, props.previews],
  () =>
    void nextTick(() => {
      virtual.value.measure()
      place()
    }),
)
watch(
  () => props.files,
  () => void nextTick(place),
)

// The hit that one stands on, by its file and line; it may have been scrolled out of the drawn part.
const hitLines = (file: FileHits) =>
  folded.value.has(keyOf(file))
    ? []
    : file.excerpts.flatMap(excerpt => excerpt.lines).filter(line => line.matches.length)
interface Spot {
  file: number
  line?: number
}
let spot: Spot | undefined
watch(
  () => props.files[0],
  () => {
    spot = undefined
  },
)
function focused(): Spot | undefined {
  const hit = document.activeElement?.closest<HTMLElement>('a.hit')
  const file = hit?.closest<HTMLElement>('[data-file]')?.dataset.file
  return hit && file ? { file: Number(file), line: hit.dataset.line ? Number(hit.dataset.line) : undefined } : undefined
}
/** The places to stop at in a file: its hits, or itself if it is shown without lines. */
const stops = (index: number): Spot[] => {
  const file = props.files[index]!
  return file.excerpts.length ? hitLines(file).map(line => ({ file: index, line: line.number })) : [{ file: index }]
}
/** The first place of the next file that has one, in a direction; the last one if that is asked for. */
function beyond(from: number, step: number, last = false): Spot | undefined {
  for (let index = from + step; index >= 0 && index < props.files.length; index += step) {
    const found = stops(index)
    if (found.length) return last ? found[found.length - 1] : found[0]
  }
  return undefined
}
function toHit(step: number) {
  const at = focused() ?? spot
  if (!at) {
    const first = beyond(-1, 1)
    if (first) void stand(first)
    return
  }
  const here = stops(at.file)
  const next = here[here.findIndex(one => one.line === at.line) + step] ?? beyond(at.file, step, step < 0)
  if (next) void stand(next)
  else if (step < 0) {
    spot = undefined
    emit('above')
  }
}
function toFile(step: number) {
  const at = focused() ?? spot
  const next = at ? beyond(at.file, step) : beyond(-1, 1)
  if (next) void stand(next)
}
async function stand(target: Spot) {
  spot = target
  const css = `[data-file="${target.file}"] a.hit${target.line ? `[data-line="${target.line}"]` : ''}`
  for (let attempt = 0; attempt < 10; attempt++) {
    const element = list.value?.querySelector<HTMLElement>(css)
    if (element) {
      element.focus({ preventScroll: true })
      element.scrollIntoView({ block: 'nearest' })
      return
    }
    virtual.value.scrollToIndex(
      rows.value.findIndex(row => row.file && row.index === target.file),
      { align: 'center' },
    )
    await new Promise(resolve => requestAnimationFrame(resolve))
  }
}

const results = new Map<number, InstanceType<typeof FileResult>>()
function keep(index: number, result: unknown) {
  if (result) results.set(index, result as InstanceType<typeof FileResult>)
  else results.delete(index)
}
const addressOf = (file: FileHits) => ({ in: file.repository, path: file.path, rev: file.branch })
/** A key of the list. @returns whether it was one */
function key(event: KeyboardEvent, copy: (place: string) => void): boolean {
  const at = focused()
  const file = at && props.files[at.file]
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    if (!at && !(spot && document.activeElement === document.body)) return false
    const step = event.key === 'ArrowDown' ? 1 : -1
    if (event.shiftKey) toFile(step)
    else toHit(step)
  } else if (isKey(event, 'foldAll')) foldAll()
  else if (!file) return false
  else if (isKey(event, 'fold')) fold(file)
  else if (isKey(event, 'foldRepository')) foldGroup(rows.value.find(row => row.file === file)!.group)
  else if (isKey(event, 'grow') && at.line) void results.get(at.file)?.growAt(at.line)
  else if (isKey(event, 'logOf')) void router.push({ name: 'log', query: addressOf(file) })
  else if (isKey(event, 'blameOf'))
    void router.push({
      name: 'file',
      query: { ...addressOf(file), ...(at.line ? { line: String(at.line) } : {}), blame: 'true' },
    })
  else if (isKey(event, 'editor')) {
    if (!openInEditor({ ...file, ...(at.line ? { line: at.line } : {}) })) void router.push({ name: 'settings' })
  } else if (isKey(event, 'copy')) copy(`${file.repository}/${file.path}${at.line ? `:${at.line}` : ''}`)
  else return false
  return true
}
function look(file: FileHits, index: number, line: Line) {
  spot = { file: index, line: line.number }
  emit('look', file, line)
}
/** To the first hit, wherever one was. */
function first() {
  spot = undefined
  ;(document.activeElement as HTMLElement | null)?.blur()
  toHit(1)
}
defineExpose({ first, key, foldAll, allFolded })
</script>

<template>
  <div ref="list" class="relative" :style="{ height: `${virtual.getTotalSize()}px` }" data-part="results">
    <!-- moved by its top, not by a transform, which headings that stick would not know of -->
    <div class="absolute inset-x-0" :style="{ top: `${(drawn[0]?.start ?? top) - top}px` }">
      <template v-for="item in drawn" :key="String(item.key)">
        <div v-if="rows[item.index]" :ref="measure" :data-index="item.index">
          <h2
            v-if="!rows[item.index]!.file"
            class="flex items-baseline gap-2 py-1"
            :aria-label="`${title(rows[item.index]!.group.repository)} on ${rows[item.index]!.group.branch}`"
          >
            <button
              v-if="search.shown === 'lines'"
              type="button"
              tabindex="-1"
              class="w-4 shrink-0 text-soft hover:text-ink"
              :aria-expanded="!isFolded(rows[item.index]!.group)"
              :aria-label="`Fold or unfold ${rows[item.index]!.group.repository}`"
              @click="foldGroup(rows[item.index]!.group)"
            >
              {{ isFolded(rows[item.index]!.group) ? '▸' : '▾' }}
            </button>
            <RouterLink
              class="font-semibold hover:underline"
              tabindex="-1"
              :to="{
                name: 'tree',
                query: { in: rows[item.index]!.group.repository, rev: rows[item.index]!.group.branch },
              }"
              >{{ title(rows[item.index]!.group.repository) }}</RouterLink
            >
            <span class="text-soft"
              >{{ rows[item.index]!.group.repository }} on {{ rows[item.index]!.group.branch }}</span
            >
          </h2>
          <FileResult
            v-for="row in [rows[item.index]!].filter(one => one.file)"
            v-else
            :key="keyOf(row.file!)"
            :ref="result => keep((row as { index: number }).index, result)"
            :file="row.file!"
            :search="search"
            :folded="folded.has(keyOf(row.file!))"
            :dense="dense"
            :previews="previews"
            :current="previews && looked && keyOf(looked.file) === keyOf(row.file!) ? looked.line.number : undefined"
            :data-file="(row as { index: number }).index"
            :data-repository="row.group.repository"
            @fold="fold(row.file!)"
            @whole="emit('whole', row.file!)"
            @look="look(row.file!, (row as { index: number }).index, $event)"
          />
        </div>
      </template>
    </div>
  </div>
</template>
