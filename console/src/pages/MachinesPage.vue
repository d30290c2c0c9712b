<script setup lang="ts">
import { useActing } from '../acting'
import { useAgain } from '../again'
import { bytes, counted, date } from '../amounts'
import * as requests from '../requests'
import type { Machine } from '../wire'

// The machines of a cluster, for whoever keeps it: which answer, what each holds, what it still lacks.
const EACH = 3_000
const { answer: all, problem: lost } = useAgain(requests.machines, EACH)
const { problem, done, busy, act } = useActing()

const states: Record<Machine['state'], string> = {
  serving: 'answers, and holds all that is indexed',
  joining: 'is bringing what the others have',
  leaving: 'begins nothing more; stop it when you like',
  gone: 'does not live; the others answer for all',
}
const signs: Record<Machine['state'], string> = { serving: '●', joining: '◐', leaving: '○', gone: '✕' }

const question = (one: Machine) =>
  one.state === 'gone'
    ? `Forget ${one.name}, which is gone? Should it come back, it joins as a new machine.`
    : `Take ${one.name} out of the cluster? It begins nothing more, and cannot be put back as it is.`
function retire(one: Machine) {
  if (window.confirm(question(one))) {
    void act(async () => {
      all.value = await requests.retireMachine(one.name)
      done.value = `${one.name} is taken out.`
    })
  }
}
</script>

<template>
  <main class="mx-auto max-w-6xl px-4 pb-24">
    <div class="flex flex-wrap items-center gap-3 py-4">
      <h1 class="text-lg font-semibold">Machines</h1>
      <RouterLink class="button ml-auto" :to="{ name: 'health' }">Health</RouterLink>
    </div>
    <p v-if="problem || lost" role="alert" class="mb-3 text-bad">{{ problem || lost }}</p>
    <p v-if="done" role="status" class="mb-3">{{ done }}</p>
    <p v-if="!all && !lost" class="py-10 text-soft" role="status">Loading</p>
    <p v-if="all && !all.machines.length" class="py-10 text-soft">
      This service is one machine. <span class="font-mono">docs/cluster.md</span> tells how it becomes several.
    </p>
    <template v-if="all?.machines.length">
      <p class="mb-4 break-all text-soft">
        {{ counted(all.machines.length, 'machine') }} of <b class="font-semibold text-ink">{{ all.cluster }}</b> share
        what is indexed in <span class="font-mono">{{ all.objects }}</span>
      </p>
      <ul class="grid gap-3 lg:grid-cols-2" aria-label="Machines">
        <li
          v-for="one in all.machines"
          :key="one.name"
          class="panel p-4"
          :class="one.state === 'gone' && 'border-bad'"
          :data-machine="one.name"
          :data-state="one.state"
        >
          <div class="flex flex-wrap items-baseline gap-x-3">
            <h2 class="break-all font-semibold">
              <span aria-hidden="true" class="mr-1" :class="one.state === 'gone' && 'text-bad'">{{
                signs[one.state]
              }}</span>{{ one.name }}
            </h2>
            <span v-if="one.isAnswering" class="text-soft">this page is from here</span>
            <span v-if="one.isInCharge" class="text-soft">in charge</span>
            <button
              v-if="one.state !== 'leaving' && all.machines.length > 1"
              type="button"
              class="button ml-auto"
              :disabled="busy"
              @click="retire(one)"
            >
              {{ one.state === 'gone' ? 'Forget' : 'Take out' }}
            </button>
          </div>
          <p class="break-words">
            <span :class="one.state === 'gone' ? 'text-bad' : 'text-soft'">{{ states[one.state] }}</span>
          </p>
          <dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
            <dt class="text-soft">index</dt>
            <dd>{{ counted(one.files, 'file') }}, {{ bytes(one.bytes) }}</dd>
            <dt class="text-soft">on its way here</dt>
            <dd>
              {{ one.missing ? counted(one.missing, 'file') : 'nothing' }}
              <span class="text-soft">({{ bytes(one.brought) }} since its start)</span>
            </dd>
            <dt class="text-soft">mirrors</dt>
            <dd>
              {{ one.mirrors }}<span v-if="one.mirrorsBehind" class="text-bad">, {{ one.mirrorsBehind }} behind</span>
            </dd>
            <template v-if="one.state === 'serving' && !one.isReached">
              <dt class="text-soft">for the others</dt>
              <dd class="break-all text-bad">
                not reached from here<template v-if="one.peerAddress"> at {{ one.peerAddress }}</template>
              </dd>
            </template>
            <dt class="text-soft">joined</dt>
            <dd>{{ date(one.joined) }}</dd>
            <template v-if="one.address">
              <dt class="text-soft">answers at</dt>
              <dd class="break-all">
                <a v-if="one.state !== 'gone'" class="underline" :href="one.address">{{ one.address }}</a><template
                  v-else
                  >{{ one.address }}</template
                >
              </dd>
            </template>
          </dl>
        </li>
      </ul>
      <p class="mt-4 text-soft">
        The machine in charge does what only one does: it asks repositories and rosters whether they have changed, looks
        at watched searches, sends messages, and puts the store in order. When it goes, another takes over.
      </p>
    </template>
  </main>
</template>
