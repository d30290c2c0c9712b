<script setup lang="ts">
import { computed, ref } from 'vue'
import { counted, date, day } from '../amounts'
import type { FoundCommit, Match } from '../wire'
import MarkedText from './MarkedText.vue'

// A commit in a list: who, when, its message with what was found in it, its files, and the lines that matched.
const props = defineProps<{ found: FoundCommit; showsRepository: boolean }>()
defineEmits<{ person: [name: string] }>()
const FEW = 4
const all = ref(false)
const commit = computed(() => props.found.commit)
/** The first line that is not blank, and what comes after. */
const parts = computed(() => {
  const message = commit.value.message
  const start = message.length - message.trimStart().length
  const end = message.indexOf('\n', start)
  const title = end < 0 ? message.slice(start) : message.slice(start, end)
  const body = end < 0 ? '' : message.slice(end).trim()
  const bodyStart = end < 0 ? 0 : end + message.slice(end).length - message.slice(end).trimStart().length
  const within = (from: number, length: number): Match[] =>
    props.found.matches.filter(match => match.end > from && match.start < from + length)
  return {
    title,
    titleStart: start,
    titleMatches: within(start, title.length),
    body,
    bodyStart,
    bodyMatches: within(bodyStart, body.length),
  }
})
const to = computed(() => ({ name: 'commit', query: { in: commit.value.repository, id: commit.value.id } }))
const files = computed(() => (all.value ? props.found.files : props.found.files.slice(0, FEW)))
const counts = computed(() =>
  props.found.files.reduce((sum, file) => ({ added: sum.added + file.added, removed: sum.removed + file.removed }), {
    added: 0,
    removed: 0,
  }),
)
</script>

<template>
  <article class="border-b border-rule py-2" data-part="commit" :aria-label="commit.summary">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <RouterLink :to="to" class="commit min-h-6 min-w-0 font-semibold break-words hover:underline"
        ><MarkedText
          v-if="parts.title"
          :text="parts.title"
          :matches="parts.titleMatches"
          :offset="parts.titleStart"
        /><em v-else class="text-soft">no message</em></RouterLink
      >
      <span v-if="commit.parents.length > 1" class="rounded border border-rule px-1 text-[12px] text-soft">merge</span>
      <span class="ml-auto shrink-0 font-mono text-[13px] text-soft">{{ commit.id.slice(0, 10) }}</span>
    </div>
    <p class="flex flex-wrap items-baseline gap-x-3 leading-6 text-soft">
      <button
        type="button"
        class="min-h-6 hover:underline"
        :title="`${commit.author.email}; only commits of this person`"
        @click="$emit('person', commit.author.name)"
      >
        {{ commit.author.name || commit.author.email }}
      </button>
      <span :title="date(commit.authored)">{{ day(commit.authored) }}</span>
      <span v-if="showsRepository">{{ commit.repository }}</span>
      <span v-if="found.fileCount"
        >{{ counted(found.fileCount, 'file') }}, <span class="text-good">+{{ counts.added }}</span
        >{{ ' ' }} <span class="text-bad">−{{ counts.removed }}</span></span
      >
    </p>
    <p
      v-if="parts.body && (parts.bodyMatches.length || all)"
      class="mt-1 max-w-3xl whitespace-pre-wrap break-words text-[13px]"
    >
      <MarkedText :text="parts.body" :matches="parts.bodyMatches" :offset="parts.bodyStart" />
    </p>
    <div v-if="found.lines.length" class="mt-1 overflow-hidden rounded bg-sheet font-mono text-[13px] leading-[1.5]">
      <RouterLink
        v-for="line in found.lines"
        :key="`${line.path}:${line.kind}${line.number}`"
        class="flex hover:bg-shade"
        :class="line.kind === '+' ? 'diff-come' : 'diff-gone'"
        :to="to"
        :title="`${line.path}:${line.number}`"
      >
        <span class="w-44 shrink-0 truncate pl-2 text-soft max-sm:w-24" dir="rtl"
          >&lrm;{{ line.path.slice(line.path.lastIndexOf('/') + 1) }}:{{ line.number }}</span
        ><span class="w-5 shrink-0 text-center" :class="line.kind === '+' ? 'text-good' : 'text-bad'">{{
          line.kind === '-' ? '−' : '+'
        }}</span>
        <span class="min-w-0 truncate whitespace-pre"
          ><span v-if="line.textStart">…</span
          ><MarkedText :text="line.text" :matches="line.matches" :offset="line.textStart"
        /></span>
      </RouterLink>
    </div>
    <ul v-else-if="found.files.length" class="mt-0.5 text-[13px]">
      <li v-for="file in files" :key="file.path" class="flex gap-x-3">
        <span class="min-w-0 truncate font-mono" :title="file.path"
          ><span v-if="file.from" class="text-soft">{{ file.from }} → </span>{{ file.path }}</span
        ><span class="shrink-0 text-soft">{{ file.change === 'modified' ? '' : file.change }}</span>
      </li>
      <li v-if="found.fileCount > FEW && !all">
        <button type="button" class="part min-h-6 text-soft" @click="all = true">
          {{ found.fileCount - FEW }} more
        </button>
      </li>
    </ul>
  </article>
</template>
