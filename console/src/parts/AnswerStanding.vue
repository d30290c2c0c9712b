<script setup lang="ts">
import { computed } from 'vue'
import { counted } from '../amounts'
import type { IndexState, SearchedPart } from '../wire'

// How many there are, how long it took, and what keeps the answer from being complete.
const props = defineProps<{
  counts: string
  answer: { index: IndexState; stopped?: string | null; tookMillis: number }
  /** The past was searched, not what stands in the files now. */
  past?: boolean
  /** What makes the search smaller. */
  advice: string
}>()
const percent = (part: SearchedPart) => (part.bytes ? Math.floor((100 * part.searchedBytes) / part.bytes) : 0)
const repositories = computed(() => counted(props.answer.index.repositories, 'repository', 'repositories'))
</script>

<template>
  <p data-part="counts">
    <strong class="font-semibold">{{ counts }}</strong><span class="text-soft">
      &nbsp;{{ answer.tookMillis.toFixed(1) }} ms</span
    >
  </p>
  <p v-if="!answer.index.complete" class="text-accent" data-part="incomplete">
    Not complete:
    <template v-if="past">the past of {{ answer.index.indexing }} of {{ repositories }} is still being read.</template>
    <template v-else>{{ answer.index.indexing }} of {{ repositories }} cannot be searched yet.</template>
    <template v-for="part in answer.index.parts" :key="part.repository"
      >{{ ' ' }}Of {{ part.repository }}, {{ percent(part) }} % of the text can be searched by now.</template
    >
    {{ ' ' }}<RouterLink :to="{ name: 'repositories' }" class="part">Look</RouterLink>
  </p>
  <p v-if="answer.stopped === 'time' || answer.stopped === 'memory'" class="text-accent">
    Not complete: the search took too {{ answer.stopped === 'time' ? 'long' : 'much memory' }} and was stopped.
    {{ advice }}
  </p>
  <p v-if="answer.index.missingFiles" class="text-accent">
    {{ counted(answer.index.missingFiles, 'listed file') }} not in the index, and so not searched.
  </p>
</template>
