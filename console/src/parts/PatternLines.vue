<script setup lang="ts">
// A list of patterns, one a line.
const values = defineModel<string[]>({ required: true })
defineProps<{ label: string; placeholder: string; rows: number }>()
const lines = (text: string) =>
  text
    .split('\n')
    .map(line => line.trim())
    .filter(Boolean)
</script>

<template>
  <label class="mb-2 block"
    >{{ label }}
    <textarea
      class="field mt-1 font-mono"
      :rows="rows"
      :value="values.join('\n')"
      :placeholder="placeholder"
      @change="values = lines(($event.target as HTMLTextAreaElement).value)"
    />
  </label>
</template>
