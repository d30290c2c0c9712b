<script setup lang="ts" generic="V extends string">
// One of a few, side by side.
const chosen = defineModel<V>({ required: true })
defineProps<{ label: string; choices: readonly { value: V; title: string; explains?: string }[] }>()
</script>

<template>
  <div
    class="flex min-h-7 items-stretch overflow-hidden rounded-md border border-rule max-md:flex-wrap"
    role="radiogroup"
    :aria-label="label"
  >
    <button
      v-for="({ value, title, explains }, i) in choices"
      :key="value"
      type="button"
      role="radio"
      class="option"
      :class="{ 'border-l': i }"
      :aria-checked="chosen === value"
      :data-on="chosen === value"
      :data-option="value"
      :title="explains"
      @click="chosen = value"
    >
      {{ title }}
    </button>
  </div>
</template>
