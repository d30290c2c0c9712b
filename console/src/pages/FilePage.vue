<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bytes, counted } from '../amounts'
import CodeView from '../parts/CodeView.vue'
import * as requests from '../requests'
import { fromUrl, toUrl } from '../searchUrl'
import { useSets } from '../state/sets'
import type { FileContent, Line } from '../wire'

const route = useRoute()
const router = useRouter()
const sets = useSets()
const content = ref<FileContent>()
const hits = ref<Line[]>([])
const problem = ref('')
const copied = ref('')

const one = (name: string) => String(route.query[name] ?? '')
const repository = computed(() => one('in'))
const path = computed(() => one('path'))
const revision = computed(() => one('rev'))
const line = computed(() => Number.parseInt(one('line'), 10) || undefined)
const name = computed(() => path.value.slice(path.value.lastIndexOf('/') + 1))
const search = computed(() => fromUrl(route.query))
const raw = computed(() => requests.rawAddress(repository.value, path.value, revision.value))
const place = computed(() => hits.value.findIndex(hit => hit.number === line.value))
let loading = new AbortController()

watch([repository, path, revision], async () => {
  if (route.name !== 'file') return
  loading.abort()
  const own = (loading = new AbortController())
  content.value = undefined
  problem.value = ''
  hits.value = []
  try {
    content.value = await requests.file(repository.value, path.value, revision.value, own.signal)
    document.title = `${name.value} · ${repository.value} · Odd Beacon`
    if (search.value.text && content.value.text !== null && content.value.branch) {
      const found = await requests.hitsInFile(search.value, repository.value, path.value, revision.value, sets.byDefault, own.signal)
      if (own === loading) hits.value = found.files.flatMap(file => file.excerpts.flatMap(excerpt => excerpt.lines.filter(hit => hit.matches.length)))
    }
  } catch (error) {
    if (!own.signal.aborted) problem.value = (error as Error).message
  }
}, { immediate: true })

function toLine(number: number) {
  void router.replace({ query: { ...route.query, line: String(number) } })
}
function step(by: number) {
  if (!hits.value.length) return
  const at = place.value < 0 ? hits.value.findIndex(hit => hit.number > (line.value ?? 0)) - (by > 0 ? 1 : 0) : place.value
  toLine(hits.value[(at + by + hits.value.length) % hits.value.length]!.number)
}
async function copy(what: string, text: string) {
  await navigator.clipboard.writeText(text)
  copied.value = what
  setTimeout(() => { copied.value = '' }, 1500)
}
/** The link names the commit, so that it shows the same lines for good. */
function permanentLink(): string {
  const link = router.resolve({ name: 'file', query: { in: repository.value, path: path.value, rev: content.value!.commit, ...(line.value ? { line: String(line.value) } : {}) } })
  return new URL(link.href, location.href).href
}
function keys(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target instanceof HTMLInputElement) return
  if (event.key === 'n') step(1)
  else if (event.key === 'p') step(-1)
}
</script>

<template>
  <main class="mx-auto flex h-[calc(100vh-3rem)] max-w-[92rem] flex-col px-4 pb-3" @keydown="keys">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1 py-2">
      <button type="button" class="button" @click="router.back()">Back</button>
      <h1 class="min-w-0 font-mono text-[13px] break-all"><span class="text-soft">{{ repository }} / {{ path.slice(0, path.length - name.length) }}</span><span class="font-bold">{{ name }}</span></h1>
      <template v-if="content">
        <span class="text-soft">{{ content.branch ? `${content.branch}, commit` : 'commit' }} <span class="font-mono">{{ content.commit.slice(0, 8) }}</span></span>
        <span class="text-soft">{{ content.text === null ? bytes(content.bytes) : `${counted(content.lines, 'line')}, ${bytes(content.bytes)}, ${content.encoding}` }}</span>
        <span class="ml-auto flex flex-wrap items-center gap-1">
          <template v-if="hits.length">
            <span class="mr-1 tabular-nums" data-part="place">{{ place < 0 ? counted(hits.length, 'hit') : `hit ${place + 1} of ${hits.length}` }}</span>
            <button type="button" class="button" title="Key: p" @click="step(-1)">Previous</button>
            <button type="button" class="button" title="Key: n" @click="step(1)">Next</button>
          </template>
          <button type="button" class="button" @click="copy('path', `${repository}/${path}`)">{{ copied === 'path' ? 'Copied' : 'Copy path' }}</button>
          <button type="button" class="button" data-part="link" @click="copy('link', permanentLink())">{{ copied === 'link' ? 'Copied' : 'Copy permanent link' }}</button>
          <a class="button" :href="raw" :download="name">Download</a>
        </span>
      </template>
    </div>
    <div class="min-h-0 flex-1 overflow-hidden rounded-md border border-rule bg-sheet">
      <CodeView v-if="content && content.text !== null" :key="content.commit + content.path" class="h-full" :name="name" :text="content.text" :line="line" :hits="hits" @line="toLine" />
      <figure v-else-if="content?.image" class="flex h-full flex-col items-center justify-center gap-3 p-6">
        <img :src="raw" :alt="name" class="max-h-[80%] max-w-full border border-rule bg-[repeating-conic-gradient(var(--shade)_0_25%,var(--sheet)_0_50%)] bg-[length:16px_16px]" />
        <figcaption class="text-soft">{{ bytes(content.bytes) }}. Its content is not searched: {{ content.skipped }}.</figcaption>
      </figure>
      <div v-else-if="content" class="flex h-full flex-col items-center justify-center gap-2 p-6 text-center">
        <p class="font-semibold">This file is not shown</p>
        <p class="text-soft">{{ bytes(content.bytes) }}, not searched: {{ content.skipped }}.</p>
        <a v-if="!content.skipped?.startsWith('a submodule')" class="button" :href="raw" :download="name">Download</a>
      </div>
      <div v-else-if="problem" role="alert" class="flex h-full flex-col items-center justify-center gap-2 p-6 text-center">
        <p class="font-semibold">The file cannot be shown</p>
        <p class="max-w-xl text-soft">{{ problem }}</p>
        <RouterLink class="button" :to="{ name: 'search', query: toUrl(search) }">To the search</RouterLink>
      </div>
      <p v-else class="p-6 text-soft" role="status">Loading {{ name }}</p>
    </div>
  </main>
</template>
