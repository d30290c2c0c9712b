<script setup lang="ts">
import { ref, watch } from 'vue'
import { bytes, counted } from '../amounts'
import type { LineRange } from '../lines'
import * as requests from '../requests'
import type { FileContent, Line } from '../wire'
import CodeView from './CodeView.vue'

// A file beside a list, at a place of it.
const props = defineProps<{ repository: string; path: string; rev: string; range?: LineRange; hits: Line[] }>()
const content = ref<FileContent>()
const problem = ref('')
const regions = ref<number[]>()
let loading = new AbortController()

watch(
  () => [props.repository, props.path, props.rev],
  async () => {
    loading.abort()
    const own = (loading = new AbortController())
    try {
      const found = await requests.file(props.repository, props.path, props.rev, own.signal)
      if (own !== loading) return
      content.value = found
      problem.value = ''
      regions.value = undefined
      const known = await requests
        .regions(props.repository, props.path, found.branch, own.signal)
        .catch(() => undefined)
      if (own === loading) regions.value = known
    } catch (error) {
      if (own.signal.aborted) return
      content.value = undefined
      problem.value = (error as Error).message
    }
  },
  { immediate: true },
)
const name = () => props.path.slice(props.path.lastIndexOf('/') + 1)
const isCurrent = () => content.value?.path === props.path && content.value.repository === props.repository
</script>

<template>
  <section
    class="flex min-h-0 flex-col overflow-hidden rounded-md border border-rule bg-sheet"
    aria-label="Preview"
    data-part="preview"
  >
    <header class="flex items-baseline gap-2 border-b border-rule bg-shade px-3 py-1">
      <span class="min-w-0 truncate font-mono text-[13px]" :title="`${repository}/${path}`"
        ><span class="text-soft">{{ repository }}/{{ path.slice(0, path.length - name().length) }}</span
        ><span class="font-bold">{{ name() }}</span></span
      >
      <span class="ml-auto flex shrink-0 gap-1"><slot /></span>
    </header>
    <CodeView
      wrap
      :regions="regions"
      v-if="content && content.text !== null && isCurrent()"
      :key="content.commit + content.path"
      class="min-h-0 flex-1"
      :name="name()"
      :text="content.text"
      :range="range"
      :hits="hits"
    />
    <div v-else-if="content?.image && isCurrent()" class="flex min-h-0 flex-1 items-center justify-center p-4">
      <img :src="requests.rawAddress(repository, path, rev)" :alt="name()" class="checkered max-h-full max-w-full" />
    </div>
    <p v-else-if="content && isCurrent()" class="p-4 text-soft">
      Not shown: {{ content.skipped }} ({{ bytes(content.bytes) }}).
    </p>
    <p v-else-if="problem" role="alert" class="p-4 text-soft">{{ problem }}</p>
    <p v-else class="p-4 text-soft" role="status">Loading {{ name() }}</p>
    <footer v-if="content && isCurrent()" class="border-t border-rule px-3 py-0.5 text-[13px] text-soft">
      {{ content.type }}, {{ counted(content.lines, 'line')
      }}<template v-if="content.traits.length">, {{ content.traits.join(', ') }}</template>
    </footer>
  </section>
</template>
