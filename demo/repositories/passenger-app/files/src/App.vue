<script setup lang="ts">
import { ref } from 'vue'
import DisturbanceBanner from './components/DisturbanceBanner.vue'
import TicketWallet from './components/TicketWallet.vue'
import TimetableView from './components/TimetableView.vue'
import { t } from './i18n'

const page = ref<'timetable' | 'tickets'>('timetable')
</script>

<template>
  <DisturbanceBanner />
  <nav>
    <button @click="page = 'timetable'">{{ t('common.timetable') }}</button>
    <button @click="page = 'tickets'">{{ t('common.tickets') }}</button>
  </nav>
  <TimetableView v-if="page === 'timetable'" />
  <TicketWallet v-else />
</template>
