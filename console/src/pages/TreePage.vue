<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bytes, counted, number, shortRevision } from '../amounts'
import PathCrumbs from '../parts/PathCrumbs.vue'
import RevisionPicker from '../parts/RevisionPicker.vue'
import * as requests from '../requests'
import { asGlob, everywhere, emptySearch, toUrl } from '../searchUrl'
import type { Submodule, Tree, TreeEntry } from '../wire'

// A repository's folders, level by level, at a branch or revision.
const route = useRoute()
const router = useRouter()
const tree = ref<Tree>()
const problem = ref('')
const one = (name: string) => String(route.query[name] ?? '')
const repository = computed(() => one('in'))
const path = computed(() => one('path').replace(/\/+$/, ''))
const rev = computed(() => one('rev'))
const parent = computed(() => path.value.split('/').slice(0, -1).join('/'))
let loading = new AbortController()

watch(
  [repository, path, rev],
  async () => {
    if (route.name !== 'tree') return
    loading.abort()
    const own = (loading = new AbortController())
    problem.value = ''
    try {
      const found = await requests.tree(repository.value, path.value, rev.value, own.signal)
      if (own !== loading) return
      tree.value = found
      document.title = `${path.value || repository.value} · Odd Beacon`
    } catch (error) {
      if (own.signal.aborted) return
      tree.value = undefined
      problem.value = (error as Error).message
    }
  },
  { immediate: true },
)

const withRev = (query: Record<string, string>) => ({ ...query, ...(rev.value ? { rev: rev.value } : {}) })
const to = (entry: TreeEntry) =>
  entry.submodule?.repository
    ? { name: 'tree', query: { in: entry.submodule.repository, rev: entry.submodule.commit } }
    : {
        name: entry.kind === 'folder' ? 'tree' : 'file',
        query: withRev({ in: repository.value, path: entry.path }),
      }
function leadsTo({ repository, location, commit }: Submodule) {
  const at = `at ${shortRevision(commit)}`
  if (repository) return `submodule: ${repository} ${at}`
  return `submodule ${at}${location ? ` of ${location}, which is not registered` : ''}`
}
const toFolder = (folder: string) => ({
  name: 'tree',
  query: withRev({ in: repository.value, ...(folder ? { path: folder } : {}) }),
})
/** A search within a folder; only indexed branches can be searched. */
function searchIn(folder: string, name = 'search') {
  const scope = {
    ...everywhere(),
    repo: [repository.value],
    under: folder ? [`/${asGlob(folder)}`] : [],
    branch: rev.value && tree.value?.branch ? [tree.value.branch] : [],
  }
  return { name, query: toUrl({ ...emptySearch(), scope }) }
}
function goTo(revision: string) {
  void router.push({
    name: 'tree',
    query: { in: repository.value, ...(path.value ? { path: path.value } : {}), rev: revision },
  })
}
function keys(event: KeyboardEvent) {
  const links = [...document.querySelectorAll<HTMLElement>('a.entry')]
  const at = links.indexOf(document.activeElement as HTMLElement)
  const target = event.key === 'ArrowDown' ? links[at + 1] : event.key === 'ArrowUp' ? links[at - 1] : undefined
  if (target) {
    event.preventDefault()
    target.focus()
  }
}
</script>

<template>
  <main class="mx-auto max-w-[72rem] px-4 pb-16" @keydown="keys">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1 py-3">
      <PathCrumbs :repository="repository" :path="path" :rev="rev" />
      <span class="text-soft"
        >at
        <RevisionPicker
          :repository="repository"
          :current="tree?.branch || rev"
          :label="tree?.branch || shortRevision(rev) || 'the default branch'"
          class="inline-block"
          @choose="goTo"
      /></span>
    </div>
    <p v-if="tree" class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-soft">
      <span
        >commit
        <RouterLink
          class="font-mono hover:underline"
          :to="{ name: 'commit', query: { in: repository, id: tree.commit } }"
          >{{ tree.commit.slice(0, 8) }}</RouterLink
        ></span
      >
      <RouterLink
        class="button text-ink"
        data-part="log-link"
        :to="{ name: 'log', query: withRev({ in: repository, ...(path ? { path } : {}) }) }"
        >Log</RouterLink
      >
      <template v-if="tree.branch">
        <RouterLink class="button text-ink" data-part="search-here" :to="searchIn(path)">Search here</RouterLink>
        <RouterLink class="button text-ink" :to="searchIn(path, 'files')">Find files here</RouterLink>
      </template>
      <span v-else>This revision is not indexed: it can be read, not searched.</span>
    </p>
    <table v-if="tree" class="w-full border-collapse">
      <thead>
        <tr class="border-b border-rule text-left text-soft">
          <th class="py-1 font-normal">Name</th>
          <th class="py-1 pl-3 font-normal max-sm:hidden">Type</th>
          <th class="py-1 text-right font-normal max-sm:hidden">Lines</th>
          <th class="py-1 pr-1 text-right font-normal">Size</th>
          <th class="w-28"><span class="sr-only">Search</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="path" class="border-b border-rule">
          <td colspan="5" class="py-0.5">
            <RouterLink class="entry block font-mono text-[13px] hover:underline" :to="toFolder(parent)">..</RouterLink>
          </td>
        </tr>
        <tr v-for="entry in tree.entries" :key="entry.path" class="group border-b border-rule hover:bg-shade">
          <td class="max-w-0 py-0.5">
            <RouterLink
              class="entry block truncate font-mono text-[13px] hover:underline"
              :title="entry.name"
              :to="to(entry)"
              ><span class="inline-block w-5 text-soft" aria-hidden="true">{{
                entry.kind === 'folder' ? '▸' : entry.kind === 'link' ? '↪' : entry.kind === 'submodule' ? '⧉' : ''
              }}</span
              >{{ entry.name }}<span v-if="entry.kind === 'folder'">/</span></RouterLink
            >
          </td>
          <td
            class="w-56 max-w-56 truncate py-0.5 pl-3 text-soft max-sm:hidden"
            :title="entry.submodule ? leadsTo(entry.submodule) : undefined"
          >
            {{
              entry.kind === 'folder'
                ? entry.files < 0
                  ? 'folder'
                  : counted(entry.files, 'file')
                : entry.kind === 'file'
                  ? [entry.type, ...entry.traits].filter(Boolean).join(', ')
                  : entry.submodule
                    ? leadsTo(entry.submodule)
                    : entry.kind
            }}
          </td>
          <td class="w-24 py-0.5 text-right tabular-nums text-soft max-sm:hidden">
            {{ entry.lines < 0 ? '' : number(entry.lines) }}
          </td>
          <td class="w-24 py-0.5 pr-1 text-right tabular-nums text-soft">
            {{ entry.bytes < 0 ? '' : bytes(entry.bytes) }}
          </td>
          <td class="py-0.5 text-right">
            <RouterLink
              v-if="entry.kind === 'folder' && tree.branch"
              class="button py-0 text-[13px] opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 focus-visible:opacity-100"
              :aria-label="`Search in ${entry.name}`"
              :to="searchIn(entry.path)"
              >Search here</RouterLink
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div v-else-if="problem" role="alert" class="py-16 text-center">
      <p class="font-semibold">This folder cannot be shown</p>
      <p class="mt-1 text-soft">{{ problem }}</p>
      <RouterLink class="button mt-3 inline-block" :to="{ name: 'tree', query: { in: repository } }"
        >To the root of {{ repository }}</RouterLink
      >
    </div>
    <p v-else class="py-6 text-soft" role="status">Loading</p>
  </main>
</template>
