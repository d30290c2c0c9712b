<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'
import { number } from '../amounts'
import { type Find, type LineRange, printRange } from '../lines'

// Finds within the file that is shown.
const find = defineModel<Find>({ required: true })
const props = defineProps<{ count: number; at: number; selected?: LineRange; problem?: string }>()
const emit = defineEmits<{ step: [by: number]; close: [] }>()
const input = ref<HTMLInputElement>()
const standing = computed(() => {
  if (!find.value.text) return ''
  if (props.problem) return props.problem
  return props.count ? `${number(props.at + 1)} of ${number(props.count)}` : 'none'
})
function toggle(option: 'caseCounts' | 'word' | 'regex') {
  find.value = { ...find.value, [option]: !find.value[option] }
}
function key(event: KeyboardEvent) {
  if (event.key === 'Enter') emit('step', event.shiftKey ? -1 : 1)
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
}
const focus = () => {
  input.value?.focus()
  input.value?.select()
}
onMounted(() => void nextTick(focus))
defineExpose({ focus })
</script>

<template>
  <div
    class="flex flex-wrap items-center gap-1 border-b border-rule bg-shade px-2 py-1"
    role="search"
    aria-label="In this file"
    data-part="find"
  >
    <input
      ref="input"
      :value="find.text"
      class="field max-w-80 font-mono text-[13px]"
      :class="{ 'border-bad': problem }"
      placeholder="Find in this file"
      aria-label="Find in this file"
      spellcheck="false"
      @input="find = { ...find, text: ($event.target as HTMLInputElement).value }"
      @keydown="key"
    />
    <div class="flex overflow-hidden rounded border border-rule">
      <button
        type="button"
        class="option"
        :data-on="find.caseCounts"
        :aria-pressed="find.caseCounts"
        data-option="find-case"
        @click="toggle('caseCounts')"
      >
        Case counts
      </button>
      <button
        type="button"
        class="option border-l"
        :data-on="find.word"
        :aria-pressed="find.word"
        data-option="find-word"
        @click="toggle('word')"
      >
        Whole words
      </button>
      <button
        type="button"
        class="option border-l"
        :data-on="find.regex"
        :aria-pressed="find.regex"
        data-option="find-regex"
        @click="toggle('regex')"
      >
        Regular expression
      </button>
    </div>
    <button
      v-if="find.within"
      type="button"
      class="button"
      data-part="within"
      @click="find = { ...find, within: undefined }"
    >
      Only in lines {{ printRange(find.within) }} ×
    </button>
    <button
      v-else
      type="button"
      class="button"
      data-part="within"
      :disabled="!selected"
      :title="selected ? '' : 'Select some lines, or choose them by their numbers, first'"
      @click="find = { ...find, within: selected }"
    >
      Only in selected lines
    </button>
    <span
      class="min-w-20 tabular-nums"
      :class="problem ? 'text-bad' : 'text-center text-soft'"
      role="status"
      data-part="found"
      >{{ standing }}</span
    >
    <button type="button" class="button" title="Shift Enter" :disabled="!count" @click="$emit('step', -1)">
      Previous
    </button>
    <button type="button" class="button" title="Enter" :disabled="!count" @click="$emit('step', 1)">Next</button>
    <button type="button" class="button ml-auto" title="Esc" @click="$emit('close')">Close</button>
  </div>
</template>
