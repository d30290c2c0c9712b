<script setup lang="ts">
import { computed, nextTick, onActivated, onBeforeUnmount, onDeactivated, onMounted, ref, watch } from 'vue'
import { onBeforeRouteUpdate, useRoute, useRouter } from 'vue-router'
import { counted, day } from '../amounts'
import { whenEndIsNear } from '../endOfList'
import AsExpression from '../parts/AsExpression.vue'
import CodePreview from '../parts/CodePreview.vue'
import FallPicture from '../parts/FallPicture.vue'
import TakeAway from '../parts/TakeAway.vue'
import AskAboutFile from '../parts/AskAboutFile.vue'
import FacetBars from '../parts/FacetBars.vue'
import KeysOverlay from '../parts/KeysOverlay.vue'
import OverTime from '../parts/OverTime.vue'
import MarkedText from '../parts/MarkedText.vue'
import ResultList from '../parts/ResultList.vue'
import SecondLooks from '../parts/SecondLooks.vue'
import ScopeSentence from '../parts/ScopeSentence.vue'
import SearchBox from '../parts/SearchBox.vue'
import { remember } from '../earlier'
import { MOST_CONTEXT, asGlob, emptySearch, fromUrl, toUrl } from '../searchUrl'
import { useLayout } from '../state/layout'
import { useRepositories } from '../state/repositories'
import { useSearch } from '../state/search'
import { useSets } from '../state/sets'
import { useSubjects } from '../state/subjects'
import { narrowedTo, toggled } from '../toggled'
import { type FileHits, type Line, type ScopePart, type SecondLook, keyOf } from '../wire'

defineOptions({ name: 'SearchPage' })

const TYPING_PAUSE = 50 // milliseconds
const FEW_PATHS = 3

const route = useRoute()
const router = useRouter()
const state = useSearch()
const repositories = useRepositories()
const sets = useSets()
const subjects = useSubjects()
const { layout } = useLayout()
const box = ref<InstanceType<typeof SearchBox>>()
const end = ref<HTMLElement>()
let active = true
let timer = 0

const counts = computed(() => {
  const found = state.answer?.counts
  if (!found) return ''
  if (!found.files) return 'No hits'
  return `${found.exact ? '' : 'at least '}${found.hits ? `${counted(found.hits, 'hit')} in ` : ''}${counted(found.files, 'file')} of ${counted(found.repositories, 'repository', 'repositories')}`
})
const why = computed(() => {
  const index = state.answer?.index
  if (!index) return ''
  const { search } = state
  const words = [
    `No line in ${counted(index.repositories, 'repository', 'repositories')} has it${index.complete ? '.' : ' yet; some cannot be searched now.'}`,
  ]
  if (search.reading !== 'plain')
    words.push(`The text was read as ${search.reading === 'regex' ? 'a regular expression' : 'an expression'}.`)
  if (search.word) words.push('It had to be a whole word.')
  if (search.caseMode === 'match' || (search.caseMode === 'auto' && /\p{Lu}/u.test(search.text)))
    words.push('Its case counted.')
  if (Object.values(search.scope).some(values => values.length)) words.push('The scope was narrowed.')
  return words.join(' ')
})
const nothing = computed(() => state.answer && !state.answer.counts.files && !state.running)

// The search as a string: what the address holds and what decides whether to run it again.
const asUrl = computed(() => JSON.stringify(toUrl(state.search)))
let shown = ''

function take(query: typeof route.query) {
  Object.assign(state.search, emptySearch(), fromUrl(query))
}

watch(asUrl, () => {
  if (!active) return
  clearTimeout(timer)
  if (!state.running) start() // at once; while an answer is on its way, keys that follow each other fast become one question
  timer = window.setTimeout(() => {
    void record()
    start()
  }, TYPING_PAUSE)
})

/** Brings the search into the address. What is typed meanwhile must not be overwritten by what was recorded. */
let recording = false
async function record() {
  if (JSON.stringify(toUrl(fromUrl(route.query))) === asUrl.value) return
  recording = true
  await router.replace({ name: 'search', query: toUrl(state.search) })
  recording = false
}

function start() {
  if (shown === asUrl.value) return
  shown = asUrl.value
  void state.run()
}

onBeforeRouteUpdate(to => {
  if (!recording && JSON.stringify(toUrl(fromUrl(to.query))) !== asUrl.value) take(to.query)
})

// When indexing makes progress, what is shown may have become incomplete or stale.
watch(
  () => repositories.all.map(one => one.branches.map(branch => branch.commit).join()).join(),
  (now, before) => {
    if (before && now !== before && active && state.search.text) void state.run()
  },
)
// A service that was gone is back.
watch(
  () => repositories.gone,
  gone => {
    if (!gone && state.gone) void state.run()
  },
)

whenEndIsNear(
  end,
  computed(() => state.files),
  state.more,
)
onMounted(() => {
  take(route.query)
  start()
  window.addEventListener('keydown', keys)
  void nextTick(() => {
    if (!state.search.text) box.value?.focus()
  })
})
onActivated(() => {
  active = true
  if (!shown || asUrl.value !== JSON.stringify(toUrl(fromUrl(route.query)))) {
    take(route.query)
    start()
  }
})
onDeactivated(() => {
  active = false
})
onBeforeUnmount(() => window.removeEventListener('keydown', keys))

/** The hit that is shown beside the list. */
const looked = ref<{ file: FileHits; line: Line }>()
watch(
  () => state.files,
  files => {
    const now = looked.value
    const file = files.find(one => now && keyOf(one) === keyOf(now.file)) ?? files[0]
    const lines = file?.excerpts.flatMap(excerpt => excerpt.lines).filter(line => line.matches.length) ?? []
    const line = lines.find(one => one.number === now?.line.number) ?? lines[0]
    looked.value = file && line ? { file, line } : undefined
  },
)
function look(file: FileHits, line: Line) {
  looked.value = { file, line }
}
const lookedHits = computed(() =>
  looked.value
    ? (state.files.find(file => keyOf(file) === keyOf(looked.value!.file))?.excerpts ?? [])
        .flatMap(excerpt => excerpt.lines)
        .filter(line => line.matches.length)
    : [],
)

function keys(event: KeyboardEvent) {
  const look =
    active && event.altKey && /^Digit[1-9]$/.test(event.code) && nothing.value
      ? state.looks[Number(event.code.slice(5)) - 1]
      : undefined
  if (look) {
    event.preventDefault()
    takeLook(look)
    return
  }
  const taking = state.leftOut[0]
  if (active && event.altKey && event.code === 'KeyL' && taking) {
    event.preventDefault()
    liftSet(taking.name)
    return
  }
  if (active && event.altKey && ['KeyF', 'KeyS', 'KeyC'].includes(event.code) && state.search.text) {
    event.preventDefault()
    void router.push(
      event.code === 'KeyF' ? allFiles.value : event.code === 'KeyS' ? allSymbols.value : allCommits.value,
    )
    return
  }
  if (!active || event.ctrlKey || event.metaKey || event.altKey) return
  const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
  if (event.key === '/' && !typing) {
    event.preventDefault()
    window.scrollTo({ top: 0 })
    box.value?.focus()
  } else if (!typing && !(event.target instanceof HTMLSelectElement) && listKey(event)) event.preventDefault()
}
/** One click narrows, another takes it back; several can be left out. */
function choose(part: ScopePart, value: string) {
  const { scope } = state.search
  scope[part] = part === 'notTrait' ? toggled(scope[part], value) : narrowedTo(scope[part], value)
}
/** Takes an exclusion set out of this search, which then shows what it had left out. */
function liftSet(name: string) {
  const { scope } = state.search
  scope.except = scope.except.filter(one => one !== name)
  if (sets.all.some(set => set.name === name && set.byDefault)) scope.lift = [...scope.lift, name]
}
function takeLook(look: SecondLook) {
  remember(state.search)
  Object.assign(state.search, {
    text: look.text,
    reading: look.reading,
    caseMode: look.caseMode,
    word: look.word,
    scope: { ...look.scope },
  })
}
function editAsExpression() {
  const { context, shown, order } = state.search
  const expression = state.answer?.query.expression ?? ''
  remember(state.search)
  Object.assign(state.search, emptySearch(), {
    text: expression,
    reading: 'expression',
    context,
    order,
    shown: shown === 'without' ? 'lines' : shown,
  })
  box.value?.focus()
}
/** One line more or fewer, beyond ten lines five. */
function context(step: number) {
  const now = state.search.context
  state.search.context = layout.context = Math.min(
    MOST_CONTEXT,
    Math.max(0, now + step * (now > 10 || (now === 10 && step > 0) ? 5 : 1)),
  )
}

/** Narrows to a repository, and to a folder of it; the same again takes it back. */
function chooseSpread(repository: string, folder: string) {
  const { scope } = state.search
  const under = folder ? [asGlob(folder)] : []
  const isChosen = scope.repo.join() === repository && scope.under.join() === under.join()
  scope.repo = isChosen ? [] : [repository]
  scope.under = isChosen ? [] : under
}
const shows = computed(() => layout.preview && state.search.shown === 'lines') // a preview beside the list
const allFiles = computed(() => ({ name: 'files', query: subjects.addressOf('files', state.search) }))
const allSymbols = computed(() => ({ name: 'symbols', query: subjects.addressOf('symbols', state.search) }))
const allCommits = computed(() => ({ name: 'commits', query: subjects.addressOf('commits', state.search) }))
const list = ref<InstanceType<typeof ResultList>>()
const showsKeys = ref(false)
const copied = ref('')

/** Keys that are for nothing that is typed in. */
function listKey(event: KeyboardEvent): boolean {
  if (event.key === '?') showsKeys.value = true
  else if (event.key === '+' || event.key === '-') context(event.key === '+' ? 1 : -1)
  else if (event.key === 'v') layout.preview = !layout.preview
  else if (event.key === 'd') layout.dense = !layout.dense
  else return list.value?.key(event, place => void copy(place)) ?? false
  return true
}
async function copy(place: string) {
  await navigator.clipboard.writeText(place)
  copied.value = place
  setTimeout(() => {
    copied.value = ''
  }, 1500)
}
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pb-24">
    <div class="pt-4">
      <SearchBox
        ref="box"
        v-model="state.search"
        :problem="state.problem"
        :unfinished="state.unfinished"
        :running="state.running"
        @leave="list?.first()"
      />
      <div class="mt-2 flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <ScopeSentence v-if="repositories.loaded" v-model="state.search.scope" />
        <AsExpression
          v-if="state.answer && state.search.text && state.search.reading !== 'expression'"
          :expression="state.answer.query.expression"
          @edit="editAsExpression"
        />
      </div>
    </div>

    <section v-if="repositories.loaded && !repositories.all.length" class="mx-auto max-w-xl py-20 text-center">
      <h1 class="text-lg font-semibold">Nothing is indexed yet</h1>
      <p class="mt-2 text-soft">Register a repository, and its lines can be searched as soon as it is indexed.</p>
      <RouterLink :to="{ name: 'repositories', query: { add: 'true' } }" class="button-strong mt-4 inline-block"
        >Add a repository</RouterLink
      >
    </section>

    <section v-else-if="!state.search.text" class="py-10 text-soft">
      <p>
        Type or paste what you saw: a sentence, an address, a path, code. It is looked for exactly as it stands, with
        nothing to escape.
      </p>
      <ul class="mt-3 space-y-1">
        <li>
          <kbd class="rounded border border-rule px-1 font-mono">/</kbd> goes to the search box,
          <kbd class="rounded border border-rule px-1 font-mono">Enter</kbd> or
          <kbd class="rounded border border-rule px-1 font-mono">↓</kbd> from there to the first hit,
          <kbd class="rounded border border-rule px-1 font-mono">↓</kbd>{{ ' ' }}
          <kbd class="rounded border border-rule px-1 font-mono">↑</kbd> from hit to hit,
          <kbd class="rounded border border-rule px-1 font-mono">Enter</kbd> opens it, and the browser's back returns.
          <kbd class="rounded border border-rule px-1 font-mono">?</kbd> lists all keys.
        </li>
        <li>
          <kbd class="rounded border border-rule px-1 font-mono">↑</kbd> in the box brings earlier searches back.
          <RouterLink :to="{ name: 'learn' }" class="part">How to ask</RouterLink> shows the three ways a text is read.
        </li>
        <li>
          A line break in the text (<kbd class="rounded border border-rule px-1 font-mono">Shift Enter</kbd>, or pasted)
          finds lines that follow each other.
        </li>
      </ul>
    </section>

    <template v-else>
      <div class="mt-3 flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule pb-2" aria-live="polite">
        <p data-part="counts">
          <strong class="font-semibold">{{ counts }}</strong><span v-if="state.answer" class="text-soft">
            &nbsp;{{ state.answer.tookMillis.toFixed(1) }} ms</span
          >
        </p>
        <p v-if="state.answer && !state.answer.index.complete" class="text-accent" data-part="incomplete">
          Not complete: {{ state.answer.index.indexing }} of
          {{ counted(state.answer.index.repositories, 'repository', 'repositories') }} cannot be searched yet.
          <RouterLink :to="{ name: 'repositories' }" class="part">Look</RouterLink>
        </p>
        <p v-if="state.answer?.stopped === 'time' || state.answer?.stopped === 'memory'" class="text-accent">
          Not complete: the search took too {{ state.answer.stopped === 'time' ? 'long' : 'much memory' }} and was
          stopped. Narrow the scope, or add a longer literal text.
        </p>
        <p v-if="state.answer?.index.missingFiles" class="text-accent">
          {{ counted(state.answer.index.missingFiles, 'listed file') }} not in the index, and so not searched.
        </p>
        <p v-for="set in state.leftOut" :key="set.name" class="text-soft" data-part="left-out">
          {{ set.exact ? '' : 'At least ' }}{{ set.hits ? `${counted(set.hits, 'hit')} in ` : ''
          }}{{ counted(set.files, 'file') }} left out by <em class="not-italic text-ink">{{ set.name }}</em>
          <button
            type="button"
            class="button ml-1 py-0 text-ink"
            :title="set === state.leftOut[0] ? 'Alt L' : undefined"
            @click="liftSet(set.name)"
          >
            Show them
          </button>
        </p>
        <label class="ml-auto text-soft"
          >Show
          <select
            v-model="state.search.shown"
            class="rounded border border-rule bg-sheet px-1 py-1 text-ink"
            data-part="shown"
          >
            <option value="lines">lines</option>
            <option value="files">files only</option>
            <option value="without">files that lack it</option>
          </select>
        </label>
        <label class="text-soft"
          >by
          <select
            v-model="state.search.order"
            class="rounded border border-rule bg-sheet px-1 py-1 text-ink"
            data-part="order"
          >
            <option value="path">path</option>
            <option value="relevance">relevance</option>
            <option value="recent">last change</option>
          </select>
        </label>
        <div class="flex items-stretch overflow-hidden rounded border border-rule" role="group" aria-label="Layout">
          <button
            type="button"
            class="option"
            data-option="dense"
            :aria-pressed="layout.dense"
            :data-on="layout.dense"
            title="Key: d"
            @click="layout.dense = !layout.dense"
          >
            Dense
          </button>
          <button
            type="button"
            class="option border-l max-md:hidden"
            data-option="preview"
            :aria-pressed="layout.preview"
            :data-on="layout.preview"
            title="Key: v"
            @click="layout.preview = !layout.preview"
          >
            Preview
          </button>
          <button
            type="button"
            class="option border-l"
            data-option="picture"
            :aria-pressed="layout.picture"
            :data-on="layout.picture"
            title="Where the hits fall"
            @click="layout.picture = !layout.picture"
          >
            Picture
          </button>
          <button
            type="button"
            class="option border-l"
            data-option="over-time"
            :aria-pressed="layout.overTime"
            :data-on="layout.overTime"
            title="When these lines came in, and when they left"
            @click="layout.overTime = !layout.overTime"
          >
            Over time
          </button>
        </div>
        <TakeAway v-if="state.files.length" :search="state.search" />
        <button
          v-if="state.search.shown === 'lines' && state.files.length"
          type="button"
          class="button"
          @click="list?.foldAll()"
        >
          {{ list?.allFolded ? 'Unfold all' : 'Fold all' }}
        </button>
        <div
          v-if="state.search.shown === 'lines'"
          class="flex items-center gap-1"
          role="group"
          aria-label="Context lines"
        >
          <button
            type="button"
            class="button px-2"
            aria-label="Fewer context lines"
            :disabled="state.search.context === 0"
            @click="context(-1)"
          >
            −
          </button>
          <span class="w-26 text-center tabular-nums" data-part="context">{{
            counted(state.search.context, 'context line')
          }}</span>
          <button
            type="button"
            class="button px-2"
            aria-label="More context lines"
            :disabled="state.search.context === MOST_CONTEXT"
            @click="context(1)"
          >
            +
          </button>
        </div>
      </div>

      <section v-if="nothing" class="mx-auto max-w-xl py-16 text-center">
        <h1 class="text-lg font-semibold">Nothing found</h1>
        <p class="mt-2 text-soft">{{ why }}</p>
        <SecondLooks :looks="state.looks" @take="takeLook" />
        <AskAboutFile class="mt-6" :search="state.search" />
      </section>

      <div
        v-if="state.paths?.files.length || state.symbols?.symbols.length || state.commits?.commits.length"
        class="mt-3 grid gap-x-8 gap-y-2 md:grid-cols-3"
      >
        <section v-if="state.paths?.files.length" class="min-w-0" aria-label="Files by path">
          <h2>
            <RouterLink class="part text-soft" data-part="all-files" title="Key: Alt F" :to="allFiles"
              >{{ counted(state.paths.counts.files, 'file') }} with such a path</RouterLink
            >
          </h2>
          <ul>
            <li
              v-for="file in state.paths.files.slice(0, FEW_PATHS)"
              :key="file.repository + file.path"
              class="truncate text-left font-mono text-[13px]"
              dir="rtl"
              :title="file.path"
            >
              <bdi dir="ltr">
                <RouterLink
                  class="hover:underline"
                  :to="{ name: 'file', query: { in: file.repository, path: file.path, rev: file.branch } }"
                  ><span class="text-soft">{{ file.repository }}/</span
                  ><MarkedText :text="file.path" :matches="file.matches"
                /></RouterLink>
                <span v-if="file.skipped" class="font-sans text-soft">
                  &nbsp;text not searched: {{ file.skipped }}</span
                >
              </bdi>
            </li>
          </ul>
        </section>
        <section v-if="state.symbols?.symbols.length" class="min-w-0" aria-label="Symbols by name">
          <h2>
            <RouterLink class="part text-soft" data-part="all-symbols" title="Key: Alt S" :to="allSymbols"
              >{{ state.symbols.counts.exact ? '' : 'at least '
              }}{{ counted(state.symbols.counts.symbols, 'symbol') }} of such a name</RouterLink
            >
          </h2>
          <ul>
            <li
              v-for="symbol in state.symbols.symbols"
              :key="`${symbol.repository}/${symbol.path}:${symbol.line}:${symbol.column}`"
              class="truncate font-mono text-[13px]"
            >
              <RouterLink
                class="hover:underline"
                :title="symbol.signature"
                :to="{
                  name: 'file',
                  query: { in: symbol.repository, path: symbol.path, rev: symbol.branch, line: String(symbol.line) },
                }"
                ><span class="text-accent" aria-hidden="true">◆ </span
                ><span v-if="symbol.container" class="text-soft"
                  >{{ symbol.container.slice(symbol.container.lastIndexOf('.') + 1) }}.</span
                >{{ symbol.name }}</RouterLink
              ><span class="font-sans text-soft"> &nbsp;{{ symbol.kind }} in {{ symbol.repository }}</span>
            </li>
          </ul>
        </section>
        <section v-if="state.commits?.commits.length" class="min-w-0" aria-label="Commits by message">
          <h2>
            <RouterLink class="part text-soft" data-part="all-commits" title="Key: Alt C" :to="allCommits"
              >{{ state.commits.counts.exact ? '' : 'at least '
              }}{{ counted(state.commits.counts.commits, 'commit') }} with such words</RouterLink
            >
          </h2>
          <ul>
            <li
              v-for="{ commit } in state.commits.commits"
              :key="commit.repository + commit.id"
              class="truncate text-[13px]"
            >
              <RouterLink
                class="hover:underline"
                :title="commit.summary"
                :to="{ name: 'commit', query: { in: commit.repository, id: commit.id } }"
                >{{ commit.summary || 'no message' }}</RouterLink><span class="text-soft">
                &nbsp;{{ day(commit.authored) }}, {{ commit.repository }}</span
              >
            </li>
          </ul>
        </section>
      </div>

      <OverTime
        v-if="
          (layout.overTime || (nothing && state.search.reading !== 'expression')) &&
          state.search.text &&
          state.search.shown === 'lines'
        "
        :search="state.search"
        :quiet="!layout.overTime"
      />
      <FallPicture
        v-if="layout.picture && state.answer?.facets.spread.length"
        :spread="state.answer.facets.spread"
        :exact="state.answer.counts.exact"
        @choose="chooseSpread"
      />
      <div class="mt-3 flex gap-6">
        <aside v-if="state.answer?.facets.repository.length" class="w-52 shrink-0 max-lg:hidden">
          <div class="sticky top-3 max-h-[calc(100vh-1.5rem)] overflow-y-auto pr-2" data-part="facets">
            <FacetBars
              title="By repository"
              :facets="state.answer.facets.repository"
              :exact="state.answer.counts.exact"
              :chosen="state.search.scope.repo"
              @choose="choose('repo', $event)"
            />
            <FacetBars
              v-if="state.answer.facets.folder.length"
              title="By folder"
              :facets="state.answer.facets.folder"
              :exact="state.answer.counts.exact"
              :chosen="state.search.scope.under"
              @choose="choose('under', $event)"
            />
            <FacetBars
              title="By type"
              :facets="state.answer.facets.type"
              :exact="state.answer.counts.exact"
              :chosen="state.search.scope.type"
              @choose="choose('type', $event)"
            />
            <FacetBars
              v-if="state.answer.facets.trait.length"
              title="By trait"
              leaves-out
              :facets="state.answer.facets.trait"
              :exact="state.answer.counts.exact"
              :chosen="state.search.scope.trait"
              @choose="choose('trait', $event)"
              @leave-out="choose('notTrait', $event)"
            />
          </div>
        </aside>
        <div class="min-w-0 flex-1" :class="{ 'opacity-60': state.gone }">
          <ResultList
            ref="list"
            :files="state.files"
            :search="state.search"
            :dense="layout.dense"
            :previews="shows"
            :looked="looked"
            @look="look"
            @above="box?.focus()"
          />
        </div>
        <div v-if="shows && looked" class="w-[46%] shrink-0 max-md:hidden">
          <CodePreview
            class="sticky top-3 h-[calc(100vh-1.5rem)]"
            :repository="looked.file.repository"
            :path="looked.file.path"
            :rev="looked.file.branch"
            :range="{ from: looked.line.number, to: looked.line.number }"
            :hits="lookedHits"
          >
            <RouterLink
              class="button py-0"
              :to="{
                name: 'file',
                query: {
                  ...toUrl({ ...state.search, context: 2 }),
                  in: looked.file.repository,
                  path: looked.file.path,
                  rev: looked.file.branch,
                  line: String(looked.line.number),
                },
              }"
              >Open</RouterLink
            >
          </CodePreview>
        </div>
      </div>
      <p v-if="state.next" class="py-4 text-center text-soft" role="status">Loading more</p>
      <AskAboutFile v-else-if="state.answer && !nothing" class="mt-6" :search="state.search" />
    </template>
    <div ref="end" class="h-px" />
    <KeysOverlay v-model="showsKeys" />
    <p
      v-if="copied"
      role="status"
      class="panel fixed bottom-4 left-1/2 z-30 max-w-[90vw] -translate-x-1/2 truncate px-3 py-1"
    >
      Copied <code class="font-mono text-[13px]">{{ copied }}</code>
    </p>
  </main>
</template>
