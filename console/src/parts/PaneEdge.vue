<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Pane, useLayout } from '../state/layout'
import { without } from '../toggled'

// The edge between two panes: it is dragged, or moved with the arrow keys; two clicks give the pane its usual width.
const props = defineProps<{ pane: Pane; label: string; least: number; most: number; before?: boolean }>()
const STEP = 16 // pixels
const { layout } = useLayout()
const edge = ref<HTMLElement>()
const width = computed(() => layout.widths[props.pane])

/** The pane stands before the edge, or after it. */
const own = () => {
  const { previousElementSibling, nextElementSibling } = edge.value!
  return (props.before ? previousElementSibling : nextElementSibling)!.getBoundingClientRect().width
}
function set(pixels: number) {
  layout.widths = {
    ...layout.widths,
    [props.pane]: Math.round(Math.min(props.most, Math.max(props.least, pixels))),
  }
}
function usual() {
  layout.widths = without(layout.widths, props.pane)
}
function key(event: KeyboardEvent) {
  const way = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
  if (way) set(own() + STEP * (props.before ? way : -way))
  else if (event.key === 'Home') usual()
  else return
  event.preventDefault()
  event.stopPropagation()
}
let from: { x: number; width: number } | undefined
function grasp(event: PointerEvent) {
  from = { x: event.clientX, width: own() }
  edge.value?.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (from) set(from.width + (event.clientX - from.x) * (props.before ? 1 : -1))
}
function release() {
  from = undefined
}
</script>

<template>
  <div
    ref="edge"
    role="separator"
    aria-orientation="vertical"
    tabindex="0"
    class="w-1.5 shrink-0 cursor-col-resize touch-none rounded hover:bg-accent focus-visible:bg-accent"
    :aria-label="label"
    :aria-valuenow="width ?? 0"
    :aria-valuemin="least"
    :aria-valuemax="most"
    :data-edge="pane"
    title="Drag, or use the arrow keys; two clicks for the usual width"
    @pointerdown.prevent="grasp"
    @pointermove="drag"
    @pointerup="release"
    @pointercancel="release"
    @dblclick="usual"
    @keydown="key"
  />
</template>
