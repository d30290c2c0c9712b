<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { editorLink, editorSettings } from '../editorLinks'
import { rawAddress } from '../requests'

// Where one can go from a file of a list, beside opening it.
const props = defineProps<{ repository: string; path: string; rev: string; line?: number }>()
const link = computed(() => editorLink(editorSettings(), props))
const file = computed(() => ({ in: props.repository, path: props.path, rev: props.rev }))
const name = computed(() => props.path.slice(props.path.lastIndexOf('/') + 1))

// Lists have many of them: each is a mere button until somebody comes near.
const isNear = ref(false)
const opener = useTemplateRef<InstanceType<typeof MenuButton>>('opener')
async function open() {
  isNear.value = true
  await nextTick()
  ;(opener.value?.$el as HTMLElement | undefined)?.click()
}
const BUTTON = 'shrink-0 rounded px-1 font-sans leading-none text-soft hover:bg-shade hover:text-ink'
const style = (active: boolean) => [
  'block w-full whitespace-nowrap rounded px-2 py-0.5 text-left',
  { 'bg-shade': active },
]
</script>

<template>
  <button
    v-if="!isNear"
    type="button"
    tabindex="-1"
    :class="BUTTON"
    :aria-label="`More of ${path}`"
    aria-haspopup="menu"
    title="Log, blame, download, your editor"
    data-part="file-menu"
    @pointerenter="isNear = true"
    @click="open"
  >
    ⋯
  </button>
  <Menu v-else as="div" class="relative shrink-0 font-sans">
    <MenuButton
      ref="opener"
      tabindex="-1"
      :class="BUTTON"
      :aria-label="`More of ${path}`"
      title="Log, blame, download, your editor"
      data-part="file-menu"
      >⋯</MenuButton
    >
    <MenuItems class="panel absolute right-0 z-30 mt-1 p-1 text-[14px] focus:outline-none">
      <MenuItem v-slot="{ active }"
        ><RouterLink :class="style(active)" :to="{ name: 'log', query: file }" data-go="log">Log</RouterLink></MenuItem
      >
      <MenuItem v-slot="{ active }"
        ><RouterLink
          :class="style(active)"
          :to="{ name: 'file', query: { ...file, ...(line ? { line: String(line) } : {}), blame: 'true' } }"
          data-go="blame"
          >Blame</RouterLink
        ></MenuItem
      >
      <MenuItem v-slot="{ active }"
        ><a :class="style(active)" :href="rawAddress(repository, path, rev)" :download="name" data-go="download"
          >Download</a
        ></MenuItem
      >
      <MenuItem v-slot="{ active }"
        ><a v-if="link" :class="style(active)" :href="link" data-go="editor">Open in your editor</a
        ><RouterLink v-else :class="style(active)" :to="{ name: 'settings' }" data-go="settings"
          >Say how your editor is opened</RouterLink
        ></MenuItem
      >
    </MenuItems>
  </Menu>
</template>
