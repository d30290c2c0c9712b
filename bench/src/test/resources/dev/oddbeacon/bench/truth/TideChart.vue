<!-- const ghost = 1 -->
<script lang="ts">
import { type Ebb, surge } from './tides'
export type { Ebb }
export default { name: 'TideChart' }
export const LONGEST = 24
</script>

<script setup lang="ts" generic="T extends Ebb">
import type { Flow } from './flow'
import { computed, type Ref } from 'vue'

interface Slots {
  default?: (props: { level: number }) => unknown
  'empty'?: () => unknown
  export(): string
  new (at: number): Slots
  type: string
}
type Row<K = string>
  = { key: K; level: number }
enum Side { Port = '</template>', Starboard = 'b' }

const props = defineProps<{ rows: Row[]; title?: string }>()
const { title: heading = 'Tides', ...others } = props
const [first] = props.rows
const levels = computed(() => {
  const inner = props.rows.map(({ level }) => level)
  return inner
})
let later: Ref<number> | undefined
async function* read<U extends Flow>(at: U): AsyncGenerator<U> { yield at }
class Gauge { static default = 1; default() { return `x ${this.#level} { }` } #level = 2; get type() { return 'x' } }
declare global { interface Window { tide: number } }
</script>

<template>
  <section id="tide-chart" :id="levels" @click="function no() {}">
    <p v-if="first > 1" id='level' class="id">{{ heading }} id="no"</p>
    <template #default="{ level }"><i id = "wide"
      data-id="no" /></template>
    <slot name="empty"></slot>
  </section>
</template>

<style scoped>
.chart { color: red }
</style>
