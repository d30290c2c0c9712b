<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useActing } from '../acting'
import { counted, number } from '../amounts'
import ReplacedMatch from '../parts/ReplacedMatch.vue'
import SaveSearch from '../parts/SaveSearch.vue'
import * as requests from '../requests'
import { toKeep } from '../saved'
import { one } from '../searchUrl'
import { save } from '../takeaway'
import { toggled } from '../toggled'
import type { EditedLine, ReplacedFile, ReplacedIn, Replacement, ReplacementChange, ReplacementPreview } from '../wire'

// What a search matches, and what would stand instead; what is ticked becomes patches. Nothing is changed in a repository.
const route = useRoute()
const router = useRouter()
const OWN = ['with', 'keepCase', 'generated', 'in', 'mentions', 'subject'] // of the address, beside the search's
const places: { value: ReplacedIn; words: string }[] = [
  { value: 'text', words: 'in texts' },
  { value: 'paths', words: 'in names of files and folders' },
  { value: 'both', words: 'in both' },
]
const form = reactive({
  with: one(route.query, 'with'),
  keepCase: one(route.query, 'keepCase') === 'true',
  generated: one(route.query, 'generated') === 'true',
  in: (places.find(place => place.value === one(route.query, 'in'))?.value ?? 'text') as ReplacedIn,
  mentions: one(route.query, 'mentions') === 'true',
})
const preview = ref<ReplacementPreview>()
const left = ref<string[]>([]) // what is not ticked: repositories, files, matches
const own = reactive(new Map<string, string>()) // what stands instead of a single match
const lines = reactive(new Map<string, EditedLine>()) // that are written anew, by file and number
const besides = ref(false) // whether before and after stand side by side
const asked = ref('')
const { problem, done, busy, act } = useActing()

const text = computed(() => String(route.query.q ?? ''))
const subject = computed<'lines' | 'symbols'>(() => (route.query.subject === 'symbols' ? 'symbols' : 'lines'))
const isShape = computed(() => subject.value === 'lines' && route.query.reading === 'expression')
const placeholder = computed(() =>
  isShape.value
    ? '?name is what it stands for'
    : route.query.reading === 'regex'
      ? '$1, ${name} are its groups'
      : 'nothing',
)
const parameters = computed(() => {
  const kept = toKeep(route.query)
  for (const name of ['order', 'only', ...OWN]) delete kept[name]
  if (subject.value === 'symbols') {
    for (const name of ['role', 'kind', 'case']) delete kept[name]
    kept.reading = ['plain']
  }
  return kept
})
const wanted = computed<Replacement>(() => ({
  subject: subject.value,
  parameters: parameters.value,
  with: form.with,
  keepCase: form.keepCase,
  in: form.in,
  mentions: form.mentions,
  generated: form.generated,
  except: left.value,
  own: Object.fromEntries(own),
  lines: [...lines.values()].filter(
    line => !left.value.includes(line.repository) && !left.value.includes(`${line.repository}/${line.path}`),
  ),
  message: null,
  author: null,
}))
const kept = computed(() => ({
  subject: subject.value,
  parameters: parameters.value,
  replacement: {
    with: form.with,
    keepCase: form.keepCase || null,
    in: form.in === 'text' ? null : form.in,
    mentions: form.mentions || null,
  },
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
const lineKey = (file: ReplacedFile, change: ReplacementChange) => `${fileKey(file)}:${change.line}`
const pathKey = (file: ReplacedFile) => `${fileKey(file)}:path`
const ticked = computed(() => {
  const files = preview.value?.files ?? []
  return files.reduce((sum, file) => sum + file.changes.filter(change => isTicked(file, change)).length, 0)
})
const isCurrent = computed(() => asked.value === JSON.stringify([parameters.value, form]))
const toggle = (place: string) => {
  left.value = toggled(left.value, place)
}

function tickAll(all: boolean) {
  left.value = all ? [] : groups.value.map(([repository]) => repository)
}
const wholes = reactive(new Map<string, string>()) // files as they would be, of those that are looked at
const showWhole = (file: ReplacedFile) =>
  act(async () => {
    const place = fileKey(file)
    if (wholes.delete(place)) return
    const { text } = await requests.replacedText(wanted.value, file.repository, file.path)
    wholes.set(place, text)
  })

watch([left, own, lines], () => wholes.clear(), { deep: true })

const look = () =>
  act(async () => {
    left.value = []
    own.clear()
    lines.clear()
    wholes.clear()
    await router.replace({
      query: {
        ...ofSearch.value,
        with: form.with,
        ...(form.keepCase && { keepCase: 'true' }),
        ...(form.generated && { generated: 'true' }),
        ...(form.in !== 'text' && { in: form.in }),
        ...(form.mentions && { mentions: 'true' }),
        ...(subject.value === 'symbols' && { subject: 'symbols' }),
      },
    })
    preview.value = await requests.previewReplacement(wanted.value)
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
function setLine(file: ReplacedFile, change: ReplacementChange, value: string | undefined) {
  const place = lineKey(file, change)
  if (value === undefined) lines.delete(place)
  else {
    lines.set(place, {
      repository: file.repository,
      branch: file.branch,
      path: file.path,
      line: change.line,
      was: change.before,
      with: value,
    })
  }
}
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
      <span class="ml-auto flex items-baseline gap-4">
        <RouterLink class="part" :to="{ name: subject === 'symbols' ? 'symbols' : 'search', query: ofSearch }"
          >The search</RouterLink
        >
        <SaveSearch v-if="text && preview" :other="kept" />
      </span>
    </div>
    <p v-if="!text" class="text-soft">Search for lines first; then replace what matches.</p>
    <template v-else>
      <form class="flex flex-wrap items-end gap-3" @submit.prevent="look">
        <p class="min-w-0 basis-full">
          {{ subject === 'symbols' ? 'What declares or uses' : 'What matches' }}
          <code class="font-mono break-all">{{ text }}</code>, in the scope of the search
        </p>
        <label class="min-w-64 grow"
          >becomes<input
            v-model="form.with"
            class="field mt-0.5 font-mono"
            spellcheck="false"
            autocapitalize="none"
            :placeholder="placeholder"
            data-part="with"
        /></label>
        <label v-if="!isShape"
          ><span class="sr-only">Where</span>
          <select v-model="form.in" class="field" data-part="in">
            <option v-for="place in places" :key="place.value" :value="place.value">{{ place.words }}</option>
          </select></label
        >
        <label v-if="subject === 'lines' && !isShape" class="flex items-center gap-2 pb-1"
          ><input v-model="form.keepCase" type="checkbox" /> in the case of the match</label
        >
        <label v-if="subject === 'symbols'" class="flex items-center gap-2 pb-1"
          ><input v-model="form.mentions" type="checkbox" data-part="mentions" /> comments and strings as well</label
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
          <input
            type="checkbox"
            :checked="!left.length"
            :indeterminate="!!left.length && !!ticked"
            aria-label="Replace all"
            data-part="all"
            @change="tickAll(($event.target as HTMLInputElement).checked)"
          />
          <span
            >{{ number(ticked) }} of {{ counted(preview.matches, 'match', 'matches') }} in
            {{ counted(preview.fileCount, 'file')
            }}<template v-if="preview.renamed">, {{ counted(preview.renamed, 'file') }} renamed</template></span
          >
          <button
            type="button"
            class="button-strong"
            :disabled="busy || !(ticked || preview.renamed) || !isCurrent"
            data-part="take"
            @click="take()"
          >
            Save patches
          </button>
          <label class="flex items-center gap-2"
            ><input v-model="besides" type="checkbox" data-part="besides" /> side by side</label
          >
          <span v-if="done" role="status" class="text-good">{{ done }}</span>
        </p>
        <p v-if="preview.symbol" class="mt-1 text-soft" data-part="symbol">
          <template v-if="preview.symbol.declarations"
            >Declared {{ counted(preview.symbol.declarations, 'time') }}, in {{ preview.symbol.containers.join(', ') }}.
            {{
              preview.symbol.sure === preview.symbol.uses
                ? `All ${number(preview.symbol.uses)} uses are surely of it.`
                : `Of ${counted(preview.symbol.uses, 'use')} ${number(preview.symbol.sure)} ${preview.symbol.sure === 1 ? 'is' : 'are'} surely of it, ${number(preview.symbol.likely)} likely.`
            }}
            <template v-if="preview.symbol.others"
              >{{ counted(preview.symbol.others, 'use') }} of another with this name
              {{ preview.symbol.others === 1 ? 'stays' : 'stay' }} as
              {{ preview.symbol.others === 1 ? 'it is' : 'they are' }}.</template
            ></template
          ><template v-else>Declared nowhere that you see; its uses are found by name only.</template>
        </p>
        <p v-if="preview.outside?.hits" class="mt-1 text-soft" data-part="outside">
          It stands outside the scope as well, in {{ counted(preview.outside.hits, 'line') }}.
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
            <div class="flex items-baseline gap-3 border-b border-rule bg-shade px-3 py-1">
              <label class="flex min-w-0 grow items-center gap-2 font-mono text-[13px]"
                ><input
                  type="checkbox"
                  :checked="isTicked(file)"
                  :disabled="left.includes(file.repository)"
                  :data-file="fileKey(file)"
                  @change="toggle(fileKey(file))"
                />
                <span class="min-w-0 break-all">{{ file.path }}</span></label
              >
              <button
                v-if="file.changes.length && isTicked(file)"
                type="button"
                class="part shrink-0 text-[13px]"
                :aria-expanded="wholes.has(fileKey(file))"
                data-part="whole"
                @click="showWhole(file)"
              >
                The file afterwards
              </button>
            </div>
            <pre
              v-if="wholes.has(fileKey(file))"
              class="max-h-96 overflow-auto border-b border-rule px-3 py-1 font-mono text-[13px]"
              tabindex="0"
              :aria-label="`${file.path} as it would be`"
              data-part="afterwards"
              >{{ wholes.get(fileKey(file)) }}</pre>
            <label
              v-if="file.newPath"
              class="flex items-center gap-2 px-3 py-1 font-mono text-[13px]"
              data-part="renamed"
              ><input
                type="checkbox"
                :checked="!left.includes(pathKey(file))"
                :disabled="!isTicked(file)"
                @change="toggle(pathKey(file))"
              />
              <span class="min-w-0 break-all"><span class="text-soft">becomes</span> {{ file.newPath }}</span></label
            >
            <ul v-if="file.changes.length" class="divide-y divide-rule">
              <ReplacedMatch
                v-for="change in file.changes"
                :key="key(file, change)"
                :data-match="key(file, change)"
                :change="change"
                :ticked="isTicked(file, change)"
                :enabled="isTicked(file)"
                :own="own.get(key(file, change))"
                :line="lines.get(lineKey(file, change))?.with"
                :besides="besides"
                @toggle="toggle(key(file, change))"
                @own="setOwn(key(file, change), change, $event)"
                @line="setLine(file, change, $event)"
              />
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
