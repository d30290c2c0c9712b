<script setup lang="ts">
import { onActivated, onMounted, ref } from 'vue'
import { day } from '../amounts'
import { openedFiles, pinnedFiles, togglePin } from '../opened'
import * as requests from '../requests'
import { everywhere } from '../searchUrl'
import type { FoundCommit } from '../wire'

// What the start page has at hand: pinned files, files opened lately, and what changed lately in the repositories.
const MOST = 8
const pinned = ref<string[]>([])
const opened = ref<string[]>([])
const commits = ref<FoundCommit[]>([])

async function load() {
  pinned.value = pinnedFiles()
  opened.value = openedFiles()
    .filter(name => !pinned.value.includes(name))
    .slice(0, MOST)
  try {
    const nothing = { text: '', reading: 'plain' as const, adds: '', removes: '', after: '', before: '' }
    const found = await requests.findCommits(
      { ...nothing, by: [], touches: [], scope: everywhere() },
      new AbortController().signal,
      { limit: MOST },
    )
    commits.value = found.commits
  } catch {
    commits.value = [] // the page says elsewhere that the service is gone
  }
}
onMounted(() => void load())
onActivated(() => void load())

const place = (name: string) => {
  const slash = name.indexOf('/')
  return { name: 'file', query: { in: name.slice(0, slash), path: name.slice(slash + 1) } }
}
</script>

<template>
  <div
    v-if="pinned.length || opened.length || commits.length"
    class="mb-8 grid gap-x-10 gap-y-6 text-ink md:grid-cols-2"
    data-part="at-hand"
  >
    <div v-if="pinned.length || opened.length" class="min-w-0">
      <section v-if="pinned.length" class="mb-4" aria-labelledby="pinned" data-part="pinned">
        <h2 id="pinned" class="font-semibold">Pinned files</h2>
        <ul>
          <li v-for="name in pinned" :key="name" class="flex items-baseline gap-3 py-0.5">
            <span class="min-w-0 grow"
              ><RouterLink :to="place(name)" class="part font-mono text-[13px] break-all">{{ name }}</RouterLink></span
            >
            <button
              type="button"
              class="part text-soft"
              :aria-label="`Take ${name} off`"
              @click="pinned = togglePin(name)"
            >
              Take off
            </button>
          </li>
        </ul>
      </section>
      <section v-if="opened.length" aria-labelledby="opened" data-part="opened">
        <h2 id="opened" class="font-semibold">Opened lately</h2>
        <ul>
          <li v-for="name in opened" :key="name" class="py-0.5">
            <RouterLink :to="place(name)" class="part font-mono text-[13px] break-all">{{ name }}</RouterLink>
          </li>
        </ul>
      </section>
    </div>
    <section v-if="commits.length" class="min-w-0" aria-labelledby="changed" data-part="changed">
      <h2 id="changed" class="font-semibold">Changed lately</h2>
      <ul>
        <li v-for="{ commit } in commits" :key="commit.repository + commit.id" class="flex items-baseline gap-3 py-0.5">
          <span class="min-w-0 grow truncate"
            ><RouterLink :to="{ name: 'commit', query: { in: commit.repository, id: commit.id } }" class="part">{{
              commit.summary
            }}</RouterLink></span
          >
          <span class="shrink-0 text-soft">{{ commit.repository }}, {{ day(commit.authored.slice(0, 10)) }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>
