<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import { counted } from '../amounts'
import CodePreview from '../parts/CodePreview.vue'
import AnswerStanding from '../parts/AnswerStanding.vue'
import ChoiceBar from '../parts/ChoiceBar.vue'
import FacetBars from '../parts/FacetBars.vue'
import MarkedText from '../parts/MarkedText.vue'
import ReadAs from '../parts/ReadAs.vue'
import FileMenu from '../parts/FileMenu.vue'
import PreviewPane from '../parts/PreviewPane.vue'
import ResultsFrame from '../parts/ResultsFrame.vue'
import ScopeFacets from '../parts/ScopeFacets.vue'
import SaveSearch from '../parts/SaveSearch.vue'
import ScopeSentence from '../parts/ScopeSentence.vue'
import * as requests from '../requests'
import { useResults } from '../results'
import { all, noSymbols, one } from '../searchUrl'
import { useSubjects } from '../state/subjects'
import { narrowedTo } from '../toggled'
import type { Certainty, FoundSymbol, Role, SymbolQuest, SymbolReading, SymbolsAnswer } from '../wire'

// Symbols by their names: declarations, uses, or both, grouped by file; the code beside the list.
defineOptions({ name: 'SymbolsPage' })
const subjects = useSubjects()
const readings: { value: SymbolReading; title: string }[] = [
  { value: 'fragments', title: 'Parts of the name' },
  { value: 'plain', title: 'Whole name' },
  { value: 'glob', title: 'Glob' },
  { value: 'regex', title: 'Regular expression' },
  { value: 'expression', title: 'Expression' },
]
const roles: { value: Role; title: string }[] = [
  { value: 'declaration', title: 'Declarations' },
  { value: 'use', title: 'Uses' },
  { value: 'any', title: 'Both' },
]

const certainties: Certainty[] = ['sure', 'likely', 'by-name']
const sureness = { sure: 'sure', likely: 'likely', 'by-name': 'by name only' }

const {
  quest,
  answer,
  items: symbols,
  problem,
  unfinished,
  gone,
  choose,
  more,
} = useResults<SymbolQuest, SymbolsAnswer, FoundSymbol>({
  subject: 'symbols',
  nothing: noSymbols,
  fromAddress: query => ({
    role: roles.map(({ value }) => value).find(role => role === one(query, 'role')) ?? 'declaration',
    kind: all(query, 'kind'),
    certainty: certainties.filter(one => all(query, 'certainty').includes(one)),
    of: one(query, 'of'),
    family: one(query, 'family') === 'true',
  }),
  toAddress: ({ role, kind, certainty, of, family }) => ({
    ...(role !== 'declaration' ? { role } : {}),
    ...(kind.length ? { kind } : {}),
    ...(certainty.length ? { certainty } : {}),
    ...(of && role === 'use' ? { of } : {}),
    ...(of && role === 'use' && family ? { family: 'true' } : {}),
  }),
  readings: readings.map(({ value }) => value),
  isAsked: quest => !!quest.text.trim(),
  ask: (quest, signal, { cursor, counts }) =>
    requests.findSymbols(quest, signal, { cursor, counts, limit: cursor ? 400 : counts ? 1 : 100 }),
  items: found => found.symbols,
  links: 'a.symbol',
  title: quest => (quest.text ? `${quest.text} · symbols` : 'Symbols'),
})
/** The one whose code is shown beside the list. */
const looked = shallowRef<FoundSymbol>()
watch(symbols, (now, before) => {
  if (now[0] !== before[0]) looked.value = now[0]
})

function chooseCertainty(value: string) {
  quest.certainty = narrowedTo<Certainty>(quest.certainty, value as Certainty)
}
function chooseKind(value: string) {
  quest.kind = narrowedTo(quest.kind, value)
}
/** The symbol whose whole name was asked for. */
const meant = computed(() => symbols.value.find(symbol => symbol.name === quest.text.trim())?.name)
/** Places of one file that follow each other stand together. */
const groups = computed(() => {
  const result: { key: string; symbols: FoundSymbol[] }[] = []
  for (const symbol of symbols.value) {
    const key = `${symbol.role} ${symbol.repository} ${symbol.branch} ${symbol.path}`
    const last = result[result.length - 1]
    if (last?.key.startsWith(key)) last.symbols.push(symbol)
    else result.push({ key: `${key} ${result.length}`, symbols: [symbol] })
  }
  return result
})
const to = (symbol: FoundSymbol) => ({
  name: 'file',
  query: {
    in: symbol.repository,
    path: symbol.path,
    ...(quest.scope.branch.length ? { rev: symbol.branch } : {}),
    line: String(symbol.line),
  },
})
const counts = computed(() => {
  const found = answer.value?.counts
  if (!found) return ''
  const by = answer.value!.facets.role.map(facet => counted(facet.hits, facet.value)).join(' and ')
  return `${found.exact ? '' : 'at least '}${by || 'nothing'} in ${counted(found.files, 'file')} of ${counted(found.repositories, 'repository', 'repositories')}`
})
const use = (symbol: FoundSymbol) =>
  symbol.certainty === 'likely' ? 'likely use' : symbol.certainty === 'by-name' ? 'name only' : 'use'
const text = (symbol: FoundSymbol) => symbol.text.replace(/\s+$/, '')
/** How much of the beginning is not shown: blanks, and of a long line so much that its match is in sight. */
const LEAD = 40
function cut(symbol: FoundSymbol): number {
  const blanks = symbol.textStart ? 0 : symbol.text.length - symbol.text.trimStart().length
  const match = (symbol.matches[0]?.start ?? 0) - symbol.textStart
  return match - blanks > LEAD ? match - LEAD / 2 : blanks
}
const isCut = (symbol: FoundSymbol) => symbol.textStart > 0 || symbol.text.slice(0, cut(symbol)).trim() !== ''
</script>

<template>
  <ResultsFrame
    :problem="problem"
    :unfinished="unfinished"
    :gone="gone"
    :items="symbols"
    :goes-on="!!answer?.next"
    :has-facets="!!answer?.counts.symbols"
    @more="more"
  >
    <template #question>
      <input
        ref="box"
        v-model="quest.text"
        class="field w-full font-mono"
        type="search"
        aria-label="Name of a symbol"
        placeholder="Parts of a name, in any order: berth assign, Berth.assign, or first letters: bp"
        autocomplete="off"
        spellcheck="false"
        @input="quest.of = ''"
      />
      <div class="mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1">
        <ChoiceBar v-model="quest.role" label="Role" :choices="roles" />
        <ReadAs v-model="quest.reading" :readings="readings" />
        <button
          v-if="quest.of && quest.role === 'use'"
          type="button"
          class="button"
          :title="`Only what is named at ${quest.of}. Click for all uses of the name`"
          data-part="of"
          @click="quest.of = ''"
        >
          {{ quest.family ? 'this one and its family' : 'this one' }}, of
          {{ quest.of.slice(quest.of.lastIndexOf('/') + 1) }} ×
        </button>
        <button
          v-for="kind in quest.kind"
          :key="kind"
          type="button"
          class="button"
          :title="`Any kind, not only ${kind}`"
          @click="chooseKind(kind)"
        >
          {{ kind }} ×
        </button>
        <ScopeSentence v-model="quest.scope" />
      </div>
    </template>
    <template #standing>
      <AnswerStanding v-if="answer" :counts="counts" :answer="answer" advice="Give more of the name." />
      <p v-else class="text-soft">
        Everything that is declared, by its name: classes, functions, fields, keys, headings.
      </p>
      <p class="ml-auto text-soft max-md:hidden">
        <kbd class="rounded border border-rule px-1 font-mono">↓</kbd> to the list,
        <kbd class="rounded border border-rule px-1 font-mono">Enter</kbd> opens
      </p>
      <span v-if="answer" class="ml-auto flex gap-2">
        <RouterLink
          v-if="meant"
          class="button"
          :to="{ name: 'replace', query: { ...$route.query, q: meant, subject: 'symbols' } }"
          data-part="replace"
          >Rename {{ meant }}</RouterLink
        >
        <SaveSearch />
      </span>
    </template>
    <template v-if="answer" #facets>
      <FacetBars
        v-if="answer.facets.certainty.length"
        title="How sure"
        :facets="answer.facets.certainty"
        :labels="sureness"
        :exact="answer.counts.exact"
        :chosen="quest.certainty.length ? quest.certainty : ['sure', 'likely']"
        @choose="chooseCertainty"
      />
      <FacetBars
        v-if="answer.facets.kind.length"
        title="By kind"
        :facets="answer.facets.kind"
        :exact="answer.counts.exact"
        :chosen="quest.kind"
        @choose="chooseKind"
      />
      <ScopeFacets :facets="answer.facets" :exact="answer.counts.exact" :scope="quest.scope" @choose="choose" />
    </template>
    <section v-for="group in groups" :key="group.key" class="pb-3" :aria-label="group.symbols[0]!.path">
      <h2 class="flex items-baseline gap-2 border-b border-rule py-0.5 font-mono text-[13px]">
        <span class="min-w-0 break-all"
          ><span class="text-soft"
            >{{ group.symbols[0]!.repository }}/{{
              group.symbols[0]!.path.slice(0, group.symbols[0]!.path.lastIndexOf('/') + 1)
            }}</span
          ><span class="font-bold">{{
            group.symbols[0]!.path.slice(group.symbols[0]!.path.lastIndexOf('/') + 1)
          }}</span></span
        ><span class="ml-auto shrink-0 font-sans text-soft">{{
          [group.symbols[0]!.type, ...group.symbols[0]!.traits].join(', ')
        }}</span>
        <FileMenu
          :repository="group.symbols[0]!.repository"
          :path="group.symbols[0]!.path"
          :rev="group.symbols[0]!.branch"
          :line="group.symbols[0]!.line"
        />
      </h2>
      <div class="overflow-hidden rounded-b bg-sheet font-mono text-[13px] leading-[1.6]">
        <RouterLink
          v-for="symbol in group.symbols"
          :key="`${symbol.line}:${symbol.column}`"
          :to="to(symbol)"
          class="symbol flex items-baseline hover:bg-shade focus-visible:bg-shade"
          :class="{ 'bg-shade shadow-[inset_3px_0_var(--accent)]': looked === symbol }"
          @focus="looked = symbol"
          @mouseenter="looked = symbol"
        >
          <span class="w-14 shrink-0 text-right font-bold text-accent">{{ symbol.line }}</span><span
            class="w-5 shrink-0 text-center text-accent"
            aria-hidden="true"
            >{{ symbol.role === 'declaration' ? '◆' : '' }}</span
          >
          <span class="w-22 shrink-0 truncate font-sans text-soft max-sm:hidden">{{ symbol.kind ?? use(symbol) }}</span>
          <span class="min-w-0 truncate whitespace-pre"
            ><span v-if="isCut(symbol)" class="text-soft">…</span
            ><MarkedText
              :text="text(symbol).slice(cut(symbol))"
              :matches="symbol.matches"
              :offset="symbol.textStart + cut(symbol)"
          /></span>
          <span
            v-if="symbol.container"
            class="ml-auto max-w-[40%] shrink truncate pr-2 pl-3 text-right text-soft max-2xl:hidden"
            :title="symbol.container"
            >in {{ symbol.container }}</span
          >
        </RouterLink>
      </div>
    </section>
    <section v-if="answer && !answer.counts.symbols" class="py-16 text-center">
      <p class="font-semibold">
        Nothing of that name is
        {{ quest.role === 'use' ? 'used' : quest.role === 'any' ? 'declared or used' : 'declared' }} here
      </p>
      <p class="mt-1 text-soft">
        Less of the name finds more. The scope above may be too narrow{{ quest.kind.length ? ', or the kind' : '' }}.
      </p>
      <p class="mt-3 flex justify-center gap-2">
        <button v-if="quest.role === 'declaration'" type="button" class="button" @click="quest.role = 'any'">
          Look for uses too</button
        ><RouterLink class="button" :to="{ name: 'search', query: subjects.addressOf('search', quest) }"
          >Look in all lines</RouterLink
        >
      </p>
    </section>
    <template #beside>
      <PreviewPane v-if="looked">
        <CodePreview
          class="sticky top-3 h-[calc(100vh-1.5rem)]"
          :repository="looked.repository"
          :path="looked.path"
          :rev="looked.commit"
          :range="{ from: looked.line, to: looked.line }"
          :hits="[{ number: looked.line, text: looked.text, textStart: looked.textStart, matches: looked.matches }]"
        />
      </PreviewPane>
    </template>
  </ResultsFrame>
</template>
