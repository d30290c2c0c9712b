<script setup lang="ts">
import { reactive, ref } from 'vue'
import DialogFrame from './DialogFrame.vue'
import * as requests from '../requests'
import { useRepositories } from '../state/repositories'

defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const repositories = useRepositories()
const form = reactive({ name: '', location: '', title: '', labels: '', branches: '' })
const problem = ref('')
const list = (text: string) =>
  text
    .split(',')
    .map(part => part.trim())
    .filter(Boolean)

// What people mean by a location is mostly also the name.
function suggestName() {
  if (!form.name) form.name = (form.location.replace(/\/+$/, '').split(/[/:]/).pop() ?? '').replace(/\.git$/, '')
}

async function add() {
  problem.value = ''
  try {
    await requests.add({
      name: form.name.trim(),
      location: form.location.trim(),
      title: form.title.trim() || null,
      labels: list(form.labels),
      branches: list(form.branches),
    })
    void repositories.load()
    Object.assign(form, { name: '', location: '', title: '', labels: '', branches: '' })
    emit('close')
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <DialogFrame :open="open" :title="'Add a repository'" @close="emit('close')">
    <p class="mt-1 text-soft">
      The service makes a copy of its own and reads from that. Nothing is ever written to the repository.
    </p>
    <form class="mt-4 grid gap-3" @submit.prevent="add">
      <label
        >Location
        <input
          v-model="form.location"
          class="field mt-0.5 font-mono"
          required
          placeholder="/srv/git/harbour-map.git or https://…"
          @blur="suggestName"
        />
      </label>
      <label
        >Name, by which it is searched
        <input v-model="form.name" class="field mt-0.5 font-mono" required placeholder="harbour-map" />
      </label>
      <label
        >Title, if people call it otherwise
        <input v-model="form.title" class="field mt-0.5" placeholder="Harbour map" />
      </label>
      <div class="grid gap-3 sm:grid-cols-2">
        <label
          >Labels, by commas
          <input v-model="form.labels" class="field mt-0.5" placeholder="maps, customer" />
        </label>
        <label
          >Branches or tags, by commas
          <input v-model="form.branches" class="field mt-0.5 font-mono" placeholder="its HEAD" />
        </label>
      </div>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
      <div class="flex justify-end gap-2">
        <button type="button" class="button" @click="emit('close')">Cancel</button>
        <button type="submit" class="button-strong">Add and index</button>
      </div>
    </form>
  </DialogFrame>
</template>
