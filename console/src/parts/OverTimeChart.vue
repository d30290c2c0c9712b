<script setup lang="ts">
import uPlot from 'uplot'
import { ref } from 'vue'
import { colour, seconds, usePlot } from '../plot'
import type { OverTimeOfRepository } from '../wire'

// How many matching lines there were over time, a line for each repository. Dashes tell them apart as well as colours.
const props = defineProps<{ courses: OverTimeOfRepository[] }>()
const MOST = 6
const HEIGHT = 190
const DASHES = [[], [7, 4], [2, 3], [10, 3, 2, 3], [5, 2], [1, 4]]
const COLOURS = ['--accent', '--line-2', '--line-3', '--line-4', '--line-5', '--line-6']
const host = ref<HTMLElement>()

usePlot(
  host,
  HEIGHT,
  () => props.courses,
  () => {
    const shown = props.courses.slice(0, MOST)
    const days = [...new Set(shown.flatMap(course => course.points.map(point => point.day)))].sort()
    if (!days.length) return undefined
    const today = new Date().toISOString().slice(0, 10)
    if (days[days.length - 1]! < today) days.push(today)
    const values = shown.map(course => {
      const byDay = new Map(course.points.map(point => [point.day, point.lines]))
      let lines = 0
      return days.map((day, i) => (lines = i === days.length - 1 ? course.now : (byDay.get(day) ?? lines)))
    })
    return {
      data: [days.map(seconds), ...values] as uPlot.AlignedData,
      options: {
        cursor: { y: false, drag: { x: false, y: false } },
        scales: { y: { range: (_, __, max) => [0, Math.max(1, Math.ceil(max * 1.05))] } },
        series: [
          {},
          ...shown.map((course, i) => ({
            label: course.repository,
            stroke: colour(COLOURS[i]!),
            width: 2,
            dash: DASHES[i]!,
            points: { show: false },
            paths: uPlot.paths.stepped!({ align: 1 }),
          })),
        ],
      },
    }
  },
)
</script>

<template>
  <figure aria-label="Matching lines over time, by repository" data-part="course">
    <div ref="host" class="h-[190px]" />
    <figcaption class="flex flex-wrap gap-x-4 text-[13px]">
      <span v-for="(course, i) in courses.slice(0, MOST)" :key="course.repository" class="flex items-center gap-1.5"
        ><svg width="26" height="4" aria-hidden="true">
          <line
            x1="0"
            y1="2"
            x2="26"
            y2="2"
            stroke-width="2"
            :stroke="`var(${COLOURS[i]})`"
            :stroke-dasharray="DASHES[i]!.join(' ')"
          /></svg
        >{{ course.repository }}<span class="text-soft">now {{ course.now }}</span></span
      >
      <span v-if="courses.length > MOST" class="text-soft"
        >and {{ courses.length - MOST }} repositories more, not drawn</span
      >
    </figcaption>
  </figure>
</template>

<style>
:root {
  --line-2: #1f5f8b;
  --line-3: #2f6b3c;
  --line-4: #7a4a8c;
  --line-5: #5a6168;
  --line-6: #a3261d;
}
[data-theme='night'] {
  --line-2: #8cc4ee;
  --line-3: #86c794;
  --line-4: #cfa4df;
  --line-5: #9aa0a6;
  --line-6: #ff8a7a;
}
</style>
