<script setup lang="ts">
import { type Subject, useSubjects } from '../state/subjects'
import type { Search } from '../wire'

// A few results of another subject; the heading leads to all of them.
defineProps<{ subject: Subject; label: string; title: string; shortcut: string; search: Search }>()
const subjects = useSubjects()
</script>

<template>
  <section class="min-w-0" :aria-label="label">
    <h2 class="leading-6">
      <RouterLink
        class="part inline-block leading-6 text-soft"
        :data-part="`all-${subject}`"
        :title="`Key: Alt ${shortcut}`"
        :to="{ name: subject, query: subjects.addressOf(subject, search) }"
        >{{ title }}</RouterLink
      >
    </h2>
    <ul>
      <slot />
    </ul>
  </section>
</template>
