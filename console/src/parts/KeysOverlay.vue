<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { actions, groups, keyFor, printed } from '../keys'

// All keys: those that are fixed, and those that one sets.
const open = defineModel<boolean>({ required: true })
const fixed: [string, string][] = [
  ['Enter, ↓', 'from the box to the first hit'],
  ['↓ ↑', 'next and previous hit; from the box: earlier searches'],
  ['Shift ↓ ↑', 'first hit of the next or previous file'],
  ['Enter', 'opens the hit; the browser’s back returns to it'],
  ['Alt 1 … 9', 'takes a second look after a search that found nothing'],
  ['Alt F, Alt S, Alt C', 'to the files, the symbols, or the commits of such a text'],
  ['Alt L', 'shows what an exclusion set left out'],
  ['Ctrl F', 'in a file: finds within it, or within the selected lines'],
]
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="open = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="panel max-h-full w-full max-w-4xl overflow-y-auto p-4">
        <DialogTitle class="text-lg font-semibold">Keys</DialogTitle>
        <div class="mt-2 columns-2 gap-8 max-sm:columns-1">
          <dl class="mb-3 grid break-inside-avoid grid-cols-[7rem_1fr] gap-x-3 gap-y-0.5">
            <template v-for="[key, meaning] in fixed" :key="key"
              ><dt class="font-mono text-[13px]">{{ key }}</dt>
              <dd class="text-soft">{{ meaning }}</dd></template
            >
          </dl>
          <section v-for="group in groups" :key="group.title" class="mb-3 break-inside-avoid">
            <h3 class="border-b border-rule font-semibold">{{ group.title }}</h3>
            <dl class="grid grid-cols-[7rem_1fr] gap-x-3 gap-y-0.5">
              <template v-for="name in group.names" :key="name"
                ><dt class="font-mono text-[13px]">{{ printed(keyFor(name)) }}</dt>
                <dd class="text-soft">{{ actions[name].meaning }}</dd></template
              >
            </dl>
          </section>
        </div>
        <div class="mt-3 flex gap-2">
          <button type="button" class="button" @click="open = false">Close</button>
          <RouterLink class="button" :to="{ name: 'settings' }">Set them otherwise</RouterLink>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
