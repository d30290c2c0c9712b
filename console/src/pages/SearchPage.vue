<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { isKey } from '../keys'
import { counted } from '../amounts'
import { remember } from '../earlier'
import { useOffers } from '../offers'
import { useOtherSubjects } from '../otherSubjects'
import AnswerStanding from '../parts/AnswerStanding.vue'
import AsExpression from '../parts/AsExpression.vue'
import AskAboutFile from '../parts/AskAboutFile.vue'
import CodePreview from '../parts/CodePreview.vue'
import FallPicture from '../parts/FallPicture.vue'
import KeysOverlay from '../parts/KeysOverlay.vue'
import LinesToolbar from '../parts/LinesToolbar.vue'
import OtherSubjects from '../parts/OtherSubjects.vue'
import PreviewPane from '../parts/PreviewPane.vue'
import OverTime from '../parts/OverTime.vue'
import ResultList from '../parts/ResultList.vue'
import ResultsFrame from '../parts/ResultsFrame.vue'
import SaveSearch from '../parts/SaveSearch.vue'
import ScopeFacets from '../parts/ScopeFacets.vue'
import ScopeSentence from '../parts/ScopeSentence.vue'
import SearchBox from '../parts/SearchBox.vue'
import SearchIntroduction from '../parts/SearchIntroduction.vue'
import SecondLooks from '../parts/SecondLooks.vue'
import * as requests from '../requests'
import { useResults } from '../results'
import { MOST_CONTEXT, asGlob, emptySearch, fromUrl, toUrl } from '../searchUrl'
import { useLayout } from '../state/layout'
import { useRepositories } from '../state/repositories'
import { useSets } from '../state/sets'
import { useSubjects } from '../state/subjects'
import { type FileHits, type Line, type LinesAnswer, type Search, type SecondLook, keyOf } from '../wire'

// Lines of all files, by repository and file; the code beside the list.
defineOptions({ name: 'SearchPage' })
const router = useRouter()
const repositories = useRepositories()
const sets = useSets()
const subjects = useSubjects()
const { layout } = useLayout()
const { looks, leftOut, ...offers } = useOffers()
const others = useOtherSubjects()
const list = ref<InstanceType<typeof ResultList>>()

const {
  quest: search,
  answer,
  items: found,
  problem,
  unfinished,
  gone,
  running,
  choose,
  more,
  toBox,
} = useResults<Search, LinesAnswer, FileHits>({
  subject: 'search',
  nothing: emptySearch,
  fromAddress: fromUrl,
  toAddress: toUrl,
  readings: ['plain', 'regex', 'expression'],
  isAsked: quest => !!quest.text,
  ask: (quest, signal, more) =>
    requests.searchLines(quest, signal, {
      ...more,
      typing: true,
      ...(quest.order === 'relevance' ? { perFile: FEW } : {}),
    }),
  items: found => found.files,
  joined,
  begun: (quest, run) => {
    others.ask(quest, run)
    wholes.value = new Map()
  },
  answered: (found, quest, run) => {
    others.show(run)
    offers.ask(found, quest, run)
  },
  cleared: () => {
    others.clear()
    offers.clear()
  },
  title: quest => quest.text,
  key: listKey,
  altKey,
})

// Where the likeliest files come first, a few hits of each are enough to see whether it is the one; the others are asked for.
const FEW = 10
const MOST = 1000
const wholes = ref(new Map<string, FileHits>())
const files = computed(() => found.value.map(file => wholes.value.get(keyOf(file)) ?? file))
/** Shows all hits of a file; a service that does not answer leaves the list as it is. */
async function showWhole(file: FileHits) {
  const scope = { ...search.scope, repo: [file.repository], under: [asGlob(`/${file.path}`)] }
  const asked = wholes.value
  const all = { limit: MOST, asker: '' } // beside the search, which it must not cancel
  const answer = await requests
    .searchLines({ ...search, scope, order: 'path' }, new AbortController().signal, all)
    .catch(() => undefined)
  const whole = answer?.files.find(one => keyOf(one) === keyOf(file))
  if (whole && asked === wholes.value)
    wholes.value = new Map(asked).set(keyOf(file), { ...file, excerpts: whole.excerpts })
}

/** A page may go on in the file in which the one before ended. */
function joined(before: FileHits[], page: FileHits[]): FileHits[] {
  const last = before[before.length - 1]
  const first = page[0]
  if (!last || !first || keyOf(last) !== keyOf(first)) return [...before, ...page]
  return [...before.slice(0, -1), { ...last, excerpts: [...last.excerpts, ...first.excerpts] }, ...page.slice(1)]
}

const counts = computed(() => {
  const found = answer.value?.counts
  if (!found) return ''
  if (!found.files) return 'No hits'
  return `${found.exact ? '' : 'at least '}${found.hits ? `${counted(found.hits, 'hit')} in ` : ''}${counted(found.files, 'file')} of ${counted(found.repositories, 'repository', 'repositories')}`
})
const why = computed(() => {
  const index = answer.value?.index
  if (!index) return ''
  const words = [
    `No line in ${counted(index.repositories, 'repository', 'repositories')} has it${index.complete ? '.' : ' yet; some cannot be searched now.'}`,
  ]
  if (search.reading !== 'plain')
    words.push(`The text was read as ${search.reading === 'regex' ? 'a regular expression' : 'an expression'}.`)
  if (search.word) words.push('It had to be a whole word.')
  if (search.caseMode === 'match' || (search.caseMode === 'auto' && /\p{Lu}/u.test(search.text)))
    words.push('Its case counted.')
  if (Object.values(search.scope).some(values => values.length)) words.push('The scope was narrowed.')
  return words.join(' ')
})
const nothing = computed(() => !!answer.value && !answer.value.counts.files && !running.value)

/** The hit that is shown beside the list. */
const looked = ref<{ file: FileHits; line: Line }>()
watch(files, files => {
  const now = looked.value
  const file = files.find(one => now && keyOf(one) === keyOf(now.file)) ?? files[0]
  const lines = file?.excerpts.flatMap(excerpt => excerpt.lines).filter(line => line.matches.length) ?? []
  const line = lines.find(one => one.number === now?.line.number) ?? lines[0]
  looked.value = file && line ? { file, line } : undefined
})
function look(file: FileHits, line: Line) {
  looked.value = { file, line }
}
const lookedHits = computed(() =>
  looked.value
    ? (files.value.find(file => keyOf(file) === keyOf(looked.value!.file))?.excerpts ?? [])
        .flatMap(excerpt => excerpt.lines)
        .filter(line => line.matches.length)
    : [],
)
const shows = computed(() => layout.preview && search.shown === 'lines') // a preview beside the list

/** Takes an exclusion set out of this search, which then shows what it had left out. */
function liftSet(name: string) {
  const { scope } = search
  scope.except = scope.except.filter(one => one !== name)
  if (sets.all.some(set => set.name === name && set.byDefault)) scope.lift = [...scope.lift, name]
}
function takeLook(look: SecondLook) {
  remember(search)
  const { text, reading, caseMode, word } = look
  Object.assign(search, { text, reading, caseMode, word, scope: { ...look.scope } })
}
/** Of expressions, those of one shape: whether it is one alone, the service knows. */
const isReplaceable = computed(() => search.reading !== 'expression' || search.text.includes('shape('))
function editAsExpression() {
  const { context, shown, order } = search
  const expression = answer.value?.query.expression ?? ''
  remember(search)
  Object.assign(search, emptySearch(), {
    text: expression,
    reading: 'expression',
    context,
    order,
    shown: shown === 'without' ? 'lines' : shown,
  })
  toBox()
}
/** One line more or fewer, beyond ten lines five. */
function context(step: number) {
  const now = search.context
  search.context = layout.context = Math.min(
    MOST_CONTEXT,
    Math.max(0, now + step * (now > 10 || (now === 10 && step > 0) ? 5 : 1)),
  )
}
/** Narrows to a repository, and to a folder of it; the same again takes it back. */
function chooseSpread(repository: string, folder: string) {
  const { scope } = search
  const under = folder ? [asGlob(folder)] : []
  const isChosen = scope.repo.join() === repository && scope.under.join() === under.join()
  scope.repo = isChosen ? [] : [repository]
  scope.under = isChosen ? [] : under
}

function altKey(event: KeyboardEvent): boolean {
  const look = /^Digit[1-9]$/.test(event.code) && nothing.value && looks.value[Number(event.code.slice(5)) - 1]
  const subject = ({ KeyF: 'files', KeyS: 'symbols', KeyC: 'commits' } as const)[event.code]
  if (look) takeLook(look)
  else if (event.code === 'KeyL' && leftOut.value[0]) liftSet(leftOut.value[0].name)
  else if (subject && search.text) void router.push({ name: subject, query: subjects.addressOf(subject, search) })
  else return false
  return true
}
const showsKeys = ref(false)
const copied = ref('')
/** Keys that are for nothing that is typed in. */
function listKey(event: KeyboardEvent): boolean {
  if (isKey(event, 'keys')) showsKeys.value = true
  else if (isKey(event, 'moreContext')) context(1)
  else if (isKey(event, 'lessContext')) context(-1)
  else if (isKey(event, 'preview')) layout.preview = !layout.preview
  else if (isKey(event, 'dense')) layout.dense = !layout.dense
  else return list.value?.key(event, place => void copy(place)) ?? false
  return true
}
async function copy(place: string) {
  await navigator.clipboard.writeText(place)
  copied.value = place
  setTimeout(() => {
    copied.value = ''
  }, 1500)
}
</script>

<template>
  <ResultsFrame
    :problem="problem"
    :gone="gone"
    :items="files"
    :goes-on="!!answer?.next"
    :has-facets="!!answer?.facets.repository.length"
    :introduces="!search.text"
    told-in-question
    @more="more"
  >
    <template #question>
      <SearchBox
        ref="box"
        v-model="search"
        :problem="problem"
        :unfinished="unfinished"
        :running="running"
        @leave="list?.first()"
      />
      <div class="mt-2 flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <ScopeSentence v-if="repositories.loaded" v-model="search.scope" />
        <AsExpression
          v-if="answer && search.text && search.reading !== 'expression'"
          :expression="answer.query.expression"
          @edit="editAsExpression"
        />
        <span v-if="answer" class="ml-auto flex gap-2">
          <RouterLink
            v-if="answer.files.length && isReplaceable && search.shown !== 'without'"
            class="button"
            :to="{ name: 'replace', query: toUrl(search) }"
            data-part="replace"
            >Replace</RouterLink
          >
          <SaveSearch />
        </span>
      </div>
    </template>
    <template #introduction><SearchIntroduction /></template>
    <template #standing>
      <AnswerStanding
        v-if="answer"
        :counts="counts"
        :answer="answer"
        advice="Narrow the scope, or add a longer literal text."
      />
      <p v-for="set in leftOut" :key="set.name" class="text-soft" data-part="left-out">
        {{ set.exact ? '' : 'At least ' }}{{ set.hits ? `${counted(set.hits, 'hit')} in ` : ''
        }}{{ counted(set.files, 'file') }} left out by <em class="not-italic text-ink">{{ set.name }}</em>
        <button
          type="button"
          class="button ml-1 py-0 text-ink"
          :title="set === leftOut[0] ? 'Alt L' : undefined"
          @click="liftSet(set.name)"
        >
          Show them
        </button>
      </p>
      <LinesToolbar
        v-model="search"
        :has-files="files.length > 0"
        :all-folded="list?.allFolded ?? false"
        @fold-all="list?.foldAll()"
        @context="context"
      />
    </template>
    <template #above>
      <section v-if="nothing" class="mx-auto max-w-xl py-16 text-center">
        <h1 class="text-lg font-semibold">Nothing found</h1>
        <p class="mt-2 text-soft">{{ why }}</p>
        <SecondLooks :looks="looks" @take="takeLook" />
        <AskAboutFile class="mt-6" :search="search" />
      </section>
      <OtherSubjects :answers="others.answers.value" :settled="others.settled.value" :search="search" />
      <OverTime
        v-if="(layout.overTime || (nothing && search.reading !== 'expression')) && search.shown === 'lines'"
        :search="search"
        :quiet="!layout.overTime"
      />
      <FallPicture
        v-if="layout.picture && answer?.facets.spread.length"
        :spread="answer.facets.spread"
        :exact="answer.counts.exact"
        @choose="chooseSpread"
      />
    </template>
    <template v-if="answer" #facets>
      <ScopeFacets :facets="answer.facets" :exact="answer.counts.exact" :scope="search.scope" @choose="choose" />
    </template>
    <ResultList
      ref="list"
      :files="files"
      :search="search"
      :dense="layout.dense"
      :previews="shows"
      :looked="looked"
      @look="look"
      @whole="showWhole"
      @above="toBox"
    />
    <AskAboutFile v-if="answer && !answer.next && !nothing" class="mt-6" :search="search" />
    <template #beside>
      <PreviewPane v-if="shows && looked">
        <CodePreview
          class="sticky top-3 h-[calc(100vh-1.5rem)]"
          :repository="looked.file.repository"
          :path="looked.file.path"
          :rev="looked.file.branch"
          :range="{ from: looked.line.number, to: looked.line.number }"
          :hits="lookedHits"
        >
          <RouterLink
            class="button py-0"
            :to="{
              name: 'file',
              query: {
                ...toUrl({ ...search, context: 2 }),
                in: looked.file.repository,
                path: looked.file.path,
                rev: looked.file.branch,
                line: String(looked.line.number),
              },
            }"
            >Open</RouterLink
          >
        </CodePreview>
      </PreviewPane>
    </template>
  </ResultsFrame>
  <KeysOverlay v-model="showsKeys" />
  <p
    v-if="copied"
    role="status"
    class="panel fixed bottom-4 left-1/2 z-30 max-w-[90vw] -translate-x-1/2 truncate px-3 py-1"
  >
    Copied <code class="font-mono text-[13px]">{{ copied }}</code>
  </p>
</template>
