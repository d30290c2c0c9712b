<script setup lang="ts">
import { counted } from '../amounts'
import type { SecondLook } from '../wire'

// Changed searches that would have found something, each with its count and a key.
defineProps<{ looks: SecondLook[] }>()
defineEmits<{ take: [look: SecondLook] }>()
</script>

<template>
  <div v-if="looks.length" class="mx-auto mt-6 max-w-xl text-left" data-part="second-looks">
    <h2 class="mb-1 text-soft">What would have found something</h2>
    <button
      v-for="(look, i) in looks"
      :key="look.change"
      type="button"
      class="flex w-full items-baseline gap-3 rounded px-2 py-1 text-left hover:bg-shade"
      @click="$emit('take', look)"
    >
      <kbd class="w-12 shrink-0 rounded border border-rule text-center font-mono text-[12px] text-soft">{{
        i < 9 ? `Alt ${i + 1}` : ''
      }}</kbd>
      <span class="min-w-0 break-words">{{ look.change }}</span>
      <span class="ml-auto shrink-0 tabular-nums text-soft"
        >{{ look.exact ? '' : 'at least '
        }}{{ look.hits ? counted(look.hits, 'hit') : counted(look.files, 'file') }}</span
      >
    </button>
  </div>
</template>
