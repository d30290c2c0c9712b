<script setup lang="ts">
import { reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useSession } from '../state/session'

// The link that the service prints at its first start leads here; its secret never leaves the browser but to be used.
const session = useSession()
const router = useRouter()
const secret = location.hash.slice(1)
const form = reactive({ name: '', displayName: '', password: '' })
const problem = ref('')

async function make() {
  problem.value = ''
  try {
    await session.first({ secret, ...form, displayName: form.displayName.trim() || form.name })
    await router.replace({ name: 'people' })
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <main class="mx-auto max-w-md px-4 pt-[10vh] pb-24">
    <h1 class="text-lg font-semibold">The first administrator</h1>
    <p class="mt-1 text-soft">
      This link makes one account, which then makes the others. An administrator keeps accounts and sees every
      repository.
    </p>
    <p v-if="!secret" role="alert" class="mt-5 text-bad">
      The link is not whole. Copy all of it from where the service was started.
    </p>
    <form v-else class="panel mt-5 grid gap-3 p-5" @submit.prevent="make">
      <label
        >Name, to sign in with
        <input
          v-model="form.name"
          class="field mt-0.5"
          autocomplete="username"
          autocapitalize="none"
          spellcheck="false"
          required
        />
      </label>
      <label
        >Name, to show
        <input v-model="form.displayName" class="field mt-0.5" autocomplete="name" />
      </label>
      <label
        >Password, of at least 12 characters
        <input
          v-model="form.password"
          class="field mt-0.5"
          type="password"
          autocomplete="new-password"
          minlength="12"
          required
        />
      </label>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
      <button type="submit" class="button-strong">Make the account</button>
    </form>
  </main>
</template>
