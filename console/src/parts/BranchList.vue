<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { counted } from '../amounts'
import * as requests from '../requests'
import type { Repository } from '../wire'
import TickList from './TickList.vue'

// The branches and tags that are indexed of the repositories of a scope, to tick; patterns are typed beside.
const values = defineModel<string[]>({ required: true })
const props = defineProps<{ repositories: string[] }>()
const MOST = 50
const found = ref<Repository[]>([])
const hasMore = ref(false)

onMounted(async () => {
  try {
    const page = await requests.repositories(
      props.repositories.length ? { name: props.repositories.slice(0, MOST) } : { limit: MOST + 1 },
    )
    found.value = page.slice(0, MOST)
    hasMore.value = page.length > MOST || props.repositories.length > MOST
  } catch {
    // that the service is gone is told elsewhere
  }
})
const options = computed(() => {
  const having = new Map<string, string[]>()
  for (const repository of found.value)
    for (const { name } of repository.branches) having.set(name, [...(having.get(name) ?? []), repository.name])
  return [...having]
    .sort(([one, some], [other, others]) => others.length - some.length || one.localeCompare(other))
    .map(([value, names]) => ({
      value,
      title: names.length > 2 ? counted(names.length, 'repository', 'repositories') : names.join(', '),
    }))
})
</script>

<template>
  <TickList v-if="options.length" v-model="values" what="branches" :options="options" />
  <p v-if="hasMore" class="px-1 text-soft" data-part="more">
    Of the first {{ MOST }} repositories; choose some to see the branches of those.
  </p>
</template>
