<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isKey } from '../keys'
import { shortRevision } from '../amounts'
import DiffView from '../parts/DiffView.vue'
import RevisionPicker from '../parts/RevisionPicker.vue'
import * as requests from '../requests'
import { savePatch } from '../takeaway'
import type { DiffAnswer } from '../wire'

// Two revisions of a repository, a folder or a file compared.
const route = useRoute()
const router = useRouter()
const diff = shallowRef<DiffAnswer>()
const problem = ref('')
const view = ref<InstanceType<typeof DiffView>>()
const one = (name: string) => String(route.query[name] ?? '')
const repository = computed(() => one('in'))
const from = computed(() => one('from'))
const to = computed(() => one('to'))
const paths = computed(() => [route.query.path].flat().filter((path): path is string => !!path))
const ignoreSpace = computed(() => one('ignoreSpace') === 'true')
let loading = new AbortController()

watch(
  () => route.fullPath,
  async () => {
    if (route.name !== 'diff') return
    loading.abort()
    const own = (loading = new AbortController())
    problem.value = ''
    diff.value = undefined
    try {
      const found = await requests.diff(repository.value, from.value, to.value, paths.value, own.signal, {
        ignoreSpace: ignoreSpace.value,
      })
      if (own !== loading) return
      diff.value = found
      document.title = `${paths.value[0] ?? repository.value} · difference · Odd Beacon`
    } catch (error) {
      if (!own.signal.aborted) problem.value = (error as Error).message
    }
  },
  { immediate: true },
)

const change = (query: Record<string, string | string[]>) =>
  void router.push({ name: 'diff', query: { ...route.query, ...query } })
function keys(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target instanceof HTMLInputElement) return
  if (isKey(event, 'nextChange')) view.value?.step(1)
  else if (isKey(event, 'previousChange')) view.value?.step(-1)
  else if (isKey(event, 'backFromDifference')) router.back()
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pb-16">
    <div class="flex flex-wrap items-center gap-x-2 gap-y-1 py-3">
      <button type="button" class="button" title="Key: b" @click="router.back()">Back</button>
      <h1 class="font-mono text-[13px] font-bold break-all">
        {{ repository }}<template v-if="paths.length">/{{ paths[0] }}</template>
      </h1>
      <span class="text-soft">from</span
      ><RevisionPicker
        :repository="repository"
        :current="from"
        :label="shortRevision(from) || 'the commit before'"
        @choose="change({ from: $event })"
      />
      <span class="text-soft">to</span
      ><RevisionPicker
        :repository="repository"
        :current="to"
        :label="shortRevision(to) || 'the default branch'"
        @choose="change({ to: $event })"
      />
      <button v-if="from" type="button" class="button" @click="change({ from: to, to: from })">
        The other way round
      </button>
      <span class="ml-auto flex items-center gap-3"
        ><label class="flex items-center gap-1 text-soft"
          ><input
            type="checkbox"
            class="accent-[var(--accent)]"
            :checked="ignoreSpace"
            @change="change({ ignoreSpace: String(!ignoreSpace) })"
          />
          white space does not count</label
        ><button type="button" class="button" data-part="patch" @click="savePatch(repository, from, to, paths)">
          Save as patch
        </button></span
      >
    </div>
    <div v-if="problem" role="alert" class="py-16 text-center">
      <p class="font-semibold">These cannot be compared</p>
      <p class="mt-1 text-soft">{{ problem }}</p>
    </div>
    <DiffView
      v-else-if="diff"
      ref="view"
      :files="diff.files"
      :total="diff.total"
      :repository="repository"
      :from="diff.from"
      :to="diff.to"
    />
    <p v-else class="py-6 text-soft" role="status">Comparing</p>
  </main>
</template>
