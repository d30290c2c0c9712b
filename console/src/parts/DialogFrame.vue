<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

// A dialog over the page, with its title; Escape and a click beside it close it.
defineProps<{ open: boolean; title: string; narrow?: boolean }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="$emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-[10vh]">
      <DialogPanel class="panel w-full p-5 text-ink" :class="narrow ? 'max-w-md' : 'max-w-lg'">
        <DialogTitle class="text-lg font-semibold">{{ title }}</DialogTitle>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
