<script setup lang="ts">
import { computed } from 'vue'
import { visible } from '../visible'
import type { Match } from '../wire'

// A text with its matches, and with its comments and strings if they are known: start, end and kind, one after the other.
const props = defineProps<{ text: string; matches: Match[]; offset?: number; regions?: number[] }>()

const REGIONS = ['', 'region-comment', 'region-string']

interface Piece {
  text: string
  match: boolean
  region: string
}
const pieces = computed(() => {
  const { text, matches, regions = [], offset = 0 } = props
  const result: Piece[] = []
  let at = 0
  let match = 0
  let region = 0
  while (at < text.length) {
    while (match < matches.length && matches[match]!.end - offset <= at) match++
    while (region < regions.length && regions[region + 1]! - offset <= at) region += 3
    const [start, end] =
      match < matches.length
        ? [matches[match]!.start - offset, matches[match]!.end - offset]
        : [text.length, text.length]
    const [from, to] =
      region < regions.length ? [regions[region]! - offset, regions[region + 1]! - offset] : [text.length, text.length]
    const until = Math.min(text.length, start > at ? start : end, from > at ? from : to)
    result.push({
      text: visible(text.slice(at, until)),
      match: start <= at,
      region: from <= at ? REGIONS[regions[region + 2]!]! : '',
    })
    at = until
  }
  return result
})
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i"
    ><mark v-if="piece.match" :class="piece.region">{{ piece.text }}</mark
    ><span v-else-if="piece.region" :class="piece.region">{{ piece.text }}</span
    ><template v-else>{{ piece.text }}</template></template
  >
</template>
