<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useActing } from '../acting'
import * as requests from '../requests'
import { useSession } from '../state/session'
import type { DeviceRequest } from '../wire'

// A program, such as the client in a terminal, waits for somebody to allow it.
const session = useSession()
const code = ref(String(useRoute().query.code ?? ''))
const waiting = ref<DeviceRequest>()
const { problem, done, act } = useActing()

const find = () =>
  act(async () => {
    waiting.value = await requests.decideDevice(code.value)
  })
const decide = (allow: boolean) =>
  act(async () => {
    await requests.decideDevice(code.value, allow)
    done.value = allow
      ? `${waiting.value?.token ? 'It has the token' : 'It is signed in'} now. You can close this page.`
      : 'It was refused, and is told so.'
  })
onMounted(() => {
  if (code.value) void find()
})
</script>

<template>
  <main class="mx-auto max-w-md px-4 pt-[10vh] pb-24">
    <h1 class="text-lg font-semibold">Sign a program in</h1>
    <p v-if="done" class="mt-4" role="status">{{ done }}</p>
    <section v-else-if="waiting" class="panel mt-5 p-5">
      <p>
        <b>{{ waiting.program }}</b> at <span class="font-mono">{{ waiting.address }}</span>
        {{ waiting.token ? 'asks for a token of' : 'asks to act as' }} <b>{{ session.person?.displayName }}</b><template
          v-if="waiting.token"
          >: <b>{{ waiting.token.name }}</b>, {{ waiting.token.role ?? 'reader' }} for
          {{ waiting.token.days ?? 90 }} days, sees
          {{ waiting.token.repositories?.join(', ') || 'all that its role allows' }}</template
        >. It must show this code:
      </p>
      <p class="my-4 text-center font-mono text-2xl tracking-widest" data-part="code">{{ waiting.userCode }}</p>
      <p class="text-soft">If you did not start it yourself just now, or it shows another code, refuse.</p>
      <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
      <div class="mt-4 flex justify-end gap-2">
        <button type="button" class="button" @click="decide(false)">Refuse</button>
        <button type="button" class="button-strong" @click="decide(true)">Allow</button>
      </div>
    </section>
    <form v-else class="panel mt-5 grid gap-3 p-5" @submit.prevent="find">
      <label
        >Code that the program shows
        <input
          v-model="code"
          class="field mt-0.5 font-mono"
          autocapitalize="characters"
          autocomplete="off"
          spellcheck="false"
          placeholder="BCDF-GHJK"
          required
        />
      </label>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
      <button type="submit" class="button-strong">Go on</button>
    </form>
  </main>
</template>
