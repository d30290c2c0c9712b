<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue'
import { useActing } from '../acting'
import { ago, date } from '../amounts'
import RepositoryList from '../parts/RepositoryList.vue'
import * as requests from '../requests'
import { useSession } from '../state/session'
import type { IssuedToken, AccountRole, TokenInfo } from '../wire'

// One's own account: what one may do, tokens for programs, signing out.
const session = useSession()
const tokens = ref<TokenInfo[]>()
const issued = ref<IssuedToken>()
const form = reactive({ name: '', role: 'reader' as AccountRole, days: 90, repositories: [] as string[] })
const { problem, act } = useActing()
const now = Date.now()
const roles = computed(() =>
  (['reader', 'maintainer', 'administrator'] as AccountRole[]).filter(role => session.may(role)),
)

const load = async () => {
  tokens.value = await requests.tokens()
}
const add = () =>
  act(async () => {
    issued.value = await requests.addToken({ ...form })
    await load()
    form.name = ''
    form.repositories = []
  })
const remove = (token: TokenInfo) =>
  act(async () => {
    await requests.removeToken(token.id)
    await load()
    if (issued.value?.info.id === token.id) issued.value = undefined
  })
const copy = () => navigator.clipboard?.writeText(issued.value?.token ?? '')
const ended = (token: TokenInfo) => Date.parse(token.ends) < now
onMounted(() => act(load))
</script>

<template>
  <main v-if="session.person" class="mx-auto max-w-4xl px-4 pb-24">
    <div class="flex flex-wrap items-center gap-2 py-4">
      <h1 class="mr-2 text-lg font-semibold">{{ session.person.displayName }}</h1>
      <span class="text-soft"
        >signs in as <span class="font-mono">{{ session.person.name }}</span>, {{ session.person.role
        }}{{ session.person.teams.length ? `, in ${session.person.teams.join(', ')}` : ', in no team' }}</span
      >
      <span class="ml-auto flex gap-2">
        <button type="button" class="button" @click="session.signOut(true)">Sign out everywhere</button>
        <button type="button" class="button-strong" @click="session.signOut(false)">Sign out</button>
      </span>
    </div>
    <h2 class="mt-4 font-semibold">Tokens for programs</h2>
    <p class="mt-1 text-soft">
      A program sends one as <code class="font-mono">Authorization: Bearer …</code>; the client takes it from
      <code class="font-mono">ODDBEACON_TOKEN</code>. It sees and does what its role allows, for you.
    </p>
    <form class="mt-3 flex flex-wrap items-end gap-3" @submit.prevent="add">
      <label class="grow"
        >What it is for
        <input v-model="form.name" class="field mt-0.5" maxlength="100" required placeholder="Nightly report" />
      </label>
      <label
        >Role
        <select v-model="form.role" class="field mt-0.5">
          <option v-for="role in roles" :key="role">{{ role }}</option>
        </select>
      </label>
      <label class="w-24"
        >Days
        <input v-model.number="form.days" class="field mt-0.5" type="number" min="1" max="400" required />
      </label>
      <button type="submit" class="button-strong">Make a token</button>
      <details class="w-full">
        <summary class="cursor-pointer text-soft">
          {{
            form.repositories.length
              ? `Only for ${form.repositories.join(', ')}`
              : 'For all repositories; or choose some'
          }}
        </summary>
        <div class="mt-2 max-h-60 overflow-y-auto">
          <RepositoryList v-model="form.repositories" />
        </div>
      </details>
    </form>
    <p v-if="problem" role="alert" class="mt-3 text-bad">{{ problem }}</p>
    <div v-if="issued" class="panel mt-4 p-4" role="status" data-part="issued">
      <p>
        The token of <b>{{ issued.info.name }}</b>. It is shown this once; copy it now.
      </p>
      <p class="mt-2 flex flex-wrap items-center gap-2">
        <code class="font-mono break-all">{{ issued.token }}</code>
        <button type="button" class="button" @click="copy">Copy</button>
      </p>
    </div>
    <p v-if="!tokens" class="py-6 text-soft" role="status">Loading</p>
    <p v-else-if="!tokens.length" class="py-6 text-soft">No tokens yet.</p>
    <div v-else class="mt-4 relative overflow-x-auto">
      <table class="w-full border-collapse text-left">
        <thead class="text-soft">
          <tr class="border-b border-rule [&>th]:px-2 [&>th]:py-1.5 [&>th]:font-normal">
            <th>Token</th>
            <th>Role</th>
            <th>For</th>
            <th>Made</th>
            <th>Last used</th>
            <th>Ends</th>
            <th><span class="sr-only">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="token in tokens" :key="token.id" class="border-b border-rule [&>td]:px-2 [&>td]:py-2">
            <td class="font-semibold break-words">{{ token.name }}</td>
            <td>{{ token.role }}</td>
            <td class="break-words">{{ token.repositories.join(', ') || 'all repositories' }}</td>
            <td :title="date(token.created)" class="whitespace-nowrap">{{ ago(token.created, now) }}</td>
            <td class="whitespace-nowrap">{{ token.lastUsed ? ago(token.lastUsed, now) : 'never' }}</td>
            <td class="whitespace-nowrap" :class="{ 'text-bad': ended(token) }">
              {{ ended(token) ? 'ended' : '' }} {{ date(token.ends) }}
            </td>
            <td class="text-right">
              <button type="button" class="button" :aria-label="`Take ${token.name} back`" @click="remove(token)">
                Take back
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </main>
</template>
