<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

// The keys of the search page.
const open = defineModel<boolean>({ required: true })
const keys: [string, string][] = [
  ['/', 'to the search box'],
  ['Enter, ↓', 'from the box to the first hit'],
  ['↓ ↑', 'next and previous hit; from the box: earlier searches'],
  ['Shift ↓ ↑', 'first hit of the next or previous file'],
  ['Enter', 'opens the hit; the browser’s back returns to it'],
  ['c', 'copies repository/path:line of the hit'],
  ['f', 'folds or unfolds the file of the hit'],
  ['Shift F', 'folds or unfolds all files'],
  ['g', 'folds or unfolds the repository of the hit'],
  ['e', 'more of the file around the hit'],
  ['v', 'shows the file of the hit beside the list, or hides it'],
  ['d', 'dense list, or roomy'],
  ['+ −', 'more or fewer context lines'],
  ['Alt 1 … 9', 'takes a second look after a search that found nothing'],
  ['Alt F, Alt S, Alt C', 'to the files, the symbols, or the commits of such a text'],
  ['Alt L', 'shows what an exclusion set left out'],
  ['n p', 'in a file: next and previous hit'],
  ['b', 'in a file: back to the list'],
  ['o', 'in a file: to the outline'],
  ['l', 'in a file: where each line comes from'],
  ['n p', 'in a difference: next and previous change'],
  ['x', 'in a log: marks a commit; two of them can be compared'],
  ['t', 'in a file: to its test, or from a test to what it tests'],
  ['s', 'in a file: searches for what is selected, or the name that was clicked'],
  ['d', 'in a file: searches for where the selected code is written again'],
  ['Ctrl F', 'in a file: finds within it, or within the selected lines'],
  ['?', 'this list'],
]
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="open = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="panel w-full max-w-md p-4">
        <DialogTitle class="text-lg font-semibold">Keys</DialogTitle>
        <dl class="mt-2 grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1">
          <template v-for="[key, meaning] in keys" :key="key"
            ><dt class="font-mono text-[13px]">{{ key }}</dt>
            <dd class="text-soft">{{ meaning }}</dd></template
          >
        </dl>
        <button type="button" class="button mt-3" @click="open = false">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
