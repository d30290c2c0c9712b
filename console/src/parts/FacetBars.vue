<script setup lang="ts">
import { computed, ref } from 'vue'
import { number } from '../amounts'
import { useLayout } from '../state/layout'
import type { Facet } from '../wire'

// Where the hits fall, by one property. A click narrows the search to a value, or leaves it out.
const props = defineProps<{
  title: string
  facets: Facet[]
  exact: boolean
  chosen?: string[]
  leavesOut?: boolean
  labels?: Record<string, string>
}>()
defineEmits<{ choose: [value: string]; leaveOut: [value: string] }>()
const FEW = 6
const { layout, toggleFacet } = useLayout()
const folded = computed(() => layout.foldedFacets.includes(props.title))
const all = ref(false)
const amount = (facet: Facet) => facet.hits || facet.files
const most = computed(() => Math.max(1, ...props.facets.map(amount)))
const shown = computed(() => (all.value ? props.facets : props.facets.slice(0, FEW)))
</script>

<template>
  <section :aria-label="title" class="mb-4">
    <h2 class="mb-1 text-soft">
      <button type="button" class="hover:text-ink" :aria-expanded="!folded" @click="toggleFacet(title)">
        <span class="inline-block w-3" aria-hidden="true">{{ folded ? '▸' : '▾' }}</span> {{ title }}
      </button>
    </h2>
    <div v-for="facet in folded ? [] : shown" :key="facet.value" class="group relative">
      <button
        type="button"
        :title="facet.value"
        class="block w-full rounded px-1.5 py-0.5 text-left hover:bg-shade"
        :aria-pressed="chosen?.includes(facet.value) ?? false"
        @click="$emit('choose', facet.value)"
      >
        <span class="flex gap-2"
          ><span class="truncate" :class="{ 'font-semibold': chosen?.includes(facet.value) }">{{
            labels?.[facet.value] ?? facet.value
          }}</span
          ><span class="ml-auto tabular-nums text-soft">{{ number(amount(facet)) }}{{ exact ? '' : '+' }}</span></span
        >
        <span
          class="mt-0.5 block h-1 rounded-full bg-accent/70"
          :style="{ width: `${Math.max(2, (100 * amount(facet)) / most)}%` }"
        />
      </button>
      <button
        v-if="leavesOut"
        type="button"
        class="button absolute top-0 right-12 px-1.5 py-0 text-[12px] opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
        :aria-label="`Leave out ${facet.value}`"
        @click="$emit('leaveOut', facet.value)"
      >
        leave out
      </button>
    </div>
    <button
      v-if="facets.length > FEW && !folded"
      type="button"
      class="part ml-1.5 min-h-6 text-soft"
      @click="all = !all"
    >
      {{ all ? 'fewer' : `${facets.length - FEW} more` }}
    </button>
  </section>
</template>
