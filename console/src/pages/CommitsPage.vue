<script setup lang="ts">
import { computed, nextTick, onActivated, onBeforeUnmount, onDeactivated, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { counted } from '../amounts'
import { whenEndIsNear } from '../endOfList'
import CommitItem from '../parts/CommitItem.vue'
import FacetBars from '../parts/FacetBars.vue'
import ScopeSentence from '../parts/ScopeSentence.vue'
import Timeline from '../parts/Timeline.vue'
import * as requests from '../requests'
import { emptySearch, fromUrl, toUrl } from '../searchUrl'
import { toggled } from '../toggled'
import type { CommitFacet, CommitQuest, CommitReading, CommitsAnswer, Facet, FoundCommit } from '../wire'

// Commits of all repositories: by message, person, date, changed files, and the lines that came and went.
defineOptions({ name: 'CommitsPage' })
const route = useRoute()
const router = useRouter()
const nothing = (): CommitQuest => ({ text: '', reading: 'fragments', by: [], touches: [], adds: '', removes: '', after: '', before: '', scope: emptySearch().scope })
const quest = reactive<CommitQuest>(nothing())
const answer = shallowRef<CommitsAnswer>()
const commits = shallowRef<FoundCommit[]>([])
const problem = ref('')
const box = ref<HTMLInputElement>()
const end = ref<HTMLElement>()
const busy = ref(false)
let asking = new AbortController()
let timer = 0
let active = true

const readings: [CommitReading, string][] = [['fragments', 'Words, in any order'], ['plain', 'Plain text'], ['regex', 'Regular expression'], ['expression', 'Expression']]
const one = (name: string) => String(route.query[name] ?? '')
const all = (name: string) => [route.query[name]].flat().filter((value): value is string => !!value)

function take() {
  Object.assign(quest, nothing(), {
    text: one('q'), reading: readings.map(([name]) => name).find(name => name === one('reading')) ?? 'fragments', by: all('by'), touches: all('touches'), adds: one('adds'), removes: one('removes'), after: one('after'), before: one('before'),
    scope: fromUrl(route.query).scope,
  })
}
const asUrl = computed(() => {
  const query = toUrl({ ...emptySearch(), scope: quest.scope, context: 2 })
  if (quest.text) query.q = quest.text
  if (quest.reading !== 'fragments') query.reading = quest.reading
  for (const part of ['by', 'touches'] as const) if (quest[part].length) query[part] = quest[part]
  for (const part of ['adds', 'removes', 'after', 'before'] as const) if (quest[part]) query[part] = quest[part]
  return query
})
let asked: string | undefined
watch(() => JSON.stringify(asUrl.value), () => {
  if (!active) return
  clearTimeout(timer)
  timer = window.setTimeout(() => { void router.replace({ name: 'commits', query: asUrl.value }); void run() }, 40)
})

async function run() {
  const key = JSON.stringify(asUrl.value)
  if (key === asked) return
  asked = key
  asking.abort()
  const own = (asking = new AbortController())
  try {
    const found = await requests.findCommits({ ...quest, scope: { ...quest.scope } }, own.signal)
    if (own !== asking) return
    answer.value = found
    commits.value = found.commits
    problem.value = ''
    document.title = `${quest.text || 'Commits'} · Odd Beacon`
    if (!found.counts.exact && !found.stopped) { // the page came with lower bounds; the exact figures follow
      const all = await requests.findCommits({ ...quest, scope: { ...quest.scope } }, own.signal, { limit: 1, counts: 'exact' })
      if (own === asking && answer.value) answer.value = { ...answer.value, counts: all.counts, facets: all.facets, stopped: all.stopped }
    }
  } catch (error) {
    if (own.signal.aborted) return
    problem.value = (error as Error).message
  }
}
async function more() {
  const cursor = answer.value?.next
  if (!cursor || busy.value) return
  busy.value = true
  const own = asking
  try {
    const page = await requests.findCommits({ ...quest, scope: { ...quest.scope } }, own.signal, { cursor, limit: 200 })
    if (own !== asking) return
    commits.value = [...commits.value, ...page.commits]
    answer.value = { ...page, counts: answer.value!.counts, facets: answer.value!.facets }
  } catch (error) {
    if (!own.signal.aborted) problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
const bars = (facets: CommitFacet[]): Facet[] => facets.map(facet => ({ value: facet.value, files: facet.commits, hits: 0 }))
function chooseYear(year: string) {
  const next = String(Number(year) + 1).padStart(4, '0')
  const isChosen = quest.after === year && quest.before === next
  Object.assign(quest, isChosen ? { after: '', before: '' } : { after: year, before: next })
}
const year = computed(() => (/^\d{4}$/.test(quest.after) && Number(quest.before) === Number(quest.after) + 1 ? [quest.after] : []))
const counts = computed(() => {
  const found = answer.value?.counts
  return found ? `${found.exact ? '' : 'at least '}${counted(found.commits, 'commit')} of ${counted(found.repositories, 'repository', 'repositories')}` : ''
})
const isNarrowed = computed(() => quest.by.length || quest.touches.length || quest.adds || quest.removes || quest.after || quest.before)

function keys(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const list = [...document.querySelectorAll<HTMLElement>('a.commit')]
  const at = list.indexOf(document.activeElement as HTMLElement)
  const move = (target?: HTMLElement) => { event.preventDefault(); target?.focus() }
  if (event.key === '/' && !(event.target instanceof HTMLInputElement)) move(box.value)
  else if (event.key === 'ArrowDown' && (at >= 0 || event.target === box.value)) move(list[at + 1])
  else if (event.key === 'ArrowUp' && at >= 0) move(at ? list[at - 1] : box.value)
  else if (event.key === 'Enter' && event.target === box.value) move(list[0])
}
whenEndIsNear(end, commits, more)
function start() {
  active = true
  take()
  void run()
  window.addEventListener('keydown', keys)
  void nextTick(() => { if (!quest.text) box.value?.focus() })
}
function stop() {
  active = false
  window.removeEventListener('keydown', keys)
}
watch(() => route.fullPath, () => { if (active && route.name === 'commits') take() })
onMounted(start)
onActivated(() => { if (!active) start() })
onDeactivated(stop)
onBeforeUnmount(stop)
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pb-16">
    <form class="pt-3" role="search" @submit.prevent>
      <div class="flex flex-wrap gap-2">
        <input ref="box" v-model="quest.text" class="field min-w-60 flex-1 font-mono" type="search" aria-label="What a commit says" :placeholder="quest.reading === 'expression' ? 'says(berth) adds(/buffer/) not by(robot) touches(src)' : 'Words of the message, or of the people'" autocomplete="off" spellcheck="false" />
        <label class="flex items-center gap-1 text-soft">read as <select v-model="quest.reading" class="rounded border border-rule bg-sheet px-1 py-1 text-ink" data-part="reading"><option v-for="[reading, title] in readings" :key="reading" :value="reading">{{ title.toLowerCase() }}</option></select></label>
      </div>
      <div class="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-soft">
        <label>added lines with <input v-model="quest.adds" class="field inline-block w-44 font-mono text-[13px] text-ink" data-part="adds" aria-label="Text of added lines" spellcheck="false" /></label>
        <label>removed lines with <input v-model="quest.removes" class="field inline-block w-44 font-mono text-[13px] text-ink" data-part="removes" aria-label="Text of removed lines" spellcheck="false" /></label>
        <label>changed <input :value="quest.touches.join(' ')" class="field inline-block w-40 font-mono text-[13px] text-ink" data-part="touches" placeholder="any file" aria-label="Folders or files that were changed" spellcheck="false" @change="quest.touches = ($event.target as HTMLInputElement).value.split(/\s+/).filter(Boolean)" /></label>
        <label>from <input v-model.lazy="quest.after" class="field inline-block w-28 text-[13px] text-ink" data-part="after" placeholder="2026-01-31" aria-label="Committed from that day on" /></label>
        <label>to before <input v-model.lazy="quest.before" class="field inline-block w-28 text-[13px] text-ink" data-part="before" placeholder="today" aria-label="Committed before that day" /></label>
        <button v-for="person in quest.by" :key="person" type="button" class="button text-ink" :title="`Of anybody, not only ${person}`" @click="quest.by = toggled(quest.by, person)">by {{ person }} ×</button>
        <button v-if="isNarrowed" type="button" class="button text-ink" @click="Object.assign(quest, nothing(), { text: quest.text, reading: quest.reading, scope: quest.scope })">All commits</button>
      </div>
      <ScopeSentence v-model="quest.scope" commits class="mt-1.5" />
    </form>
    <p v-if="problem" role="alert" class="mt-3 rounded border border-bad px-3 py-2 text-bad">{{ problem }}</p>
    <div class="mt-3 flex flex-wrap items-baseline gap-x-4 border-b border-rule pb-2" aria-live="polite">
      <p v-if="answer" data-part="counts"><strong class="font-semibold">{{ counts }}</strong><span class="text-soft"> &nbsp;{{ answer.tookMillis.toFixed(1) }} ms</span></p>
      <p v-if="answer && !answer.index.complete" class="text-accent" data-part="incomplete">Not complete: the past of {{ answer.index.indexing }} of {{ counted(answer.index.repositories, 'repository', 'repositories') }} is still being read.</p>
      <p v-if="answer?.covered.cut" class="text-accent">The past is cut at {{ counted(answer.covered.cut, 'commit') }} whose parents are not there.</p>
      <p v-if="answer?.covered.withoutLines && (quest.adds || quest.removes)" class="text-accent">Of {{ counted(answer.covered.withoutLines, 'commit') }} the changed lines are too many to be searched.</p>
      <p v-if="answer?.stopped" class="text-accent">Not complete: the search took too long and was stopped. Narrow it by repository, date or path.</p>
    </div>
    <Timeline v-if="answer && answer.facets.timeline.bars.length > 1" class="mt-2" :timeline="answer.facets.timeline" @span="(after, before) => Object.assign(quest, { after, before })" />
    <div class="mt-2 flex gap-6">
      <aside v-if="answer?.counts.commits" class="w-52 shrink-0 max-lg:hidden">
        <FacetBars title="By person" :facets="bars(answer.facets.person)" :exact="answer.counts.exact" :chosen="quest.by" @choose="quest.by = toggled(quest.by, $event)" />
        <FacetBars title="By repository" :facets="bars(answer.facets.repository)" :exact="answer.counts.exact" :chosen="quest.scope.repo" @choose="quest.scope.repo = toggled(quest.scope.repo, $event)" />
        <FacetBars title="By year" :facets="bars(answer.facets.year)" :exact="answer.counts.exact" :chosen="year" @choose="chooseYear" />
      </aside>
      <div class="min-w-0 flex-1">
        <CommitItem v-for="found in commits" :key="found.commit.repository + found.commit.id" :found="found" shows-repository @person="quest.by = toggled(quest.by, $event)" />
        <section v-if="answer && !answer.counts.commits" class="py-16 text-center">
          <p class="font-semibold">No commit is like that</p>
          <p class="mt-1 text-soft">{{ counted(answer.covered.commits, 'commit') }} of {{ counted(answer.index.repositories, 'repository', 'repositories') }} were searched.</p>
          <p class="mt-3 flex justify-center gap-2">
            <button v-if="isNarrowed && quest.text" type="button" class="button" @click="Object.assign(quest, nothing(), { text: quest.text, reading: quest.reading, scope: quest.scope })">Only by the message</button>
            <button v-if="quest.text && quest.reading !== 'expression'" type="button" class="button" @click="Object.assign(quest, { adds: quest.text, text: '', removes: '' })">In added lines</button>
            <button v-if="quest.text && quest.reading !== 'expression'" type="button" class="button" @click="Object.assign(quest, { removes: quest.text, text: '', adds: '' })">In removed lines</button>
          </p>
        </section>
        <p v-if="answer?.next" class="py-3 text-center text-soft" role="status">Loading more</p>
        <p v-if="!answer && !problem" class="py-6 text-soft" role="status">Loading</p>
      </div>
    </div>
    <div ref="end" class="h-px" />
  </main>
</template>
