<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { nextTick, ref, watch } from 'vue'
import { counted, day } from '../amounts'
import * as requests from '../requests'
import type { Revision } from '../wire'

// Branches and tags by a few letters, each with its latest commit; or any other revision, as it is typed.
const props = defineProps<{ repository: string; current: string; label?: string }>()
const emit = defineEmits<{ choose: [revision: string] }>()
const text = ref('')
const found = ref<Revision[]>([])
const total = ref(0)
const problem = ref('')
const box = ref<HTMLInputElement>()
let asking = new AbortController()

async function look() {
  asking.abort()
  const own = (asking = new AbortController())
  try {
    const answer = await requests.revisions(props.repository, text.value, own.signal)
    if (own !== asking) return
    found.value = answer.revisions
    total.value = answer.total
    problem.value = ''
  } catch (error) {
    if (!own.signal.aborted) problem.value = (error as Error).message
  }
}
watch(text, look)
function opened() {
  text.value = ''
  void look()
  void nextTick(() => box.value?.focus())
}
function choose(revision: string, close: () => void) {
  close()
  emit('choose', revision)
}
function keys(event: KeyboardEvent, close: () => void) {
  const entries = [...((event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('button.revision') ?? [])]
  const at = entries.indexOf(document.activeElement as HTMLElement)
  if (event.key === 'ArrowDown') entries[at + 1]?.focus()
  else if (event.key === 'ArrowUp') (entries[at - 1] ?? box.value)?.focus()
  else if (event.key === 'Enter' && event.target === box.value && text.value.trim())
    choose(found.value[0]?.name ?? text.value.trim(), close)
  else return
  event.preventDefault()
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="part text-ink" data-part="revision" @click="opened">{{ label ?? current }}</PopoverButton>
    <PopoverPanel v-slot="{ close }" focus class="panel absolute left-0 z-30 mt-1 w-96 max-w-[calc(100vw-2rem)] p-2">
      <div @keydown="keys($event, close)">
        <input
          ref="box"
          v-model="text"
          class="field font-mono text-[13px]"
          placeholder="Branch or tag by a few letters, or a commit"
          aria-label="Branch, tag or commit"
          spellcheck="false"
        />
        <p v-if="problem" class="mt-1 text-bad">{{ problem }}</p>
        <ul class="mt-1 max-h-80 overflow-y-auto">
          <li v-for="one in found" :key="one.kind + one.name">
            <button
              type="button"
              class="revision block w-full rounded px-1.5 py-1 text-left hover:bg-shade focus-visible:bg-shade"
              :aria-current="one.name === current || undefined"
              @click="choose(one.name, close)"
            >
              <span class="flex gap-2"
                ><span class="min-w-0 truncate font-mono text-[13px]" :class="{ 'font-bold': one.name === current }">{{
                  one.name
                }}</span
                ><span class="ml-auto shrink-0 text-[12px] text-soft"
                  >{{ one.kind }}{{ one.indexed ? ', searched' : '' }}</span
                ></span
              >
              <span class="block truncate text-[12px] text-soft"
                >{{ day(one.committed) }}, {{ one.author }}: {{ one.summary }}</span
              >
            </button>
          </li>
          <li v-if="total > found.length" class="px-1.5 text-[12px] text-soft">
            {{ counted(total - found.length, 'other') }}; more letters find them.
          </li>
          <li v-if="!found.length && text.trim()" class="px-1.5 py-1 text-soft">
            No branch or tag has that in its name.
            <button type="button" class="part" @click="choose(text.trim(), close)">Take it as a commit</button>
          </li>
        </ul>
      </div>
    </PopoverPanel>
  </Popover>
</template>
