<script setup lang="ts">
import { computed } from 'vue'
import { counted } from '../amounts'
import { emptySearch, toUrl } from '../searchUrl'
import type { Translations } from '../wire'

// A text of the interface in all languages, and the code that shows it.
const props = defineProps<{ translations: Translations }>()
defineEmits<{ close: [] }>()
const to = (repository: string, path: string, line: number) => ({
  name: 'file',
  query: { in: repository, path, line: String(line) },
})
const allUses = computed(() => ({
  name: 'search',
  query: toUrl({
    ...emptySearch(),
    text: props.translations.form,
    caseMode: 'match',
    word: true,
    scope: { ...emptySearch().scope, notTrait: ['translation'] },
  }),
}))
</script>

<template>
  <section class="flex min-h-0 flex-col overflow-y-auto p-3" aria-label="Translations" data-part="translations">
    <div class="flex items-baseline gap-2">
      <h2 class="min-w-0 font-mono text-[14px] font-bold break-all">{{ translations.key }}</h2>
      <button type="button" class="button ml-auto px-1.5 py-0" aria-label="Close" @click="$emit('close')">×</button>
    </div>
    <h3 class="mt-2">In {{ counted(translations.languages.length, 'language') }}</h3>
    <ul data-part="languages">
      <li v-for="one in translations.languages" :key="one.path" class="py-0.5">
        <RouterLink class="flex gap-2 hover:underline" :to="to(translations.repository, one.path, one.line)"
          ><span class="w-10 shrink-0 text-soft">{{ one.language }}</span
          ><span class="min-w-0 font-mono text-[12px] break-words">{{ one.text }}</span></RouterLink
        >
      </li>
    </ul>
    <div class="mt-3" data-part="shown-by">
      <h3 v-if="translations.usesTotal">
        <RouterLink class="part" :to="allUses"
          >{{ translations.exact ? '' : 'at least ' }}{{ counted(translations.usesTotal, 'line') }} of code</RouterLink
        >
        {{ translations.usesTotal === 1 ? 'names' : 'name' }} it
      </h3>
      <p v-else class="text-soft">No code names this key, as far as it is written as a whole.</p>
      <ul>
        <li
          v-for="use in translations.uses.slice(0, 12)"
          :key="`${use.repository}/${use.path}:${use.line}`"
          class="py-0.5"
        >
          <RouterLink class="block hover:underline" :to="to(use.repository, use.path, use.line)"
            ><span class="block truncate font-mono text-[12px]">{{ use.text }}</span
            ><span class="block truncate text-[12px] text-soft"
              >{{ use.repository }}/{{ use.path.slice(use.path.lastIndexOf('/') + 1) }}:{{ use.line }}</span
            ></RouterLink
          >
        </li>
      </ul>
    </div>
  </section>
</template>
