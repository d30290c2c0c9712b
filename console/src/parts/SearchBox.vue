<script setup lang="ts">
import { computed, ref } from 'vue'
import type { CaseMode, Problem, Search } from '../wire'

const search = defineModel<Search>({ required: true })
const props = defineProps<{ problem?: Problem; running: boolean }>()
const emit = defineEmits<{ leave: [] }>()
const input = ref<HTMLTextAreaElement>()

const rows = computed(() => Math.min(6, search.value.text.split('\n').length))
const nextCase: Record<CaseMode, CaseMode> = { auto: 'match', match: 'ignore', ignore: 'auto' }

// The text again, invisible, with the place of the mistake underlined.
const marked = computed(() => {
  const at = props.problem?.position
  if (at === undefined || at > search.value.text.length) return undefined
  return { before: search.value.text.slice(0, at), at: search.value.text.slice(at, at + 1) || ' ', after: search.value.text.slice(at + 1) }
})

function key(event: KeyboardEvent) {
  if (event.key === 'Enter' && !event.shiftKey || event.key === 'ArrowDown' && rows.value === 1) {
    event.preventDefault()
    emit('leave')
  }
}

defineExpose({ focus: () => { input.value?.focus(); input.value?.select() } })
</script>

<template>
  <div class="flex flex-wrap items-stretch gap-2">
    <div class="relative min-w-64 flex-1 rounded-md border border-soft bg-sheet focus-within:outline-2 focus-within:outline-accent">
      <div v-if="marked" aria-hidden="true" class="pointer-events-none absolute inset-0 overflow-hidden whitespace-pre-wrap break-all px-3 py-2 font-mono text-[15px] leading-6 text-transparent">{{ marked.before }}<span class="underline decoration-bad decoration-wavy decoration-2 underline-offset-4">{{ marked.at }}</span>{{ marked.after }}</div>
      <textarea
        id="search-text" ref="input" v-model="search.text" :rows="rows" spellcheck="false" autocomplete="off" autocapitalize="off" aria-label="Search text"
        class="relative block w-full resize-none break-all bg-transparent px-3 py-2 pr-8 font-mono text-[15px] leading-6 outline-none placeholder:text-soft"
        :placeholder="search.reading === 'regex' ? 'A regular expression' : 'Any text, exactly as it stands'" @keydown="key"
      />
      <span v-if="running" class="absolute right-3 top-3 size-2 animate-pulse rounded-full bg-accent" role="status" aria-label="Searching" />
    </div>
    <div class="flex items-stretch overflow-hidden rounded-md border border-rule" role="group" aria-label="How the text is read">
      <button type="button" class="option" data-option="case" :data-on="search.caseMode !== 'auto'" title="auto: a capital in the text makes case count" @click="search.caseMode = nextCase[search.caseMode]">Case: {{ search.caseMode }}</button>
      <button type="button" class="option border-l" data-option="word" :aria-pressed="search.word" :data-on="search.word" title="A match must not be part of a longer word" @click="search.word = !search.word">Whole words</button>
      <button type="button" class="option border-l" data-option="regex" :aria-pressed="search.reading === 'regex'" :data-on="search.reading === 'regex'" title="Read the text as a regular expression (RE2 syntax)" @click="search.reading = search.reading === 'regex' ? 'plain' : 'regex'">Regular expression</button>
    </div>
  </div>
  <p v-if="problem" role="alert" class="mt-1 text-bad">{{ problem.detail }}</p>
</template>
