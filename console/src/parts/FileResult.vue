<script lang="ts">
// What has grown stays so when it is scrolled out of sight and back.
const keptGrowth = new WeakMap<object, { grown: Map<number, { above: number; below: number }>; text: string[] }>()
</script>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { counted } from '../amounts'
import * as requests from '../requests'
import { toUrl } from '../searchUrl'
import type { Enclosing, FileHits, Line, Search } from '../wire'
import FileMenu from './FileMenu.vue'
import MarkedText from './MarkedText.vue'

const props = defineProps<{
  file: FileHits
  search: Search
  folded: boolean
  dense: boolean
  previews: boolean
  current?: number
}>()
const emit = defineEmits<{ fold: []; look: [line: Line]; whole: [] }>()
const STEP = 10 // lines more on either side

const router = useRouter()
const address = computed(() => router.resolve(to()).href) // of all its hits, once: links of the router cost more than all else that is drawn
const folder = computed(() => props.file.path.slice(0, props.file.path.lastIndexOf('/') + 1))
const name = computed(() => props.file.path.slice(props.file.path.lastIndexOf('/') + 1))
const more = computed(() =>
  props.search.order === 'relevance' && props.file.excerpts.length
    ? props.file.hits - props.file.excerpts.flatMap(({ lines }) => lines).filter(line => line.matches.length).length
    : 0,
)
const reasons = computed(
  () => props.file.relevance && [`${props.file.relevance.points} points`, ...props.file.relevance.reasons].join('\n'),
)
const to = (line?: Line) => ({
  name: 'file',
  query: {
    ...toUrl({ ...props.search, context: 2 }),
    in: props.file.repository,
    path: props.file.path,
    rev: props.file.branch,
    ...(line ? { line: String(line.number) } : {}),
  },
})

// Single excerpts can show more of the file than the rest: for each, by the number of its first line, lines added above and below.
const grown = ref(new Map<number, { above: number; below: number }>())
const text = ref<string[]>()
const kept = keptGrowth.get(props.file)
if (kept) [grown.value, text.value] = [kept.grown, kept.text]
watch(
  () => props.file.excerpts.map(excerpt => excerpt.lines[0]?.number).join(),
  () => {
    grown.value = new Map()
  },
)
const keyOf = (lines: Line[]) => lines.find(line => line.matches.length)?.number ?? lines[0]!.number

const excerpts = computed(() => {
  const result: Line[][] = []
  for (const { lines } of props.file.excerpts) {
    const more = grown.value.get(keyOf(lines))
    const before = result[result.length - 1]
    const last = before?.[before.length - 1]?.number ?? 0
    let shown = lines
    if (more && text.value) {
      const first = Math.max(1, lines[0]!.number - more.above)
      const end = Math.min(text.value.length, lines[lines.length - 1]!.number + more.below)
      shown = []
      for (let number = first; number <= end; number++) {
        shown.push(
          lines.find(line => line.number === number) ?? {
            number,
            text: text.value[number - 1] ?? '',
            textStart: 0,
            matches: [],
          },
        )
      }
    }
    // what has grown into the one before goes on there, each line once, a hit before a line of context
    if (before && shown[0]!.number <= last + 1) {
      for (const line of shown) {
        const at = before.findIndex(other => other.number === line.number)
        if (at < 0) before.push(line)
        else if (line.matches.length) before[at] = line
      }
    } else result.push([...shown])
  }
  return result
})
async function grow(lines: Line[], above: number, below: number) {
  if (!text.value) {
    try {
      const content = await requests.file(
        props.file.repository,
        props.file.path,
        props.file.commit,
        new AbortController().signal,
      )
      text.value = (content.text ?? '').replace(/\n$/, '').split('\n')
    } catch {
      return // the list stays as it was
    }
  }
  const changed = new Map(grown.value)
  for (const excerpt of props.file.excerpts) {
    const key = keyOf(excerpt.lines)
    if (!lines.some(line => line.number === key)) continue
    const now = changed.get(key) ?? { above: 0, below: 0 }
    changed.set(key, { above: now.above + above, below: now.below + below })
  }
  grown.value = changed
  keptGrowth.set(props.file, { grown: changed, text: text.value! })
}
/** The declaration that lines stand in. */
function around(lines: Line[]): Enclosing | null {
  return (
    props.file.excerpts.find(excerpt =>
      excerpt.lines.some(line => line.matches.length && lines.some(one => one.number === line.number)),
    )?.enclosing ?? null
  )
}
/** Lets the excerpt with a line show more on both sides. */
function growAt(number: number) {
  const lines = excerpts.value.find(one => one.some(line => line.number === number))
  if (lines) void grow(lines, STEP, STEP)
}
const isWhole = (lines: Line[]) =>
  text.value !== undefined && lines[0]!.number === 1 && lines[lines.length - 1]!.number >= text.value.length
/** Beside a preview, the mouse chooses what it shows; Enter and two clicks open. */
function pressed(event: MouseEvent, line: Line) {
  emit('look', line)
  if (!props.previews || event.detail === 0) void router.push(to(line))
}
defineExpose({ growAt })
</script>

<template>
  <section :class="dense ? 'pb-1' : 'pb-4'" :aria-label="file.path">
    <h3
      class="sticky top-0 z-10 flex items-baseline gap-2 border-b border-rule bg-paper has-[[data-part=file-menu][aria-expanded=true]]:z-20"
      :class="dense ? 'py-0 text-[13px]' : 'py-1'"
    >
      <button
        v-if="file.excerpts.length"
        type="button"
        tabindex="-1"
        class="w-4 shrink-0 text-soft hover:text-ink"
        :aria-expanded="!folded"
        :aria-label="`${folded ? 'Unfold' : 'Fold'} ${file.path}`"
        @click="$emit('fold')"
      >
        {{ folded ? '▸' : '▾' }}
      </button>
      <RouterLink
        :to="to(file.excerpts[0]?.lines.find(line => line.matches.length))"
        class="min-w-0 font-mono text-[13px] break-all hover:underline"
        :class="{ hit: !file.excerpts.length }"
        :tabindex="file.excerpts.length ? -1 : 0"
        ><span class="text-soft">{{ folder }}</span
        ><span class="font-bold">{{ name }}</span></RouterLink
      >
      <span class="ml-auto shrink-0 text-[13px] text-soft" :title="reasons ?? undefined" data-part="relevance"
        >{{ file.type }}<template v-if="file.hits">, {{ counted(file.hits, 'hit') }}</template></span
      >
      <FileMenu
        class="self-center"
        :repository="file.repository"
        :path="file.path"
        :rev="file.branch"
        :line="file.excerpts[0]?.lines.find(line => line.matches.length)?.number"
      />
    </h3>
    <div
      v-if="!folded"
      class="overflow-hidden rounded-b bg-sheet font-mono text-[13px]"
      :class="dense ? 'leading-[1.3]' : 'leading-[1.5]'"
    >
      <div v-for="(lines, i) in excerpts" :key="keyOf(lines)" class="group relative">
        <div
          v-if="i && lines.length > 1"
          class="border-b border-dotted border-rule bg-paper"
          :class="dense ? 'h-1' : 'h-2'"
          aria-hidden="true"
        />
        <p
          v-if="lines.length > 1 && around(lines)"
          class="truncate bg-paper pl-16 font-sans text-[12px] text-soft"
          data-part="enclosing"
        >
          in {{ around(lines)!.kind }} <span class="font-mono">{{ around(lines)!.name }}</span><template
            v-if="around(lines)!.container"
          >
            of <span class="font-mono">{{ around(lines)!.container }}</span></template
          >
        </p>
        <template v-for="line in lines" :key="line.number">
          <a
            v-if="line.matches.length"
            :href="`${address}&line=${line.number}`"
            class="hit flex hover:bg-shade focus-visible:bg-shade"
            :class="{ 'bg-shade shadow-[inset_3px_0_var(--accent)]': current === line.number }"
            :data-line="line.number"
            @focus="emit('look', line)"
            @click.exact.prevent="pressed($event, line)"
            @dblclick="router.push(to(line))"
          >
            <span class="w-16 shrink-0 text-right font-bold text-accent">{{ line.number }}</span><span
              class="w-5 shrink-0 text-center text-accent"
              :title="line.declares ? 'Declares it' : undefined"
              ><template v-if="line.declares"
                ><span aria-hidden="true">◆</span><span class="sr-only">declares</span></template
              ></span
            >
            <span class="min-w-0 pr-2" :class="dense ? 'truncate whitespace-pre' : 'whitespace-pre-wrap wrap-anywhere'"
              ><span v-if="line.textStart" class="text-soft">…</span
              ><MarkedText :text="line.text" :matches="line.matches" :offset="line.textStart" :regions="line.regions"
            /></span>
          </a>
          <div v-else class="flex text-soft">
            <span class="w-16 shrink-0 text-right">{{ line.number }}</span><span class="w-5 shrink-0" />
            <span class="min-w-0 pr-2" :class="dense ? 'truncate whitespace-pre' : 'whitespace-pre-wrap wrap-anywhere'"
              ><MarkedText :text="line.text" :matches="[]" :regions="line.regions"
            /></span>
          </div>
        </template>
        <span
          v-if="!isWhole(lines)"
          class="absolute right-1 bottom-0.5 flex gap-1 opacity-0 group-hover:opacity-100 focus-within:opacity-100"
        >
          <button
            type="button"
            tabindex="-1"
            class="button px-1.5 py-0 font-sans text-[12px]"
            :aria-label="`${STEP} lines more above`"
            @click="grow(lines, STEP, 0)"
          >
            {{ STEP }} ↑
          </button>
          <button
            type="button"
            tabindex="-1"
            class="button px-1.5 py-0 font-sans text-[12px]"
            :aria-label="`${STEP} lines more below`"
            @click="grow(lines, 0, STEP)"
          >
            {{ STEP }} ↓
          </button>
        </span>
      </div>
      <button
        v-if="more > 0"
        type="button"
        class="block w-full border-t border-rule py-1 pl-[5.25rem] text-left font-sans text-[13px] text-soft hover:bg-shade hover:text-ink"
        data-part="whole"
        @click="$emit('whole')"
      >
        {{ counted(more, 'more hit') }} in this file
      </button>
    </div>
  </section>
</template>
