<script setup lang="ts">
import { ref, toRef } from 'vue'
import { whenEndIsNear } from '../endOfList'

// The frame of a page of results: the question, how it stands, counts beside the list, and the list, which grows as its end comes near.
const props = defineProps<{ problem: string; items: unknown[]; goesOn: boolean; hasFacets: boolean }>()
const emit = defineEmits<{ more: [] }>()
const end = ref<HTMLElement>()
whenEndIsNear(end, toRef(props, 'items'), async () => emit('more'))
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pb-24">
    <form class="pt-3" role="search" @submit.prevent><slot name="question" /></form>
    <p v-if="problem" role="alert" class="mt-3 rounded border border-bad px-3 py-2 text-bad">{{ problem }}</p>
    <div class="mt-3 flex min-h-9 flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule pb-2" aria-live="polite">
      <slot name="standing" />
    </div>
    <slot name="above" />
    <div class="mt-2 flex gap-6">
      <aside v-if="hasFacets" class="w-52 shrink-0 max-lg:hidden"><slot name="facets" /></aside>
      <div class="min-w-0 flex-1">
        <slot />
        <p v-if="goesOn" class="py-3 text-center text-soft" role="status">Loading more</p>
      </div>
      <slot name="beside" />
    </div>
    <div ref="end" class="h-px" />
  </main>
</template>
