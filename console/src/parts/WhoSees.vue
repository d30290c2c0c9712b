<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import DialogFrame from './DialogFrame.vue'
import * as requests from '../requests'
import { useSession } from '../state/session'
import type { Repository, SeesPerson } from '../wire'

// Says who sees a repository.
const props = defineProps<{ repository?: Repository }>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const anybody = ref(false)
const everybody = ref(false)
const teams = ref<string[]>([])
const shownTeams = ref<string[]>([])
const people = ref('')
const problem = ref('')
const loaded = ref(false)
const now = ref<SeesPerson[]>([])
const because = (why: string) =>
  why === 'everybody' || why === 'anybody' ? why : why.startsWith('person:') ? 'by name' : why.replace('team:', 'in ')
const one = (viewers: string[], kind: string) =>
  viewers.filter(viewer => viewer.startsWith(kind)).map(viewer => viewer.slice(kind.length))

watch(
  () => props.repository,
  async repository => {
    if (!repository) return
    loaded.value = false
    problem.value = ''
    try {
      teams.value = await requests.teams()
      const { visibleTo, people: seeing } = await requests.viewers(repository.name)
      now.value = seeing
      anybody.value = visibleTo.includes('anybody')
      everybody.value = visibleTo.includes('everybody')
      shownTeams.value = one(visibleTo, 'team:')
      people.value = one(visibleTo, 'person:').join(', ')
      loaded.value = true
    } catch (error) {
      problem.value = (error as Error).message
    }
  },
)
const wanted = computed(() => [
  ...(anybody.value ? ['anybody'] : []),
  ...(everybody.value ? ['everybody'] : []),
  ...shownTeams.value.map(team => `team:${team}`),
  ...people.value
    .split(',')
    .map(name => name.trim().toLowerCase())
    .filter(Boolean)
    .map(name => `person:${name}`),
])
const outcome = computed(() =>
  anybody.value
    ? 'Anybody who reaches this service sees it.'
    : everybody.value
      ? 'Everybody who is signed in sees it.'
      : wanted.value.length
        ? 'Those people see it, and administrators.'
        : 'Nobody but administrators sees it.',
)

async function save() {
  problem.value = ''
  try {
    await requests.setViewers(props.repository!.name, wanted.value)
    emit('close')
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <DialogFrame :open="!!repository" :title="`Who sees ${repository?.name}`" @close="emit('close')">
    <p class="mt-1 text-soft">For all others it does not exist. It takes effect at once.</p>
    <p v-if="!loaded && !problem" class="mt-4 text-soft" role="status">Loading</p>
    <form class="mt-4 grid gap-3" @submit.prevent="save">
      <template v-if="loaded">
        <label v-if="session.guests" class="flex items-center gap-2"
          ><input v-model="anybody" type="checkbox" />Anybody, without signing in</label
        >
        <label class="flex items-center gap-2"
          ><input v-model="everybody" type="checkbox" />Everybody who is signed in</label
        >
        <fieldset v-if="teams.length" :disabled="everybody" class="disabled:opacity-50">
          <legend class="text-soft">Teams</legend>
          <label v-for="team in teams" :key="team" class="mr-4 inline-flex items-center gap-2"
            ><input v-model="shownTeams" type="checkbox" :value="team" />{{ team }}</label
          >
        </fieldset>
        <label
          >People, by commas
          <input v-model="people" class="field mt-0.5" :disabled="everybody" placeholder="mira, jonas" />
        </label>
        <p class="text-soft" role="status">{{ outcome }}</p>
        <details v-if="now.length">
          <summary class="cursor-pointer text-soft">Who sees it now, and why</summary>
          <ul class="mt-1 max-h-40 overflow-y-auto" tabindex="0" aria-label="Who sees it now">
            <li v-for="one in now" :key="one.name">
              {{ one.displayName }} <span class="text-soft">{{ one.why.map(because).join(', ') }}</span>
            </li>
          </ul>
        </details>
      </template>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
      <div class="flex justify-end gap-2">
        <button type="button" class="button" @click="emit('close')">Cancel</button>
        <button type="submit" class="button-strong" :disabled="!loaded">Save</button>
      </div>
    </form>
  </DialogFrame>
</template>
