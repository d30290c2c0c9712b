<script setup lang="ts">
import { ref, watch } from 'vue'
import { bytes } from '../amounts'
import * as requests from '../requests'
import type { SkippedFiles } from '../wire'

const props = defineProps<{ repository: string; branch: string; commit: string }>()
const found = ref<SkippedFiles>()
const problem = ref('')

watch(
  () => props.commit,
  async () => {
    try {
      found.value = await requests.skipped(props.repository, props.branch)
    } catch (error) {
      problem.value = (error as Error).message
    }
  },
  { immediate: true },
)
</script>

<template>
  <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
  <p v-else-if="!found" class="text-soft">Loading</p>
  <ul v-else class="max-h-72 overflow-y-auto">
    <li v-for="file in found.files" :key="file.path" class="flex gap-3 py-0.5">
      <RouterLink
        class="min-w-0 font-mono text-[13px] break-all hover:underline"
        :to="{ name: 'file', query: { in: repository, path: file.path, rev: branch } }"
        >{{ file.path }}</RouterLink
      >
      <span class="ml-auto shrink-0 text-soft">{{ file.reason }}</span>
      <span class="w-20 shrink-0 text-right tabular-nums text-soft">{{ bytes(file.bytes) }}</span>
    </li>
  </ul>
</template>
