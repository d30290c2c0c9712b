<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { isKey } from '../keys'
import { ago, bytes, counted, date, number } from '../amounts'
import AddRepository from '../parts/AddRepository.vue'
import RemoveRepository from '../parts/RemoveRepository.vue'
import WhoSees from '../parts/WhoSees.vue'
import SkippedList from '../parts/SkippedList.vue'
import * as requests from '../requests'
import { useRepositories } from '../state/repositories'
import { useSession } from '../state/session'
import type { Repository } from '../wire'

const repositories = useRepositories()
const session = useSession()
const filter = ref('')
const adding = ref(useRoute().query.add === 'true')
const removing = ref<Repository>()
const showing = ref<Repository>()
const open = ref<string>()
const problem = ref('')
const now = ref(Date.now())
const clock = setInterval(() => {
  now.value = Date.now()
  if (!document.hidden) void load() // when they were checked is not told to everybody each time
}, 20_000)

// There may be ten thousand: the first of those that have what is typed, and more of them when asked for.
const AT_FIRST = 100
const most = ref(AT_FIRST)
const shown = ref<Repository[]>()
const hasMore = ref(false)
let asking = 0

async function load() {
  const mine = ++asking
  try {
    const page = await requests.repositories({ find: filter.value, limit: most.value + 1 })
    if (mine !== asking) return
    shown.value = page.slice(0, most.value)
    hasMore.value = page.length > most.value
  } catch (error) {
    if (mine === asking && !repositories.gone) problem.value = (error as Error).message
  }
}
function put(one: Repository) {
  shown.value = shown.value?.map(other => (other.name === one.name ? one : other))
}
watch(filter, () => {
  most.value = AT_FIRST
  void load()
})
watch(most, load)
watch(() => repositories.changes, load)
onMounted(load)
const words: Record<Repository['state'], string> = {
  waiting: 'waiting',
  indexing: 'indexing',
  ready: 'ready',
  failed: 'failed',
}
const shape: Record<Repository['state'], string> = { waiting: '○', indexing: '◐', ready: '●', failed: '✕' }

function progress(one: Repository): string {
  const at = one.progress
  if (!at) return ''
  const amount = at.phase === 'indexing' ? bytes : number
  return at.total ? `${at.phase}, ${amount(at.done)} of ${amount(at.total)}` : at.phase
}
/** Whether it is as its origin is, in words. */
function standing(one: Repository): string {
  const at = one.following
  if (!at) return ''
  const checked = at.checked ? ago(at.checked, now.value) : ''
  if (at.problem) return checked ? `last answered ${checked}` : 'does not answer'
  if (at.behind) return at.commits === null ? 'behind' : `behind by ${counted(at.commits, 'commit')}`
  return checked ? `checked ${checked}` : ''
}
/** What is known of the past, in words. */
function historyOf(one: Repository): string {
  const { oldest, cut, withoutLines, complete } = one.history
  return [
    oldest ? `since ${date(oldest)}` : '',
    complete ? '' : 'still being read',
    cut ? `cut at ${counted(cut, 'commit')} whose parents are not there` : '',
    withoutLines ? `of ${counted(withoutLines, 'commit')} the changed lines are not searched` : '',
  ]
    .filter(Boolean)
    .join('; ')
}
async function refresh(name?: string) {
  problem.value = ''
  try {
    if (name) put(await requests.refresh(name))
    else {
      await requests.refreshAll(filter.value)
      await load()
    }
  } catch (error) {
    problem.value = (error as Error).message
  }
}
function keys(event: KeyboardEvent) {
  if (isKey(event, 'box') && !(event.target instanceof HTMLInputElement)) {
    event.preventDefault()
    document.getElementById('filter')?.focus()
  }
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => {
  clearInterval(clock)
  window.removeEventListener('keydown', keys)
})
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pb-24">
    <div class="flex flex-wrap items-center gap-2 py-4">
      <h1 class="mr-2 text-lg font-semibold">Repositories</h1>
      <input
        id="filter"
        v-model="filter"
        class="field w-64"
        placeholder="Filter by name, title, label or state"
        aria-label="Filter repositories"
      />
      <span v-if="session.may('maintainer')" class="ml-auto flex gap-2">
        <button type="button" class="button" :disabled="!shown?.length" @click="refresh()">
          Refresh {{ filter ? 'these' : 'all' }}
        </button>
        <RouterLink v-if="session.may('administrator')" class="button" :to="{ name: 'health' }">Health</RouterLink>
        <RouterLink v-if="session.may('administrator')" class="button" :to="{ name: 'rosters' }">Rosters</RouterLink>
        <RouterLink class="button" :to="{ name: 'credentials' }">Credentials</RouterLink>
        <button type="button" class="button-strong" @click="adding = true">Add a repository</button>
      </span>
    </div>
    <p v-if="problem" role="alert" class="mb-3 text-bad">{{ problem }}</p>
    <p v-if="!shown || !repositories.loaded" class="py-10 text-soft" role="status">Loading</p>
    <section v-else-if="!repositories.count" class="py-16 text-center">
      <h2 class="text-lg font-semibold">No repositories yet</h2>
      <p class="mt-2 text-soft">
        <template v-if="session.may('maintainer')"
          >Add one here, or many at once from a file:
          <code class="font-mono">oddbeacon repos add --from FILE</code></template
        ><template v-else>None is shown to you. A maintainer adds them, and says who sees them.</template>
      </p>
    </section>
    <p v-else-if="!shown.length" class="py-10 text-soft">
      None of {{ counted(repositories.count, 'repository', 'repositories') }} has that in its name, title, labels or
      state.
    </p>
    <div v-else class="relative overflow-x-auto">
      <table class="w-full border-collapse text-left">
        <thead class="text-soft">
          <tr class="border-b border-rule [&>th]:px-2 [&>th]:py-1.5 [&>th]:font-normal">
            <th>Repository</th>
            <th>State</th>
            <th>Branch</th>
            <th>Commit</th>
            <th>Indexed</th>
            <th class="text-right">Files</th>
            <th class="text-right">Lines</th>
            <th class="text-right">Size</th>
            <th class="text-right">Skipped</th>
            <th class="text-right">Commits</th>
            <th><span class="sr-only">Actions</span></th>
          </tr>
        </thead>
        <tbody
          v-for="one in shown"
          :key="one.name"
          :data-repository="one.name"
          class="border-b border-rule align-top hover:bg-shade/50"
        >
          <tr
            v-for="(branch, i) in one.branches.length ? one.branches : [undefined]"
            :key="branch?.name ?? ''"
            class="[&>td]:px-2 [&>td]:py-2"
          >
            <td class="max-w-80">
              <template v-if="i === 0">
                <RouterLink
                  class="font-semibold hover:underline"
                  :to="{ name: 'tree', query: { in: one.name } }"
                  :title="`The tree of ${one.name}`"
                  >{{ one.title }}</RouterLink
                >
                <div class="text-soft">
                  <span v-if="one.title !== one.name">{{ one.name }}</span><span
                    v-for="label in one.labels"
                    :key="label"
                    class="ml-1.5 rounded border border-rule px-1 text-[12px]"
                    >{{ label }}</span
                  >
                </div>
                <div class="truncate font-mono text-[12px] text-soft" :title="one.location">{{ one.location }}</div>
              </template>
            </td>
            <td class="min-w-36">
              <template v-if="i === 0"
                ><span
                  data-part="state"
                  :class="{
                    'text-bad': one.state === 'failed',
                    'text-accent': one.state === 'indexing' || one.state === 'waiting',
                  }"
                  ><span aria-hidden="true">{{ shape[one.state] }}</span> {{ words[one.state] }}</span
                >
                <div v-if="one.progress" class="text-[13px] text-soft">{{ progress(one) }}</div>
                <div
                  v-if="standing(one)"
                  data-part="standing"
                  class="text-[13px]"
                  :class="one.following?.problem ? 'text-bad' : 'text-soft'"
                  :title="one.following?.problem ?? `Its origin changed last ${ago(one.following?.changed ?? '', now)}`"
                >
                  {{ standing(one) }}
                </div></template
              >
            </td>
            <template v-if="branch">
              <td class="font-mono text-[13px]">{{ branch.name }}</td>
              <td class="font-mono text-[13px]" :title="`${branch.commit}, ${date(branch.committed)}`">
                {{ branch.commit.slice(0, 8) }}
              </td>
              <td :title="date(branch.indexed)" class="whitespace-nowrap">{{ ago(branch.indexed, now) }}</td>
              <td class="text-right tabular-nums">{{ number(branch.files) }}</td>
              <td class="text-right tabular-nums">{{ number(branch.lines) }}</td>
              <td
                class="text-right tabular-nums whitespace-nowrap"
                :title="
                  i
                    ? undefined
                    : `On the disk here: ${bytes(one.disk.mirrorBytes)} as fetched, ${bytes(one.disk.pastBytes)} of its past`
                "
              >
                {{ bytes(branch.bytes) }}
              </td>
              <td class="text-right tabular-nums">
                <button
                  v-if="branch.skipped"
                  type="button"
                  class="part"
                  :aria-expanded="open === one.name + ' ' + branch.name"
                  @click="open = open === one.name + ' ' + branch.name ? undefined : one.name + ' ' + branch.name"
                >
                  {{ number(branch.skipped) }}</button><span v-else class="text-soft">0</span>
              </td>
            </template>
            <td v-else colspan="7" class="text-soft">nothing indexed</td>
            <td class="text-right tabular-nums" data-part="history">
              <template v-if="i === 0 && branch"
                ><RouterLink
                  v-if="one.history.commits"
                  class="part"
                  :title="historyOf(one)"
                  :to="{ name: 'commits', query: { repo: one.name } }"
                  >{{ number(one.history.commits) }}{{ one.history.complete ? '' : '+' }}</RouterLink
                ><span v-else class="text-soft">{{ one.history.complete ? 0 : 'not yet' }}</span></template
              >
            </td>
            <td class="whitespace-nowrap text-right">
              <template v-if="i === 0 && session.may('maintainer')"
                ><template v-if="session.accounts"
                  ><button type="button" class="button" :aria-label="`Who sees ${one.name}`" @click="showing = one">
                    Who sees it</button
                  >{{ ' ' }}</template
                ><button type="button" class="button" :aria-label="`Refresh ${one.name}`" @click="refresh(one.name)">
                  Refresh</button
                >{{ ' ' }}
                <button type="button" class="button" :aria-label="`Remove ${one.name}`" @click="removing = one">
                  Remove
                </button></template
              >
            </td>
          </tr>
          <tr v-if="one.problem">
            <td colspan="11" class="px-2 pb-2 text-bad">{{ one.problem }}</td>
          </tr>
          <tr v-if="one.history.problem">
            <td colspan="11" class="px-2 pb-2 text-bad">{{ one.history.problem }}</td>
          </tr>
          <template v-for="branch in one.branches" :key="branch.name">
            <tr v-if="open === one.name + ' ' + branch.name">
              <td colspan="11" class="bg-sheet px-4 py-2">
                <p class="mb-1 text-soft">Found by their path and opened, but their text is not searched:</p>
                <SkippedList :repository="one.name" :branch="branch.name" :commit="branch.commit" />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <p v-if="shown && hasMore" class="mt-4 flex items-center gap-3 text-soft" data-part="more">
      {{ filter ? `The first ${number(shown.length)}` : `${number(shown.length)} of ${number(repositories.count)}` }}
      are shown.
      <button type="button" class="button" @click="most += 5 * AT_FIRST">Show more</button>
    </p>
    <AddRepository :open="adding" @close="adding = false" />
    <WhoSees :repository="showing" @close="showing = undefined" />
    <RemoveRepository :repository="removing" @close="removing = undefined" />
  </main>
</template>
