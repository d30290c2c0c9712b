<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { useRepositories } from '../state/repositories'
import type { Search } from '../wire'

// The scope in plain words; each part of the sentence is a button that changes it.
const search = defineModel<Search>({ required: true })
const repositories = useRepositories()
const filter = ref('')

const shown = computed(() => {
  const wanted = filter.value.toLowerCase()
  return repositories.all.filter(one => `${one.name} ${one.title}`.toLowerCase().includes(wanted))
})
const listed = (values: string[]) => (values.length > 3 ? `${values.slice(0, 2).join(', ')} and ${values.length - 2} more` : values.join(values.length === 2 ? ' or ' : ', '))

const inRepositories = computed(() => {
  const chosen = search.value.repositories
  if (chosen.length) return listed(chosen)
  const count = repositories.all.length
  return count === 1 ? 'the one repository' : `all ${count} repositories`
})
const withLabels = computed(() => (search.value.labels.length ? `labelled ${listed(search.value.labels)}` : 'with any label'))
const onBranches = computed(() => (search.value.branches.length ? listed(search.value.branches) : 'default branches'))
const inFolders = computed(() => {
  const { under, notUnder } = search.value
  return (under.length ? `under ${listed(under)}` : 'in every folder') + (notUnder.length ? ` but not ${listed(notUnder)}` : '')
})

function toggle(list: 'repositories' | 'labels', value: string) {
  const values = search.value[list]
  search.value[list] = values.includes(value) ? values.filter(one => one !== value) : [...values, value]
}
const lines = (text: string) => text.split('\n').map(line => line.trim()).filter(Boolean)
const limited = computed(() => search.value.repositories.length + search.value.labels.length + search.value.branches.length + search.value.under.length + search.value.notUnder.length > 0)

function lift() {
  Object.assign(search.value, { repositories: [], labels: [], branches: [], under: [], notUnder: [] })
}
</script>

<template>
  <p class="flex flex-wrap items-baseline gap-x-1 text-soft" aria-label="Scope">
    <span>Searching</span>
    <Popover class="relative">
      <PopoverButton class="part text-ink" data-part="repositories">{{ inRepositories }}</PopoverButton>
      <PopoverPanel class="panel absolute left-0 z-20 mt-1 w-80 p-2 text-ink">
        <input v-model="filter" class="field mb-1" placeholder="Filter by name or title" aria-label="Filter repositories" />
        <div class="max-h-72 overflow-y-auto">
          <label v-for="one in shown" :key="one.name" class="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-shade">
            <input type="checkbox" class="accent-[var(--accent)]" :checked="search.repositories.includes(one.name)" @change="toggle('repositories', one.name)" />
            <span class="truncate">{{ one.name }}</span><span v-if="one.title !== one.name" class="truncate text-soft">{{ one.title }}</span>
          </label>
          <p v-if="!shown.length" class="px-1 py-2 text-soft">No repository has such a name.</p>
        </div>
        <button type="button" class="button mt-1" :disabled="!search.repositories.length" @click="search.repositories = []">All repositories</button>
      </PopoverPanel>
    </Popover>
    <Popover v-if="repositories.labels.length || search.labels.length" class="relative">
      <PopoverButton class="part text-ink" data-part="labels">{{ withLabels }}</PopoverButton>
      <PopoverPanel class="panel absolute left-0 z-20 mt-1 w-56 p-2 text-ink">
        <label v-for="label in repositories.labels" :key="label" class="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-shade">
          <input type="checkbox" class="accent-[var(--accent)]" :checked="search.labels.includes(label)" @change="toggle('labels', label)" />{{ label }}
        </label>
      </PopoverPanel>
    </Popover>
    <span>on</span>
    <Popover class="relative">
      <PopoverButton class="part text-ink" data-part="branches">{{ onBranches }}</PopoverButton>
      <PopoverPanel class="panel absolute left-0 z-20 mt-1 w-72 p-2 text-ink">
        <label class="block">Branches or tags, one a line
          <textarea class="field mt-1 font-mono" rows="3" :value="search.branches.join('\n')" placeholder="release/*" @change="search.branches = lines(($event.target as HTMLTextAreaElement).value)" />
        </label>
        <p class="mt-1 text-soft">Only indexed ones are searched. Empty: each repository's default branch.</p>
      </PopoverPanel>
    </Popover>
    <span class="-ml-1">,</span>
    <Popover class="relative">
      <PopoverButton class="part text-ink" data-part="under">{{ inFolders }}</PopoverButton>
      <PopoverPanel class="panel absolute left-0 z-20 mt-1 w-80 p-2 text-ink">
        <label class="block">Folders or files, one a line
          <textarea class="field mt-1 font-mono" rows="4" :value="search.under.join('\n')" placeholder="src/main&#10;*.yaml" @change="search.under = lines(($event.target as HTMLTextAreaElement).value)" />
        </label>
        <label class="mt-2 block">Left out, one a line
          <textarea class="field mt-1 font-mono" rows="2" :value="search.notUnder.join('\n')" placeholder="vendor" @change="search.notUnder = lines(($event.target as HTMLTextAreaElement).value)" />
        </label>
        <p class="mt-1 text-soft">With a slash: from the repository's root. Without: at any depth. <code class="font-mono">*</code> is any name, <code class="font-mono">**</code> any folders.</p>
      </PopoverPanel>
    </Popover>
    <span class="-ml-1">.</span>
    <button v-if="limited" type="button" class="button ml-2 py-0 text-ink" @click="lift">Search everywhere</button>
  </p>
</template>
