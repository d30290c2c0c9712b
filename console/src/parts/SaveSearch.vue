<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed, reactive, ref } from 'vue'
import { useRoute } from 'vue-router'
import * as requests from '../requests'
import { subjectOf, toKeep, whose } from '../saved'
import { useSearches } from '../state/searches'
import { useSession } from '../state/session'
import type { Instead, SavedSubject } from '../wire'

// Keeps the search of the page under a name; or another one, with what stands instead of what it finds.
const { other } = defineProps<{
  other?: { subject: SavedSubject; parameters: Record<string, string[]>; replacement: Instead | null }
}>()
const route = useRoute()
const session = useSession()
const searches = useSearches()
const subject = computed(() => other?.subject ?? subjectOf(route.name))
const form = reactive({ name: '', of: '', description: '' })
const problem = ref('')
const notice = ref('')

const choices = computed(() => [
  ...(session.person ? ['me', ...session.person.teams.map(team => `team:${team}`)] : []),
  ...(session.may('maintainer') ? ['everybody'] : []),
])
const of = computed(() => form.of || choices.value[0] || '')
const there = computed(() => searches.saved.find(search => search.name === form.name.trim() && search.of === of.value))

async function save() {
  if (!subject.value) return
  problem.value = notice.value = ''
  try {
    await requests.saveSearch(form.name.trim(), {
      of: of.value,
      description: form.description || there.value?.description || '',
      subject: subject.value,
      parameters: other?.parameters ?? toKeep(route.query),
      replacement: other?.replacement ?? null,
      worklist: null,
      version: there.value?.version ?? null,
    })
    notice.value = 'Saved. The start page lists it.'
  } catch (error) {
    problem.value = (error as Error).message
  }
  await searches.load()
}
</script>

<template>
  <Popover v-if="subject && choices.length" class="relative">
    <PopoverButton class="button" data-part="save-search" @click="searches.load()">{{
      !other ? 'Save this search' : other.replacement ? 'Save this replacement' : 'Save this scope'
    }}</PopoverButton>
    <PopoverPanel class="panel absolute right-0 z-20 mt-1 w-80 max-w-[90vw] p-3">
      <form @submit.prevent="save">
        <label class="block"
          >Name<input
            v-model="form.name"
            class="field mt-0.5"
            required
            maxlength="100"
            placeholder="asks-tidewatch"
            data-part="search-name"
        /></label>
        <label class="mt-2 block"
          >What it is for<input v-model="form.description" class="field mt-0.5" maxlength="500"
        /></label>
        <label v-if="choices.length > 1" class="mt-2 block"
          >Whose
          <select v-model="form.of" class="field mt-0.5">
            <option v-for="(choice, i) in choices" :key="choice" :value="i ? choice : ''">{{ whose(choice) }}</option>
          </select>
        </label>
        <p class="mt-3 flex items-center gap-2">
          <button type="submit" class="button-strong" :disabled="!form.name.trim()">
            {{ there ? 'Save in its place' : 'Save' }}
          </button>
          <span v-if="notice" class="text-good" role="status">{{ notice }}</span>
        </p>
        <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
      </form>
    </PopoverPanel>
  </Popover>
</template>
