<script setup lang="ts">
import type { FoundResult } from '../wire'

// Results of any subject, one on a line, each leading to where it was found.
const props = defineProps<{ results: FoundResult[]; count: number; sign: string; label: string }>()

const placeOf = (result: FoundResult) =>
  result.path === null
    ? { name: 'commit', query: { in: result.repository, id: result.commit } }
    : {
        name: 'file',
        query: {
          in: result.repository,
          path: result.path,
          rev: result.commit,
          ...(result.line !== null && { line: String(result.line) }),
        },
      }
const nameOf = (result: FoundResult) =>
  result.path === null
    ? `${result.repository} ${result.commit.slice(0, 10)}`
    : `${result.repository}/${result.path}${result.line === null ? '' : `:${result.line}`}`
</script>

<template>
  <ul v-if="props.results.length" :aria-label="label" class="text-[13px]">
    <li
      v-for="(result, i) in props.results"
      :key="i"
      class="grid grid-cols-[1ch_minmax(0,1fr)] gap-x-2 py-0.5"
      data-part="result"
    >
      <span aria-hidden="true" class="font-mono">{{ sign }}</span>
      <span class="min-w-0">
        <RouterLink :to="placeOf(result)" class="part break-all">{{ nameOf(result) }}</RouterLink>
        <code v-if="result.text" class="block overflow-hidden font-mono text-ellipsis whitespace-pre">{{
          result.text.trim()
        }}</code>
      </span>
    </li>
    <li v-if="props.count > props.results.length" class="text-soft">
      and {{ props.count - props.results.length }} more
    </li>
  </ul>
</template>
