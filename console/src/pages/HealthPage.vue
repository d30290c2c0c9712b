<script setup lang="ts">
import { ref, watch } from 'vue'
import { useAgain } from '../again'
import { bytes, counted, date } from '../amounts'
import { figures } from '../health'
import HealthPlot from '../parts/HealthPlot.vue'
import * as requests from '../requests'

// How the service is, for whoever runs it: what is wrong first, then every figure over time.
const EACH = 30_000
const times = { hour: 'an hour', day: 'a day', month: '30 days' } as const
const seconds = { hour: 3600, day: 86_400, month: 30 * 86_400 }
type Time = keyof typeof times
const over = ref<Time>('hour')
const machines = ref(0)
const {
  answer: health,
  problem,
  load,
} = useAgain(async () => {
  machines.value = (await requests.machines()).machines.length
  return requests.health(over.value)
}, EACH)
watch(over, load)
</script>

<template>
  <main class="mx-auto max-w-6xl px-4 pb-24">
    <div class="flex flex-wrap items-center gap-3 py-4">
      <h1 class="text-lg font-semibold">Health</h1>
      <div role="group" aria-label="Time" class="flex gap-1">
        <button
          v-for="(title, time) in times"
          :key="time"
          type="button"
          class="button"
          :aria-pressed="over === time"
          :class="over === time && 'border-ink font-semibold'"
          @click="over = time"
        >
          {{ title }}
        </button>
      </div>
      <RouterLink v-if="machines" class="button ml-auto" :to="{ name: 'machines' }">{{
        counted(machines, 'machine')
      }}</RouterLink>
      <span v-if="health" :class="!machines && 'ml-auto'" class="text-soft"
        >running since {{ date(health.started) }}</span
      >
    </div>
    <p v-if="problem" role="alert" class="mb-3 text-bad">{{ problem }}</p>
    <p v-if="!health && !problem" class="py-10 text-soft" role="status">Loading</p>
    <template v-if="health">
      <p v-if="!health.findings.length" class="mb-5 rounded border border-rule bg-sheet px-3 py-2" data-part="well">
        <span aria-hidden="true" class="mr-2">●</span>All is well.
      </p>
      <ul v-else class="mb-5 space-y-2" aria-label="Findings">
        <li
          v-for="(finding, i) in health.findings"
          :key="i"
          :data-level="finding.level"
          class="rounded border bg-sheet px-3 py-2"
          :class="finding.level === 'act' ? 'border-bad' : 'border-rule'"
        >
          <p class="break-words">
            <span class="mr-2 whitespace-nowrap font-semibold" :class="finding.level === 'act' && 'text-bad'"
              ><span aria-hidden="true">{{ finding.level === 'act' ? '▲' : '△' }}</span>
              {{ finding.level === 'act' ? 'act' : 'watch' }}</span
            >{{ finding.what }}
          </p>
          <p class="break-words text-soft">{{ finding.advice }}</p>
        </li>
      </ul>
      <table v-if="health.processes.length > 1" class="mb-5 w-full text-left" data-part="processes">
        <caption class="sr-only">
          Processes that work on the index
        </caption>
        <thead class="text-soft">
          <tr>
            <th scope="col" class="pr-4 font-normal">process</th>
            <th scope="col" class="pr-4 font-normal">duties</th>
            <th scope="col" class="pr-4 font-normal">since</th>
            <th scope="col" class="text-right font-normal">heap</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="process in health.processes" :key="`${process.host} ${process.pid}`" class="border-t border-rule">
            <td class="break-all pr-4">{{ process.pid }} on {{ process.host }}</td>
            <td class="pr-4">{{ process.duties.join(', ') }}</td>
            <td class="pr-4">{{ date(process.started) }}</td>
            <td class="text-right">{{ bytes(process.heapBytes) }} of {{ bytes(process.heapLimitBytes) }}</td>
          </tr>
        </tbody>
      </table>
      <div class="grid grid-cols-1 gap-3 md:grid-cols-2">
        <HealthPlot
          v-for="figure in figures"
          :key="figure.name"
          :figure="figure"
          :past="health.past"
          :now="health.now"
          :seconds="seconds[over]"
        />
      </div>
    </template>
  </main>
</template>
