<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { counted, day } from '../amounts'
import type { OtherAnswers } from '../otherSubjects'
import type { Search } from '../wire'
import MarkedText from './MarkedText.vue'
import OtherSubject from './OtherSubject.vue'

// A few files, symbols and commits for the text of a search for lines; their headings lead to all of them.
const props = defineProps<{ answers: OtherAnswers; settled: boolean; search: Search }>()
const FEW_PATHS = 3
const isShown = computed(
  () =>
    props.answers.files?.files.length || props.answers.symbols?.symbols.length || props.answers.commits?.commits.length,
)

// The room stays while answers are awaited, so that the list below does not jump.
const room = useTemplateRef('room')
const held = ref(0)
watch(
  () => props.settled,
  settled => {
    held.value = settled ? 0 : (room.value?.offsetHeight ?? 0)
  },
)
</script>

<template>
  <div
    v-if="isShown || held"
    ref="room"
    class="mt-3 grid gap-x-8 gap-y-2 md:grid-cols-3"
    :style="held ? { minHeight: `${held}px` } : {}"
  >
    <OtherSubject
      v-if="answers.files?.files.length"
      subject="files"
      label="Files by path"
      shortcut="F"
      :title="`${counted(answers.files.counts.files, 'file')} with such a path`"
      :search="search"
    >
      <li
        v-for="file in answers.files.files.slice(0, FEW_PATHS)"
        :key="file.repository + file.path"
        class="truncate text-left font-mono text-[13px] leading-[26px]"
        dir="rtl"
        :title="file.path"
      >
        <bdi dir="ltr">
          <RouterLink
            class="hover:underline"
            :to="{ name: 'file', query: { in: file.repository, path: file.path, rev: file.branch } }"
            ><span class="text-soft">{{ file.repository }}/</span><MarkedText :text="file.path" :matches="file.matches"
          /></RouterLink>
          <span v-if="file.skipped" class="font-sans text-soft"> &nbsp;text not searched: {{ file.skipped }}</span>
        </bdi>
      </li>
    </OtherSubject>
    <OtherSubject
      v-if="answers.symbols?.symbols.length"
      subject="symbols"
      label="Symbols by name"
      shortcut="S"
      :title="`${answers.symbols.counts.exact ? '' : 'at least '}${counted(answers.symbols.counts.symbols, 'symbol')} of such a name`"
      :search="search"
    >
      <li
        v-for="symbol in answers.symbols.symbols"
        :key="`${symbol.repository}/${symbol.path}:${symbol.line}:${symbol.column}`"
        class="truncate font-mono text-[13px] leading-[26px]"
      >
        <RouterLink
          class="hover:underline"
          :title="symbol.signature"
          :to="{
            name: 'file',
            query: { in: symbol.repository, path: symbol.path, rev: symbol.branch, line: String(symbol.line) },
          }"
          ><span class="text-accent" aria-hidden="true">◆ </span
          ><span v-if="symbol.container" class="text-soft"
            >{{ symbol.container.slice(symbol.container.lastIndexOf('.') + 1) }}.</span
          >{{ symbol.name }}</RouterLink
        ><span class="font-sans text-soft"> &nbsp;{{ symbol.kind }} in {{ symbol.repository }}</span>
      </li>
    </OtherSubject>
    <OtherSubject
      v-if="answers.commits?.commits.length"
      subject="commits"
      label="Commits by message"
      shortcut="C"
      :title="`${answers.commits.counts.exact ? '' : 'at least '}${counted(answers.commits.counts.commits, 'commit')} with such words`"
      :search="search"
    >
      <li
        v-for="{ commit } in answers.commits.commits"
        :key="commit.repository + commit.id"
        class="truncate text-[13px] leading-[26px]"
      >
        <RouterLink
          class="hover:underline"
          :title="commit.summary"
          :to="{ name: 'commit', query: { in: commit.repository, id: commit.id } }"
          >{{ commit.summary || 'no message' }}</RouterLink><span class="text-soft">
          &nbsp;{{ day(commit.authored) }}, {{ commit.repository }}</span
        >
      </li>
    </OtherSubject>
  </div>
</template>
