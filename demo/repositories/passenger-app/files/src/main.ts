import { createApp } from 'vue'
import App from './App.vue'
import { loadTranslations, preferredLanguage } from './i18n'

await loadTranslations(preferredLanguage())
createApp(App).mount('#app')
