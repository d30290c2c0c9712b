<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'

// A part of the scope's sentence, as a button; what changes it is in the slot.
defineProps<{ name: string; text: string }>()
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="part text-left text-ink" :data-part="name">{{ text }}</PopoverButton>
    <PopoverPanel class="panel absolute left-0 z-20 mt-1 w-80 max-w-[calc(100vw-2rem)] p-2 text-ink"
      ><slot
    /></PopoverPanel>
  </Popover>
</template>
