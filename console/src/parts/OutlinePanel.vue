<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { hint } from '../keys'
import { counted, number } from '../amounts'
import type { Outline, OutlineSymbol } from '../wire'

// What a file declares, with a filter; the declaration that one is in is marked, and stays in sight.
const props = defineProps<{ outline: Outline; line: number }>()
defineEmits<{ go: [line: number] }>()
const MOST = 2_000
const filter = ref('')
const list = ref<HTMLElement>()
const box = ref<HTMLInputElement>()

const shown = computed(() => {
  const words = filter.value
    .toLowerCase()
    .split(/[\s.:#/]+/)
    .filter(Boolean)
  return props.outline.symbols
    .filter(symbol => words.every(word => `${symbol.container}.${symbol.name}`.toLowerCase().includes(word)))
    .slice(0, MOST)
})
/** Uses that mean it, where that is told; else those of its name. */
const amount = ({ uses, usesMeant }: OutlineSymbol) =>
  usesMeant !== null ? number(usesMeant) : uses !== null ? number(uses) : ''
const explained = ({ uses, usesMeant }: OutlineSymbol) =>
  uses === null
    ? undefined
    : usesMeant === null
      ? `${counted(uses, 'use')} of the name, in all repositories`
      : `${counted(usesMeant, 'use')} that ${usesMeant === 1 ? 'means' : 'mean'} this one, surely or likely; ${number(uses)} of the name`
const counts = computed(() => props.outline.symbols.some(symbol => symbol.uses !== null))
/** The innermost declaration around a line. */
const current = computed(() => {
  let found: OutlineSymbol | undefined
  for (const symbol of props.outline.symbols) {
    if (symbol.line > props.line) break
    if (symbol.endLine >= props.line) found = symbol
  }
  return found
})
watch(
  current,
  () => void nextTick(() => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })),
)
function keys(event: KeyboardEvent) {
  const entries = [...(list.value?.querySelectorAll<HTMLElement>('button') ?? [])]
  const at = entries.indexOf(document.activeElement as HTMLElement)
  if (event.key === 'ArrowDown') entries[at + 1]?.focus()
  else if (event.key === 'ArrowUp') (entries[at - 1] ?? box.value)?.focus()
  else if (event.key === 'Enter' && event.target === box.value) entries[0]?.click()
  else return
  event.preventDefault()
}
defineExpose({ focus: () => box.value?.select() })
</script>

<template>
  <section class="flex min-h-0 flex-col" aria-label="Outline" data-part="symbols" @keydown="keys">
    <div class="border-b border-rule p-2">
      <input
        ref="box"
        v-model="filter"
        class="field"
        type="search"
        placeholder="Outline: part of a name"
        aria-label="Filter of the outline"
        :title="hint('outline')"
        spellcheck="false"
      />
    </div>
    <p v-if="!outline.language" class="p-3 text-soft">
      No outline: declarations of {{ outline.type }} files are not known.
    </p>
    <p v-else-if="!outline.symbols.length" class="p-3 text-soft">Nothing is declared here.</p>
    <p v-else-if="!shown.length" class="p-3 text-soft">No declaration has that in its name.</p>
    <p v-if="counts && shown.length" class="px-2 pt-1 text-right text-[12px] text-soft">uses</p>
    <div ref="list" class="min-h-0 flex-1 overflow-y-auto py-1">
      <button
        v-for="symbol in shown"
        :key="`${symbol.line}:${symbol.column}`"
        type="button"
        class="flex min-h-6 w-full items-baseline gap-2 px-2 py-px text-left hover:bg-shade focus-visible:bg-shade"
        :class="{ 'bg-shade shadow-[inset_3px_0_var(--accent)]': symbol === current }"
        :aria-current="symbol === current ? 'location' : undefined"
        :title="`${symbol.kind} ${symbol.signature}`"
        @click="$emit('go', symbol.line)"
      >
        <span
          class="min-w-0 truncate font-mono text-[13px]"
          :style="{ paddingLeft: `${Math.min(6, symbol.depth) * 10}px` }"
          :class="{ 'font-bold': symbol.depth === 0 && symbol.endLine > symbol.line }"
          >{{ symbol.name }}</span
        >
        <span class="ml-auto shrink-0 text-[12px] text-soft">{{ symbol.kind }}</span><span
          v-if="counts"
          class="w-10 shrink-0 text-right text-[12px] tabular-nums text-soft"
          :title="explained(symbol)"
          >{{ amount(symbol) }}</span
        >
      </button>
    </div>
    <p v-if="outline.total > outline.symbols.length" class="border-t border-rule p-2 text-[12px] text-soft">
      The first {{ outline.symbols.length }} of {{ outline.total }} declarations.
    </p>
  </section>
</template>
