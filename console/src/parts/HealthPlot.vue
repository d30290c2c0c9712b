<script setup lang="ts">
import uPlot from 'uplot'
import { computed, ref } from 'vue'
import { colour, usePlot } from '../plot'
import { gapped, moment, type Figure } from '../health'
import type { HealthReading } from '../wire'

// One or two figures of the service over time; where there was no service, there is a gap.
// The whole of the time that was asked for is drawn, however little of it is known.
const props = defineProps<{ figure: Figure; past: HealthReading[]; now: HealthReading; seconds: number }>()
const HEIGHT = 110
const host = ref<HTMLElement>()

const times = computed(() => gapped(props.past))
usePlot(
  host,
  HEIGHT,
  () => props.past,
  () => {
    if (props.past.length < 2) return undefined
    const limit = props.figure.limit?.(props.now)
    const lines = props.figure.lines
    return {
      data: [
        times.value.map(([time]) => time),
        ...lines.map(line => times.value.map(([, reading]) => (reading ? line.of(reading) : null))),
        ...(limit ? [times.value.map(() => limit)] : []),
      ] as uPlot.AlignedData,
      options: {
        cursor: { y: false, drag: { x: false, y: false } },
        tzDate: time => new Date(time * 1000),
        scales: {
          x: { range: () => [Date.parse(props.now.at) / 1000 - props.seconds, Date.parse(props.now.at) / 1000] },
          y: { range: (_, __, max) => [0, Math.max(props.figure.least, max * 1.08)] },
        },
        axes: [
          {
            stroke: colour('--soft'),
            grid: { show: false },
            ticks: { stroke: colour('--rule') },
            font: '11px IBM Plex Sans',
            size: 28,
            space: 64,
            values: (plot: uPlot, times: number[]) => times.map(time => moment(time, plot.scales.x!)),
          },
          {
            stroke: colour('--soft'),
            grid: { stroke: colour('--rule'), width: 1 },
            ticks: { show: false },
            font: '11px IBM Plex Sans',
            size: 54,
            space: 28,
            values: (_: uPlot, values: number[]) => values.map(props.figure.shown),
          },
        ],
        series: [
          {},
          ...lines.map((_, i) => ({
            stroke: colour(i ? '--line-2' : '--accent'),
            width: 1.5,
            dash: i ? [5, 3] : [],
            points: { show: false },
          })),
          ...(limit ? [{ stroke: colour('--bad'), width: 1, dash: [2, 3], points: { show: false } }] : []),
        ],
      },
    }
  },
)
</script>

<template>
  <figure :data-figure="figure.name" class="min-w-0 rounded border border-rule bg-sheet p-3">
    <figcaption class="mb-1 flex flex-wrap items-baseline gap-x-3">
      <span class="font-semibold">{{ figure.name }}</span>
      <span v-for="(line, i) in figure.lines" :key="line.name" class="flex items-center gap-1.5 text-[13px]">
        <svg v-if="figure.lines.length > 1" width="22" height="4" aria-hidden="true">
          <line
            x1="0"
            y1="2"
            x2="22"
            y2="2"
            stroke-width="2"
            :stroke="i ? 'var(--line-2)' : 'var(--accent)'"
            :stroke-dasharray="i ? '5 3' : ''"
          /></svg
        ><span class="text-soft">{{ line.name }}</span>
        <span class="tabular-nums">{{ line.of(now) === null ? '–' : figure.shown(line.of(now)!) }}</span>
      </span>
      <span v-if="figure.limit" class="flex items-center gap-1.5 text-[13px] text-soft"
        ><svg width="22" height="4" aria-hidden="true">
          <line x1="0" y1="2" x2="22" y2="2" stroke-width="2" stroke="var(--bad)" stroke-dasharray="2 3" /></svg
        >at most {{ figure.shown(figure.limit(now)) }}</span
      >
    </figcaption>
    <div v-if="past.length > 1" ref="host" class="h-[110px]" :aria-label="`${figure.name} over time`" role="img" />
    <p v-else class="flex h-[110px] items-center text-soft">The first readings come within two minutes.</p>
  </figure>
</template>
