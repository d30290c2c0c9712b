<script setup lang="ts">
import { counted, number } from '../amounts'
import type { PatternEffect, Sample } from '../wire'

// Pattern by pattern: how many files it takes out, whole folders apart from single files, with samples.
defineProps<{ patterns: PatternEffect[]; files: number }>()
const SHOWN = 300
const single = (pattern: PatternEffect) => pattern.files - pattern.filesInFolders
const toFile = (sample: Sample) => ({
  name: 'file',
  query: { in: sample.repository, path: sample.path, rev: sample.branch },
})
</script>

<template>
  <ol class="mt-2" data-part="pattern-effects">
    <li v-for="pattern in patterns.slice(0, SHOWN)" :key="pattern.line" class="border-t border-rule py-1">
      <details>
        <summary
          class="flex cursor-pointer items-baseline gap-3 before:w-3 before:shrink-0 before:text-soft before:content-['▸'] [details[open]>&]:before:content-['▾']"
        >
          <span class="w-8 shrink-0 text-right tabular-nums text-soft" :title="`Line ${pattern.line}`">{{
            pattern.line
          }}</span>
          <code class="min-w-0 truncate font-mono text-[13px]" :title="pattern.text">{{ pattern.text }}</code>
          <span class="ml-auto shrink-0 tabular-nums text-soft"
            ><span class="text-ink"
              >{{ pattern.files ? (pattern.bringsBack ? '+' : '−') : '' }}{{ number(pattern.files) }}</span
            >
            <template v-if="pattern.folders"> &nbsp;{{ counted(pattern.folders, 'whole folder') }}</template
            ><template v-if="single(pattern)"> &nbsp;{{ counted(single(pattern), 'single file') }}</template></span
          >
        </summary>
        <ul class="mt-1 ml-11 font-mono text-[13px]">
          <li v-for="folder in pattern.sampleFolders" :key="folder.repository + folder.path" class="flex gap-2">
            <span class="min-w-0 truncate"
              ><span class="text-soft">{{ folder.repository }}/</span>{{ folder.path }}/</span
            ><span class="ml-auto shrink-0 font-sans text-soft">{{ counted(folder.files, 'file') }}</span>
          </li>
          <li v-for="file in pattern.sampleFiles" :key="file.repository + file.path" class="truncate">
            <RouterLink class="hover:underline" :to="toFile(file)"
              ><span class="text-soft">{{ file.repository }}/</span>{{ file.path }}</RouterLink
            >
          </li>
        </ul>
      </details>
      <p v-if="pattern.warning" class="ml-11 text-accent" data-part="warning">{{ pattern.warning }}</p>
    </li>
  </ol>
  <p v-if="patterns.length > SHOWN" class="text-soft">and {{ counted(patterns.length - SHOWN, 'pattern') }} more</p>
</template>
