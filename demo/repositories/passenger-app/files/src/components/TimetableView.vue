<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { t } from '../i18n'
import { type Departure, nextDepartures } from '../timetable'

const from = ref('quillhaven-old-pier')
const departures = ref<Departure[]>([])
const shown = computed(() => departures.value.filter(departure => departure.from === from.value))

onMounted(async () => { departures.value = await nextDepartures(new Date()) })
</script>

<template>
  <h1>{{ t('common.nextDepartures') }}</h1>
  <ol>
    <li v-for="departure in shown" :key="departure.id" :class="{ cancelled: departure.cancelled }">
      <time>{{ departure.time }}</time> {{ departure.to }}
      <em v-if="departure.cancelled">{{ t('disturbances.cancelled') }}</em>
    </li>
  </ol>
  <p v-if="!shown.length">{{ t('common.noDepartures') }}</p>
</template>
