<script setup lang="ts">
import { computed } from 'vue'
import { date } from '../amounts'
import type { Origin } from '../wire'

// The commit that a line comes from, and the way to the version before it.
const props = defineProps<{ repository: string; origin: Origin }>()
defineEmits<{ close: [] }>()
const commit = computed(() => ({ name: 'commit', query: { in: props.repository, id: props.origin.commit } }))
const there = computed(() => ({
  name: 'file',
  query: { in: props.repository, path: props.origin.path, rev: props.origin.commit, line: String(props.origin.line) },
}))
const before = computed(
  () =>
    props.origin.previous && {
      name: 'file',
      query: {
        in: props.repository,
        path: props.origin.previous.path,
        rev: props.origin.previous.commit,
        line: String(props.origin.line),
      },
    },
)
</script>

<template>
  <section class="p-3" aria-label="Origin of the line" data-part="origin">
    <div class="flex items-baseline gap-2">
      <h2 class="min-w-0 font-semibold break-words">
        <RouterLink class="hover:underline" :to="commit">{{ origin.summary || 'no message' }}</RouterLink>
      </h2>
      <button type="button" class="button ml-auto px-1.5 py-0" aria-label="Close" @click="$emit('close')">×</button>
    </div>
    <p class="mt-1 text-soft">{{ origin.author.name }}, {{ date(origin.authored) }}</p>
    <p class="font-mono text-[12px] break-all text-soft">
      {{ origin.commit.slice(0, 10) }}, {{ origin.path }}:{{ origin.line }}
    </p>
    <p class="mt-2 flex flex-wrap gap-1">
      <RouterLink class="button" :to="commit">The commit</RouterLink
      ><RouterLink class="button" :to="there">The file then</RouterLink
      ><RouterLink v-if="before" class="button" data-part="before" :to="before">The version before</RouterLink>
    </p>
    <p v-if="!before" class="mt-1 text-[12px] text-soft">The file came in with this commit.</p>
  </section>
</template>
