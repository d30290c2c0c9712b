<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { date } from '../amounts'
import * as requests from '../requests'
import type { Change } from '../wire'

// What was done, by whom and from where, for administrators.
const account = ref('')
const action = ref('')
const since = ref('')
const until = ref('')
const changes = ref<Change[]>()
const next = ref<number | null>(null)
const problem = ref('')
const actions = [
  'sign-in',
  'sign-in-failed',
  'sign-out',
  'sign-out-everywhere',
  'account-added',
  'account-changed',
  'account-ended',
  'token-added',
  'token-removed',
  'program-allowed',
  'program-refused',
  'repository-added',
  'repository-refreshed',
  'repositories-refreshed',
  'repository-removed',
  'repository-purged',
  'repository-moved',
  'repository-shown',
  'credential-given',
  'credential-removed',
  'roster-followed',
  'roster-removed',
]

const wanted = computed(() => ({
  ...(account.value.trim() && { account: account.value.trim() }),
  ...(action.value && { action: action.value }),
  ...(since.value && { since: since.value }),
  ...(until.value && { until: until.value }),
}))

async function load(before?: number) {
  try {
    const page = await requests.changes(wanted.value, before)
    changes.value = before ? [...(changes.value ?? []), ...page.changes] : page.changes
    next.value = page.next
    problem.value = ''
  } catch (error) {
    problem.value = (error as Error).message
  }
}
onMounted(() => load())
</script>

<template>
  <main class="mx-auto max-w-6xl px-4 pb-24">
    <form class="flex flex-wrap items-center gap-2 py-4" @submit.prevent="load()">
      <h1 class="mr-2 text-lg font-semibold">What was done</h1>
      <input v-model="account" class="field w-36" placeholder="By account" aria-label="By account" @change="load()" />
      <select v-model="action" class="field w-44" aria-label="Action" @change="load()">
        <option value="">every action</option>
        <option v-for="one in actions" :key="one">{{ one }}</option>
      </select>
      <label class="flex items-center gap-1"
        >from<input v-model="since" type="date" class="field w-34" @change="load()"
      /></label>
      <label class="flex items-center gap-1"
        >to<input v-model="until" type="date" class="field w-34" @change="load()"
      /></label>
      <span class="ml-auto flex gap-2">
        <a class="button" :href="requests.changesFile(wanted)" download title="All of these, as JSON lines">Download</a>
        <RouterLink class="button" :to="{ name: 'people' }">People</RouterLink>
      </span>
    </form>
    <p v-if="problem" role="alert" class="mb-3 text-bad">{{ problem }}</p>
    <p v-if="!changes && !problem" class="py-10 text-soft" role="status">Loading</p>
    <p v-else-if="changes && !changes.length" class="py-10 text-soft">Nothing of that kind was done.</p>
    <div v-else-if="changes" class="overflow-x-auto">
      <table class="w-full border-collapse text-left">
        <thead class="text-soft">
          <tr class="border-b border-rule [&>th]:px-2 [&>th]:py-1.5 [&>th]:font-normal">
            <th>When</th>
            <th>Who</th>
            <th>From</th>
            <th>Action</th>
            <th>What</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in changes" :key="one.id" class="border-b border-rule align-top [&>td]:px-2 [&>td]:py-1.5">
            <td class="whitespace-nowrap tabular-nums">{{ date(one.happened) }}</td>
            <td>
              {{ one.account ?? 'nobody' }}<span v-if="one.token" class="text-soft">, by {{ one.token }}</span>
            </td>
            <td class="font-mono text-[13px]">{{ one.address }}</td>
            <td class="whitespace-nowrap">{{ one.action }}</td>
            <td class="break-all">{{ one.subject }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="next" type="button" class="button mt-4" @click="load(next)">Show earlier ones</button>
  </main>
</template>
