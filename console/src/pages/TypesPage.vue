<script setup lang="ts">
import { computed, ref } from 'vue'
import { useTypes } from '../state/types'

const types = useTypes()
void types.load()
const filter = ref('')
const shown = computed(() => {
  const wanted = filter.value.toLowerCase()
  return types.types.filter(type =>
    [type.name, type.title, ...type.names, ...type.interpreters].some(text => text.toLowerCase().includes(wanted)),
  )
})
</script>

<template>
  <main class="mx-auto max-w-4xl px-4 pt-6 pb-24">
    <h1 class="text-lg font-semibold">Types and traits</h1>
    <p class="mt-1 text-soft">
      The type of a file is told by its name; where a name is shared, says little or is missing, by its first line and
      its content: a header is C++ if it holds C++, a script without an ending is what its interpreter says. A
      repository can say otherwise in its <code class="font-mono">.gitattributes</code>:
      <code class="font-mono">*.tide oddbeacon-type=yaml</code>,
      <code class="font-mono">gen/** oddbeacon-trait=generated</code>,
      <code class="font-mono">docs/** -oddbeacon-trait</code> for none.
    </p>
    <h2 class="mt-6 mb-1 font-semibold">Traits</h2>
    <dl class="grid grid-cols-[max-content_1fr] gap-x-4 gap-y-0.5">
      <template v-for="trait in types.traits" :key="trait.name"
        ><dt class="font-mono text-[13px]">{{ trait.name }}</dt>
        <dd class="text-soft">{{ trait.meaning }}</dd></template
      >
    </dl>
    <h2 class="mt-6 mb-1 font-semibold">Types</h2>
    <input
      v-model="filter"
      class="field max-w-xs"
      placeholder="Name, ending or interpreter"
      aria-label="Filter types"
    />
    <table class="mt-2 w-full">
      <thead>
        <tr class="border-b border-rule text-left text-soft">
          <th class="pr-4 font-normal">Type</th>
          <th class="pr-4 font-normal">Written in queries</th>
          <th class="font-normal">Files, and interpreters after #!</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="type in shown" :key="type.name" class="border-b border-rule/50 align-baseline">
          <td class="py-0.5 pr-4 whitespace-nowrap">{{ type.title }}</td>
          <td class="pr-4 font-mono text-[13px]">{{ type.name }}</td>
          <td class="font-mono text-[13px] break-words text-soft">
            {{ type.names.join('  ')
            }}<span v-if="type.interpreters.length" class="text-ink"> &nbsp;#! {{ type.interpreters.join(' ') }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="types.types.length && !shown.length" class="py-4 text-soft">No type has such a name or ending.</p>
  </main>
</template>
