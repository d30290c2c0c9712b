<script setup lang="ts">
import { computed } from 'vue'

// The way to a file or folder; each folder of it leads to its tree.
const props = defineProps<{ repository: string; path: string; rev: string }>()
const crumbs = computed(() => {
  const parts = props.path.split('/').filter(Boolean)
  return parts.map((name, i) => ({ name, path: parts.slice(0, i + 1).join('/'), last: i === parts.length - 1 }))
})
const tree = (path: string) => ({
  name: 'tree',
  query: { in: props.repository, ...(path ? { path } : {}), ...(props.rev ? { rev: props.rev } : {}) },
})
</script>

<template>
  <h1 class="min-w-0 font-mono text-[13px] break-all" aria-label="Path">
    <RouterLink class="text-soft hover:underline" :class="{ 'font-bold text-ink': !path }" :to="tree('')">{{
      repository
    }}</RouterLink><template v-for="crumb in crumbs" :key="crumb.path"
      ><span class="text-soft"> / </span><span v-if="crumb.last" class="font-bold">{{ crumb.name }}</span
      ><RouterLink v-else class="text-soft hover:underline" :to="tree(crumb.path)">{{
        crumb.name
      }}</RouterLink></template
    >
  </h1>
</template>
