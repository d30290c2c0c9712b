<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { whenEndIsNear } from '../endOfList'
import { useRepositories } from '../state/repositories'
import type { Mistake, Problem } from '../wire'

// The frame of a page of results: the question, how it stands, counts beside the list, and the list, which grows as its end comes near.
const props = defineProps<{
  problem?: Problem
  unfinished?: Mistake
  gone: boolean
  items: unknown[]
  goesOn: boolean
  hasFacets: boolean
  /** Nothing is asked yet: the introduction is shown. */
  introduces?: boolean
  /** The question shows its mistakes itself. */
  toldInQuestion?: boolean
}>()
const emit = defineEmits<{ more: [] }>()
const repositories = useRepositories()
const isEmpty = computed(() => repositories.loaded && !repositories.all.length)
const end = ref<HTMLElement>()
whenEndIsNear(end, toRef(props, 'items'), async () => emit('more'))
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pb-24">
    <form class="pt-4" role="search" @submit.prevent><slot name="question" /></form>
    <template v-if="!toldInQuestion">
      <p v-if="problem" role="alert" class="mt-3 rounded border border-bad px-3 py-2 text-bad">{{ problem.detail }}</p>
      <p v-else-if="unfinished" class="mt-2 text-soft" data-part="unfinished">Go on: {{ unfinished.message }}</p>
    </template>
    <section v-if="isEmpty" class="mx-auto max-w-xl py-20 text-center">
      <h1 class="text-lg font-semibold">Nothing is indexed yet</h1>
      <p class="mt-2 text-soft">Register a repository, and it can be searched as soon as it is indexed.</p>
      <RouterLink :to="{ name: 'repositories', query: { add: 'true' } }" class="button-strong mt-4 inline-block"
        >Add a repository</RouterLink
      >
    </section>
    <slot v-else-if="introduces" name="introduction" />
    <template v-else>
      <div
        class="mt-3 flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule pb-2"
        aria-live="polite"
      >
        <slot name="standing" />
      </div>
      <slot name="above" />
      <div class="mt-3 flex gap-6">
        <aside v-if="hasFacets" class="w-52 shrink-0 max-lg:hidden" aria-label="Counts">
          <div class="sticky top-3 max-h-[calc(100vh-1.5rem)] overflow-y-auto pr-2" data-part="facets">
            <slot name="facets" />
          </div>
        </aside>
        <div class="min-w-0 flex-1" :class="{ 'opacity-60': gone }">
          <slot />
          <p v-if="goesOn" class="py-3 text-center text-soft" role="status">Loading more</p>
        </div>
        <slot name="beside" />
      </div>
    </template>
    <div ref="end" class="h-px" />
  </main>
</template>
