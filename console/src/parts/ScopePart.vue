<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'

// A part of the scope's sentence, as a button; what changes it is in the slot, within the window.
defineProps<{ name: string; text: string }>()
const isAtRight = ref(false)
function place(event: MouseEvent) {
  const { left } = (event.currentTarget as HTMLElement).getBoundingClientRect()
  isAtRight.value = left > window.innerWidth / 2
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="part text-left text-ink" :data-part="name" @click="place">{{ text }}</PopoverButton>
    <PopoverPanel
      class="panel absolute z-20 mt-1 w-80 max-w-[calc(100vw-2rem)] p-2 text-ink"
      :class="isAtRight ? 'right-0' : 'left-0'"
      ><slot
    /></PopoverPanel>
  </Popover>
</template>
