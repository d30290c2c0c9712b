<script setup lang="ts">
import { hint } from '../keys'
import { computed } from 'vue'
import { counted } from '../amounts'
import { openedFiles } from '../opened'
import { MOST_CONTEXT } from '../searchUrl'
import { useLayout } from '../state/layout'
import type { Search } from '../wire'
import TakeAway from './TakeAway.vue'

// What is listed of a search for lines, in which order and in which form.
const search = defineModel<Search>({ required: true })
defineProps<{ hasFiles: boolean; allFolded: boolean }>()
defineEmits<{ foldAll: []; context: [step: number] }>()
const { layout } = useLayout()
/** The file that what is close to it is asked for, else the one that was opened last. */
const inHand = computed(() => search.value.near || (openedFiles()[0] ?? ''))
const order = computed({
  get: () => (search.value.near && search.value.order === 'relevance' ? 'near' : search.value.order),
  set: wanted => {
    search.value.near = wanted === 'near' ? inHand.value : ''
    search.value.order = wanted === 'near' ? 'relevance' : wanted
  },
})
const toggles = computed(() => [
  { name: 'dense' as const, title: 'Dense', explains: hint('dense') },
  { name: 'preview' as const, title: 'Preview', explains: hint('preview') },
  { name: 'picture' as const, title: 'Picture', explains: 'Where the hits fall' },
  { name: 'overTime' as const, title: 'Over time', explains: 'When these lines came in, and when they left' },
])
</script>

<template>
  <div class="ml-auto flex flex-wrap items-center gap-x-3 gap-y-1">
    <label class="text-soft"
      >Show
      <select v-model="search.shown" class="rounded border border-rule bg-sheet px-1 py-1 text-ink" data-part="shown">
        <option value="lines">lines</option>
        <option value="files">files only</option>
        <option value="without">files that lack it</option>
      </select>
    </label>
    <label class="text-soft"
      >by
      <select
        v-model="order"
        class="max-w-48 rounded border border-rule bg-sheet px-1 py-1 text-ink"
        :title="search.near ? `Files close to ${search.near} first` : undefined"
        data-part="order"
      >
        <option value="relevance">relevance</option>
        <option v-if="inHand" value="near">closeness to {{ inHand.split('/').pop() }}</option>
        <option value="path">path</option>
        <option value="recent">last change</option>
      </select>
    </label>
    <div class="flex items-stretch overflow-hidden rounded border border-rule" role="group" aria-label="Layout">
      <button
        v-for="({ name, title, explains }, i) in toggles"
        :key="name"
        type="button"
        class="option"
        :class="{ 'border-l': i, 'max-md:hidden': name === 'preview' }"
        :data-option="name"
        :aria-pressed="layout[name]"
        :data-on="layout[name]"
        :title="explains"
        @click="layout[name] = !layout[name]"
      >
        {{ title }}
      </button>
    </div>
    <TakeAway v-if="hasFiles" :search="search" />
    <button v-if="search.shown === 'lines' && hasFiles" type="button" class="button" @click="$emit('foldAll')">
      {{ allFolded ? 'Unfold all' : 'Fold all' }}
    </button>
    <div v-if="search.shown === 'lines'" class="flex items-center gap-1" role="group" aria-label="Context lines">
      <button
        type="button"
        class="button px-2"
        aria-label="Fewer context lines"
        :disabled="search.context === 0"
        @click="$emit('context', -1)"
      >
        −
      </button>
      <span class="w-26 text-center tabular-nums" data-part="context">{{
        counted(search.context, 'context line')
      }}</span>
      <button
        type="button"
        class="button px-2"
        aria-label="More context lines"
        :disabled="search.context === MOST_CONTEXT"
        @click="$emit('context', 1)"
      >
        +
      </button>
    </div>
  </div>
</template>
