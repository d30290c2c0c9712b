<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useActing } from '../acting'
import { counted, date, number } from '../amounts'
import FoundResults from '../parts/FoundResults.vue'
import WatchPanel from '../parts/WatchPanel.vue'
import * as requests from '../requests'
import { placeOf, placeOfReplacement, whose } from '../saved'
import { useSession } from '../state/session'
import type { Comparison, SavedSearch, SearchCheck } from '../wire'

// One saved search: what has come and gone since some day or an earlier check, and who is told.
const route = useRoute()
const session = useSession()
const search = ref<SavedSearch>()
const checks = ref<SearchCheck[]>([])
const comparison = ref<Comparison>()
const missing = ref('')
const form = reactive({ check: '', day: '', name: '' })
const { problem, done, busy, act } = useActing()

const meant = computed(() => ({ name: String(route.query.search ?? ''), of: String(route.query.of ?? '') }))
const mayKeep = computed(
  () =>
    search.value &&
    (!['everybody', 'repository:'].some(kind => search.value!.of.startsWith(kind)) || session.may('maintainer')),
)
const mayWatch = computed(() => !session.accounts || !!session.person)
const since = computed(() => form.check || form.day)

async function load() {
  search.value = comparison.value = undefined
  missing.value = ''
  try {
    search.value = await requests.savedSearch(meant.value)
    checks.value = await requests.searchChecks(search.value)
    form.check = checks.value.at(-1)?.name ?? ''
  } catch (error) {
    missing.value = (error as Error).message
    return
  }
  if (since.value) await compare()
}
const compare = () =>
  act(async () => {
    comparison.value = undefined
    comparison.value = await requests.compareSearch(search.value!, since.value)
  })
const keep = () =>
  act(async () => {
    const name = form.name.trim()
    const { results } = await requests.keepCheck(search.value!, name)
    checks.value = await requests.searchChecks(search.value!)
    Object.assign(form, { name: '', check: name })
    done.value = `${counted(results, 'result')} kept as ${name}.`
  })
const removeCheck = (check: SearchCheck) =>
  act(async () => {
    await requests.removeCheck(search.value!, check.name)
    checks.value = checks.value.filter(one => one.name !== check.name)
    if (form.check === check.name) form.check = ''
  })
watch(
  () => (route.name === 'saved' ? `${meant.value.of} ${meant.value.name}` : ''),
  asked => {
    if (asked) void load()
  },
  { immediate: true },
)
</script>

<template>
  <main class="mx-auto max-w-5xl px-4 pb-24">
    <h1 class="py-4 text-lg font-semibold break-words">{{ meant.name || 'Saved search' }}</h1>
    <p v-if="missing" role="alert" class="text-bad">{{ missing }}</p>
    <p v-else-if="!search" class="text-soft" role="status">Loading</p>
    <template v-else>
      <p>
        <span class="text-soft">{{ search.subject }}, {{ whose(search.of) }}.</span>
        {{ search.description }}
        <RouterLink
          v-if="search.source"
          class="part"
          :to="{ name: 'file', query: { in: search.of.slice('repository:'.length), path: search.source } }"
          >{{ search.source }}</RouterLink
        >
      </p>
      <p v-if="search.problem" class="text-bad">{{ search.problem }}</p>
      <p class="mt-2 flex flex-wrap gap-2">
        <RouterLink class="button-strong" :to="placeOf(search)">Run it</RouterLink>
        <RouterLink v-if="search.replacement" class="button" :to="placeOfReplacement(search)!" data-part="replace"
          >Replace by {{ search.replacement.with || 'nothing' }}</RouterLink
        >
        <RouterLink class="button" :to="{ name: 'worklist', query: { search: search.name, of: search.of } }"
          >Worklist</RouterLink
        >
        <a class="button" :href="requests.resultsFile(search)" download>Download all that it finds</a>
      </p>

      <section class="mt-6" aria-labelledby="changes" data-part="changes">
        <h2 id="changes" class="font-semibold">What has changed</h2>
        <form class="mt-1 flex flex-wrap items-end gap-3" @submit.prevent="compare">
          <label v-if="checks.length"
            >Since a check
            <select v-model="form.check" class="field mt-0.5" data-part="check">
              <option value="">a day</option>
              <option v-for="check in checks" :key="check.name" :value="check.name">{{ check.name }}</option>
            </select>
          </label>
          <label v-if="!form.check"
            >Since a day<input v-model="form.day" type="date" class="field mt-0.5" required data-part="day"
          /></label>
          <button type="submit" class="button" :disabled="busy || !since">Compare</button>
        </form>
        <p v-if="busy && !comparison" role="status" class="mt-2 text-soft">Comparing</p>
        <div v-if="comparison" class="mt-2" data-part="comparison">
          <p>
            {{ number(comparison.cameCount) }} came<template v-if="comparison.went"
              >, {{ number(comparison.wentCount) }} went</template
            >, {{ number(comparison.found) }} found now, since {{ comparison.with
            }}<template v-if="comparison.at"> ({{ date(comparison.at) }})</template>.
            <span v-if="!comparison.complete">Not all repositories are indexed yet; more may come.</span>
          </p>
          <FoundResults :results="comparison.came" :count="comparison.cameCount" sign="+" label="What came" />
          <FoundResults :results="comparison.went ?? []" :count="comparison.wentCount" sign="−" label="What went" />
        </div>
        <form v-if="mayKeep" class="mt-4 flex flex-wrap items-end gap-3" @submit.prevent="keep">
          <label
            >Keep what is found now as<input
              v-model="form.name"
              class="field mt-0.5"
              placeholder="before-summer"
              maxlength="100"
              data-part="check-name"
          /></label>
          <button type="submit" class="button" :disabled="busy || !form.name.trim()">Keep</button>
        </form>
        <ul v-if="checks.length" class="mt-3 divide-y divide-rule border-y border-rule" data-part="checks">
          <li v-for="check in checks" :key="check.name" class="flex flex-wrap items-baseline gap-x-4 py-1">
            <span class="font-medium">{{ check.name }}</span>
            <span class="text-soft"
              >{{ date(check.at) }}<template v-if="check.by">, {{ check.by }}</template></span
            >
            <span class="grow tabular-nums">{{ counted(check.results, 'result') }}</span>
            <a class="part" :href="requests.resultsFile(search, check.name)" download>Download</a>
            <button
              v-if="mayKeep"
              type="button"
              class="part text-soft"
              :aria-label="`Remove ${check.name}`"
              @click="removeCheck(check)"
            >
              Remove
            </button>
          </li>
        </ul>
        <p v-if="done" role="status" class="mt-2 text-good">{{ done }}</p>
        <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
      </section>

      <WatchPanel
        v-if="mayWatch"
        :key="`${search.of} ${search.name}`"
        class="mt-8"
        :name="search.name"
        :of="search.of"
      />
    </template>
  </main>
</template>
