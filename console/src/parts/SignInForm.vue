<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useSession } from '../state/session'

// Stands in place of every page until somebody is signed in; the address stays, and is gone to afterwards.
const session = useSession()
const name = ref('')
const password = ref('')
const problem = ref('')
const busy = ref(false)
const input = ref<HTMLInputElement>()

async function signIn() {
  busy.value = true
  problem.value = ''
  try {
    await session.signIn(name.value, password.value)
  } catch (error) {
    problem.value = (error as Error).message
    password.value = ''
  } finally {
    busy.value = false
  }
}
onMounted(() => input.value?.focus())
</script>

<template>
  <main class="mx-auto max-w-sm px-4 pt-[12vh] pb-24">
    <h1 class="text-lg font-semibold">Sign in</h1>
    <p class="mt-1 text-soft">You see the repositories that are shown to you, and nothing of the others.</p>
    <form class="panel mt-5 grid gap-3 p-5" @submit.prevent="signIn">
      <label
        >Name
        <input
          ref="input"
          v-model="name"
          class="field mt-0.5"
          name="username"
          autocomplete="username"
          autocapitalize="none"
          spellcheck="false"
          required
        />
      </label>
      <label
        >Password
        <input
          v-model="password"
          class="field mt-0.5"
          type="password"
          name="password"
          autocomplete="current-password"
          required
        />
      </label>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
      <button type="submit" class="button-strong" :disabled="busy">{{ busy ? 'Signing in' : 'Sign in' }}</button>
    </form>
    <p class="mt-4 text-soft">No account, or the password is lost? An administrator makes both.</p>
  </main>
</template>
