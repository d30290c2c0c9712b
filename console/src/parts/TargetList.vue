<script setup lang="ts">
import type { Target } from '../wire'

// Declarations that a name may mean, or that are related to one, each with where it is and why it is named.
defineProps<{ title: string; targets: Target[] }>()
const to = (target: Target) => ({
  name: 'file',
  query: { in: target.repository, path: target.path, line: String(target.line) },
})
</script>

<template>
  <div v-if="targets.length" class="mt-3">
    <h3 class="text-soft">{{ title }}</h3>
    <ul>
      <li v-for="target in targets" :key="`${target.repository}/${target.path}:${target.line}`" class="py-0.5">
        <RouterLink class="block hover:underline" :to="to(target)"
          ><span class="block truncate font-mono text-[13px]" :title="`${target.container}.${target.name}`"
            ><span class="text-accent" aria-hidden="true">◆</span>
            {{ target.container ? `${target.container.slice(target.container.lastIndexOf('.') + 1)}.` : ''
            }}<b>{{ target.name }}</b></span
          ><span
            class="block truncate text-[12px] text-soft"
            :title="`${target.repository}/${target.path}:${target.line}`"
            >{{ target.kind }} in {{ target.path.slice(target.path.lastIndexOf('/') + 1) }}:{{ target.line }} of
            {{ target.repository }}; {{ target.reason }}</span
          ></RouterLink
        >
      </li>
    </ul>
  </div>
</template>
