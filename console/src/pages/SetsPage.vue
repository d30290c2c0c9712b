<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { counted, number } from '../amounts'
import PatternEffects from '../parts/PatternEffects.vue'
import ScopeSentence from '../parts/ScopeSentence.vue'
import * as requests from '../requests'
import { everywhere } from '../searchUrl'
import { useSession } from '../state/session'
import { useSets } from '../state/sets'
import type { ExclusionPreview, ExclusionSet, Scope } from '../wire'

const PREVIEW_PAUSE = 60 // milliseconds

const sets = useSets()
const session = useSession()
/** Whoever may not keep what all share keeps sets of their own. */
const ownOnly = computed(() => !session.may('maintainer'))
const form = reactive({ name: '', own: false, description: '', byDefault: false, patterns: '' })
const opened = ref<ExclusionSet>() // as it was when it was opened; none for a new one
const isNew = ref(false)
const scope = ref<Scope>(everywhere())
const effect = ref<ExclusionPreview>()
const problem = ref('')
const notice = ref('')
const file = ref<HTMLInputElement>()
let latest = new AbortController()
let timer = 0

const editing = computed(() => isNew.value || opened.value !== undefined)
const changed = computed(() => {
  const before = opened.value
  return isNew.value
    ? form.patterns.trim() !== ''
    : !!before &&
        (before.description !== form.description ||
          before.byDefault !== form.byDefault ||
          before.patterns !== form.patterns)
})
/** Somebody else has changed, or removed, what is being edited. */
const overtaken = computed(() => {
  const before = opened.value
  const now = sets.all.find(set => set.name === before?.name && set.own === before?.own)
  return before ? (now ? (now.version !== before.version ? 'changed' : '') : 'removed') : ''
})

function open(set: ExclusionSet) {
  opened.value = set
  isNew.value = false
  Object.assign(form, {
    name: set.name,
    own: set.own,
    description: set.description,
    byDefault: set.byDefault,
    patterns: set.patterns,
  })
  problem.value = notice.value = ''
}
function create() {
  opened.value = undefined
  isNew.value = true
  Object.assign(form, { name: '', own: ownOnly.value, description: '', byDefault: false, patterns: '' })
  problem.value = notice.value = ''
}
/** Of my own, in place of the shared one of this name. */
function copy() {
  opened.value = undefined
  isNew.value = true
  form.own = true
}
async function attempt(action: () => Promise<void>) {
  problem.value = notice.value = ''
  try {
    await action()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
const save = () =>
  attempt(async () => {
    const saved = await requests.saveSet(form.name.trim(), form.own, {
      description: form.description,
      byDefault: form.byDefault,
      patterns: form.patterns,
      version: opened.value?.version ?? null,
    })
    await sets.load()
    open(saved)
    notice.value = 'Saved.'
  })
const remove = () =>
  attempt(async () => {
    const set = opened.value
    if (
      !set ||
      !window.confirm(`Remove the exclusion set ${set.name}? Searches that name it will say that it is gone.`)
    )
      return
    await requests.removeSet(set.name, set.own, set.version)
    await sets.load()
    opened.value = undefined
  })
const takeFile = () =>
  attempt(async () => {
    const chosen = file.value?.files?.[0]
    if (!chosen) return
    const yaml = await chosen.text()
    file.value!.value = ''
    try {
      await requests.importSets(yaml, ownOnly.value, false)
    } catch (error) {
      if (
        !(error instanceof requests.ServiceError) ||
        error.problem.status !== 409 ||
        !window.confirm(`${error.message}\n\nReplace them?`)
      )
        throw error
      await requests.importSets(yaml, ownOnly.value, true)
    }
    await sets.load()
    notice.value = `Taken from ${chosen.name}.`
  })

// What the patterns would do, at each key.
watch(
  [() => form.patterns, scope, () => editing.value],
  () => {
    clearTimeout(timer)
    timer = window.setTimeout(async () => {
      latest.abort()
      const own = (latest = new AbortController())
      if (!editing.value) return
      try {
        const lift = [...new Set([...scope.value.lift, ...sets.byDefault])] // the set itself must not hide what it takes out
        const found = await requests.previewSet(form.patterns, { ...scope.value, lift }, own.signal)
        if (own === latest) effect.value = found
      } catch (error) {
        if (!own.signal.aborted) problem.value = (error as Error).message
      }
    }, PREVIEW_PAUSE)
  },
  { deep: true },
)
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pt-6 pb-24">
    <div class="flex flex-wrap items-baseline gap-3">
      <h1 class="text-lg font-semibold">Exclusion sets</h1>
      <p class="text-soft">
        Patterns for what nobody wants to find: translations, generated code, fixtures. Any search can leave a set out.
      </p>
      <span class="ml-auto flex gap-2">
        <button v-if="session.person || !session.accounts" type="button" class="button-strong" @click="create">
          New set
        </button>
        <a v-if="sets.all.length" class="button" :href="requests.setsFile" download="exclusion-sets.yaml">Export</a>
        <label
          v-if="session.person || !session.accounts"
          class="button cursor-pointer focus-within:outline-2 focus-within:outline-accent"
          >Import<input ref="file" type="file" accept=".yaml,.yml" class="sr-only" @change="takeFile"
        /></label>
      </span>
    </div>
    <p v-if="problem" role="alert" class="mt-3 whitespace-pre-line text-bad">{{ problem }}</p>
    <p v-if="notice" role="status" class="mt-3 text-good">{{ notice }}</p>

    <section v-if="sets.loaded && !sets.all.length && !editing" class="mx-auto max-w-xl py-20 text-center">
      <h2 class="text-lg font-semibold">No sets yet</h2>
      <p class="mt-2 text-soft">
        Make one of the folders and files that get into the way of most searches. While you type, the page shows what
        each pattern takes out.
      </p>
    </section>

    <div class="mt-4 flex gap-6 max-lg:flex-col">
      <nav v-if="sets.all.length" aria-label="Exclusion sets" class="w-56 shrink-0 max-lg:w-full">
        <button
          v-for="set in sets.all"
          :key="set.name"
          type="button"
          class="block w-full truncate rounded px-2 py-1 text-left hover:bg-shade"
          :class="{ 'bg-shade font-semibold': opened?.name === set.name }"
          :aria-current="opened?.name === set.name"
          :title="set.name"
          @click="open(set)"
        >
          {{ set.name }}<span v-if="set.byDefault" class="font-normal text-soft"> by default</span
          ><span v-if="set.own" class="font-normal text-soft"> your own</span
          ><span v-if="set.repository" class="font-normal text-soft"> kept in {{ set.repository }}</span>
          <span class="block truncate text-[13px] font-normal text-soft">{{
            set.description ||
            counted(set.patterns.split('\n').filter(line => line.trim() && !line.startsWith('#')).length, 'pattern')
          }}</span>
        </button>
      </nav>

      <form v-if="editing" class="w-96 shrink-0 max-lg:w-full" @submit.prevent="save">
        <p v-if="overtaken" role="alert" class="mb-2 text-bad">
          Somebody else {{ overtaken }} this set meanwhile.
          <button
            v-if="overtaken === 'changed'"
            type="button"
            class="part"
            @click="open(sets.all.find(set => set.name === opened!.name)!)"
          >
            Show theirs, and drop mine
          </button>
        </p>
        <label class="block"
          >Name<input
            v-model="form.name"
            class="field mt-0.5"
            :disabled="!isNew"
            required
            maxlength="100"
            placeholder="translations"
        /></label>
        <label class="mt-2 block"
          >What it is for<input v-model="form.description" class="field mt-0.5" maxlength="500"
        /></label>
        <label v-if="session.person" class="mt-2 flex items-center gap-2"
          ><input v-model="form.own" type="checkbox" class="accent-[var(--accent)]" :disabled="!isNew || ownOnly" />Only
          for me</label
        >
        <label class="mt-2 flex items-center gap-2"
          ><input v-model="form.byDefault" type="checkbox" class="accent-[var(--accent)]" />Left out of every search
          that does not lift it</label
        >
        <label class="mt-2 block"
          >Patterns, one a line
          <textarea
            v-model="form.patterns"
            class="field mt-0.5 font-mono text-[13px] leading-6"
            rows="14"
            spellcheck="false"
            placeholder="locales/&#10;*.po&#10;!locales/en.json"
            data-part="patterns"
          />
        </label>
        <details class="mt-1 text-soft">
          <summary class="cursor-pointer">
            How patterns are read: as in Git's ignore files, from the root of each repository
          </summary>
          <dl class="mt-1 grid grid-cols-[max-content_1fr] gap-x-3">
            <dt class="font-mono text-[13px] text-ink">gen</dt>
            <dd>files and folders of that name at any depth, with all below</dd>
            <dt class="font-mono text-[13px] text-ink">gen/</dt>
            <dd>folders only</dd>
            <dt class="font-mono text-[13px] text-ink">/gen, src/gen</dt>
            <dd>from the root only, as is every pattern with a slash before its end</dd>
            <dt class="font-mono text-[13px] text-ink">*.po</dt>
            <dd>
              <code>*</code> is any part of a name, <code>?</code> a character, <code>[ab]</code> one of some,
              <code>**</code> any folders
            </dd>
            <dt class="font-mono text-[13px] text-ink">!en.po</dt>
            <dd>brings back what lines above took out, unless a whole folder is out</dd>
            <dt class="font-mono text-[13px] text-ink"># words</dt>
            <dd>a remark</dd>
          </dl>
        </details>
        <p v-if="opened?.repository" class="mt-3 text-soft">
          It is kept in a file of {{ opened.repository }}, below .oddbeacon, and changed there.
        </p>
        <p v-else-if="opened && !opened.own && ownOnly" class="mt-3 text-soft">
          It is shared; maintainers change it.
          <button type="button" class="part" @click="copy">Make one of my own</button>
        </p>
        <div v-else class="mt-3 flex gap-2">
          <button type="submit" class="button-strong" :disabled="!changed || !form.name.trim()">Save</button>
          <button v-if="opened" type="button" class="button" @click="remove">Remove</button>
        </div>
      </form>

      <section v-if="editing" class="min-w-0 flex-1" aria-label="What the patterns do">
        <ScopeSentence v-model="scope" />
        <p v-if="effect" class="mt-2" aria-live="polite" data-part="effect">
          <strong class="font-semibold">{{ number(effect.left) }} of {{ counted(effect.files, 'file') }} left</strong
          ><span class="text-soft"> &nbsp;{{ effect.tookMillis.toFixed(1) }} ms</span>
        </p>
        <ul v-if="effect?.mistakes.length" class="mt-1 text-bad">
          <li v-for="mistake in effect.mistakes" :key="mistake.message">{{ mistake.message }}</li>
        </ul>
        <PatternEffects v-if="effect" :patterns="effect.patterns" :files="effect.files" />
      </section>
    </div>
  </main>
</template>
