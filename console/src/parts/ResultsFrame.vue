<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { whenEndIsNear } from '../endOfList'
import { useLayout } from '../state/layout'
import { useRepositories } from '../state/repositories'
import { useSession } from '../state/session'
import PaneEdge from './PaneEdge.vue'
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
const { layout } = useLayout()
const session = useSession()
const isEmpty = computed(() => repositories.loaded && !repositories.count)
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
      <template v-if="session.may('maintainer')">
        <h1 class="text-lg font-semibold">Nothing is indexed yet</h1>
        <p class="mt-2 text-soft">Register a repository, and it can be searched as soon as it is indexed.</p>
        <RouterLink :to="{ name: 'repositories', query: { add: 'true' } }" class="button-strong mt-4 inline-block"
          >Add a repository</RouterLink
        >
      </template>
      <template v-else>
        <h1 class="text-lg font-semibold">No repository is shown to you</h1>
        <p class="mt-2 text-soft">
          {{
            session.person
              ? 'Maintainers add them, and say who sees them: ask one.'
              : 'Sign in to see those that are shown to you.'
          }}
        </p>
        <RouterLink
          v-if="!session.person"
          :to="{ name: 'sign-in', query: { back: $route.fullPath } }"
          class="button-strong mt-4 inline-block"
          >Sign in</RouterLink
        >
      </template>
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
        <aside
          v-if="hasFacets"
          class="w-52 shrink-0 max-lg:hidden"
          :style="layout.widths.counts ? { width: `${layout.widths.counts}px` } : {}"
          aria-label="Counts"
        >
          <div class="sticky top-3 max-h-[calc(100vh-1.5rem)] overflow-y-auto pr-2" data-part="facets">
            <slot name="facets" />
          </div>
        </aside>
        <PaneEdge
          v-if="hasFacets"
          before
          class="-mx-4 max-lg:hidden"
          pane="counts"
          label="Width of the counts"
          :least="140"
          :most="480"
        />
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
