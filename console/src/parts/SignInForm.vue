<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { pageAfterSignIn, problemOf } from '../signIn'
import { useSession } from '../state/session'

// Stands in place of every page until somebody is signed in; the address stays, and is gone to afterwards.
const session = useSession()
const route = useRoute()
const name = ref('')
const password = ref('')
const problem = ref(problemOf(route))
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
const issuerLink = computed(() => `/sign-in/issuer?back=${encodeURIComponent(pageAfterSignIn(route))}`)
onMounted(() => input.value?.focus())
</script>

<template>
  <main class="mx-auto max-w-sm px-4 pt-[12vh] pb-24">
    <h1 class="text-lg font-semibold">Sign in</h1>
    <p class="mt-1 text-soft">You see the repositories that are shown to you, and nothing of the others.</p>
    <p v-if="problem" role="alert" class="mt-4 text-bad">{{ problem }}</p>
    <a v-if="session.issuer" :href="issuerLink" class="button-strong mt-5 block text-center" data-part="issuer"
      >Sign in with {{ session.issuer }}</a
    >
    <p v-if="session.issuer" class="mt-5 text-soft">Or with a password that an administrator gave you:</p>
    <form class="panel grid gap-3 p-5" :class="session.issuer ? 'mt-2' : 'mt-5'" @submit.prevent="signIn">
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
      <button type="submit" :class="session.issuer ? 'button' : 'button-strong'" :disabled="busy">
        {{ busy ? 'Signing in' : 'Sign in' }}
      </button>
    </form>
    <p v-if="!session.issuer" class="mt-4 text-soft">
      No account, or the password is lost? An administrator makes both.
    </p>
  </main>
</template>
