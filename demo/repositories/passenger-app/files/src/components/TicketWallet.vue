<script setup lang="ts">
import { ref } from 'vue'
import { t } from '../i18n'
import { type Ticket, isGood, storedTickets } from '../tickets'

const tickets = ref<Ticket[]>(storedTickets())
</script>

<template>
  <h1>{{ t('tickets.yourTickets') }}</h1>
  <article v-for="ticket in tickets" :key="ticket.serial" :aria-disabled="!isGood(ticket)">
    <h2>{{ t(`tickets.zone.${ticket.zone}`) }}</h2>
    <p>{{ t('tickets.validUntil', { date: ticket.expiry }) }}</p>
    <canvas :data-code="ticket.code" />
  </article>
  <p v-if="!tickets.length">{{ t('tickets.none') }}</p>
</template>
