<script setup lang="ts">
import { useLayout } from '../state/layout'
import PaneEdge from './PaneEdge.vue'

// The place of a preview beside a list, as wide as one draws it.
const { layout } = useLayout()
</script>

<template>
  <PaneEdge class="-mx-4 max-md:hidden" pane="preview" label="Width of the preview" :least="260" :most="1100" />
  <div
    class="w-[46%] shrink-0 max-md:hidden"
    :style="layout.widths.preview ? { width: `min(${layout.widths.preview}px, 75%)` } : {}"
  >
    <slot />
  </div>
</template>
