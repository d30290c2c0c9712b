<script setup lang="ts">
import { computed } from 'vue'
import { counted, number } from '../amounts'
import type { Spread } from '../wire'

// Where the hits fall: each repository a strip as wide as its share, each folder in it a field as high as its own. A click narrows to it.
const props = defineProps<{ spread: Spread[]; exact: boolean }>()
defineEmits<{ choose: [repository: string, folder: string] }>()
const HEIGHT = 150 // pixels, about, for the folders of a repository
const amount = (part: Spread) => part.hits || part.files
interface Strip {
  repository: string
  amount: number
  parts: Spread[]
}
const strips = computed(() => {
  const byRepository = new Map<string, Strip>()
  for (const part of props.spread) {
    const strip = byRepository.get(part.repository) ?? { repository: part.repository, amount: 0, parts: [] }
    strip.amount += amount(part)
    strip.parts.push(part)
    byRepository.set(part.repository, strip)
  }
  return [...byRepository.values()].sort((a, b) => b.amount - a.amount)
})
const most = computed(() => Math.max(1, ...props.spread.map(amount)))
const words = (part: Spread) =>
  `${part.repository}${part.folder || ', in no folder'}: ${part.hits ? `${counted(part.hits, 'hit')} in ` : ''}${counted(part.files, 'file')}${props.exact ? '' : ', at least'}`
</script>

<template>
  <figure class="mt-3" aria-label="Where the hits fall" data-part="picture">
    <div class="flex h-44 gap-[3px] overflow-hidden rounded-md">
      <div
        v-for="strip in strips"
        :key="strip.repository"
        class="flex min-w-2 flex-col"
        :style="{ flexGrow: strip.amount, flexBasis: 0 }"
      >
        <button
          type="button"
          class="h-5 shrink-0 truncate px-1 text-left text-[12px] font-semibold hover:underline"
          :title="`Only ${strip.repository}`"
          @click="$emit('choose', strip.repository, '')"
        >
          {{ strip.repository }}
        </button>
        <button
          v-for="part in strip.parts"
          :key="part.folder"
          type="button"
          class="mb-[2px] flex min-h-[3px] items-start overflow-hidden rounded-sm px-1 text-left text-[12px] leading-4 hover:outline-2 hover:-outline-offset-2 hover:outline-ink"
          :style="{
            flexGrow: amount(part),
            flexBasis: 0,
            background: `color-mix(in srgb, var(--mark) ${25 + 75 * (amount(part) / most)}%, var(--shade))`,
          }"
          :title="words(part)"
          :aria-label="words(part)"
          @click="$emit('choose', part.repository, part.folder)"
        >
          <span v-if="(amount(part) / strip.amount) * HEIGHT > 18" class="truncate text-ink"
            >{{ part.folder.slice(1) || 'root' }} <span class="tabular-nums">{{ number(amount(part)) }}</span></span
          >
        </button>
      </div>
    </div>
  </figure>
</template>
