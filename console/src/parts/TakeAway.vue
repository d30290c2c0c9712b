<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'
import { number } from '../amounts'
import { type Format, MOST_HITS, type What, save, takeAway } from '../takeaway'
import type { Search } from '../wire'

// Keeps the results, or sends them on.
const props = defineProps<{ search: Search }>()
const what = ref<What>('lines')
const format = ref<Format>('text')
const standing = ref('')
let taking = new AbortController()
const endings: Record<Format, string> = { text: 'txt', jsonl: 'jsonl', csv: 'csv' }

async function take(whereTo: 'clipboard' | 'file') {
  taking.abort()
  const own = (taking = new AbortController())
  standing.value = 'Reading'
  try {
    const { text, whole } = await takeAway(
      { ...props.search, scope: { ...props.search.scope } },
      what.value,
      format.value,
      own.signal,
      count => {
        standing.value = `${number(count)} so far`
      },
    )
    if (whereTo === 'clipboard') await navigator.clipboard.writeText(text)
    else
      save(
        new Blob([text], { type: format.value === 'csv' ? 'text/csv' : 'text/plain' }),
        `results.${endings[format.value]}`,
      )
    standing.value = `${whereTo === 'clipboard' ? 'Copied' : 'Saved'}${whole ? '' : `: only the first ${number(MOST_HITS)} lines, or as far as the search came`}`
  } catch (error) {
    if (!own.signal.aborted) standing.value = (error as Error).message
  }
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="button" data-part="take-away">Take away</PopoverButton>
    <PopoverPanel class="panel absolute right-0 z-20 mt-1 w-72 p-3">
      <fieldset class="flex flex-wrap gap-x-3">
        <legend class="text-soft">What</legend>
        <label v-for="one in ['lines', 'files', 'repositories', 'matches'] as const" :key="one"
          ><input v-model="what" type="radio" class="accent-[var(--accent)]" name="what" :value="one" />
          {{ one }}</label
        >
      </fieldset>
      <fieldset class="mt-2 flex flex-wrap gap-x-3">
        <legend class="text-soft">As</legend>
        <label v-for="one in ['text', 'jsonl', 'csv'] as const" :key="one"
          ><input v-model="format" type="radio" class="accent-[var(--accent)]" name="format" :value="one" />
          {{ one }}</label
        >
      </fieldset>
      <p class="mt-2 flex items-center gap-2">
        <button type="button" class="button-strong" data-part="save" @click="take('file')">Save</button
        ><button type="button" class="button" data-part="copy-all" @click="take('clipboard')">Copy</button
        ><span class="text-soft" role="status">{{ standing }}</span>
      </p>
    </PopoverPanel>
  </Popover>
</template>
