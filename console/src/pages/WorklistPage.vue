<script setup lang="ts">
import { computed, nextTick, onActivated, onBeforeUnmount, onDeactivated, onMounted, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { isKey, keyFor } from '../keys'
import { useActing } from '../acting'
import { counted, day, number } from '../amounts'
import CodePreview from '../parts/CodePreview.vue'
import OverTimeChart from '../parts/OverTimeChart.vue'
import * as requests from '../requests'
import { placeOf, whose } from '../saved'
import { fromUrl } from '../searchUrl'
import { useSession } from '../state/session'
import type {
  OverTimeOfRepository,
  SavedSearch,
  Worklist,
  WorklistDay,
  WorklistItem,
  WorklistLeft,
  WorklistState,
} from '../wire'

// Results of a saved search that a team ticks off, each beside its code. What others tick off appears within a second.
const route = useRoute()
const session = useSession()
const search = ref<SavedSearch>()
const list = ref<Worklist>()
const items = reactive(new Map<number, WorklistItem>())
const left = ref<WorklistLeft>()
const earlier = ref<OverTimeOfRepository[]>([]) // from history
const chosen = ref<number>()
const missing = ref('')
const shows = reactive({
  state: 'open' as WorklistState,
  by: 'repository' as 'repository' | 'path' | 'person' | 'owner',
  past: false,
})
const reason = ref('')
const asksWhy = ref(false)
const ownName = ref(localStorage.getItem('oddbeacon.name') ?? '')
const { problem, busy, act } = useActing()
let at = ''
let timer = 0
const POLL = 1000
const NO_OWNER = 'no owner named'

const meant = computed(() => ({ name: String(route.query.search ?? ''), of: String(route.query.of ?? '') }))
const me = computed(() => session.person?.name ?? ownName.value.trim())
const counts = computed(() => {
  const all = { open: 0, done: 0, stays: 0, gone: 0 }
  for (const item of items.values()) all[item.state]++
  return all
})
const shown = computed(() =>
  [...items.values()]
    .filter(item => item.state === shows.state)
    .sort((one, other) => {
      const [a, b] = [place(one), place(other)]
      return groupOf(one).localeCompare(groupOf(other)) || (a < b ? -1 : a > b ? 1 : line(one) - line(other))
    }),
)
const groups = computed(() => {
  const groups = new Map<string, WorklistItem[]>()
  for (const item of shown.value) groups.set(groupOf(item), [...(groups.get(groupOf(item)) ?? []), item])
  return [...groups]
})
const current = computed(() => (chosen.value === undefined ? undefined : items.get(chosen.value)))
/** What was left by day, after the lines that matched before the list was made. */
const courses = computed(() => {
  const days = left.value?.days ?? []
  const made = list.value?.made.slice(0, 10) ?? ''
  const byOwner = shows.by === 'owner'
  const reaches = shows.past && !byOwner
  const before = (repository: string) =>
    (reaches ? earlier.value : [])
      .filter(course => course.repository === repository)
      .flatMap(course => course.points.filter(point => point.day < made))
  const amounts = (one: WorklistDay) =>
    byOwner
      ? one.owners.map(({ owners, items }) => ({ name: owners || NO_OWNER, items }))
      : one.repositories.map(({ repository, items }) => ({ name: repository, items }))
  const names = [
    ...new Set([
      ...days.flatMap(one => amounts(one).map(each => each.name)),
      ...(reaches ? earlier.value.map(course => course.repository) : []),
    ]),
  ]
  const of = (one: WorklistDay, name: string) => amounts(one).find(each => each.name === name)?.items ?? 0
  return names
    .map(repository => ({
      repository,
      points: [...before(repository), ...days.map(one => ({ day: one.day, lines: of(one, repository) }))],
      now: days.length ? of(days.at(-1)!, repository) : 0,
      difference: 0,
    }))
    .sort((one, other) => other.now - one.now)
})
const past = computed(() => (search.value?.subject === 'lines' ? fromUrl(search.value.parameters) : undefined))

const reachBack = () =>
  act(async () => {
    if (!shows.past) earlier.value = (await requests.overTime(past.value!, new AbortController().signal)).courses
    shows.past = !shows.past
  })

const line = (item: WorklistItem) => item.result.line ?? 0
const place = (item: WorklistItem) => `${item.result.repository}/${item.result.path ?? item.result.commit}`
function groupOf(item: WorklistItem): string {
  if (shows.by === 'person') return item.claimedBy ?? 'nobody'
  if (shows.by === 'owner') return item.owners.join(' ') || NO_OWNER
  return shows.by === 'path' ? place(item) : item.result.repository
}
const nameOf = (item: WorklistItem) =>
  item.result.path === null
    ? item.result.commit.slice(0, 10)
    : `${shows.by === 'repository' ? item.result.path : place(item)}${item.result.line ? `:${item.result.line}` : ''}`

function take(found: { items: WorklistItem[]; at: string }) {
  for (const item of found.items) items.set(item.id, item)
  at = found.at
  chosen.value ??= shown.value[0]?.id
}
async function load() {
  search.value = list.value = undefined
  items.clear()
  chosen.value = undefined
  missing.value = ''
  try {
    search.value = await requests.savedSearch(meant.value)
    list.value = (await requests.worklists()).find(
      one => one.search === meant.value.name && one.of === search.value!.of,
    )
    if (!list.value) return
    take(await requests.worklistItems(meant.value))
    left.value = await requests.worklistLeft(meant.value)
  } catch (error) {
    missing.value = (error as Error).message
  }
}
async function poll() {
  clearTimeout(timer)
  timer = window.setTimeout(poll, POLL)
  if (!list.value || document.hidden || !at) return
  try {
    const found = await requests.worklistItems(meant.value, at)
    take(found)
    if (found.items.length) left.value = await requests.worklistLeft(meant.value)
  } catch {
    // the next time, it may be there again
  }
}
const begin = () =>
  act(async () => {
    await requests.addWorklist(search.value!)
    await load()
  })
function change(item: WorklistItem, what: { state?: WorklistState; claimed?: boolean; why?: string }) {
  const next = nextOf(item.id, 1)
  return act(async () => {
    items.set(
      item.id,
      await requests.changeItem(meant.value, item.id, {
        state: what.state ?? null,
        claimed: what.claimed ?? null,
        why: what.why ?? null,
        by: session.person ? null : me.value || null,
        version: item.version,
      }),
    )
    asksWhy.value = false
    reason.value = ''
    if (what.state && what.state !== shows.state) choose(next)
    left.value = await requests.worklistLeft(meant.value)
  })
}
const stays = () => current.value && change(current.value, { state: 'stays', why: reason.value.trim() })
function nextOf(id: number | undefined, step: number): number | undefined {
  const index = shown.value.findIndex(item => item.id === id)
  return (shown.value[index + step] ?? shown.value[index - step] ?? shown.value[0])?.id
}
function choose(id: number | undefined) {
  chosen.value = id
  asksWhy.value = false
  void nextTick(() => document.querySelector(`[data-item="${id}"]`)?.scrollIntoView({ block: 'nearest' }))
}
function askWhy() {
  asksWhy.value = true
  void nextTick(() => document.querySelector<HTMLInputElement>('[data-part="why"]')?.focus())
}
function keys(event: KeyboardEvent) {
  const typed = event.target instanceof Element && event.target.matches('input, select, textarea')
  if (typed || event.ctrlKey || event.metaKey || event.altKey || !list.value) return
  const item = current.value
  if (event.key === 'ArrowDown' || isKey(event, 'nextItem')) choose(nextOf(chosen.value, 1))
  else if (event.key === 'ArrowUp' || isKey(event, 'previousItem')) choose(nextOf(chosen.value, -1))
  else if (!item || item.state === 'gone') return
  else if (isKey(event, 'claim')) void change(item, { claimed: item.claimedBy !== me.value })
  else if (isKey(event, 'done')) void change(item, { state: 'done' })
  else if (isKey(event, 'skip')) askWhy()
  else if (isKey(event, 'open')) void change(item, { state: 'open', why: '' })
  else return
  event.preventDefault()
}
function start() {
  stop()
  window.addEventListener('keydown', keys)
  timer = window.setTimeout(poll, POLL)
}
function stop() {
  clearTimeout(timer)
  window.removeEventListener('keydown', keys)
}
watch(ownName, name => localStorage.setItem('oddbeacon.name', name))
watch(
  () => (route.name === 'worklist' ? `${meant.value.of} ${meant.value.name}` : ''),
  asked => {
    if (asked) void load()
  },
  { immediate: true },
)
onMounted(start)
onActivated(start)
onDeactivated(stop)
onBeforeUnmount(stop)
</script>

<template>
  <main class="mx-auto max-w-[110rem] px-4 pb-24">
    <div class="flex flex-wrap items-baseline gap-x-4 py-4">
      <h1 class="text-lg font-semibold break-words">{{ meant.name || 'Worklist' }}</h1>
      <span v-if="search" class="text-soft">{{ search.subject }}, {{ whose(search.of) }}</span>
      <RouterLink v-if="search" class="part ml-auto" :to="placeOf(search)">Run the search</RouterLink>
      <RouterLink v-if="search" class="part" :to="{ name: 'saved', query: { search: search.name, of: search.of } }"
        >Changes</RouterLink
      >
    </div>
    <p v-if="missing" role="alert" class="text-bad">{{ missing }}</p>
    <p v-else-if="!search" class="text-soft" role="status">Loading</p>
    <template v-else-if="!list">
      <p class="text-soft">
        A worklist is what this search finds, ticked off one by one by all who have the search. An item stays the same
        although its code moves; it is gone by itself when it is not found any more, and new matches join.
      </p>
      <button type="button" class="button-strong mt-2" :disabled="busy" @click="begin">Make a worklist</button>
    </template>
    <template v-else>
      <div class="flex flex-wrap items-end gap-3">
        <div role="group" aria-label="Which items" class="flex">
          <button
            v-for="state in ['open', 'done', 'stays', 'gone'] as const"
            :key="state"
            type="button"
            :class="shows.state === state ? 'button-strong' : 'button'"
            :aria-pressed="shows.state === state"
            :data-state="state"
            @click="shows.state = state"
          >
            {{ number(counts[state]) }} {{ state === 'stays' ? 'stay' : state }}
          </button>
        </div>
        <label
          >By
          <select v-model="shows.by" class="field mt-0.5">
            <option value="repository">repository</option>
            <option value="path">file</option>
            <option value="person">person</option>
            <option value="owner">owner</option>
          </select>
        </label>
        <label v-if="!session.accounts"
          >Your name<input v-model="ownName" class="field mt-0.5 block w-40" maxlength="64" data-part="own-name"
        /></label>
        <p class="ml-auto text-[13px] text-soft">
          <kbd>↓</kbd> <kbd>↑</kbd> step, <kbd>{{ keyFor('claim') }}</kbd> claim, <kbd>{{ keyFor('done') }}</kbd> done,
          <kbd>{{ keyFor('skip') }}</kbd> stays, <kbd>{{ keyFor('open') }}</kbd> open again
        </p>
      </div>
      <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
      <div class="mt-3 grid grid-cols-1 gap-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
        <div class="min-w-0">
          <p v-if="!shown.length" class="text-soft" data-part="none">
            {{ shows.state === 'open' ? 'Nothing is left to be done.' : 'There is none.' }}
          </p>
          <section v-for="[group, several] in groups" :key="group" class="mb-3" :aria-label="group">
            <h2 class="font-semibold break-all">
              {{ group }} <span class="font-normal text-soft">{{ counted(several.length, 'item') }}</span>
            </h2>
            <ul class="divide-y divide-rule border-y border-rule">
              <li v-for="item in several" :key="item.id" :data-item="item.id">
                <button
                  type="button"
                  class="block w-full px-2 py-1 text-left"
                  :class="{ 'bg-shade': item.id === chosen }"
                  :aria-current="item.id === chosen || undefined"
                  @click="choose(item.id)"
                >
                  <span class="flex items-baseline gap-3">
                    <span class="min-w-0 grow font-mono text-[13px] break-all">{{ nameOf(item) }}</span>
                    <span v-if="item.claimedBy" class="shrink-0 text-[13px]" data-part="claimed">{{
                      item.claimedBy
                    }}</span>
                  </span>
                  <code
                    v-if="item.result.text"
                    class="block overflow-hidden font-mono text-[13px] text-ellipsis whitespace-pre text-soft"
                    >{{ item.result.text.trim() }}</code
                  >
                  <span v-if="item.why" class="block text-[13px]">Stays: {{ item.why }}</span>
                </button>
              </li>
            </ul>
          </section>
        </div>
        <div v-if="current" class="min-w-0 lg:sticky lg:top-3 lg:self-start" data-part="item">
          <form v-if="asksWhy" class="mb-2 flex gap-2" @submit.prevent="stays">
            <input
              v-model="reason"
              class="field"
              aria-label="Why it stays"
              placeholder="why it stays"
              maxlength="500"
              required
              data-part="why"
              @keydown.esc="asksWhy = false"
            />
            <button type="submit" class="button-strong" :disabled="busy || !reason.trim()">Stays</button>
          </form>
          <p v-else-if="current.state !== 'gone'" class="mb-2 flex flex-wrap gap-2">
            <button
              type="button"
              class="button"
              :disabled="busy"
              @click="change(current, { claimed: current.claimedBy !== me })"
            >
              {{ current.claimedBy === me && me ? 'Release' : 'Claim' }}
            </button>
            <button
              v-if="current.state !== 'done'"
              type="button"
              class="button-strong"
              :disabled="busy"
              @click="change(current, { state: 'done' })"
            >
              Done
            </button>
            <button v-if="current.state !== 'stays'" type="button" class="button" :disabled="busy" @click="askWhy">
              Stays
            </button>
            <button
              v-if="current.state !== 'open'"
              type="button"
              class="button"
              :disabled="busy"
              @click="change(current, { state: 'open', why: '' })"
            >
              Open again
            </button>
          </p>
          <CodePreview
            v-if="current.result.path"
            class="h-[min(70vh,40rem)]"
            :repository="current.result.repository"
            :path="current.result.path"
            :rev="current.result.commit"
            :range="current.result.line ? { from: current.result.line, to: current.result.line } : undefined"
            :hits="[]"
          />
        </div>
      </div>
      <section v-if="left?.days.length" class="mt-6 rounded-md border border-rule bg-sheet p-3" data-part="left">
        <h2 class="font-semibold">What is left</h2>
        <p>
          {{ counted(left.days.at(-1)!.items, 'item') }} open.
          <template v-if="left.zero && left.days.at(-1)!.items"
            >Nothing is left on {{ day(left.zero) }}, if it goes on as in the last four weeks.</template
          >
        </p>
        <OverTimeChart :courses="courses" />
        <p v-if="past && shows.by !== 'owner'" class="mt-2">
          <button type="button" class="part" :aria-pressed="shows.past" data-part="past" @click="reachBack">
            {{ shows.past ? 'Only since the list was made' : 'Reach back before the list was made' }}
          </button>
          <span v-if="shows.past" class="ml-2 text-soft"
            >Until {{ day(list.made.slice(0, 10)) }}: lines that matched, from history.</span
          >
        </p>
      </section>
    </template>
  </main>
</template>
