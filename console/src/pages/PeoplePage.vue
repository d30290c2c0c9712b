<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { counted, date } from '../amounts'
import AccountForm from '../parts/AccountForm.vue'
import * as requests from '../requests'
import type { AccountInfo } from '../wire'

// Who may sign in, for administrators.
const all = ref<AccountInfo[]>()
const filter = ref('')
const editing = ref(false)
const edited = ref<AccountInfo>()
const ending = ref('')
const problem = ref('')

const shown = computed(() =>
  (all.value ?? []).filter(one =>
    `${one.name} ${one.displayName} ${one.role} ${one.teams.join(' ')}`
      .toLowerCase()
      .includes(filter.value.trim().toLowerCase()),
  ),
)
async function load() {
  try {
    all.value = await requests.accounts()
    problem.value = ''
  } catch (error) {
    problem.value = (error as Error).message
  }
}
function edit(account?: AccountInfo) {
  edited.value = account
  editing.value = true
}
async function end(name: string) {
  try {
    await requests.endAccount(name)
    ending.value = ''
    await load()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
onMounted(load)
</script>

<template>
  <main class="mx-auto max-w-5xl px-4 pb-24">
    <div class="flex flex-wrap items-center gap-2 py-4">
      <h1 class="mr-2 text-lg font-semibold">People</h1>
      <input
        v-model="filter"
        class="field w-64"
        placeholder="Filter by name, role or team"
        aria-label="Filter people"
      />
      <span class="ml-auto flex gap-2">
        <RouterLink class="button" :to="{ name: 'changes' }">What was done</RouterLink>
        <button type="button" class="button-strong" @click="edit()">Add somebody</button>
      </span>
    </div>
    <p v-if="problem" role="alert" class="mb-3 text-bad">{{ problem }}</p>
    <p v-if="!all && !problem" class="py-10 text-soft" role="status">Loading</p>
    <p v-else-if="all && !shown.length" class="py-10 text-soft">
      None of {{ counted(all.length, 'account') }} has that in its name, role or teams.
    </p>
    <div v-else-if="all" class="relative overflow-x-auto">
      <table class="w-full border-collapse text-left">
        <thead class="text-soft">
          <tr class="border-b border-rule [&>th]:px-2 [&>th]:py-1.5 [&>th]:font-normal">
            <th>Person</th>
            <th>Role</th>
            <th>Teams</th>
            <th>Since</th>
            <th><span class="sr-only">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="one in shown"
            :key="one.name"
            :data-account="one.name"
            class="border-b border-rule align-top [&>td]:px-2 [&>td]:py-2"
            :class="{ 'text-soft': one.ended }"
          >
            <td>
              <span class="font-semibold">{{ one.displayName }}</span>
              <div class="font-mono text-[12px] text-soft">{{ one.name }}</div>
            </td>
            <td>{{ one.ended ? `ended ${date(one.ended)}` : one.role }}</td>
            <td>
              <span
                v-for="team in one.teams"
                :key="team"
                class="mr-1.5 inline-block whitespace-nowrap rounded border border-rule px-1 text-[12px]"
                >{{ team }}</span
              >
            </td>
            <td class="whitespace-nowrap">{{ date(one.created) }}</td>
            <td class="whitespace-nowrap text-right">
              <template v-if="!one.ended">
                <template v-if="ending === one.name">
                  <span class="mr-2 text-soft">Ends sessions and tokens, for good.</span>
                  <button type="button" class="button" @click="ending = ''">Keep</button>{{ ' ' }}
                  <button type="button" class="button-strong" @click="end(one.name)">End</button>
                </template>
                <template v-else>
                  <button type="button" class="button" :aria-label="`Change ${one.name}`" @click="edit(one)">
                    Change</button
                  >{{ ' ' }}
                  <button type="button" class="button" :aria-label="`End ${one.name}`" @click="ending = one.name">
                    End
                  </button>
                </template>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <AccountForm :open="editing" :account="edited" @close="editing = false" @done="((editing = false), load())" />
  </main>
</template>
