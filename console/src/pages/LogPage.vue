<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isKey } from '../keys'
import { date, day, shortRevision } from '../amounts'
import { whenEndIsNear } from '../endOfList'
import PathCrumbs from '../parts/PathCrumbs.vue'
import RevisionPicker from '../parts/RevisionPicker.vue'
import * as requests from '../requests'
import type { LogAnswer, LogEntry } from '../wire'

// The commits that changed a file, a folder, or anything. Two of them can be compared.
const route = useRoute()
const router = useRouter()
const log = shallowRef<LogAnswer>()
const entries = shallowRef<LogEntry[]>([])
const problem = ref('')
const marked = ref<string[]>([]) // ids, at most two
const end = ref<HTMLElement>()
const busy = ref(false)
const one = (name: string) => String(route.query[name] ?? '')
const repository = computed(() => one('in'))
const path = computed(() => one('path').replace(/\/+$/, ''))
const rev = computed(() => one('rev'))
let loading = new AbortController()

watch(
  [repository, path, rev],
  async () => {
    if (route.name !== 'log') return
    loading.abort()
    const own = (loading = new AbortController())
    problem.value = ''
    marked.value = []
    try {
      const found = await requests.log(repository.value, path.value, rev.value, '0', own.signal)
      if (own !== loading) return
      log.value = found
      entries.value = found.entries
      document.title = `${path.value || repository.value} · log · Odd Beacon`
    } catch (error) {
      if (own.signal.aborted) return
      log.value = undefined
      problem.value = (error as Error).message
    }
  },
  { immediate: true },
)
async function more() {
  if (!log.value?.next || busy.value) return
  busy.value = true
  const own = loading
  try {
    const page = await requests.log(repository.value, path.value, rev.value, log.value.next, own.signal)
    if (own !== loading) return
    entries.value = [...entries.value, ...page.entries]
    log.value = page
  } catch (error) {
    if (!own.signal.aborted) problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
const isFile = computed(() => entries.value.some(entry => entry.change))
function mark(id: string) {
  marked.value = marked.value.includes(id)
    ? marked.value.filter(other => other !== id)
    : [...marked.value, id].slice(-2)
}
/** The older of two entries stands further down. */
const comparison = computed(() => {
  const [after, before] = entries.value.filter(entry => marked.value.includes(entry.commit.id))
  return after && before
    ? {
        name: 'diff',
        query: {
          in: repository.value,
          from: before.commit.id,
          to: after.commit.id,
          ...(path.value ? { path: [...new Set([after.path, before.path])] } : {}),
        },
      }
    : undefined
})
const toCommit = (entry: LogEntry) => ({ name: 'commit', query: { in: repository.value, id: entry.commit.id } })
const toVersion = (entry: LogEntry) =>
  isFile.value
    ? { name: 'file', query: { in: repository.value, path: entry.path, rev: entry.commit.id } }
    : {
        name: 'tree',
        query: { in: repository.value, ...(path.value ? { path: path.value } : {}), rev: entry.commit.id },
      }
function choose(revision: string) {
  void router.push({
    name: 'log',
    query: { in: repository.value, ...(path.value ? { path: path.value } : {}), rev: revision },
  })
}
function keys(event: KeyboardEvent) {
  const list = [...document.querySelectorAll<HTMLElement>('a.entry')]
  const at = list.indexOf(document.activeElement as HTMLElement)
  const target = event.key === 'ArrowDown' ? list[at + 1] : event.key === 'ArrowUp' ? list[at - 1] : undefined
  if (target) {
    event.preventDefault()
    target.focus()
  } else if (isKey(event, 'compare') && at >= 0) mark(entries.value[at]!.commit.id)
}
whenEndIsNear(end, entries, more)
</script>

<template>
  <main class="mx-auto max-w-[72rem] px-4 pb-16" @keydown="keys">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1 py-3">
      <button type="button" class="button" @click="router.back()">Back</button>
      <span class="text-soft">Log of</span><PathCrumbs :repository="repository" :path="path" :rev="rev" />
      <span class="text-soft">back from</span
      ><RevisionPicker
        :repository="repository"
        :current="rev"
        :label="shortRevision(rev) || 'the default branch'"
        @choose="choose"
      />
      <span class="ml-auto flex gap-1"
        ><RouterLink v-if="comparison" class="button-strong" data-part="compare" :to="comparison"
          >Compare the two</RouterLink
        ><span v-else class="text-soft"
          >{{ marked.length ? 'Mark another to compare' : 'Mark two to compare them' }}
          <kbd class="rounded border border-rule px-1 font-mono">x</kbd></span
        ></span
      >
    </div>
    <table v-if="log" class="w-full border-collapse">
      <tbody>
        <tr
          v-for="entry in entries"
          :key="entry.commit.id + entry.path"
          class="border-b border-rule align-baseline hover:bg-shade"
        >
          <td class="w-7 py-1">
            <input
              type="checkbox"
              class="accent-[var(--accent)]"
              tabindex="-1"
              :checked="marked.includes(entry.commit.id)"
              :aria-label="`Compare ${entry.commit.summary}`"
              @change="mark(entry.commit.id)"
            />
          </td>
          <td class="w-28 py-1 text-soft whitespace-nowrap" :title="date(entry.commit.committed)">
            {{ day(entry.commit.committed) }}
          </td>
          <td class="max-w-0 py-1">
            <RouterLink class="entry block truncate hover:underline" :title="entry.commit.message" :to="toCommit(entry)"
              ><template v-if="entry.commit.summary">{{ entry.commit.summary }}</template
              ><em v-else class="text-soft">no message</em></RouterLink
            ><span v-if="entry.from" class="block truncate font-mono text-[12px] text-soft"
              >before: {{ entry.from }}</span
            >
          </td>
          <td class="w-40 truncate py-1 pl-3 text-soft max-sm:hidden">{{ entry.commit.author.name }}</td>
          <td class="w-28 py-1 pl-3 text-right tabular-nums whitespace-nowrap max-sm:hidden">
            <span v-if="entry.commit.parents.length > 1" class="text-soft">merge</span
            ><template v-else-if="path"
              ><span class="text-good">+{{ entry.added }}</span
              >{{ ' ' }} <span class="text-bad">−{{ entry.removed }}</span></template
            >
          </td>
          <td class="w-24 py-1 text-right">
            <RouterLink
              class="font-mono text-[13px] text-soft hover:underline"
              tabindex="-1"
              :title="isFile ? 'The file at this commit' : 'The files at this commit'"
              :to="toVersion(entry)"
              >{{ entry.commit.id.slice(0, 10) }}</RouterLink
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div v-else-if="problem" role="alert" class="py-16 text-center">
      <p class="font-semibold">There is no log to show</p>
      <p class="mt-1 text-soft">{{ problem }}</p>
    </div>
    <p v-else class="py-6 text-soft" role="status">Loading</p>
    <p v-if="log?.next" class="py-3 text-center text-soft" role="status">Loading more</p>
    <div ref="end" class="h-px" />
  </main>
</template>
