<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { counted } from '../amounts'
import CallEnds from '../parts/CallEnds.vue'
import ChoiceBar from '../parts/ChoiceBar.vue'
import * as requests from '../requests'
import type { CallDirection, CallsAnswer, Target } from '../wire'

// Who calls something, or what it calls, as a tree that unfolds.
const route = useRoute()
const router = useRouter()
const answer = ref<CallsAnswer>()
const problem = ref('')
const one = (name: string) => String(route.query[name] ?? '')
const asked = computed(() => (one('of') ? { of: one('of') } : { symbol: one('symbol') }))
const direction = computed<CallDirection>(() => (one('direction') === 'callees' ? 'callees' : 'callers'))
const directions: { value: CallDirection; title: string }[] = [
  { value: 'callers', title: 'What calls it' },
  { value: 'callees', title: 'What it calls' },
]
let loading = new AbortController()

watch(
  () => [one('of'), one('symbol'), direction.value],
  async () => {
    if (route.name !== 'calls') return
    loading.abort()
    const own = (loading = new AbortController())
    problem.value = ''
    answer.value = undefined
    try {
      const found = await requests.calls(asked.value, direction.value, own.signal)
      if (own !== loading) return
      answer.value = found
      document.title = `Calls of ${found.of[0]?.name ?? ''} · Odd Beacon`
    } catch (error) {
      if (!own.signal.aborted) problem.value = (error as Error).message
    }
  },
  { immediate: true },
)

const place = (target: Target) => `${target.repository}/${target.path}:${target.line}:${target.column}`
const to = (target: Target) => ({
  name: 'file',
  query: { in: target.repository, path: target.path, line: String(target.line) },
})
const choose = (value: CallDirection) =>
  void router.replace({
    name: 'calls',
    query: { ...asked.value, ...(value === 'callees' ? { direction: value } : {}) },
  })
const name = computed(() => answer.value?.of[0]?.name ?? '')
const nameOnly = computed(() => ({
  name: 'symbols',
  query: { q: name.value, reading: 'plain', role: 'use', of: one('of'), certainty: 'by-name' },
}))
</script>

<template>
  <main class="mx-auto max-w-[72rem] px-4 pb-16">
    <template v-if="answer">
      <h1 class="pt-4 font-mono text-[16px] font-bold break-all">{{ name }}</h1>
      <ul class="text-[13px]" data-part="of">
        <li v-for="target in answer.of" :key="place(target)" class="min-w-0">
          <RouterLink class="block hover:underline" :to="to(target)"
            ><span class="block truncate font-mono">{{ target.signature }}</span
            ><span class="block truncate text-soft"
              >{{ target.kind }}{{ target.container ? ` in ${target.container}` : '' }}, {{ target.repository }}/{{
                target.path
              }}:{{ target.line }}</span
            ></RouterLink
          >
        </li>
      </ul>
      <ChoiceBar
        class="my-3 w-fit"
        label="Direction"
        :choices="directions"
        :model-value="direction"
        @update:model-value="choose"
      />
      <CallEnds
        v-if="answer.ends.length"
        :key="direction"
        :ends="answer.ends"
        :direction="direction"
        :above="answer.of.map(place)"
      />
      <p v-else class="py-6 text-soft" data-part="nothing">
        {{
          direction === 'callers'
            ? 'Nothing that is indexed calls it, as far as types tell.'
            : 'It calls nothing that is indexed.'
        }}
      </p>
      <p v-if="!answer.exact" class="mt-3 text-soft">Not all places were looked at: there may be more.</p>
      <p v-if="answer.byName" class="mt-3 text-[13px] text-soft" data-part="by-name">
        <template v-if="direction === 'callers' && one('of')"
          ><RouterLink class="part" :to="nameOnly">{{ counted(answer.byName, 'place') }}</RouterLink> of the
          name</template
        ><template v-else>{{ counted(answer.byName, 'place') }}</template>
        {{ answer.byName === 1 ? 'was' : 'were' }} left out: nothing but the name speaks for
        {{ answer.byName === 1 ? 'it' : 'them' }}.
      </p>
    </template>
    <div v-else-if="problem" role="alert" class="py-16 text-center">
      <p class="font-semibold">Calls cannot be shown</p>
      <p class="mt-1 text-soft">{{ problem }}</p>
      <RouterLink class="button mt-3 inline-block" :to="{ name: 'symbols' }">Search for a symbol</RouterLink>
    </div>
    <p v-else class="py-6 text-soft" role="status">Loading</p>
  </main>
</template>
