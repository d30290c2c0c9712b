<script setup lang="ts">
import { ref } from 'vue'
import DialogFrame from './DialogFrame.vue'
import * as requests from '../requests'
import type { Repository } from '../wire'

const props = defineProps<{ repository?: Repository }>()
const emit = defineEmits<{ close: [] }>()
const problem = ref('')

async function remove() {
  try {
    await requests.remove(props.repository!.name)
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
    <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
    <div class="mt-4 flex justify-end gap-2">
      <button type="button" class="button" @click="emit('close')">Keep</button>
      <button type="button" class="button-strong" @click="remove">Remove</button>
    </div>
  </DialogFrame>
</template>
