<script setup lang="ts">
import { computed, ref } from 'vue'
import { hint } from '../keys'
import { counted, number } from '../amounts'
import { changedParts } from '../inline'
import { useLayout } from '../state/layout'
import type { DiffFile, DiffHunk, DiffLine } from '../wire'
import MarkedText from './MarkedText.vue'

// Files that differ between two revisions: the lines one below the other, or side by side.
const props = defineProps<{ files: DiffFile[]; repository: string; from: string; to: string; total: number }>()
const LONG = 400 // lines of a file that is folded at first
const { layout } = useLayout()
const toggled = ref(new Set<string>())

interface Side {
  number: number
  kind: DiffLine['kind']
  text: string
  marks: { start: number; end: number }[]
}
interface Row {
  before?: Side
  after?: Side
}

/** The lines of a hunk in rows; where lines were replaced, those that belong together stand in one. */
function rows(hunk: DiffHunk): Row[] {
  const result: Row[] = []
  let old = hunk.oldStart
  let now = hunk.newStart
  for (let i = 0; i < hunk.lines.length;) {
    const line = hunk.lines[i]!
    if (line.kind === ' ') {
      result.push({
        before: { number: old++, kind: ' ', text: line.text, marks: [] },
        after: { number: now++, kind: ' ', text: line.text, marks: [] },
      })
      i++
      continue
    }
    const gone: Side[] = []
    const come: Side[] = []
    while (i < hunk.lines.length && hunk.lines[i]!.kind === '-')
      gone.push({ number: old++, kind: '-', text: hunk.lines[i++]!.text, marks: [] })
    while (i < hunk.lines.length && hunk.lines[i]!.kind === '+')
      come.push({ number: now++, kind: '+', text: hunk.lines[i++]!.text, marks: [] })
    for (let k = 0; k < Math.max(gone.length, come.length); k++) {
      const [before, after] = [gone[k], come[k]]
      const parts = before && after ? changedParts(before.text, after.text) : undefined
      if (parts) [before!.marks, after!.marks] = [parts.before, parts.after]
      result.push({ before, after })
    }
  }
  return result
}
/** One below the other: of lines that were replaced, those that went first. */
function unified(hunk: DiffHunk): Side[] {
  const result: Side[] = []
  let waiting: Side[] = []
  for (const row of rows(hunk)) {
    if (row.before?.kind === ' ') {
      result.push(...waiting, row.after!)
      waiting = []
    } else {
      if (row.before) result.push(row.before)
      if (row.after) waiting.push(row.after)
    }
  }
  return [...result, ...waiting]
}
const length = (file: DiffFile) => file.hunks.reduce((sum, hunk) => sum + hunk.lines.length, 0)
const isOpen = (file: DiffFile) => toggled.value.has(file.path) !== length(file) <= LONG
function toggle(file: DiffFile) {
  const next = new Set(toggled.value)
  if (!next.delete(file.path)) next.add(file.path)
  toggled.value = next
}
const sums = computed(() =>
  props.files.reduce((sum, file) => ({ added: sum.added + file.added, removed: sum.removed + file.removed }), {
    added: 0,
    removed: 0,
  }),
)
const fileAt = (file: DiffFile, line?: number) =>
  file.change === 'deleted'
    ? { name: 'file', query: { in: props.repository, path: file.path, rev: props.from } }
    : {
        name: 'file',
        query: { in: props.repository, path: file.path, rev: props.to, ...(line ? { line: String(line) } : {}) },
      }

/** To the next change, or the one before. */
function step(by: number) {
  const hunks = [...document.querySelectorAll<HTMLElement>('[data-hunk]')]
  const top = 140
  const at =
    by > 0
      ? hunks.findIndex(hunk => hunk.getBoundingClientRect().top > top + 4)
      : hunks.findLastIndex(hunk => hunk.getBoundingClientRect().top < top - 4)
  const target = hunks[at]
  if (target) window.scrollTo({ top: window.scrollY + target.getBoundingClientRect().top - top })
}
defineExpose({ step })
</script>

<template>
  <div class="mb-2 flex flex-wrap items-center gap-2">
    <span data-part="diff-counts"
      >{{ counted(total, 'file')
      }}<template v-if="files.length < total">, the first {{ files.length }} shown</template>,
      <span class="text-good">+{{ number(sums.added) }}</span
      >{{ ' ' }} <span class="text-bad">−{{ number(sums.removed) }}</span></span
    >
    <span class="ml-auto flex items-center gap-1">
      <button type="button" class="button" :title="hint('previousChange')" @click="step(-1)">Previous change</button
      ><button type="button" class="button" :title="hint('nextChange')" @click="step(1)">Next change</button>
      <span class="flex overflow-hidden rounded border border-rule" role="group" aria-label="Layout"
        ><button
          type="button"
          class="option"
          :data-on="!layout.split"
          :aria-pressed="!layout.split"
          @click="layout.split = false"
        >
          One below the other</button
        ><button
          type="button"
          class="option border-l"
          data-option="split"
          :data-on="layout.split"
          :aria-pressed="layout.split"
          @click="layout.split = true"
        >
          Side by side
        </button></span
      >
    </span>
  </div>
  <p v-if="!files.length" class="rounded border border-rule bg-sheet p-6 text-center text-soft">
    There is no difference.
  </p>
  <section
    v-for="file in files"
    :key="file.path"
    class="mb-4 overflow-hidden rounded-md border border-rule bg-sheet"
    :aria-label="file.path"
    data-part="diff-file"
  >
    <h3 class="flex flex-wrap items-baseline gap-x-3 border-b border-rule bg-shade px-3 py-1">
      <button
        type="button"
        class="w-4 text-soft hover:text-ink"
        :aria-expanded="isOpen(file)"
        :aria-label="`${isOpen(file) ? 'Fold' : 'Unfold'} ${file.path}`"
        @click="toggle(file)"
      >
        {{ isOpen(file) ? '▾' : '▸' }}
      </button>
      <RouterLink class="min-w-0 font-mono text-[13px] break-all hover:underline" :to="fileAt(file)"
        ><span v-if="file.from" class="text-soft">{{ file.from }} → </span
        ><span class="font-bold">{{ file.path }}</span></RouterLink
      >
      <span class="text-soft">{{ file.change }}</span>
      <span class="ml-auto tabular-nums"
        ><template v-if="!file.binary"
          ><span class="text-good">+{{ number(file.added) }}</span
          >{{ ' ' }} <span class="text-bad">−{{ number(file.removed) }}</span></template
        ><span v-else class="text-soft">binary, or too large to compare</span></span
      >
    </h3>
    <template v-if="isOpen(file)">
      <div v-for="(hunk, h) in file.hunks" :key="h" class="font-mono text-[13px] leading-[1.5]" data-hunk>
        <p class="border-b border-dotted border-rule px-3 text-[12px] text-soft" :class="{ 'border-t': h }">
          from line {{ hunk.newLines ? hunk.newStart : hunk.oldStart }}
        </p>
        <table v-if="layout.split" class="w-full table-fixed border-collapse">
          <colgroup>
            <col class="w-14" />
            <col />
            <col class="w-14" />
            <col />
          </colgroup>
          <tr v-for="(row, i) in rows(hunk)" :key="i" class="align-top">
            <template v-for="side in [row.before, row.after]" :key="side === row.after ? 'after' : 'before'">
              <td
                class="border-l border-rule pr-2 text-right text-soft select-none first:border-l-0"
                :class="{ 'diff-gone': side?.kind === '-', 'diff-come': side?.kind === '+', 'bg-shade/60': !side }"
              >
                {{ side?.number ?? '' }}
              </td>
              <td
                class="px-2 whitespace-pre-wrap wrap-anywhere"
                :class="{ 'diff-gone': side?.kind === '-', 'diff-come': side?.kind === '+', 'bg-shade/60': !side }"
              >
                <MarkedText v-if="side" :text="side.text" :matches="side.marks" />
              </td>
            </template>
          </tr>
        </table>
        <div v-else>
          <div
            v-for="(side, i) in unified(hunk)"
            :key="i"
            class="flex"
            :class="{ 'diff-gone': side.kind === '-', 'diff-come': side.kind === '+' }"
          >
            <RouterLink
              v-if="side.kind !== '-'"
              class="w-14 shrink-0 pr-2 text-right text-soft select-none hover:underline"
              tabindex="-1"
              :to="fileAt(file, side.number)"
              >{{ side.number }}</RouterLink><span v-else class="w-14 shrink-0 pr-2 text-right text-soft select-none">{{
              side.number
            }}</span>
            <span
              class="w-4 shrink-0 text-center select-none"
              :class="side.kind === '+' ? 'text-good' : side.kind === '-' ? 'text-bad' : ''"
              >{{ side.kind === '-' ? '−' : side.kind }}</span
            >
            <span class="min-w-0 pr-2 whitespace-pre-wrap wrap-anywhere"
              ><MarkedText :text="side.text" :matches="side.marks"
            /></span>
          </div>
        </div>
      </div>
    </template>
    <p v-else-if="file.hunks.length" class="px-3 py-2">
      <button type="button" class="part text-soft" @click="toggle(file)">
        {{ counted(length(file), 'line') }}; show them
      </button>
    </p>
  </section>
</template>
