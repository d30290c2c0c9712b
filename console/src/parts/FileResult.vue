<script setup lang="ts">
import { computed } from 'vue'
import { counted } from '../amounts'
import { toUrl } from '../searchUrl'
import type { FileHits, Line, Search } from '../wire'
import MarkedText from './MarkedText.vue'

const props = defineProps<{ file: FileHits; search: Search; folded: boolean }>()
defineEmits<{ fold: [] }>()

const folder = computed(() => props.file.path.slice(0, props.file.path.lastIndexOf('/') + 1))
const name = computed(() => props.file.path.slice(props.file.path.lastIndexOf('/') + 1))
const to = (line?: Line) => ({
  name: 'file',
  query: { ...toUrl({ ...props.search, context: 2 }), in: props.file.repository, path: props.file.path, rev: props.file.branch, ...(line ? { line: String(line.number) } : {}) },
})
</script>

<template>
  <section class="mb-4 [contain-intrinsic-size:auto_160px] [content-visibility:auto]" :aria-label="file.path">
    <h3 class="sticky top-0 z-10 flex items-baseline gap-2 border-b border-rule bg-paper py-1">
      <button v-if="file.excerpts.length" type="button" tabindex="-1" class="w-4 shrink-0 text-soft hover:text-ink" :aria-expanded="!folded" :aria-label="`${folded ? 'Unfold' : 'Fold'} ${file.path}`" @click="$emit('fold')">{{ folded ? '▸' : '▾' }}</button>
      <RouterLink :to="to(file.excerpts[0]?.lines.find(line => line.matches.length))" class="min-w-0 font-mono text-[13px] break-all hover:underline" tabindex="-1"><span class="text-soft">{{ folder }}</span><span class="font-bold">{{ name }}</span></RouterLink>
      <span class="ml-auto shrink-0 text-[13px] text-soft"><span v-if="file.relevance" :title="file.relevance.reasons.join('\n')" class="mr-2 border-b border-dotted border-soft" data-part="relevance">{{ file.relevance.points }} points</span>{{ file.type }}<template v-if="file.hits">, {{ counted(file.hits, 'hit') }}</template></span>
    </h3>
    <div v-if="!folded" class="overflow-hidden rounded-b bg-sheet font-mono text-[13px] leading-[1.5]">
      <template v-for="(excerpt, i) in file.excerpts" :key="i">
        <div v-if="i && excerpt.lines.length > 1" class="h-2 border-b border-dotted border-rule bg-paper" aria-hidden="true" />
        <template v-for="line in excerpt.lines" :key="line.number">
          <RouterLink v-if="line.matches.length" :to="to(line)" class="hit flex hover:bg-shade focus-visible:bg-shade" :data-line="line.number">
            <span class="w-16 shrink-0 pr-3 text-right font-bold text-accent">{{ line.number }}</span>
            <span class="min-w-0 whitespace-pre-wrap break-all pr-2"><span v-if="line.textStart" class="text-soft">…</span><MarkedText :text="line.text" :matches="line.matches" :offset="line.textStart" /></span>
          </RouterLink>
          <div v-else class="flex text-soft">
            <span class="w-16 shrink-0 pr-3 text-right">{{ line.number }}</span>
            <span class="min-w-0 whitespace-pre-wrap break-all pr-2">{{ line.text }}</span>
          </div>
        </template>
      </template>
    </div>
  </section>
</template>
