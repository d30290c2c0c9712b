<script setup lang="ts">
import { keyFor } from '../keys'
import AtHand from './AtHand.vue'
import SavedSearches from './SavedSearches.vue'

// What stands below an empty search box: what is kept, and how to begin.
</script>

<template>
  <section class="py-10 text-soft">
    <SavedSearches />
    <AtHand />
    <p>
      Type or paste what you saw: a sentence, an address, a path, code. It is looked for exactly as it stands, with
      nothing to escape.
    </p>
    <ul class="mt-3 space-y-1">
      <li>
        <kbd class="rounded border border-rule px-1 font-mono">Enter</kbd> or
        <kbd class="rounded border border-rule px-1 font-mono">↓</kbd> goes from the box to the first hit,
        <kbd class="rounded border border-rule px-1 font-mono">{{ keyFor('box') }}</kbd> back to the box,
        <kbd class="rounded border border-rule px-1 font-mono">↓</kbd>{{ ' ' }}
        <kbd class="rounded border border-rule px-1 font-mono">↑</kbd> from hit to hit,
        <kbd class="rounded border border-rule px-1 font-mono">Enter</kbd> opens it, and the browser's back returns.
        <kbd class="rounded border border-rule px-1 font-mono">{{ keyFor('keys') }}</kbd> lists all keys.
      </li>
      <li>
        <kbd class="rounded border border-rule px-1 font-mono">↑</kbd> in the box brings earlier searches back.
        <RouterLink :to="{ name: 'learn' }" class="part">How to ask</RouterLink> shows the three ways a text is read.
      </li>
      <li>
        A line break in the text (<kbd class="rounded border border-rule px-1 font-mono">Shift Enter</kbd>, or pasted)
        finds lines that follow each other.
      </li>
    </ul>
  </section>
</template>
