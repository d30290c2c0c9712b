<script setup lang="ts">
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue'
import { editorLink, editorProblem, editorSettings, keepEditor, variables } from '../editorLinks'
import { type ActionName, actions, groups, keyFor, printed, setKey, usualKeys } from '../keys'
import { openedFiles } from '../opened'
import { useLayout } from '../state/layout'

// What somebody sets for oneself: how one's own editor is opened, and the keys.
document.title = 'Settings · Odd Beacon'
const { layout } = useLayout()
const editor = reactive(editorSettings())
const problem = computed(() => editorProblem(editor))
watch(editor, () => {
  if (!problem.value) keepEditor({ ...editor })
})
const example = computed(() => {
  const [repository = 'fare-gate', ...path] = (openedFiles()[0] ?? 'fare-gate/README.md').split('/')
  const place = { repository, path: path.join('/'), line: 12, column: 5 }
  return { place, link: editorLink(editor, place) }
})

const asked = ref<ActionName>() // whose key is the next one that is pressed
const refused = ref('')
function ask(name: ActionName) {
  refused.value = ''
  asked.value = asked.value === name ? undefined : name
}
function pressed(event: KeyboardEvent) {
  if (!asked.value || event.ctrlKey || event.metaKey || event.altKey || event.key === 'Shift') return
  event.preventDefault()
  event.stopPropagation()
  if (event.key === 'Escape') asked.value = undefined
  else {
    refused.value = setKey(asked.value, event.key)
    if (!refused.value) asked.value = undefined
  }
}
window.addEventListener('keydown', pressed, true)
onBeforeUnmount(() => window.removeEventListener('keydown', pressed, true))
</script>

<template>
  <main class="mx-auto max-w-4xl px-4 pb-24">
    <h1 class="py-4 text-lg font-semibold">Settings</h1>
    <h2 class="font-semibold">Your editor</h2>
    <p class="mt-1 text-soft">
      Many editors open a place by a link of their own. Write that link as a URI template (RFC 6570), and say where your
      clones are; hits and files then have a link to your editor. This stays in this browser, for this machine.
    </p>
    <label class="mt-3 block"
      >Link to a place
      <input
        v-model="editor.template"
        class="field mt-0.5 font-mono text-[13px]"
        :class="{ 'border-bad': problem }"
        placeholder="editor://open{?file,line,column}"
        spellcheck="false"
        data-part="template"
    /></label>
    <p class="mt-1 text-soft">
      <template v-for="([name, meaning], i) in variables" :key="name"
        >{{ i ? '; ' : '' }}<code class="font-mono text-ink">{{ name }}</code> is {{ meaning }}</template
      >. <code class="font-mono text-ink">{+file}</code> leaves slashes as they are.
    </p>
    <div class="mt-3 grid gap-3 sm:grid-cols-2">
      <label
        >Folder of all clones
        <input
          v-model="editor.root"
          class="field mt-0.5 font-mono text-[13px]"
          placeholder="/home/ada/work"
          spellcheck="false"
          data-part="root"
        />
        <span class="text-soft">Each under the name of its repository.</span>
      </label>
      <label
        >Clones that are elsewhere
        <textarea
          v-model="editor.folders"
          class="field mt-0.5 font-mono text-[13px]"
          rows="3"
          placeholder="fare-gate = /srv/gate"
          spellcheck="false"
          data-part="folders"
        />
      </label>
    </div>
    <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }} It is not kept until that is mended.</p>
    <p v-else-if="editor.template" class="mt-2 text-soft" role="status" data-part="example">
      <template v-if="example.link"
        >{{ example.place.repository }}/{{ example.place.path }}:12:5 would open
        <a class="part font-mono break-all" :href="example.link">{{ example.link }}</a></template
      >
      <template v-else>Say where the clone of {{ example.place.repository }} is, or of all.</template>
    </p>
    <div class="mt-8 flex flex-wrap items-baseline gap-2">
      <h2 class="font-semibold">Keys</h2>
      <span class="text-soft">Press one of the buttons, then the key that you want there. Escape leaves it.</span>
      <button
        type="button"
        class="button ml-auto"
        :disabled="!Object.keys(layout.keys).length"
        data-part="usual"
        @click="(usualKeys(), (refused = ''))"
      >
        The usual keys
      </button>
    </div>
    <p v-if="refused" role="alert" class="mt-2 text-bad">{{ refused }}</p>
    <div class="mt-2 columns-2 gap-8 max-sm:columns-1">
      <section v-for="group in groups" :key="group.title" class="mb-4 break-inside-avoid" :aria-label="group.title">
        <h3 class="border-b border-rule text-soft">{{ group.title }}</h3>
        <dl>
          <div v-for="name in group.names" :key="name" class="flex items-baseline gap-3 py-0.5">
            <dt>
              <button
                type="button"
                class="button w-24 font-mono text-[13px]"
                :class="{ 'border-accent font-semibold': asked === name }"
                :aria-pressed="asked === name"
                :aria-label="`Key for: ${actions[name].meaning}`"
                :data-action="name"
                @click="ask(name)"
              >
                {{ asked === name ? 'press it' : printed(keyFor(name)) }}
              </button>
            </dt>
            <dd class="text-soft" :class="{ 'text-ink': layout.keys[name] }">{{ actions[name].meaning }}</dd>
          </div>
        </dl>
      </section>
    </div>
  </main>
</template>
