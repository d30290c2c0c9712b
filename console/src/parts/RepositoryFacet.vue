<script setup lang="ts">
import { computed } from 'vue'
import { number } from '../amounts'
import type { Facet } from '../wire'

const props = defineProps<{ facets: Facet[]; exact: boolean; chosen: string[] }>()
defineEmits<{ choose: [name: string] }>()
const most = computed(() => Math.max(1, ...props.facets.map(facet => facet.hits)))
</script>

<template>
  <section aria-label="Hits by repository">
    <h2 class="mb-1 text-soft">Where the hits are</h2>
    <button v-for="facet in facets" :key="facet.value" type="button" class="block w-full rounded px-1.5 py-1 text-left hover:bg-shade" :aria-pressed="chosen.includes(facet.value)" @click="$emit('choose', facet.value)">
      <span class="flex gap-2"><span class="truncate" :class="{ 'font-semibold': chosen.includes(facet.value) }">{{ facet.value }}</span><span class="ml-auto tabular-nums text-soft">{{ number(facet.hits) }}{{ exact ? '' : '+' }}</span></span>
      <span class="mt-0.5 block h-1 rounded-full bg-accent/70" :style="{ width: `${Math.max(2, (100 * facet.hits) / most)}%` }" />
    </button>
  </section>
</template>
