<script setup lang="ts">
import { computed } from 'vue'
import type { Match } from '../wire'

const props = defineProps<{ text: string; matches: Match[]; offset?: number }>()

// Pieces of the text, every second one a match.
const pieces = computed(() => {
  const offset = props.offset ?? 0
  const result: string[] = []
  let at = 0
  for (const match of props.matches) {
    const start = Math.min(Math.max(at, match.start - offset), props.text.length)
    const end = Math.min(Math.max(start, match.end - offset), props.text.length)
    result.push(props.text.slice(at, start), props.text.slice(start, end))
    at = end
  }
  result.push(props.text.slice(at))
  return result
})
</script>

<template><template v-for="(piece, i) in pieces" :key="i"><mark v-if="i % 2 && piece">{{ piece }}</mark><template v-else>{{ piece }}</template></template></template>
