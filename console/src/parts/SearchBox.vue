<script setup lang="ts">
import { computed, ref } from 'vue'
import { earlierSearches, remember } from '../earlier'
import ChoiceBar from './ChoiceBar.vue'
import type { CaseMode, Mistake, Problem, Reading, Search } from '../wire'

const search = defineModel<Search>({ required: true })
const props = defineProps<{ problem?: Problem; unfinished?: Mistake; running: boolean }>()
const emit = defineEmits<{ leave: [] }>()
const input = ref<HTMLTextAreaElement>()

const rows = computed(() => Math.min(6, search.value.text.split('\n').length))
const nextCase: Record<CaseMode, CaseMode> = { auto: 'match', match: 'ignore', ignore: 'auto' }
const readings: { value: Reading; title: string; explains: string; placeholder: string }[] = [
  {
    value: 'plain',
    title: 'Plain',
    explains: 'The whole text, literally',
    placeholder: 'Any text, exactly as it stands',
  },
  {
    value: 'regex',
    title: 'Regular expression',
    explains: 'RE2 syntax, matched within a line',
    placeholder: 'A regular expression',
  },
  {
    value: 'expression',
    title: 'Expression',
    explains: 'Words, "phrases" and clauses, joined by and, or, not',
    placeholder: 'Words, "phrases", near(8, a, b), under(src) and not tests',
  },
]
const placeholder = computed(() => readings.find(one => one.value === search.value.reading)?.placeholder)
const entered = ref(false) // who pressed Enter is done typing: what is unfinished then is a mistake
const mistakes = computed(
  () => props.problem?.mistakes ?? (entered.value && props.unfinished ? [props.unfinished] : []),
)

// The text again, invisible, with the places of the mistakes underlined.
const marked = computed(() => {
  const text = search.value.text
  const pieces: { text: string; wrong: boolean }[] = []
  let at = 0
  for (const mistake of mistakes.value) {
    if (mistake.position < at || mistake.position > text.length) continue
    const end = Math.min(text.length, mistake.position + Math.max(1, mistake.length))
    pieces.push(
      { text: text.slice(at, mistake.position), wrong: false },
      { text: text.slice(mistake.position, end) || ' ', wrong: true },
    )
    at = end
  }
  return pieces.length ? [...pieces, { text: text.slice(at), wrong: false }] : []
})

// Earlier searches: ArrowUp goes back through them, ArrowDown forth again to what was being typed.
let earlier: Search[] = []
let position = -1
let typed: Search | undefined

function back() {
  if (position < 0) {
    typed = { ...search.value }
    earlier = earlierSearches().filter(one => one.text !== search.value.text || one.reading !== search.value.reading)
  }
  const older = earlier[position + 1]
  if (!older) return
  position++
  Object.assign(search.value, older)
}
function forth() {
  position--
  const newer = position < 0 ? typed : earlier[position]
  if (newer) Object.assign(search.value, newer)
}
function key(event: KeyboardEvent) {
  const oneRow = rows.value === 1 && !event.shiftKey && !event.altKey
  if (event.key === 'ArrowUp' && oneRow) {
    event.preventDefault()
    back()
  } else if (event.key === 'ArrowDown' && oneRow && position >= 0) {
    event.preventDefault()
    forth()
  } else if ((event.key === 'Enter' && !event.shiftKey) || (event.key === 'ArrowDown' && oneRow)) {
    event.preventDefault()
    position = -1
    entered.value = true
    remember(search.value)
    emit('leave')
  } else if (event.key.length === 1 || event.key === 'Backspace' || event.key === 'Delete') {
    position = -1
    entered.value = false
  }
}

defineExpose({
  focus: () => {
    input.value?.focus()
    input.value?.select()
  },
})
</script>

<template>
  <div class="flex flex-wrap items-stretch gap-2">
    <div
      class="relative min-w-64 flex-1 rounded-md border border-soft bg-sheet focus-within:outline-2 focus-within:outline-accent"
    >
      <div
        v-if="marked.length"
        aria-hidden="true"
        class="pointer-events-none absolute inset-0 overflow-hidden whitespace-pre-wrap break-all px-3 py-2 pr-8 font-mono text-[15px] leading-6 text-transparent"
      >
        <template v-for="(piece, i) in marked" :key="i"
          ><span
            v-if="piece.wrong"
            class="underline decoration-bad decoration-wavy decoration-2 underline-offset-4"
            data-part="mistake"
            >{{ piece.text }}</span
          ><template v-else>{{ piece.text }}</template></template
        >
      </div>
      <textarea
        id="search-text"
        ref="input"
        v-model="search.text"
        :rows="rows"
        spellcheck="false"
        autocomplete="off"
        autocapitalize="off"
        aria-label="Search text"
        class="relative block w-full resize-none break-all bg-transparent px-3 py-2 pr-8 font-mono text-[15px] leading-6 outline-none placeholder:text-soft"
        :placeholder="placeholder"
        @keydown="key"
        @blur="remember(search)"
      />
      <span
        v-if="running"
        class="absolute right-3 top-3 size-2 animate-pulse rounded-full bg-accent"
        role="status"
        aria-label="Searching"
      />
    </div>
    <ChoiceBar v-model="search.reading" label="How the text is read" :choices="readings" />
    <div
      class="flex items-stretch overflow-hidden rounded-md border border-rule"
      role="group"
      aria-label="Case and words"
    >
      <button
        type="button"
        class="option"
        data-option="case"
        :data-on="search.caseMode !== 'auto'"
        title="auto: a capital in the text makes case count"
        @click="search.caseMode = nextCase[search.caseMode]"
      >
        Case: {{ search.caseMode }}
      </button>
      <button
        type="button"
        class="option border-l"
        data-option="word"
        :aria-pressed="search.word"
        :data-on="search.word"
        title="A match must not be part of a longer word"
        @click="search.word = !search.word"
      >
        Whole words
      </button>
    </div>
  </div>
  <div v-if="problem || mistakes.length" role="alert" class="mt-1 text-bad">
    <p v-if="problem && !mistakes.length">{{ problem.detail }}</p>
    <p v-for="mistake in mistakes.slice(0, 3)" :key="mistake.position + mistake.message">
      {{ mistake.message }}
      <button
        v-if="mistake.suggestion"
        type="button"
        class="part ml-1 font-mono text-ink"
        data-part="suggestion"
        @click="search.text = mistake.suggestion"
      >
        {{ mistake.suggestion }}
      </button>
    </p>
  </div>
  <p v-else-if="unfinished" class="mt-1 text-soft" data-part="unfinished">Go on: {{ unfinished.message }}</p>
</template>
