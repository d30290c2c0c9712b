<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { openInEditor } from '../editorLinks'
import { hint, isKey } from '../keys'
import { bytes, counted, shortRevision } from '../amounts'
import CodeAgain from '../parts/CodeAgain.vue'
import CodeView from '../parts/CodeView.vue'
import PathCrumbs from '../parts/PathCrumbs.vue'
import FindBar from '../parts/FindBar.vue'
import PaneEdge from '../parts/PaneEdge.vue'
import OriginPanel from '../parts/OriginPanel.vue'
import OutlinePanel from '../parts/OutlinePanel.vue'
import RevisionPicker from '../parts/RevisionPicker.vue'
import SymbolPanel from '../parts/SymbolPanel.vue'
import TranslationPanel from '../parts/TranslationPanel.vue'
import { type Find, type LineRange, nothing, parseRange, printRange } from '../lines'
import { pinnedFiles, rememberOpened, togglePin } from '../opened'
import * as requests from '../requests'
import { emptySearch, fromUrl, toUrl } from '../searchUrl'
import { useSets } from '../state/sets'
import { useLayout } from '../state/layout'
import { without } from '../toggled'
import { useWalk } from '../state/walk'
import type { Counterparts, FileContent, Line, Match, Origin, Outline, SymbolAt, Translations } from '../wire'

const route = useRoute()
const pinned = ref(pinnedFiles())
const router = useRouter()
const sets = useSets()
const content = ref<FileContent>()
const hits = ref<Line[]>([])
const problem = ref('')
const outline = ref<Outline>()
const regions = ref<number[]>()
const others = ref<Counterparts>()
const symbol = ref<SymbolAt>()
const translations = ref<Translations>()
const seen = ref(1)
const origins = ref<Origin[]>()
const origin = ref<Origin>()
const blameProblem = ref('')
const { layout } = useLayout()
const panel = ref<InstanceType<typeof OutlinePanel>>()
const copied = ref('')

const one = (name: string) => String(route.query[name] ?? '')
const repository = computed(() => one('in'))
const path = computed(() => one('path'))
const revision = computed(() => one('rev'))
const range = computed(() => parseRange(one('line')))
const line = computed(() => range.value?.from)
const code = ref<InstanceType<typeof CodeView>>()
const bar = ref<InstanceType<typeof FindBar>>()
const find = ref<Find>(nothing())
const finding = ref(false)
const found = ref({ count: 0, at: -1 })
const selected = ref<LineRange>()
const selectedCode = ref('')
const again = ref<InstanceType<typeof CodeAgain>>()
const name = computed(() => path.value.slice(path.value.lastIndexOf('/') + 1))
const search = computed(() => fromUrl(route.query))
const raw = computed(() => requests.rawAddress(repository.value, path.value, revision.value))
const walk = useWalk()
const walkEnds = ref('') // that there is no further hit, or why it cannot be told
const place = computed(() => hits.value.findIndex(hit => hit.number === line.value))
let loading = new AbortController()

watch(
  [repository, path, revision],
  async () => {
    if (route.name !== 'file') return
    loading.abort()
    const own = (loading = new AbortController())
    content.value = undefined
    problem.value = ''
    hits.value = []
    outline.value =
      regions.value =
      others.value =
      symbol.value =
      translations.value =
      origins.value =
      origin.value =
        undefined
    blameProblem.value = walkEnds.value = ''
    try {
      content.value = await requests.file(repository.value, path.value, revision.value, own.signal)
      rememberOpened(repository.value, path.value)
      document.title = `${name.value} · ${repository.value} · Odd Beacon`
      if (content.value.branch && content.value.text !== null) void tellStructure(own)
      if (showsBlame.value && content.value.text !== null) void tellOrigins()
      if (search.value.text && content.value.text !== null && content.value.branch) {
        const found = await requests.hitsInFile(
          search.value,
          repository.value,
          path.value,
          revision.value,
          sets.byDefault,
          own.signal,
        )
        if (own !== loading) return
        hits.value = found.files.flatMap(file =>
          file.excerpts.flatMap(excerpt => excerpt.lines.filter(hit => hit.matches.length)),
        )
        const begins = walk.takeBeginning()
        if (begins && hits.value.length) toLine(hits.value.at(begins === 'first' ? 0 : -1)!.number)
      }
    } catch (error) {
      if (!own.signal.aborted) problem.value = (error as Error).message
    }
  },
  { immediate: true },
)

/** What the index knows of the parts of the file; without it the file is shown all the same. */
async function tellStructure(own: AbortController) {
  const keep = <T,>(promise: Promise<T>, take: (found: T) => void) =>
    promise.then(
      found => {
        if (own === loading) take(found)
      },
      () => undefined,
    )
  await Promise.all([
    keep(requests.regions(repository.value, path.value, revision.value, own.signal), found => {
      regions.value = found
    }),
    keep(requests.outline(repository.value, path.value, revision.value, false, own.signal), found => {
      outline.value = found
      if (found.symbols.length)
        void keep(requests.outline(repository.value, path.value, revision.value, true, own.signal), counted => {
          outline.value = counted
        })
    }),
    keep(requests.counterparts(repository.value, path.value, revision.value, own.signal), found => {
      others.value = found
    }),
  ])
}
/** Where each line comes from. */
async function tellOrigins() {
  const own = loading
  blameProblem.value = ''
  try {
    const found = await requests.blame(repository.value, path.value, revision.value, false, own.signal)
    if (own === loading) origins.value = found.origins
  } catch (error) {
    if (own === loading && !own.signal.aborted) blameProblem.value = (error as Error).message
  }
}
const showsBlame = computed(() => layout.blame || one('blame') === 'true')
function toggleBlame() {
  const shows = !showsBlame.value
  layout.blame = shows
  if (route.query.blame) void router.replace({ query: without(route.query, 'blame') })
  if (shows) void tellOrigins()
  else origins.value = origin.value = undefined
}
function chooseRevision(rev: string) {
  void router.push({
    name: 'file',
    query: { in: repository.value, path: path.value, rev, ...(range.value ? { line: printRange(range.value) } : {}) },
  })
}
/** Whether keys are declared here, so that a line may hold a text that other languages have as well. */
const hasKeys = computed(() => outline.value?.symbols.some(one => one.kind === 'key') ?? false)
async function showName(line: number, column: number) {
  const own = loading
  if (hasKeys.value)
    void requests.translations(repository.value, path.value, revision.value, line, own.signal).then(
      found => {
        if (own === loading) translations.value = found
      },
      () => {
        if (own === loading) translations.value = undefined // it is no such text
      },
    )
  try {
    const found = await requests.symbolAt(repository.value, path.value, revision.value, line, column)
    if (own === loading) symbol.value = found
  } catch {
    symbol.value = undefined // no name stands there
  }
}
const showsBeside = computed(
  () => !!symbol.value || !!translations.value || !!origin.value || (layout.outline && !!outline.value?.language),
)
const fileLink = (other: string) => ({
  name: 'file',
  query: { in: repository.value, path: other, ...(revision.value ? { rev: revision.value } : {}) },
})
const asTest = computed(() => (others.value?.test ? 'what it tests' : 'test'))
function toCounterpart() {
  const other = others.value?.byConvention[0]
  if (other) void router.push(fileLink(other))
}
/** A search for what is selected, or for the name that was clicked. */
function searchSelected() {
  const text = window.getSelection()?.toString() || symbol.value?.name
  if (text) void router.push({ name: 'search', query: toUrl({ ...emptySearch(), text }) })
}
const here = computed(() => (line.value && line.value > seen.value ? line.value : seen.value))
function toRange(to: LineRange) {
  void router.replace({ query: { ...route.query, line: printRange(to) } })
}
const toLine = (number: number) => toRange({ from: number, to: number })
/** To the next hit or the one before; past the last one, to the next file that has some. */
async function step(by: number) {
  if (!hits.value.length) return
  const after = hits.value.findIndex(hit => hit.number > (line.value ?? 0))
  const at = place.value < 0 ? (after < 0 ? hits.value.length : after) - (by > 0 ? 1 : 0) : place.value
  const hit = hits.value[at + by]
  if (hit) return toLine(hit.number)
  const own = loading
  walkEnds.value = ''
  try {
    const branch = content.value?.branch || revision.value
    const here = { repository: repository.value, path: path.value, branch }
    const file = await walk.beside(search.value, here, by, own.signal)
    if (own !== loading) return
    if (!file) {
      walkEnds.value = by > 0 ? 'This was the last hit' : 'This was the first hit'
      return
    }
    walk.begin(by > 0 ? 'first' : 'last')
    await router.replace({
      query: { ...without(route.query, 'line'), in: file.repository, path: file.path, rev: file.branch },
    })
  } catch (error) {
    if (!own.signal.aborted) walkEnds.value = (error as Error).message
  }
}
function openInOwnEditor() {
  const at = { repository: repository.value, path: path.value, ...(line.value ? { line: line.value } : {}) }
  if (!openInEditor(at)) void router.push({ name: 'settings' })
}
async function copy(what: string, text: string) {
  await navigator.clipboard.writeText(text)
  copied.value = what
  setTimeout(() => {
    copied.value = ''
  }, 1500)
}
/** A link that names the commit shows the same lines for good; one that names the branch follows it. */
function linkAt(rev: string): string {
  const link = router.resolve({
    name: 'file',
    query: {
      in: repository.value,
      path: path.value,
      ...(rev ? { rev } : {}),
      ...(range.value ? { line: printRange(range.value) } : {}),
    },
  })
  return new URL(link.href, location.href).href
}
/** Lines that were selected, or chosen by their numbers: finding can be limited to several. */
const chosenLines = computed(() =>
  [selected.value, range.value].find(lines => lines !== undefined && lines.to > lines.from),
)
const matches = ref<Match[]>([])
const findProblem = ref('')
let looking = new AbortController()
watch(
  () => finding.value && JSON.stringify([find.value.text, find.value.caseCounts, find.value.word, find.value.regex]),
  async () => {
    looking.abort()
    const own = (looking = new AbortController())
    findProblem.value = ''
    if (!finding.value || !find.value.text || !content.value) {
      matches.value = []
      return
    }
    try {
      const found = await requests.matchesInFile(
        repository.value,
        path.value,
        content.value.commit,
        find.value,
        own.signal,
      )
      if (own === looking) matches.value = found.matches
    } catch (error) {
      if (own.signal.aborted) return
      matches.value = []
      findProblem.value = (error as Error).message
    }
  },
)
function openFind() {
  if (content.value?.text == null) return
  const text = window.getSelection()?.toString() ?? ''
  if (text && !text.includes('\n')) find.value = { ...find.value, text }
  if (selected.value && selected.value.to > selected.value.from) find.value = { ...find.value, within: selected.value }
  finding.value = true
  void nextTick(() => bar.value?.focus())
}
function closeFind() {
  finding.value = false
  find.value = nothing()
  code.value?.focus()
}
function keys(event: KeyboardEvent) {
  if ((event.ctrlKey || event.metaKey) && event.key === 'f' && content.value?.text != null) {
    event.preventDefault()
    openFind()
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey || event.target instanceof HTMLInputElement) return
  if (isKey(event, 'next')) void step(1)
  else if (isKey(event, 'previous')) void step(-1)
  else if (isKey(event, 'back')) router.back()
  else if (isKey(event, 'outline')) {
    event.preventDefault()
    layout.outline = true
    void nextTick(() => panel.value?.focus())
  } else if (isKey(event, 'counterpart')) toCounterpart()
  else if (isKey(event, 'search')) searchSelected()
  else if (isKey(event, 'again') && again.value?.isCode) void again.value.find('same')
  else if (isKey(event, 'fileEditor')) openInOwnEditor()
  else if (isKey(event, 'blame')) toggleBlame()
  else if (event.key === 'Escape' && finding.value) closeFind()
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <main class="mx-auto flex h-[calc(100vh-3rem)] max-w-[92rem] flex-col px-4 pb-3">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1 py-2">
      <button type="button" class="button" :title="hint('back')" @click="router.back()">Back</button>
      <PathCrumbs :repository="repository" :path="path" :rev="revision" />
      <template v-if="content">
        <span class="text-soft"
          >at
          <RevisionPicker
            :repository="repository"
            :current="content.branch || revision"
            :label="content.branch || shortRevision(revision)"
            class="inline-block"
            @choose="chooseRevision"
          />,
          <RouterLink
            class="font-mono hover:underline"
            :to="{ name: 'commit', query: { in: repository, id: content.commit } }"
            >{{ content.commit.slice(0, 8) }}</RouterLink
          ></span
        >
        <span class="text-soft">{{
          content.text === null
            ? bytes(content.bytes)
            : `${counted(content.lines, 'line')}, ${bytes(content.bytes)}, ${content.encoding}`
        }}</span>
        <span class="ml-auto flex flex-wrap items-center gap-1">
          <template v-if="hits.length">
            <span v-if="walkEnds" class="mr-1 text-accent" role="status" data-part="walk-ends">{{ walkEnds }}</span>
            <span class="mr-1 tabular-nums" data-part="place">{{
              place < 0 ? counted(hits.length, 'hit') : `hit ${place + 1} of ${hits.length}`
            }}</span>
            <button type="button" class="button" :title="hint('previous')" @click="void step(-1)">Previous</button>
            <button type="button" class="button" :title="hint('next')" @click="void step(1)">Next</button>
          </template>
          <RouterLink
            v-if="others?.byConvention.length"
            class="button"
            data-part="counterpart"
            :title="hint('counterpart')"
            :to="fileLink(others.byConvention[0]!)"
            >To its {{ asTest }}</RouterLink
          >
          <RouterLink
            class="button"
            data-part="log-link"
            :to="{ name: 'log', query: { in: repository, path, ...(revision ? { rev: revision } : {}) } }"
            >Log</RouterLink
          >
          <button
            v-if="content.text !== null"
            type="button"
            class="button"
            :aria-pressed="showsBlame"
            data-part="blame-button"
            :title="hint('blame')"
            @click="toggleBlame"
          >
            Blame
          </button>
          <button
            v-if="outline?.language"
            type="button"
            class="button"
            :aria-pressed="layout.outline"
            data-part="outline-button"
            :title="hint('outline')"
            @click="layout.outline = !layout.outline"
          >
            Outline
          </button>
          <button
            type="button"
            class="button"
            :aria-pressed="pinned.includes(`${repository}/${path}`)"
            title="Pinned files stand on the start page"
            data-part="pin"
            @click="pinned = togglePin(`${repository}/${path}`)"
          >
            Pin
          </button>
          <button type="button" class="button" @click="copy('path', `${repository}/${path}`)">
            {{ copied === 'path' ? 'Copied' : 'Copy path' }}
          </button>
          <button
            v-if="content.branch"
            type="button"
            class="button"
            :title="`Shows what stands there on ${content.branch} when it is opened`"
            @click="copy('branch', linkAt(content.branch))"
          >
            {{ copied === 'branch' ? 'Copied' : 'Copy branch link' }}
          </button>
          <button
            type="button"
            class="button"
            data-part="link"
            title="Names the commit: shows the same lines for good"
            @click="copy('link', linkAt(content.commit))"
          >
            {{ copied === 'link' ? 'Copied' : 'Copy permanent link' }}
          </button>
          <button
            v-if="content.text !== null"
            type="button"
            class="button"
            title="Ctrl F"
            data-part="find-button"
            @click="openFind"
          >
            Find
          </button>
          <a class="button" :href="raw" :download="name">Download</a>
          <button
            type="button"
            class="button"
            :title="hint('fileEditor')"
            data-part="to-editor"
            @click="openInOwnEditor"
          >
            To your editor
          </button>
        </span>
      </template>
    </div>
    <p v-if="blameProblem && showsBlame" role="status" class="pb-1 text-accent">{{ blameProblem }}</p>
    <div class="flex min-h-0 flex-1 flex-col overflow-hidden rounded-md border border-rule bg-sheet">
      <FindBar
        v-if="finding"
        ref="bar"
        v-model="find"
        :count="found.count"
        :at="found.at"
        :selected="chosenLines"
        :problem="findProblem"
        @step="code?.step($event)"
        @close="closeFind"
      />
      <div v-if="content && content.text !== null" class="relative flex min-h-0 flex-1">
        <CodeAgain v-if="outline?.language" ref="again" :code="selectedCode" :language="outline.language" />
        <CodeView
          :key="content.commit + content.path"
          ref="code"
          class="min-h-0 min-w-0 flex-1"
          :regions="regions"
          :origins="showsBlame ? origins : undefined"
          :name="name"
          :text="content.text"
          :range="range"
          :hits="hits"
          :find="finding ? find : undefined"
          :matches="matches"
          @range="toRange"
          @found="(count, at) => (found = { count, at })"
          @selected="(lines, chosen) => ((selected = lines), (selectedCode = chosen))"
          @name="showName"
          @seen="seen = $event"
          @origin="origin = $event"
        />
        <PaneEdge
          v-if="showsBeside"
          pane="beside"
          label="Width of what stands beside the file"
          :least="180"
          :most="900"
        />
        <aside
          v-if="showsBeside"
          class="flex w-80 shrink-0 flex-col border-l border-rule max-md:w-56"
          :style="layout.widths.beside ? { width: `min(${layout.widths.beside}px, 70%)` } : {}"
          data-part="beside"
        >
          <OriginPanel
            v-if="origin"
            class="border-b border-rule"
            :repository="repository"
            :origin="origin"
            @close="origin = undefined"
          />
          <TranslationPanel
            v-if="translations"
            class="max-h-[50%] border-b border-rule"
            :translations="translations"
            @close="translations = undefined"
          />
          <SymbolPanel
            v-if="symbol"
            class="max-h-[60%] border-b border-rule"
            :symbol="symbol"
            @close="symbol = undefined"
          />
          <OutlinePanel
            v-if="layout.outline && outline?.language"
            ref="panel"
            class="flex-1"
            :outline="outline"
            :line="here"
            @go="toLine"
          />
          <p
            v-if="others && !others.byConvention.length && others.candidates.length && layout.outline"
            class="border-t border-rule p-2 text-[12px] text-soft"
            data-part="candidates"
          >
            No {{ others.test ? 'tested file' : 'test' }} by its name; perhaps
            <template v-for="(other, i) in others.candidates.slice(0, 3)" :key="other"
              >{{ i ? ', ' : ''
              }}<RouterLink class="part" :to="fileLink(other)">{{
                other.slice(other.lastIndexOf('/') + 1)
              }}</RouterLink></template
            >
          </p>
        </aside>
      </div>
      <figure v-else-if="content?.image" class="flex h-full flex-col items-center justify-center gap-3 p-6">
        <img :src="raw" :alt="name" class="checkered max-h-[80%] max-w-full" />
        <figcaption class="text-soft">
          {{ bytes(content.bytes) }}. Its content is not searched: {{ content.skipped }}.
        </figcaption>
      </figure>
      <div v-else-if="content" class="flex h-full flex-col items-center justify-center gap-2 p-6 text-center">
        <template v-if="content.submodule">
          <p class="font-semibold">This is a submodule: another repository</p>
          <p class="text-soft">
            <span v-if="content.submodule.location" class="font-mono break-all">{{ content.submodule.location }}</span>
            at {{ shortRevision(content.submodule.commit) }}
          </p>
          <RouterLink
            v-if="content.submodule.repository"
            class="button"
            :to="{ name: 'tree', query: { in: content.submodule.repository, rev: content.submodule.commit } }"
            >To {{ content.submodule.repository }}</RouterLink
          >
          <p v-else class="text-soft">It is not registered here: add it to search it.</p>
        </template>
        <template v-else>
          <p class="font-semibold">This file is not shown</p>
          <p class="text-soft">{{ bytes(content.bytes) }}, not searched: {{ content.skipped }}.</p>
          <a class="button" :href="raw" :download="name">Download</a>
        </template>
      </div>
      <div
        v-else-if="problem"
        role="alert"
        class="flex h-full flex-col items-center justify-center gap-2 p-6 text-center"
      >
        <p class="font-semibold">The file cannot be shown</p>
        <p class="max-w-xl text-soft">{{ problem }}</p>
        <RouterLink class="button" :to="{ name: 'search', query: toUrl(search) }">To the search</RouterLink>
      </div>
      <p v-else class="p-6 text-soft" role="status">Loading {{ name }}</p>
    </div>
  </main>
</template>
