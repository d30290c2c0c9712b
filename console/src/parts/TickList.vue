<script setup lang="ts">
import { computed } from 'vue'
import { toggled } from '../toggled'

// Values to tick, with a field that filters long lists.
const values = defineModel<string[]>({ required: true })
/** What is typed into the field; whoever passes it on filters the options. */
const filter = defineModel<string>('filter', { default: '' })
const props = defineProps<{
  options: { value: string; title?: string }[]
  what: string
  /** Whether the options are filtered already. */
  filtered?: boolean
}>()
const MANY = 8
const shown = computed(() => {
  const wanted = filter.value.toLowerCase()
  const fits = props.filtered
    ? props.options
    : props.options.filter(option => `${option.value} ${option.title ?? ''}`.toLowerCase().includes(wanted))
  return [
    ...fits.filter(option => values.value.includes(option.value)),
    ...fits.filter(option => !values.value.includes(option.value)),
  ]
})
function toggle(value: string) {
  values.value = toggled(values.value, value)
}
</script>

<template>
  <input
    v-if="filter || options.length > MANY"
    v-model="filter"
    class="field mb-1"
    :placeholder="`Filter ${what}`"
    :aria-label="`Filter ${what}`"
  />
  <div class="max-h-72 overflow-y-auto">
    <label
      v-for="option in shown"
      :key="option.value"
      class="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-shade"
    >
      <input
        type="checkbox"
        class="accent-[var(--accent)]"
        :checked="values.includes(option.value)"
        @change="toggle(option.value)"
      />
      <span class="truncate">{{ option.value }}</span><span
        v-if="option.title && option.title !== option.value"
        class="truncate text-soft"
        >{{ option.title }}</span
      >
    </label>
    <p v-if="!shown.length" class="px-1 py-2 text-soft">None of the {{ what }} fits.</p>
  </div>
</template>
