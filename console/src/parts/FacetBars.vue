<script setup lang="ts">
import { computed } from 'vue'
import { number } from '../amounts'
import type { Facet } from '../wire'

// Where the hits fall, by one property. Bars that narrow the search are buttons.
const props = defineProps<{ title: string; facets: Facet[]; exact: boolean; chosen?: string[]; narrows: boolean }>()
defineEmits<{ choose: [value: string] }>()
const FEW = 8
const amount = (facet: Facet) => facet.hits || facet.files
const most = computed(() => Math.max(1, ...props.facets.map(amount)))
const shown = computed(() => props.facets.slice(0, FEW))
</script>

<template>
  <section :aria-label="title" class="mb-4">
    <h2 class="mb-1 text-soft">{{ title }}</h2>
    <component :is="narrows ? 'button' : 'div'" v-for="facet in shown" :key="facet.value" :type="narrows ? 'button' : undefined" :title="facet.value" class="block w-full rounded px-1.5 py-0.5 text-left" :class="{ 'hover:bg-shade': narrows }" :aria-pressed="narrows ? chosen?.includes(facet.value) : undefined" @click="narrows && $emit('choose', facet.value)">
      <span class="flex gap-2"><span class="truncate" :class="{ 'font-semibold': chosen?.includes(facet.value) }">{{ facet.value }}</span><span class="ml-auto tabular-nums text-soft">{{ number(amount(facet)) }}{{ exact ? '' : '+' }}</span></span>
      <span class="mt-0.5 block h-1 rounded-full bg-accent/70" :style="{ width: `${Math.max(2, (100 * amount(facet)) / most)}%` }" />
    </component>
    <p v-if="facets.length > FEW" class="px-1.5 text-soft">and {{ facets.length - FEW }} more</p>
  </section>
</template>
