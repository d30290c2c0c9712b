<script setup lang="ts">
import { computed } from 'vue'
import { counted } from '../amounts'
import AnswerStanding from '../parts/AnswerStanding.vue'
import CommitItem from '../parts/CommitItem.vue'
import FacetBars from '../parts/FacetBars.vue'
import ReadAs from '../parts/ReadAs.vue'
import ResultsFrame from '../parts/ResultsFrame.vue'
import SaveSearch from '../parts/SaveSearch.vue'
import ScopeSentence from '../parts/ScopeSentence.vue'
import CommitTimeline from '../parts/CommitTimeline.vue'
import * as requests from '../requests'
import { useResults } from '../results'
import { all, everywhere, one } from '../searchUrl'
import { narrowedTo } from '../toggled'
import type { CommitFacet, CommitQuest, CommitReading, CommitsAnswer, Facet, FoundCommit } from '../wire'

// Commits of all repositories: by message, person, date, changed files, and the lines that came and went.
defineOptions({ name: 'CommitsPage' })
const nothing = (): CommitQuest => ({
  text: '',
  reading: 'fragments',
  by: [],
  touches: [],
  adds: '',
  removes: '',
  after: '',
  before: '',
  scope: everywhere(),
})
const readings: { value: CommitReading; title: string }[] = [
  { value: 'fragments', title: 'Words, in any order' },
  { value: 'plain', title: 'Plain text' },
  { value: 'regex', title: 'Regular expression' },
  { value: 'expression', title: 'Expression' },
]

const {
  quest,
  answer,
  items: commits,
  problem,
  unfinished,
  gone,
  choose,
  more,
} = useResults<CommitQuest, CommitsAnswer, FoundCommit>({
  subject: 'commits',
  nothing,
  fromAddress: query => ({
    by: all(query, 'by'),
    touches: all(query, 'touches'),
    adds: one(query, 'adds'),
    removes: one(query, 'removes'),
    after: one(query, 'after'),
    before: one(query, 'before'),
  }),
  toAddress: quest => ({
    ...Object.fromEntries(
      (['by', 'touches'] as const).filter(part => quest[part].length).map(part => [part, quest[part]]),
    ),
    ...Object.fromEntries(
      (['adds', 'removes', 'after', 'before'] as const).filter(part => quest[part]).map(part => [part, quest[part]]),
    ),
  }),
  readings: readings.map(({ value }) => value),
  ask: (quest, signal, { cursor, counts }) =>
    requests.findCommits(quest, signal, { cursor, counts, limit: cursor ? 200 : counts ? 1 : 50 }),
  items: found => found.commits,
  links: 'a.commit',
  title: quest => (quest.text ? `${quest.text} · commits` : 'Commits'),
})
function chooseBy(person: string) {
  quest.by = narrowedTo(quest.by, person)
}
const bars = (facets: CommitFacet[]): Facet[] =>
  facets.map(facet => ({ value: facet.value, files: facet.commits, hits: 0 }))
function chooseYear(year: string) {
  const next = String(Number(year) + 1).padStart(4, '0')
  const isChosen = quest.after === year && quest.before === next
  Object.assign(quest, isChosen ? { after: '', before: '' } : { after: year, before: next })
}
const year = computed(() =>
  /^\d{4}$/.test(quest.after) && Number(quest.before) === Number(quest.after) + 1 ? [quest.after] : [],
)
const counts = computed(() => {
  const found = answer.value?.counts
  return found
    ? `${found.exact ? '' : 'at least '}${counted(found.commits, 'commit')} of ${counted(found.repositories, 'repository', 'repositories')}`
    : ''
})
const isNarrowed = computed(
  () => quest.by.length || quest.touches.length || quest.adds || quest.removes || quest.after || quest.before,
)
</script>

<template>
  <ResultsFrame
    :problem="problem"
    :unfinished="unfinished"
    :gone="gone"
    :items="commits"
    :goes-on="!!answer?.next"
    :has-facets="!!answer?.counts.commits"
    @more="more"
  >
    <template #question>
      <div class="flex flex-wrap gap-2">
        <input
          ref="box"
          v-model="quest.text"
          class="field min-w-60 flex-1 font-mono"
          type="search"
          aria-label="What a commit says"
          :placeholder="
            quest.reading === 'expression'
              ? 'says(berth) adds(/buffer/) not by(robot) touches(src)'
              : 'Words of the message, or of the people'
          "
          autocomplete="off"
          spellcheck="false"
        />
        <ReadAs v-model="quest.reading" :readings="readings" />
      </div>
      <div class="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-soft">
        <label
          >added lines with
          <input
            v-model="quest.adds"
            class="field inline-block w-44 font-mono text-[13px] text-ink"
            data-part="adds"
            aria-label="Text of added lines"
            spellcheck="false"
        /></label>
        <label
          >removed lines with
          <input
            v-model="quest.removes"
            class="field inline-block w-44 font-mono text-[13px] text-ink"
            data-part="removes"
            aria-label="Text of removed lines"
            spellcheck="false"
        /></label>
        <label
          >changed
          <input
            :value="quest.touches.join(' ')"
            class="field inline-block w-40 font-mono text-[13px] text-ink"
            data-part="touches"
            placeholder="any file"
            aria-label="Folders or files that were changed"
            spellcheck="false"
            @change="quest.touches = ($event.target as HTMLInputElement).value.split(/\s+/).filter(Boolean)"
        /></label>
        <label
          >from
          <input
            v-model.lazy="quest.after"
            class="field inline-block w-28 text-[13px] text-ink"
            data-part="after"
            placeholder="2026-01-31"
            aria-label="Committed from that day on"
        /></label>
        <label
          >to before
          <input
            v-model.lazy="quest.before"
            class="field inline-block w-28 text-[13px] text-ink"
            data-part="before"
            placeholder="today"
            aria-label="Committed before that day"
        /></label>
        <button
          v-for="person in quest.by"
          :key="person"
          type="button"
          class="button text-ink"
          :title="`Of anybody, not only ${person}`"
          @click="chooseBy(person)"
        >
          by {{ person }} ×
        </button>
        <button
          v-if="isNarrowed"
          type="button"
          class="button text-ink"
          @click="Object.assign(quest, nothing(), { text: quest.text, reading: quest.reading, scope: quest.scope })"
        >
          All commits
        </button>
      </div>
      <ScopeSentence v-model="quest.scope" commits class="mt-1.5" />
    </template>
    <template #standing>
      <AnswerStanding
        v-if="answer"
        past
        :counts="counts"
        :answer="answer"
        advice="Narrow it by repository, date or path."
      />
      <p v-if="answer?.covered.cut" class="text-accent">
        The past is cut at {{ counted(answer.covered.cut, 'commit') }} whose parents are not there.
      </p>
      <p v-if="answer?.covered.withoutLines && (quest.adds || quest.removes)" class="text-accent">
        Of {{ counted(answer.covered.withoutLines, 'commit') }} the changed lines are too many to be searched.
      </p>
      <SaveSearch v-if="answer" class="ml-auto" />
    </template>
    <template #above
      ><CommitTimeline
        v-if="answer && answer.facets.timeline.bars.length > 1"
        class="mt-2"
        :timeline="answer.facets.timeline"
        @span="(after, before) => Object.assign(quest, { after, before })"
    /></template>
    <template v-if="answer" #facets>
      <FacetBars
        title="By person"
        :facets="bars(answer.facets.person)"
        :exact="answer.counts.exact"
        :chosen="quest.by"
        @choose="chooseBy"
      />
      <FacetBars
        title="By repository"
        :facets="bars(answer.facets.repository)"
        :exact="answer.counts.exact"
        :chosen="quest.scope.repo"
        @choose="choose('repo', $event)"
      />
      <FacetBars
        title="By year"
        :facets="bars(answer.facets.year)"
        :exact="answer.counts.exact"
        :chosen="year"
        @choose="chooseYear"
      />
    </template>
    <CommitItem
      v-for="found in commits"
      :key="found.commit.repository + found.commit.id"
      :found="found"
      shows-repository
      @person="chooseBy"
    />
    <section v-if="answer && !answer.counts.commits" class="py-16 text-center">
      <p class="font-semibold">No commit is like that</p>
      <p class="mt-1 text-soft">
        {{ counted(answer.covered.commits, 'commit') }} of
        {{ counted(answer.index.repositories, 'repository', 'repositories') }} were searched.
      </p>
      <p class="mt-3 flex justify-center gap-2">
        <button
          v-if="isNarrowed && quest.text"
          type="button"
          class="button"
          @click="Object.assign(quest, nothing(), { text: quest.text, reading: quest.reading, scope: quest.scope })"
        >
          Only by the message
        </button>
        <button
          v-if="quest.text && quest.reading !== 'expression'"
          type="button"
          class="button"
          @click="Object.assign(quest, { adds: quest.text, text: '', removes: '' })"
        >
          In added lines
        </button>
        <button
          v-if="quest.text && quest.reading !== 'expression'"
          type="button"
          class="button"
          @click="Object.assign(quest, { removes: quest.text, text: '', adds: '' })"
        >
          In removed lines
        </button>
      </p>
    </section>
    <p v-if="!answer && !problem" class="py-6 text-soft" role="status">Loading</p>
  </ResultsFrame>
</template>
