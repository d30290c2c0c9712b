<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import * as requests from '../requests'
import { useRepositories } from '../state/repositories'
import TickList from './TickList.vue'

// Repositories to tick. There may be many: those that are ticked, and the first that have what is typed.
const values = defineModel<string[]>({ required: true })
const MOST = 50
const repositories = useRepositories()
const filter = ref('')
const found = ref<{ value: string; title?: string }[]>([])
const hasMore = ref(false)
let asking = 0

async function ask() {
  const mine = ++asking
  try {
    const page = await requests.repositories({ find: filter.value, limit: MOST + 1 })
    if (mine !== asking) return
    found.value = page.slice(0, MOST).map(one => ({ value: one.name, title: one.title }))
    hasMore.value = page.length > MOST
  } catch {
    // that the service is gone is told elsewhere
  }
}
watch(filter, ask)
watch(
  () => repositories.count,
  () => void ask(),
)
onMounted(ask)
const options = computed(() => [
  ...values.value
    .filter(value => !filter.value && !found.value.some(option => option.value === value))
    .map(value => ({ value, title: repositories.title(value) })),
  ...found.value,
])
</script>

<template>
  <TickList v-model="values" v-model:filter="filter" what="repositories" :options="options" filtered />
  <p v-if="hasMore" class="px-1 text-soft" data-part="more">There are more; type a part of the name, title or label.</p>
</template>
