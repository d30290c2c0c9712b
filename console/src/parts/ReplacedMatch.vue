<script setup lang="ts">
import { computed } from 'vue'
import type { ReplacementChange } from '../wire'
import MarkedText from './MarkedText.vue'

// One match as it is and as it would be, with a tick, a text of its own, or the whole line written anew.
const LONGEST = 400 // of longer lines a part is shown
const { change, ticked, own, line, besides } = defineProps<{
  change: ReplacementChange
  ticked: boolean
  enabled: boolean
  own: string | undefined
  line: string | undefined
  besides: boolean
}>()
const emit = defineEmits<{ toggle: []; own: [string]; line: [string | undefined] }>()

const start = computed(() => change.column - 1)
const instead = computed(() => own ?? change.with)
const isWhole = computed(() => change.before.length <= LONGEST && !change.before.includes('\n'))
const after = computed(() =>
  own === undefined
    ? change.after
    : change.before.slice(0, start.value) + own + change.before.slice(start.value + change.match.length),
)
const place = computed(() => `line ${change.line}, column ${change.column}`)
function editLine() {
  emit('line', line === undefined ? (ticked ? after.value : change.before) : undefined)
}
</script>

<template>
  <li class="grid grid-cols-[max-content_minmax(0,1fr)] gap-x-3 px-3 py-1">
    <input
      type="checkbox"
      class="mt-1 self-start"
      :checked="ticked"
      :disabled="!enabled"
      :aria-label="`Replace the match at ${place}`"
      @change="emit('toggle')"
    />
    <div class="min-w-0 font-mono text-[13px]">
      <div :class="{ 'grid gap-x-4 md:grid-cols-2': besides }">
        <p class="break-words whitespace-pre-wrap">
          <span class="text-soft">{{ change.line }} −</span>&nbsp;<MarkedText
            :text="change.before"
            :matches="[{ start, end: start + change.match.length }]"
          />
        </p>
        <p v-if="ticked && line === undefined" class="break-words whitespace-pre-wrap">
          <span class="text-soft">{{ change.line }} +</span>&nbsp;<MarkedText
            :text="after"
            :matches="[{ start, end: start + instead.length }]"
          />
        </p>
        <p v-else-if="ticked" class="flex items-baseline whitespace-pre">
          <span class="text-soft">{{ change.line }} +</span>&nbsp;<input
            class="field grow font-mono text-[13px]"
            :value="line"
            :aria-label="`Line ${change.line} as it would be`"
            spellcheck="false"
            data-part="line"
            @input="emit('line', ($event.target as HTMLInputElement).value)"
          />
        </p>
      </div>
      <p v-if="ticked" class="mt-0.5 flex flex-wrap items-center gap-2 font-sans">
        <input
          v-if="line === undefined"
          class="field w-72 max-w-full font-mono text-[13px]"
          :value="instead"
          :aria-label="`What stands instead of the match at ${place}`"
          spellcheck="false"
          @input="emit('own', ($event.target as HTMLInputElement).value)"
        />
        <button v-if="isWhole" type="button" class="part text-soft" data-part="edit-line" @click="editLine">
          {{ line === undefined ? 'Edit the line' : 'Only the match' }}
        </button>
        <span v-for="warning in change.warnings" :key="warning" class="text-bad" data-part="warning">{{
          warning
        }}</span>
      </p>
    </div>
  </li>
</template>
