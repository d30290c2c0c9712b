<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { OfficeClient } from '../generated/officeClient'
import { t } from '../i18n'

const messages = ref<string[]>([])
onMounted(async () => {
  const disturbances = await new OfficeClient('https://office.quillhaven.example').listDisturbances({ severity: 'moderate' })
  messages.value = disturbances.map(one => t(`disturbances.${one.kind}`, { route: one.route }))
})
</script>

<template>
  <aside v-if="messages.length" role="status"><p v-for="message in messages" :key="message">{{ message }}</p></aside>
</template>
