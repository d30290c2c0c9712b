<script setup lang="ts">
import { onActivated, onMounted, reactive, ref, watch } from 'vue'
import { ago, counted, number } from '../amounts'
import * as requests from '../requests'
import { placeOf, whose } from '../saved'
import { useSearches } from '../state/searches'
import { useSession } from '../state/session'
import type { FollowedFileProblem, SavedSearch } from '../wire'

// The searches that are kept, with what they find now.
const searches = useSearches()
const session = useSession()
const found = reactive(new Map<string, string>())
const lists = reactive(new Map<string, string>())
const problems = ref<FollowedFileProblem[]>([])
const watched = reactive(new Map<string, string>())
const key = (search: SavedSearch) => `${search.of} ${search.name}`

async function load() {
  await searches.load()
  try {
    problems.value = await requests.followedFileProblems()
  } catch {
    problems.value = []
  }
  if (!searches.saved.length) return
  try {
    lists.clear()
    for (const { search, of, open } of await requests.worklists()) lists.set(`${of} ${search}`, `${number(open)} left`)
  } catch {
    // guests have none
  }
  try {
    watched.clear()
    for (const { search, of, last } of await requests.watches()) {
      watched.set(`${of} ${search}`, last ? `watched, new ${ago(last, Date.now())}` : 'watched')
    }
  } catch {
    // it is only a word; guests watch nothing
  }
}
onMounted(() => void load())
onActivated(() => void load())
watch(
  () => searches.saved,
  async saved => {
    for (const search of saved) {
      if (search.problem || search.subject === 'scope') continue
      try {
        const { counts } = await requests.countSaved(search)
        const what =
          search.subject === 'lines' ? 'hit' : search.subject === 'files' ? 'file' : search.subject.slice(0, -1)
        const number = counts.hits || counts.symbols || counts.commits || counts.files || 0
        found.set(
          key(search),
          `${counts.exact ? '' : 'at least '}${counted(number, search.subject === 'lines' && !counts.hits ? 'file' : what)}`,
        )
      } catch {
        found.delete(key(search)) // it is only an amount
      }
    }
  },
)

const mayRemove = (search: SavedSearch) => !search.source && (search.of !== 'everybody' || session.may('maintainer'))
async function remove(search: SavedSearch) {
  if (!window.confirm(`Remove the saved search ${search.name}, ${whose(search.of)}?`)) return
  try {
    await requests.removeSearch(search)
  } finally {
    await searches.load()
  }
}
</script>

<template>
  <section
    v-if="searches.saved.length || problems.length"
    class="mb-8 text-ink"
    aria-labelledby="saved-searches"
    data-part="saved"
  >
    <h2 id="saved-searches" class="font-semibold">Saved searches</h2>
    <ul class="mt-1 divide-y divide-rule border-y border-rule">
      <li
        v-for="search in searches.saved"
        :key="key(search)"
        class="group grid grid-cols-[minmax(0,1fr)_max-content_max-content_max-content_max-content] items-baseline gap-x-4 py-1.5"
      >
        <span class="min-w-0">
          <RouterLink :to="placeOf(search)" class="part font-medium break-words">{{ search.name }}</RouterLink>
          <span v-if="watched.get(key(search))" class="ml-2" data-part="watched">{{ watched.get(key(search)) }}</span>
          <span class="ml-2 text-soft">{{ search.subject }}, {{ whose(search.of) }}</span>
          <span v-if="search.description" class="block text-soft">{{ search.description }}</span>
          <span v-if="search.problem" class="block text-bad">{{ search.problem }}</span>
        </span>
        <RouterLink
          v-if="lists.get(key(search))"
          :to="{ name: 'worklist', query: { search: search.name, of: search.of } }"
          class="part tabular-nums"
          data-part="list"
          >{{ lists.get(key(search)) }}</RouterLink
        >
        <span v-else />
        <span class="tabular-nums" data-part="found">{{ found.get(key(search)) }}</span>
        <RouterLink
          v-if="search.subject !== 'scope'"
          :to="{ name: 'saved', query: { search: search.name, of: search.of } }"
          class="part text-soft"
          :aria-label="`What has changed of ${search.name}`"
          >Changes</RouterLink
        >
        <span v-else />
        <button
          v-if="mayRemove(search)"
          type="button"
          class="part text-soft"
          :aria-label="`Remove ${search.name}`"
          @click="remove(search)"
        >
          Remove
        </button>
        <span v-else />
      </li>
    </ul>
    <p v-for="one in problems" :key="`${one.repository}/${one.path}`" class="mt-2 text-bad" data-part="mistake">
      <RouterLink :to="{ name: 'file', query: { in: one.repository, path: one.path } }" class="part break-all"
        >{{ one.repository }}/{{ one.path }}</RouterLink
      >: {{ one.problem }} What it held before stays.
    </p>
  </section>
</template>
