<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'
import { counted } from '../amounts'
import CodePreview from '../parts/CodePreview.vue'
import PaneEdge from '../parts/PaneEdge.vue'
import { useLayout } from '../state/layout'
import { usePlaces } from '../state/places'
import { visible } from '../visible'
import type { Place } from '../wire'

// A build log or a stack trace, pasted; the places it names become a list to step through.
const state = usePlaces()
const { layout } = useLayout()
const writing = ref(!state.text)
const all = ref(false)
const chosen = reactive(new Map<string, number>()) // by path as it is named, which of several files is meant
const shown = computed(() =>
  (state.answer?.places ?? [])
    .map((place, index) => ({ place, index }))
    .filter(({ place }) => all.value || place.files.length),
)
const current = computed(() => state.answer?.places[state.at])
const file = computed(() => (current.value ? fileOf(current.value) : undefined))
const range = computed(() =>
  current.value && current.value.line > 0 ? { from: current.value.line, to: current.value.line } : undefined,
)
const lost = computed(() => (state.answer ? state.answer.places.length - state.answer.matched : 0))

function fileOf(place: Place) {
  return place.files[chosen.get(place.named) ?? 0]
}
async function read() {
  chosen.clear()
  await state.read()
  if (state.answer?.places.length) {
    writing.value = false
    await nextTick()
    focus()
  }
}
function focus() {
  const target = document.querySelector<HTMLElement>(`[data-place="${state.at}"]`)
  target?.focus({ preventScroll: true })
  target?.scrollIntoView({ block: 'nearest' })
}
function step(by: number) {
  const next = shown.value[shown.value.findIndex(({ index }) => index === state.at) + by]
  if (!next) return
  state.at = next.index
  void nextTick(focus)
}
function keys(event: KeyboardEvent) {
  if (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    event.target instanceof HTMLTextAreaElement ||
    event.target instanceof HTMLSelectElement ||
    writing.value
  )
    return
  if (event.key === 'ArrowDown' || event.key === 'n') step(1)
  else if (event.key === 'ArrowUp' || event.key === 'p') step(-1)
  else return
  event.preventDefault()
}
const link = (place: Place) => {
  const meant = fileOf(place)!
  return {
    name: 'file',
    query: {
      in: meant.repository,
      path: meant.path,
      rev: meant.branch,
      ...(place.line ? { line: String(place.line) } : {}),
    },
  }
}
watch(all, () => {
  if (!shown.value.some(({ index }) => index === state.at)) state.at = shown.value[0]?.index ?? 0
})
onMounted(() => {
  window.addEventListener('keydown', keys)
  if (state.text) void state.read(state.at).then(() => nextTick(focus))
})
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <main class="mx-auto flex max-w-[92rem] flex-col px-4 pb-3" :class="writing ? '' : 'h-[calc(100vh-3rem)]'">
    <section v-if="writing" class="py-4">
      <label class="block"
        ><span class="text-lg font-semibold">A build log, a stack trace, a list of places</span>
        <span class="mt-1 block text-soft"
          >Whatever names files and lines: <code class="font-mono">path:line:column</code>,
          <code class="font-mono">path(line,column)</code>, <code class="font-mono">File "path", line 12</code>,
          <code class="font-mono">at some.Class.method(File.java:12)</code>. They become a list to step through.</span
        >
        <textarea
          v-model="state.text"
          rows="16"
          class="field mt-3 block font-mono text-[13px]"
          spellcheck="false"
          autofocus
          placeholder="Paste it here"
          data-part="log"
          @keydown.ctrl.enter="read"
          @paste="nextTick(read)"
        />
      </label>
      <p v-if="state.problem" role="alert" class="mt-1 text-bad">{{ state.problem }}</p>
      <p v-else-if="state.answer && !state.answer.places.length" role="alert" class="mt-1 text-bad">
        This text names no places.
      </p>
      <p class="mt-2 flex items-center gap-3">
        <button type="button" class="button-strong" @click="read">Find the places</button
        ><span class="text-soft">or Ctrl Enter</span>
      </p>
    </section>
    <template v-else>
      <div class="flex flex-wrap items-center gap-x-4 gap-y-1 py-2" aria-live="polite">
        <p v-if="state.answer" data-part="counts">
          <strong class="font-semibold">{{ counted(state.answer.matched, 'place') }} in indexed files</strong
          ><span v-if="state.answer.more" class="text-accent">
            of the first {{ counted(state.answer.places.length, 'place') }}</span
          >
        </p>
        <p v-else-if="state.problem" role="alert" class="text-bad">{{ state.problem }}</p>
        <label v-if="lost" class="text-soft"
          ><input v-model="all" type="checkbox" class="accent-[var(--accent)]" /> also
          {{ counted(lost, 'place') }} elsewhere</label
        >
        <span class="ml-auto text-soft max-md:hidden"
          ><kbd class="rounded border border-rule px-1 font-mono">↓</kbd>{{ ' ' }}
          <kbd class="rounded border border-rule px-1 font-mono">↑</kbd> step,
          <kbd class="rounded border border-rule px-1 font-mono">Enter</kbd> opens</span
        >
        <button type="button" class="button" data-part="other" @click="writing = true">Another text</button>
      </div>
      <div class="flex min-h-0 flex-1 gap-1 max-lg:grid max-lg:grid-rows-[2fr_3fr]">
        <ol
          class="min-h-0 shrink-0 overflow-y-auto rounded-md border border-rule bg-sheet max-lg:w-auto! lg:w-[40%]"
          :style="layout.widths.places ? { width: `min(${layout.widths.places}px, 75%)` } : {}"
          aria-label="Places"
        >
          <li
            v-for="{ place, index } in shown"
            :key="index"
            class="border-b border-rule [contain-intrinsic-size:auto_44px] [content-visibility:auto]"
            :class="{ 'bg-shade shadow-[inset_3px_0_var(--accent)]': index === state.at }"
            :aria-current="index === state.at"
          >
            <RouterLink
              v-if="place.files.length"
              :to="link(place)"
              :data-place="index"
              class="place block px-3 py-1"
              @click.exact.prevent="state.at = index"
              @dblclick="$router.push(link(place))"
              @keydown.enter.prevent="$router.push(link(place))"
            >
              <span
                class="block truncate font-mono text-[13px]"
                :title="`${fileOf(place)!.repository}/${fileOf(place)!.path}`"
                ><span class="font-bold">{{ fileOf(place)!.path.split('/').pop() }}</span
                ><span class="text-accent">:{{ place.line }}</span
                >{{ ' ' }}
                <span class="text-soft"
                  >{{ fileOf(place)!.repository }}/{{ fileOf(place)!.path.split('/').slice(0, -1).join('/') }}</span
                ></span
              >
              <span class="block truncate font-mono text-[12px] text-soft"
                >{{ place.text.slice(0, place.start) }}<mark>{{ place.text.slice(place.start, place.end) }}</mark
                >{{ place.text.slice(place.end) }}</span
              >
            </RouterLink>
            <div v-else class="px-3 py-1 text-soft">
              <span class="block truncate font-mono text-[13px]">{{ place.named }}:{{ place.line }}</span
              ><span class="block truncate font-mono text-[12px]"
                >not in the index &nbsp; {{ visible(place.text) }}</span
              >
            </div>
          </li>
          <li v-if="!shown.length" class="p-4 text-soft">None of the files that this text names is in the index.</li>
        </ol>
        <PaneEdge before class="max-lg:hidden" pane="places" label="Width of the list" :least="220" :most="1100" />
        <CodePreview
          v-if="current && file"
          class="min-w-0 flex-1"
          :repository="file.repository"
          :path="file.path"
          :rev="file.branch"
          :range="range"
          :hits="[]"
        >
          <span v-if="current.line > file.lines" class="text-accent"
            >the file has only {{ counted(file.lines, 'line') }} now</span
          >
          <span v-else-if="current.guess" class="text-accent">by its name alone</span>
          <select
            v-if="current.files.length > 1"
            class="max-w-56 rounded border border-rule bg-sheet px-1"
            aria-label="Which file is meant"
            :value="chosen.get(current.named) ?? 0"
            @change="chosen.set(current!.named, Number(($event.target as HTMLSelectElement).value))"
          >
            <option v-for="(meant, i) in current.files" :key="i" :value="i">
              {{ meant.repository }}/{{ meant.path }}
            </option>
          </select>
          <RouterLink class="button py-0" :to="link(current)">Open</RouterLink>
        </CodePreview>
        <div v-else class="flex flex-1 items-center justify-center rounded-md border border-rule text-soft">
          Choose a place of the list.
        </div>
      </div>
    </template>
  </main>
</template>
