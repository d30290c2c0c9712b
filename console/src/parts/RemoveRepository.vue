<script setup lang="ts">
import { ref } from 'vue'
import DialogFrame from './DialogFrame.vue'
import * as requests from '../requests'
import type { Repository } from '../wire'

const props = defineProps<{ repository?: Repository }>()
const emit = defineEmits<{ close: [] }>()
const problem = ref('')

async function act(action: (name: string) => Promise<unknown>) {
  problem.value = ''
  try {
    await action(props.repository!.name)
    emit('close')
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <DialogFrame :open="!!repository" :title="`Remove ${repository?.name}?`" narrow @close="emit('close')">
    <p class="mt-2 text-soft">
      It can no longer be searched, and its copy here is deleted. The repository at
      <span class="font-mono break-all">{{ repository?.location }}</span> is not touched; it can be added again.
    </p>
    <p class="mt-2 text-soft">
      If it is only to be rid of a text that should never have been pushed: rewrite its history there, then purge it. It
      is fetched and indexed anew, and nothing of what was here before is left.
    </p>
    <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
    <div class="mt-4 flex justify-end gap-2">
      <button type="button" class="button" @click="emit('close')">Keep</button>
      <button type="button" class="button" @click="act(requests.purge)">Purge</button>
      <button type="button" class="button-strong" @click="act(requests.remove)">Remove</button>
    </div>
  </DialogFrame>
</template>
