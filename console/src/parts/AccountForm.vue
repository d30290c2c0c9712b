<script setup lang="ts">
import { reactive, ref, watch } from 'vue'
import DialogFrame from './DialogFrame.vue'
import * as requests from '../requests'
import type { AccountInfo, AccountRole } from '../wire'

// Makes an account, or changes one.
const props = defineProps<{ open: boolean; account?: AccountInfo }>()
const emit = defineEmits<{ close: []; done: [] }>()
const form = reactive({ name: '', displayName: '', role: 'reader' as AccountRole, teams: '', password: '' })
const problem = ref('')

watch(
  () => props.open,
  () => {
    problem.value = ''
    Object.assign(form, {
      name: props.account?.name ?? '',
      displayName: props.account?.displayName ?? '',
      role: props.account?.role ?? 'reader',
      teams: props.account?.teams.join(', ') ?? '',
      password: '',
    })
  },
)

async function save() {
  problem.value = ''
  const wanted = {
    name: form.name,
    displayName: form.displayName.trim() || form.name,
    role: form.role,
    teams: form.teams
      .split(',')
      .map(team => team.trim())
      .filter(Boolean),
    password: form.password || null,
  }
  try {
    await (props.account ? requests.changeAccount(props.account.name, wanted) : requests.addAccount(wanted))
    emit('done')
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <DialogFrame :open="open" :title="account ? `Change ${account.name}` : 'Add somebody'" @close="emit('close')">
    <form class="mt-4 grid gap-3" autocomplete="off" @submit.prevent="save">
      <label v-if="!account"
        >Name, to sign in with
        <input v-model="form.name" class="field mt-0.5" autocapitalize="none" spellcheck="false" required />
      </label>
      <label
        >Name, to show
        <input v-model="form.displayName" class="field mt-0.5" />
      </label>
      <div class="grid gap-3 sm:grid-cols-2">
        <label
          >Role
          <select v-model="form.role" class="field mt-0.5">
            <option>reader</option>
            <option>maintainer</option>
            <option>administrator</option>
          </select>
        </label>
        <label
          >Teams, by commas
          <input v-model="form.teams" class="field mt-0.5" placeholder="deck-crew, harbour" />
        </label>
      </div>
      <label
        >{{ account ? 'New password; it ends all sessions' : 'Password, of at least 12 characters' }}
        <input
          v-model="form.password"
          class="field mt-0.5"
          type="password"
          autocomplete="new-password"
          minlength="12"
          :required="!account"
        />
      </label>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
      <div class="flex justify-end gap-2">
        <button type="button" class="button" @click="emit('close')">Cancel</button>
        <button type="submit" class="button-strong">{{ account ? 'Save' : 'Add' }}</button>
      </div>
    </form>
  </DialogFrame>
</template>
