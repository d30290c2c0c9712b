<script setup lang="ts">
// The search on the screen, as an expression: to learn from, to copy, to go on with.
defineProps<{ expression: string }>()
defineEmits<{ edit: [] }>()
</script>

<template>
  <p class="flex min-w-0 items-baseline gap-2 text-soft" data-part="expression">
    <span class="shrink-0">As an expression:</span>
    <code class="truncate font-mono text-[13px] text-ink" :title="expression">{{ expression }}</code>
    <button type="button" class="button shrink-0 py-0 text-ink" @click="$emit('edit')">Edit</button>
  </p>
</template>
