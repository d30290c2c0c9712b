<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { counted, day, number } from '../amounts'
import * as requests from '../requests'
import type { OverTimeAnswer, Search } from '../wire'
import OverTimeChart from './OverTimeChart.vue'

// When matching lines came in, and when they left: how many there were, and the commits that changed it.
const props = defineProps<{ search: Search; quiet?: boolean }>() // quiet: only if there ever was such a line
const FEW = 6
const answer = shallowRef<OverTimeAnswer>()
const problem = ref('')
const all = ref(false)
let asking = new AbortController()
const key = computed(() =>
  JSON.stringify([
    props.search.text,
    props.search.reading,
    props.search.caseMode,
    props.search.word,
    props.search.scope,
  ]),
)
let timer = 0

watch(
  key,
  () => {
    clearTimeout(timer)
    timer = window.setTimeout(async () => {
      asking.abort()
      const own = (asking = new AbortController())
      try {
        const found = await requests.overTime({ ...props.search, scope: { ...props.search.scope } }, own.signal)
        if (own !== asking) return
        answer.value = found
        problem.value = ''
      } catch (error) {
        if (own.signal.aborted) return
        answer.value = undefined
        problem.value = (error as Error).message
      }
    }, 120)
  },
  { immediate: true },
)
const events = computed(() => (all.value ? answer.value?.events : answer.value?.events.slice(0, FEW)) ?? [])
const signed = (value: number) => (value > 0 ? `+${number(value)}` : `−${number(-value)}`)
const unexplained = computed(() => answer.value?.courses.filter(course => course.difference) ?? [])
</script>

<template>
  <section
    v-if="!quiet || answer?.courses.length"
    class="mt-3 rounded-md border border-rule bg-sheet p-3"
    aria-label="Over time"
    data-part="over-time"
  >
    <p v-if="problem" role="alert" class="text-soft">{{ problem }}</p>
    <p v-else-if="!answer" class="text-soft" role="status">Looking back</p>
    <p v-else-if="!answer.courses.length" class="text-soft">
      No commit ever added or removed such a line{{ answer.index.complete ? '' : ', as far as the past is read' }}.
    </p>
    <h2 v-if="quiet && answer?.courses.length" class="mb-2 font-semibold">There were such lines once</h2>
    <div v-if="answer?.courses.length" class="grid gap-x-6 gap-y-3 lg:grid-cols-[3fr_2fr]">
      <div class="min-w-0">
        <OverTimeChart :courses="answer.courses" />
        <p v-if="unexplained.length" class="mt-1 text-[12px] text-soft">
          The last step in {{ unexplained.map(course => course.repository).join(', ') }} is what merges changed, or
          commits that are not read.
        </p>
        <p v-if="!answer.index.complete" class="mt-1 text-accent">
          Not complete: the past of {{ answer.index.indexing }} of
          {{ counted(answer.index.repositories, 'repository', 'repositories') }} is still being read.
        </p>
        <p v-if="answer.stopped" class="mt-1 text-accent">
          Not complete: it took too long and was stopped. Give a longer text, or fewer repositories.
        </p>
      </div>
      <div class="min-w-0">
        <h2 class="text-soft">{{ counted(answer.commits, 'commit') }} changed how many there are</h2>
        <ul class="mt-1">
          <li v-for="event in events" :key="event.commit.repository + event.commit.id" class="flex gap-2 py-0.5">
            <span
              class="w-12 shrink-0 text-right font-mono text-[13px]"
              :class="event.added > event.removed ? 'text-good' : 'text-bad'"
              >{{ signed(event.added - event.removed) }}</span><RouterLink
              class="min-w-0 truncate hover:underline"
              :title="event.commit.summary"
              :to="{ name: 'commit', query: { in: event.commit.repository, id: event.commit.id } }"
              >{{ event.commit.summary || 'no message' }}</RouterLink
            ><span class="ml-auto shrink-0 text-[13px] text-soft"
              >{{ event.commit.repository }}, {{ day(event.commit.committed) }}</span
            >
          </li>
        </ul>
        <p v-if="answer.events.length > FEW">
          <button type="button" class="part text-soft" @click="all = !all">
            {{
              all
                ? 'fewer'
                : `${answer.commits > answer.events.length ? `the latest ${answer.events.length}` : `all ${answer.commits}`}`
            }}
          </button>
        </p>
      </div>
    </div>
  </section>
</template>
