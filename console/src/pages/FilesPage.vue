<script setup lang="ts">
import { computed, onActivated, ref } from 'vue'
import { useRouter } from 'vue-router'
import { hint, isKey, keyFor } from '../keys'
import { bytes, counted, number } from '../amounts'
import AnswerStanding from '../parts/AnswerStanding.vue'
import ChoiceBar from '../parts/ChoiceBar.vue'
import MarkedText from '../parts/MarkedText.vue'
import CodePreview from '../parts/CodePreview.vue'
import PreviewPane from '../parts/PreviewPane.vue'
import FileMenu from '../parts/FileMenu.vue'
import ResultsFrame from '../parts/ResultsFrame.vue'
import ScopeFacets from '../parts/ScopeFacets.vue'
import SaveSearch from '../parts/SaveSearch.vue'
import ScopeSentence from '../parts/ScopeSentence.vue'
import { openedFiles } from '../opened'
import * as requests from '../requests'
import { problemOf } from '../answers'
import { useResults } from '../results'
import { everywhere, one, toUrl } from '../searchUrl'
import { save } from '../takeaway'
import { useLayout } from '../state/layout'
import { usePlaces } from '../state/places'
import { useRepositories } from '../state/repositories'
import { useSubjects } from '../state/subjects'
import {
  type FileOrder,
  type FileQuest,
  type FilesAnswer,
  type FoundFile,
  type PathReading,
  type Problem,
  keyOf,
} from '../wire'

// Files by their path; several are marked and opened, downloaded or searched in together.
defineOptions({ name: 'FilesPage' })
const router = useRouter()
const repositories = useRepositories()
const places = usePlaces()
const { layout } = useLayout()
const subjects = useSubjects()
const marked = ref(new Set<string>())
const opened = ref(openedFiles())

const readings: { value: PathReading; title: string }[] = [
  { value: 'fragments', title: 'Fragments' },
  { value: 'plain', title: 'Plain' },
  { value: 'glob', title: 'Glob' },
  { value: 'regex', title: 'Regular expression' },
  { value: 'expression', title: 'Expression' },
]
const kinds = [
  { value: 'file', title: 'Files' },
  { value: 'folder', title: 'Folders' },
] as const
const columns: { order: FileOrder; title: string; css: string }[] = [
  { order: 'path', title: 'Path', css: '' },
  { order: 'name', title: 'Name', css: '' },
  { order: 'type', title: 'Type', css: 'max-md:hidden' },
  { order: 'lines', title: 'Lines', css: 'text-right max-md:hidden' },
  { order: 'size', title: 'Size', css: 'text-right' },
  { order: 'recent', title: 'Changed', css: 'max-lg:hidden' },
]
const counts = computed(() =>
  answer.value
    ? `${counted(answer.value.counts.files, quest.kind)} of ${counted(answer.value.counts.repositories, 'repository', 'repositories')}`
    : '',
)
const nameOf = (file: FoundFile) => `${file.repository}/${file.path}`
const named = computed(() => [...marked.value])

const {
  quest,
  answer,
  items: files,
  problem,
  unfinished,
  gone,
  choose,
  more,
} = useResults<FileQuest, FilesAnswer, FoundFile>({
  subject: 'files',
  nothing: () => ({
    text: '',
    reading: 'fragments',
    kind: 'file',
    order: 'relevance',
    reversed: false,
    scope: everywhere(),
  }),
  fromAddress: query => ({
    kind: one(query, 'kind') === 'folder' ? 'folder' : 'file',
    order: columns.map(column => column.order).find(order => order === one(query, 'order')) ?? 'relevance',
    reversed: one(query, 'reversed') === 'true',
  }),
  toAddress: ({ kind, order, reversed }) => ({
    ...(kind !== 'file' ? { kind } : {}),
    ...(order !== 'relevance' ? { order } : {}),
    ...(reversed ? { reversed: 'true' } : {}),
  }),
  readings: readings.map(({ value }) => value),
  ask: (quest, signal, { cursor }) => requests.findFiles(quest, signal, cursor),
  items: found => found.files,
  links: 'a.found',
  title: quest => (quest.text ? `${quest.text} · files` : 'Files'),
  key: markByKey,
})
function markByKey(event: KeyboardEvent, at: number): boolean {
  if (isKey(event, 'preview')) {
    layout.preview = !layout.preview
    return true
  }
  const file = isKey(event, 'mark') || event.key === ' ' ? files.value[at] : undefined
  if (file) mark(file)
  return !!file
}
onActivated(() => {
  opened.value = openedFiles()
})

function sortBy(order: FileOrder) {
  if (quest.order !== order) Object.assign(quest, { order, reversed: false })
  else if (!quest.reversed) quest.reversed = true
  else Object.assign(quest, { order: 'relevance', reversed: false })
}
function mark(file: FoundFile) {
  const changed = new Set(marked.value)
  if (!changed.delete(nameOf(file))) changed.add(nameOf(file))
  marked.value = changed
}
function markShown() {
  const shown = files.value.filter(file => file.kind === 'file').map(nameOf)
  marked.value = shown.every(name => marked.value.has(name))
    ? new Set(named.value.filter(name => !shown.includes(name)))
    : new Set([...named.value, ...shown])
}
function openMarked() {
  places.text = named.value.map(name => `${name}:1:1`).join('\n')
  places.at = 0
  void router.push({ name: 'places' })
}
const failed = ref<Problem>() // why the marked files could not be downloaded
async function download() {
  failed.value = undefined
  try {
    save(await requests.archive(named.value), 'files.zip')
  } catch (error) {
    failed.value = problemOf(error)
  }
}
/** The next search looks only in the marked files. */
function searchInMarked() {
  void router.push({
    name: 'search',
    query: toUrl({ ...subjects.lines, scope: { ...everywhere(), file: named.value } }),
  })
}
/** The file that is shown beside the list: the one that has the focus, or had it last. */
const chosen = ref<FoundFile>()
const looked = computed(() => {
  if (!layout.preview || quest.kind !== 'file') return undefined
  return files.value.find(file => chosen.value && keyOf(file) === keyOf(chosen.value)) ?? files.value[0]
})
const pictures = /\.(png|jpe?g|gif|webp|ico|svg)$/i
const MOST_BYTES = 500_000 // of an image that is drawn in the list
const isPicture = (file: FoundFile) => pictures.test(file.path) && file.kind === 'file' && file.bytes < MOST_BYTES
const to = (file: FoundFile) => ({
  name: file.kind === 'folder' ? 'tree' : 'file',
  query: { in: file.repository, path: file.path, rev: file.branch },
})
</script>

<template>
  <ResultsFrame
    :problem="problem ?? failed"
    :unfinished="unfinished"
    :gone="gone"
    :items="files"
    :goes-on="!!answer?.next"
    :has-facets="!!answer?.facets.repository.length"
    @more="more"
  >
    <template #question
      ><div class="flex flex-wrap items-stretch gap-2">
        <input
          ref="box"
          v-model="quest.text"
          class="min-w-64 flex-1 rounded-md border border-soft bg-sheet px-3 py-2 font-mono text-[15px] leading-6 placeholder:text-soft"
          aria-label="Path of a file"
          placeholder="A few letters of a path: tide gauge, plan/mooring, bpj"
          spellcheck="false"
          autocomplete="off"
          data-part="path"
        />
        <ChoiceBar v-model="quest.reading" label="How the text is read" :choices="readings" />
        <ChoiceBar v-model="quest.kind" label="What to find" :choices="kinds" />
      </div>
      <ScopeSentence v-if="repositories.loaded" v-model="quest.scope" class="mt-2"
    /></template>
    <template #standing>
      <AnswerStanding v-if="answer" :counts="counts" :answer="answer" advice="Narrow the scope." />
      <div v-if="marked.size" class="ml-auto flex flex-wrap items-center gap-1" role="group" aria-label="Marked files">
        <span class="mr-1 font-semibold" data-part="marked">{{ counted(marked.size, 'file') }} marked</span>
        <button type="button" class="button" data-part="open" @click="openMarked">Step through</button>
        <button type="button" class="button" data-part="download" @click="download">Download</button>
        <button type="button" class="button" data-part="search-in" @click="searchInMarked">Search in them</button>
        <button type="button" class="button" @click="marked = new Set()">Unmark</button>
      </div>
      <p v-else class="ml-auto text-soft max-md:hidden">
        <kbd class="rounded border border-rule px-1 font-mono">↓</kbd> to the list,
        <kbd class="rounded border border-rule px-1 font-mono">{{ keyFor('mark') }}</kbd> marks,
        <kbd class="rounded border border-rule px-1 font-mono">Enter</kbd> opens
      </p>
      <button
        type="button"
        class="button max-md:hidden"
        :class="{ 'ml-auto': marked.size }"
        :aria-pressed="layout.preview"
        :title="hint('preview')"
        data-option="preview"
        @click="layout.preview = !layout.preview"
      >
        Preview
      </button>
      <SaveSearch v-if="answer" class="ml-auto" />
    </template>
    <template v-if="answer" #facets>
      <ScopeFacets :facets="answer.facets" exact :scope="quest.scope" @choose="choose" />
    </template>
    <table v-if="files.length" class="w-full border-collapse">
      <thead>
        <tr class="border-b border-rule text-left text-soft">
          <th class="w-7 py-1">
            <input
              v-if="quest.kind === 'file'"
              type="checkbox"
              class="accent-[var(--accent)]"
              aria-label="Mark all that are shown"
              :checked="files.every(file => marked.has(nameOf(file)))"
              @change="markShown"
            />
          </th>
          <th
            class="py-1 font-normal"
            :aria-sort="
              quest.order === 'path' || quest.order === 'name' ? (quest.reversed ? 'descending' : 'ascending') : 'none'
            "
          >
            <template v-for="column in columns.slice(0, 2)" :key="column.order"
              ><button
                type="button"
                class="mr-3 hover:text-ink"
                :class="{ 'font-semibold text-ink': quest.order === column.order }"
                :data-sort="column.order"
                @click="sortBy(column.order)"
              >
                {{ column.title }} {{ quest.order === column.order ? (quest.reversed ? '▴' : '▾') : '' }}
              </button></template
            >
          </th>
          <th
            v-for="column in columns.slice(2)"
            :key="column.order"
            class="py-1 pl-3 font-normal whitespace-nowrap"
            :class="[column.css, { hidden: looked && column.order !== 'size' }]"
            :aria-sort="quest.order === column.order ? (quest.reversed ? 'ascending' : 'descending') : 'none'"
          >
            <button
              type="button"
              class="hover:text-ink"
              :class="{ 'font-semibold text-ink': quest.order === column.order }"
              :data-sort="column.order"
              @click="sortBy(column.order)"
            >
              {{ column.title }} {{ quest.order === column.order ? (quest.reversed ? '▴' : '▾') : '' }}
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="file in files"
          :key="file.repository + file.branch + file.path"
          class="border-b border-rule hover:bg-shade focus-within:bg-shade [contain-intrinsic-size:auto_25px]"
          :class="{
            'shadow-[inset_3px_0_var(--accent)]': marked.has(nameOf(file)),
            'bg-shade': looked && keyOf(looked) === keyOf(file),
          }"
          @focusin="chosen = file"
        >
          <td class="py-0.5 pl-1">
            <input
              v-if="file.kind === 'file'"
              type="checkbox"
              tabindex="-1"
              class="accent-[var(--accent)]"
              :aria-label="`Mark ${file.path}`"
              :checked="marked.has(nameOf(file))"
              @change="mark(file)"
            />
          </td>
          <td class="max-w-0 py-0.5">
            <div class="flex items-center">
              <RouterLink
                class="found flex min-w-0 flex-1 items-center truncate font-mono text-[13px] hover:underline"
                :title="nameOf(file)"
                :to="to(file)"
                ><img
                  v-if="isPicture(file)"
                  :src="requests.rawAddress(file.repository, file.path, file.branch)"
                  alt=""
                  loading="lazy"
                  class="checkered mr-2 size-6 shrink-0 object-contain"
                  data-part="picture"
                /><span class="truncate"
                  ><span class="text-soft">{{ file.repository }}/</span
                  ><MarkedText :text="file.path" :matches="file.matches" /><span v-if="file.kind === 'folder'"
                    >/</span
                  ></span
                ></RouterLink
              >
              <FileMenu
                v-if="file.kind === 'file'"
                :repository="file.repository"
                :path="file.path"
                :rev="file.branch"
              />
            </div>
          </td>
          <td class="w-56 truncate py-0.5 pl-3 text-soft max-md:hidden" :class="{ hidden: looked }">
            {{ [file.type, ...file.traits].filter(Boolean).join(', ')
            }}<span
              v-if="quest.order === 'relevance' && opened.includes(nameOf(file))"
              class="ml-2 rounded-sm border border-rule px-1 text-[12px]"
              >opened lately</span
            >
          </td>
          <td class="w-20 py-0.5 text-right tabular-nums text-soft max-md:hidden" :class="{ hidden: looked }">
            {{ file.kind === 'file' && !file.skipped ? number(file.lines) : '' }}
          </td>
          <td class="w-20 py-0.5 text-right tabular-nums text-soft">
            {{ file.kind === 'file' ? bytes(file.bytes) : '' }}
          </td>
          <td class="w-32 py-0.5 pl-3 whitespace-nowrap text-soft max-lg:hidden" :class="{ hidden: looked }">
            {{ file.changed.slice(0, 10) }}
          </td>
        </tr>
      </tbody>
    </table>
    <template #beside>
      <PreviewPane v-if="looked">
        <CodePreview
          class="sticky top-3 h-[calc(100vh-1.5rem)]"
          :repository="looked.repository"
          :path="looked.path"
          :rev="looked.branch"
          :hits="[]"
        >
          <RouterLink class="button py-0" :to="to(looked)">Open</RouterLink>
        </CodePreview>
      </PreviewPane>
    </template>
    <section v-if="answer && !files.length" class="py-16 text-center">
      <p class="font-semibold">No {{ quest.kind }} has such a path</p>
      <p class="mt-1 text-soft">
        Fragments may stand in any order; fewer of them find more. The scope above may be too narrow.
      </p>
    </section>
  </ResultsFrame>
</template>
