<script setup lang="ts" generic="R extends string">
// How the text is read, where that is seldom changed.
const reading = defineModel<R>({ required: true })
defineProps<{ readings: readonly { value: R; title: string }[] }>()
</script>

<template>
  <label class="flex items-center gap-1 text-soft"
    >read as
    <select v-model="reading" class="rounded border border-rule bg-sheet px-1 py-1 text-ink" data-part="reading">
      <option v-for="{ value, title } in readings" :key="value" :value="value">{{ title.toLowerCase() }}</option>
    </select></label
  >
</template>
