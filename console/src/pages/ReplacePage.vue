<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useActing } from '../acting'
import { counted, number } from '../amounts'
import MarkedText from '../parts/MarkedText.vue'
import * as requests from '../requests'
import { toKeep } from '../saved'
import { one } from '../searchUrl'
import { save } from '../takeaway'
import { toggled } from '../toggled'
import type { ReplacedFile, Replacement, ReplacementChange, ReplacementPreview } from '../wire'

// What a search matches, and what would stand instead; what is ticked becomes patches. Nothing is changed in a repository.
const route = useRoute()
const router = useRouter()
const OWN = ['with', 'keepCase', 'generated'] // of the address, beside the search's
const form = reactive({
  with: one(route.query, 'with'),
  keepCase: one(route.query, 'keepCase') === 'true',
  generated: one(route.query, 'generated') === 'true',
})
const preview = ref<ReplacementPreview>()
const left = ref<string[]>([]) // what is not ticked: repositories, files, matches
const own = reactive(new Map<string, string>()) // what stands instead of a single match
const asked = ref('')
const { problem, done, busy, act } = useActing()

const text = computed(() => String(route.query.q ?? ''))
const parameters = computed(() => {
  const kept = toKeep(route.query)
  for (const name of ['order', 'only', ...OWN]) delete kept[name]
  return kept
})
const wanted = computed<Replacement>(() => ({
  parameters: parameters.value,
  with: form.with,
  keepCase: form.keepCase,
  except: left.value,
  own: Object.fromEntries(own),
  generated: form.generated,
  message: null,
  author: null,
}))
/** The search without what stands instead. */
const ofSearch = computed(() => Object.fromEntries(Object.entries(route.query).filter(([name]) => !OWN.includes(name))))
const groups = computed(() => {
  const groups = new Map<string, ReplacedFile[]>()
  for (const file of preview.value?.files ?? []) {
    groups.set(file.repository, [...(groups.get(file.repository) ?? []), file])
  }
  return [...groups]
})
const fileKey = (file: ReplacedFile) => `${file.repository}/${file.path}`
const key = (file: ReplacedFile, change: ReplacementChange) => `${fileKey(file)}:${change.line}:${change.column}`
const isTicked = (file: ReplacedFile, change?: ReplacementChange) =>
  !left.value.includes(file.repository) &&
  !left.value.includes(fileKey(file)) &&
  (!change || !left.value.includes(key(file, change)))
const ticked = computed(() => {
  const files = preview.value?.files ?? []
  return files.reduce((sum, file) => sum + file.changes.filter(change => isTicked(file, change)).length, 0)
})
const isCurrent = computed(() => asked.value === JSON.stringify([parameters.value, form]))
const toggle = (place: string) => {
  left.value = toggled(left.value, place)
}

const look = () =>
  act(async () => {
    left.value = []
    own.clear()
    await router.replace({
      query: {
        ...ofSearch.value,
        with: form.with,
        ...(form.keepCase && { keepCase: 'true' }),
        ...(form.generated && { generated: 'true' }),
      },
    })
    preview.value = await requests.previewReplacement({ ...wanted.value, except: [], own: {} })
    asked.value = JSON.stringify([parameters.value, form])
  })
const take = (repository?: string) =>
  act(async () => {
    const patch = await requests.replacementPatches(wanted.value, repository)
    save(patch, repository ? `${repository}.patch` : 'patches.zip')
    done.value = repository
      ? `git apply takes ${repository}.patch, and git apply -R takes it back.`
      : 'A patch for each repository; git apply takes it, and git apply -R takes it back.'
  })
function setOwn(place: string, change: ReplacementChange, value: string) {
  if (value === change.with) own.delete(place)
  else own.set(place, value)
}
/** The line with what stands in the field of a match. */
const after = (place: string, change: ReplacementChange) =>
  own.has(place)
    ? change.before.slice(0, change.column - 1) +
      own.get(place) +
      change.before.slice(change.column - 1 + change.match.length)
    : change.after
watch(
  () => (route.name === 'replace' ? JSON.stringify(parameters.value) : ''),
  (now, before) => {
    if (now && now !== before) preview.value = undefined
  },
)
if (text.value && 'with' in route.query) void look() // a link that somebody shares
</script>

<template>
  <main class="mx-auto max-w-6xl px-4 pb-24">
    <div class="flex flex-wrap items-baseline gap-x-4 py-4">
      <h1 class="text-lg font-semibold">Replace</h1>
      <RouterLink class="part ml-auto" :to="{ name: 'search', query: ofSearch }">The search</RouterLink>
    </div>
    <p v-if="!text" class="text-soft">Search for lines first; then replace what matches.</p>
    <template v-else>
      <form class="flex flex-wrap items-end gap-3" @submit.prevent="look">
        <p class="min-w-0 basis-full">
          What matches <code class="font-mono break-all">{{ text }}</code>, in the scope of the search
        </p>
        <label class="min-w-64 grow"
          >becomes<input
            v-model="form.with"
            class="field mt-0.5 font-mono"
            spellcheck="false"
            autocapitalize="none"
            :placeholder="route.query.reading === 'regex' ? '$1, ${name} are its groups' : 'nothing'"
            data-part="with"
        /></label>
        <label class="flex items-center gap-2 pb-1"
          ><input v-model="form.keepCase" type="checkbox" /> in the case of the match</label
        >
        <label class="flex items-center gap-2 pb-1"
          ><input v-model="form.generated" type="checkbox" /> generated files as well</label
        >
        <button type="submit" :class="isCurrent ? 'button' : 'button-strong'" :disabled="busy">
          Show what would change
        </button>
      </form>
      <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
      <p v-if="busy && !preview" role="status" class="mt-2 text-soft">Looking</p>
      <template v-if="preview">
        <p class="mt-4 flex flex-wrap items-center gap-3" data-part="amount">
          <span
            >{{ number(ticked) }} of {{ counted(preview.matches, 'match', 'matches') }} in
            {{ counted(preview.fileCount, 'file') }}</span
          >
          <button
            type="button"
            class="button-strong"
            :disabled="busy || !ticked || !isCurrent"
            data-part="take"
            @click="take()"
          >
            Save patches
          </button>
          <span v-if="done" role="status" class="text-good">{{ done }}</span>
        </p>
        <p v-if="preview.fileCount > preview.files.length" class="text-soft">
          The first {{ number(preview.files.length) }} files are shown; the others change as well. Narrow the scope to
          see them.
        </p>
        <p v-if="!preview.files.length" class="mt-2 text-soft">Nothing would change.</p>
        <section v-for="[repository, files] in groups" :key="repository" class="mt-4" :aria-label="repository">
          <h2 class="flex flex-wrap items-center gap-3">
            <label class="flex items-center gap-2 font-semibold"
              ><input
                type="checkbox"
                :checked="!left.includes(repository)"
                :data-repository="repository"
                @change="toggle(repository)"
              />
              {{ repository }}</label
            >
            <button
              type="button"
              class="part text-[13px]"
              :disabled="busy || !isCurrent || left.includes(repository)"
              @click="take(repository)"
            >
              Its patch
            </button>
          </h2>
          <div
            v-for="file in files"
            :key="fileKey(file) + file.branch"
            class="mt-2 rounded-md border border-rule bg-sheet"
          >
            <label class="flex items-center gap-2 border-b border-rule bg-shade px-3 py-1 font-mono text-[13px]"
              ><input
                type="checkbox"
                :checked="isTicked(file)"
                :disabled="left.includes(file.repository)"
                :data-file="fileKey(file)"
                @change="toggle(fileKey(file))"
              />
              <span class="min-w-0 break-all">{{ file.path }}</span></label
            >
            <ul class="divide-y divide-rule">
              <li
                v-for="change in file.changes"
                :key="key(file, change)"
                class="grid grid-cols-[max-content_minmax(0,1fr)] gap-x-3 px-3 py-1"
                :data-match="key(file, change)"
              >
                <input
                  type="checkbox"
                  class="mt-1 self-start"
                  :checked="isTicked(file, change)"
                  :disabled="!isTicked(file)"
                  :aria-label="`Replace the match at line ${change.line}, column ${change.column}`"
                  @change="toggle(key(file, change))"
                />
                <div class="min-w-0 font-mono text-[13px]">
                  <p class="overflow-x-auto whitespace-pre">
                    <span class="text-soft">{{ change.line }} −</span>&nbsp;<MarkedText
                      :text="change.before"
                      :matches="[{ start: change.column - 1, end: change.column - 1 + change.match.length }]"
                    />
                  </p>
                  <p v-if="isTicked(file, change)" class="overflow-x-auto whitespace-pre">
                    <span class="text-soft">{{ change.line }} +</span>&nbsp;<MarkedText
                      :text="after(key(file, change), change)"
                      :matches="[
                        {
                          start: change.column - 1,
                          end: change.column - 1 + (own.get(key(file, change)) ?? change.with).length,
                        },
                      ]"
                    />
                  </p>
                  <p class="mt-0.5 flex flex-wrap items-center gap-2 font-sans">
                    <input
                      class="field w-72 max-w-full font-mono text-[13px]"
                      :value="own.get(key(file, change)) ?? change.with"
                      :aria-label="`What stands instead of the match at line ${change.line}, column ${change.column}`"
                      spellcheck="false"
                      @input="setOwn(key(file, change), change, ($event.target as HTMLInputElement).value)"
                    />
                    <span v-for="warning in change.warnings" :key="warning" class="text-bad" data-part="warning">{{
                      warning
                    }}</span>
                  </p>
                </div>
              </li>
            </ul>
          </div>
        </section>
        <section v-if="preview.left.length" class="mt-6" aria-labelledby="stays" data-part="stays">
          <h2 id="stays" class="font-semibold">Files that stay as they are</h2>
          <ul class="text-[13px]">
            <li v-for="file in preview.left" :key="`${file.repository}/${file.path}`" class="py-0.5">
              <span class="font-mono break-all">{{ file.repository }}/{{ file.path }}</span
              >: <span class="text-soft">{{ file.why }}</span>
            </li>
          </ul>
        </section>
      </template>
    </template>
  </main>
</template>
