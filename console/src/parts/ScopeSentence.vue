<script setup lang="ts">
import { computed } from 'vue'
import { openedFiles } from '../opened'
import { everywhere, scopeOf } from '../searchUrl'
import { useRepositories } from '../state/repositories'
import { useSearches } from '../state/searches'
import { useSets } from '../state/sets'
import { useTypes } from '../state/types'
import type { Scope } from '../wire'
import BranchList from './BranchList.vue'
import PatternLines from './PatternLines.vue'
import RepositoryList from './RepositoryList.vue'
import SaveSearch from './SaveSearch.vue'
import ScopePart from './ScopePart.vue'
import TickList from './TickList.vue'

// The scope in plain words; each part of the sentence is a button that changes it.
const scope = defineModel<Scope>({ required: true })
defineProps<{ regions?: boolean; commits?: boolean }>() // whether text is looked for, so that parts of files matter
const repositories = useRepositories()
const sets = useSets()
const searches = useSearches()
const types = useTypes()
void types.load()

const listed = (values: string[], joint = 'or') =>
  values.length > 3
    ? `${values.slice(0, 2).join(', ')} and ${values.length - 2} more`
    : values.join(values.length === 2 ? ` ${joint} ` : ', ')

const inRepositories = computed(() => {
  const count = repositories.count
  return scope.value.repo.length
    ? listed(scope.value.repo)
    : count === 1
      ? 'the one repository'
      : `all ${count} repositories`
})
const inFolders = computed(() => {
  const { under, notUnder } = scope.value
  return (
    (under.length ? `under ${listed(under)}` : 'in every folder') +
    (notUnder.length ? ` but not ${listed(notUnder)}` : '')
  )
})
const inFiles = computed(() => {
  const { file } = scope.value
  if (file.length === 1) return `in ${file[0]!.split('/').pop()}`
  return file.join('\n') === openedFiles().join('\n')
    ? `in the ${file.length} files opened lately`
    : `in ${file.length} listed files`
})
const ofTypes = computed(() => (scope.value.type.length ? `in ${listed(scope.value.type)}` : 'in files of any type'))
const withTraits = computed(() => {
  const { trait, notTrait } = scope.value
  const words = [
    trait.length ? `that are ${listed(trait)}` : '',
    notTrait.length ? `not ${listed(notTrait)}` : '',
  ].filter(Boolean)
  return words.length ? words.join(', ') : 'whatever their trait'
})
const applied = computed(() => sets.applied(scope.value))
const leavingOut = computed(() =>
  applied.value.length ? `leaving out ${listed(applied.value, 'and')}` : 'leaving nothing out',
)
const traitChoice = (name: string) =>
  scope.value.trait.includes(name) ? 'only' : scope.value.notTrait.includes(name) ? 'not' : 'any'
function chooseTrait(name: string, choice: string) {
  const others = (values: string[]) => values.filter(one => one !== name)
  scope.value.trait = choice === 'only' ? [...others(scope.value.trait), name] : others(scope.value.trait)
  scope.value.notTrait = choice === 'not' ? [...others(scope.value.notTrait), name] : others(scope.value.notTrait)
}
const inRegions = computed(() => {
  const { region, notRegion } = scope.value
  const plural: Record<string, string> = { code: 'code', comment: 'comments', string: 'strings' }
  return (
    (region.length
      ? `only in ${listed(
          region.map(one => plural[one] ?? one),
          'and',
        )}`
      : 'in all of the text') + (notRegion.length ? `, not in ${listed(notRegion.map(one => plural[one] ?? one))}` : '')
  )
})
const changedWhen = computed(() => {
  const { changedAfter, changedBefore } = scope.value
  return (
    [
      changedAfter.length ? `changed since ${listed(changedAfter)}` : '',
      changedBefore.length ? `not changed since ${listed(changedBefore)}` : '',
    ]
      .filter(Boolean)
      .join(', ') || 'changed at any time'
  )
})
const day = (event: Event) => {
  const value = (event.target as HTMLInputElement).value.trim()
  return value ? [value] : []
}
const scopes = computed(() => searches.saved.filter(search => search.subject === 'scope'))
/** The parts that have values. */
const given = computed(() => Object.fromEntries(Object.entries(scope.value).filter(([, values]) => values.length)))
const limited = computed(() => Object.values(scope.value).some(values => values.length))
</script>

<template>
  <p class="flex flex-wrap items-baseline gap-x-1 text-soft" aria-label="Scope">
    <span>Searching</span>
    <ScopePart name="repositories" :text="inRepositories">
      <RepositoryList v-model="scope.repo" />
      <button type="button" class="button mt-1" :disabled="!scope.repo.length" @click="scope.repo = []">
        All repositories
      </button>
    </ScopePart>
    <ScopePart
      v-if="repositories.labels.length || scope.label.length"
      name="labels"
      :text="scope.label.length ? `labelled ${listed(scope.label)}` : 'with any label'"
    >
      <TickList v-model="scope.label" what="labels" :options="repositories.labels.map(label => ({ value: label }))" />
    </ScopePart>
    <span>on</span>
    <ScopePart name="branches" :text="scope.branch.length ? listed(scope.branch) : 'default branches'">
      <BranchList v-model="scope.branch" :repositories="scope.repo" />
      <PatternLines v-model="scope.branch" label="Branches or tags, one a line" placeholder="release/*" :rows="3" />
      <p class="text-soft">Only indexed ones are searched. Empty: each repository's default branch.</p>
    </ScopePart>
    <span class="-ml-1">,</span>
    <ScopePart name="under" :text="inFolders">
      <PatternLines
        v-model="scope.under"
        label="Folders or files, one a line"
        placeholder="src/main&#10;*.yaml"
        :rows="4"
      />
      <PatternLines v-model="scope.notUnder" label="Left out, one a line" placeholder="vendor" :rows="2" />
      <p class="text-soft">
        With a slash: from the repository's root. Without: at any depth. <code class="font-mono">*</code> is any name,
        <code class="font-mono">**</code> any folders.
      </p>
      <button
        v-if="openedFiles().length && !scope.file.length"
        type="button"
        class="button mt-1"
        data-part="opened-lately"
        @click="scope.file = openedFiles()"
      >
        Only in files opened lately
      </button>
    </ScopePart>
    <span class="-ml-1">,</span>
    <ScopePart v-if="scope.file.length" name="files" :text="inFiles">
      <PatternLines
        v-model="scope.file"
        label="Listed files, as repository/path, one a line"
        placeholder="fare-gate/go.mod"
        :rows="8"
      />
      <button type="button" class="button" @click="scope.file = []">All files</button>
    </ScopePart>
    <ScopePart name="types" :text="ofTypes">
      <TickList
        v-model="scope.type"
        what="types"
        :options="types.types.map(type => ({ value: type.name, title: type.title }))"
      />
      <p class="mt-1 text-soft">
        A type is told by name and content.
        <RouterLink :to="{ name: 'types' }" class="part">All types and their patterns</RouterLink>
      </p>
    </ScopePart>
    <ScopePart name="traits" :text="withTraits">
      <label
        v-for="trait in types.traits"
        :key="trait.name"
        class="flex items-center gap-2 py-0.5"
        :title="trait.meaning"
      >
        <select
          :value="traitChoice(trait.name)"
          class="rounded border border-rule bg-sheet px-1"
          :aria-label="trait.name"
          @change="chooseTrait(trait.name, ($event.target as HTMLSelectElement).value)"
        >
          <option value="any">any</option>
          <option value="only">only</option>
          <option value="not">not</option>
        </select>
        <span>{{ trait.name }}</span><span class="truncate text-soft">{{ trait.meaning }}</span>
      </label>
    </ScopePart>
    <span v-if="!commits" class="-ml-1">,</span>
    <ScopePart v-if="!commits" name="changed" :text="changedWhen">
      <label class="mb-2 block"
        >Last changed on that day or later<input
          class="field mt-1"
          :value="scope.changedAfter[0] ?? ''"
          placeholder="2026-01-31, 2026, or 2w for two weeks"
          @change="scope.changedAfter = day($event)"
      /></label>
      <label class="mb-2 block"
        >Last changed before<input
          class="field mt-1"
          :value="scope.changedBefore[0] ?? ''"
          placeholder="2026-01-31"
          @change="scope.changedBefore = day($event)"
      /></label>
      <p class="text-soft">By the commit that made each file what it is.</p>
    </ScopePart>
    <span v-if="!commits" class="-ml-1">,</span>
    <ScopePart v-if="regions || scope.region.length || scope.notRegion.length" name="regions" :text="inRegions">
      <TickList
        v-model="scope.region"
        what="parts of files"
        :options="[{ value: 'code' }, { value: 'comment' }, { value: 'string' }]"
      />
      <p class="mt-1 text-soft">Text that stands wholly in such a part. None ticked: all of them.</p>
      <button
        type="button"
        class="button mt-1"
        :disabled="!scope.region.length && !scope.notRegion.length"
        @click="scope.region = scope.notRegion = []"
      >
        All of the text
      </button>
    </ScopePart>
    <ScopePart v-if="!commits" name="sets" :text="leavingOut">
      <label
        v-for="set in sets.all"
        :key="set.name"
        class="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-shade"
        :title="set.description"
      >
        <input
          type="checkbox"
          class="accent-[var(--accent)]"
          :checked="applied.includes(set.name)"
          @change="sets.toggle(scope, set.name)"
        />
        <span class="max-w-40 shrink-0 truncate">{{ set.name }}</span><span
          v-if="set.byDefault"
          class="shrink-0 text-soft"
          >by default</span
        ><span class="truncate text-soft">{{ set.description }}</span>
      </label>
      <p v-if="!sets.all.length" class="px-1 text-soft">
        There are no exclusion sets yet: named lists of patterns for what nobody wants to find.
      </p>
      <RouterLink :to="{ name: 'sets' }" class="part mt-1 inline-block">Exclusion sets</RouterLink>
    </ScopePart>
    <span class="-ml-1">.</span>
    <button v-if="limited" type="button" class="button ml-2 py-0 text-ink" @click="scope = everywhere()">
      Search everywhere
    </button>
    <ScopePart class="ml-2" name="scopes" text="Saved scopes" @click="searches.load()">
      <ul v-if="scopes.length">
        <li v-for="one in scopes" :key="`${one.of} ${one.name}`">
          <button
            type="button"
            class="block w-full rounded px-1 py-0.5 text-left hover:bg-shade disabled:text-soft"
            :disabled="!!one.problem"
            :data-scope="one.name"
            @click="scope = scopeOf(part => one.parameters[part] ?? [])"
          >
            {{ one.name }} <span class="text-soft">{{ one.problem ?? one.description }}</span>
          </button>
        </li>
      </ul>
      <p v-else class="px-1 text-soft">There are none yet. Limit the search, then save where it looks under a name.</p>
      <SaveSearch v-if="limited" class="mt-2" :other="{ subject: 'scope', parameters: given, replacement: null }" />
    </ScopePart>
  </p>
</template>
