<script setup lang="ts">
import { ref } from 'vue'

const night = ref(document.documentElement.dataset.theme === 'night')

function change() {
  night.value = !night.value
  const theme = night.value ? 'night' : 'day'
  document.documentElement.dataset.theme = theme
  localStorage.setItem('oddbeacon.theme', theme)
}
</script>

<template>
  <button
    type="button"
    class="button"
    :aria-label="night ? 'Change to light colours' : 'Change to dark colours'"
    @click="change"
  >
    {{ night ? 'Day' : 'Night' }}
  </button>
</template>
