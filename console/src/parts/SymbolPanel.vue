<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { counted, number } from '../amounts'
import TargetList from './TargetList.vue'
import * as requests from '../requests'
import { noSymbols } from '../searchUrl'
import type { FoundSymbol, SymbolAt, Target } from '../wire'

// What a name in a file may mean: its declarations with the reason, its relations, its uses.
const props = defineProps<{ symbol: SymbolAt }>()
defineEmits<{ close: [] }>()
const FEW = 12
const uses = ref<FoundSymbol[]>([])
let asking = new AbortController()

watch(
  () => props.symbol,
  async symbol => {
    asking.abort()
    const own = (asking = new AbortController())
    uses.value = []
    try {
      const found = await requests.findSymbols(
        { ...noSymbols(), text: symbol.name, reading: 'plain', role: 'use', of: symbol.usesMeant?.of ?? '' },
        own.signal,
        { limit: FEW },
      )
      if (own === asking) uses.value = found.symbols.filter(use => use.name === symbol.name)
    } catch {
      // the number of uses stands there anyway
    }
  },
  { immediate: true },
)

const to = (place: { repository: string; path: string; line: number }) => ({
  name: 'file',
  query: { in: place.repository, path: place.path, line: String(place.line) },
})
const allUses = computed(() => ({ name: 'symbols', query: { q: props.symbol.name, reading: 'plain', role: 'use' } }))
/** Uses of what is meant here, by how surely that is. */
const meant = computed(() => (props.symbol.usesMeant?.of ? props.symbol.usesMeant : null))
const usesOf = (more: Record<string, string>) => ({
  name: 'symbols',
  query: { q: props.symbol.name, reading: 'plain', role: 'use', of: meant.value?.of ?? '', ...more },
})
const CALLED = ['function', 'method', 'constructor', 'prototype', 'macro']
/** What is called leads to who calls it, and on. */
const calls = computed(() => {
  const kind = (props.symbol.declared ?? props.symbol.declarations[0])?.kind ?? ''
  const of = meant.value?.of
  return of && CALLED.includes(kind)
    ? {
        callers: { name: 'calls', query: { of } },
        callees: { name: 'calls', query: { of, direction: 'callees' } },
      }
    : null
})
const least = computed(() => (meant.value?.exact ? '' : 'at least '))
const shown = computed(() => (meant.value ? meant.value.sure + meant.value.likely : props.symbol.uses))
// Where some are likelier for a reason, those that only have the name are told by their number.
const BY_NAME = 'by name only'
const TOLD = 'the types that are written lead here'
const key = (target: Target) => `${target.repository}/${target.path}:${target.line}:${target.column}`
const family = computed(() => new Set(props.symbol.family.map(key)))
const others = computed(() =>
  props.symbol.declarations.filter(
    target => target.reason !== 'this is the declaration' && !family.value.has(key(target)),
  ),
)
const told = computed(() => others.value.filter(target => target.reason === TOLD))
const likely = computed(() =>
  told.value.length ? told.value : others.value.filter(target => target.reason !== BY_NAME),
)
const byName = computed(() =>
  likely.value.length || props.symbol.declared ? others.value.length - likely.value.length : 0,
)
const allOfName = computed(() => ({ name: 'symbols', query: { q: props.symbol.name, reading: 'plain' } }))
const meaning = computed(() => ({
  title: props.symbol.declared
    ? 'Declared here, and also'
    : told.value.length
      ? 'Means'
      : props.symbol.declarations.length > 1
        ? 'May mean'
        : 'Declared',
  targets: byName.value ? likely.value : others.value,
}))
</script>

<template>
  <section class="flex min-h-0 flex-col overflow-y-auto p-3" aria-label="Symbol" data-part="symbol">
    <div class="flex items-baseline gap-2">
      <h2 class="min-w-0 font-mono text-[14px] font-bold break-all">{{ symbol.name }}</h2>
      <button type="button" class="button ml-auto px-1.5 py-0" aria-label="Close" @click="$emit('close')">×</button>
    </div>
    <p v-if="symbol.declared" class="mt-1 font-mono text-[12px] break-words text-soft">
      {{ symbol.declared.signature }}
    </p>
    <p v-else-if="!symbol.declarations.length" class="mt-1 text-soft">
      No indexed repository declares it: it comes from a library, or is a local name.
    </p>
    <TargetList :title="meaning.title" :targets="meaning.targets" data-part="declarations" />
    <p v-if="byName" class="mt-1 text-[12px] text-soft" data-part="by-name">
      {{ likely.length ? 'And ' : ''
      }}<RouterLink class="part" :to="allOfName">{{ counted(byName, 'declaration') }} elsewhere</RouterLink>
      {{ told.length ? 'of the name, which' : 'that only' }}
      {{
        byName === 1
          ? told.length
            ? 'is not meant'
            : 'has the name'
          : told.length
            ? 'are not meant'
            : 'have the name'
      }}.
    </p>
    <div class="mt-3" data-part="uses">
      <h3 v-if="meant" data-part="meant">
        Uses of {{ symbol.declared ? 'this one' : 'what is meant' }}:
        <RouterLink class="part" :to="usesOf({ certainty: 'sure' })"
          >{{ least }}{{ number(meant.sure) }} sure</RouterLink
        ><template v-if="meant.likely"
          >,
          <RouterLink class="part" :to="usesOf({ certainty: 'likely' })"
            >{{ number(meant.likely) }} likely</RouterLink
          ></template
        ><template v-if="symbol.family.length"
          >; <RouterLink class="part" :to="usesOf({ family: 'true' })">with those of its family</RouterLink></template
        >
      </h3>
      <h3 v-else>
        <RouterLink class="part" :to="allUses"
          >{{ symbol.usesExact ? '' : 'at least ' }}{{ counted(symbol.uses, 'use') }} of the name</RouterLink
        ><span class="text-soft"> in all repositories</span>
      </h3>
      <p v-if="calls" class="text-[13px]" data-part="calls">
        As a tree: <RouterLink class="part" :to="calls.callers">what calls it</RouterLink>,
        <RouterLink class="part" :to="calls.callees">what it calls</RouterLink>
      </p>
      <ul>
        <li v-for="use in uses" :key="`${use.repository}/${use.path}:${use.line}:${use.column}`" class="py-0.5">
          <RouterLink class="block hover:underline" :to="to(use)"
            ><span class="block truncate font-mono text-[12px]">{{ use.text.trim() }}</span
            ><span class="block truncate text-[12px] text-soft"
              >{{ use.certainty === 'likely' ? 'likely: ' : '' }}{{ use.repository }}/{{
                use.path.slice(use.path.lastIndexOf('/') + 1)
              }}:{{ use.line
              }}{{ use.container ? ` in ${use.container.slice(use.container.lastIndexOf('.') + 1)}` : '' }}</span
            ></RouterLink
          >
        </li>
      </ul>
      <p v-if="shown > uses.length && uses.length" class="text-[12px] text-soft">
        and {{ number(shown - uses.length) }} more
      </p>
      <p v-if="meant?.byName" class="mt-1 text-[12px] text-soft" data-part="others">
        <RouterLink class="part" :to="usesOf({ certainty: 'by-name' })"
          >{{ least }}{{ counted(meant.byName, 'use') }} of the name</RouterLink
        >
        {{ meant.byName === 1 ? 'has' : 'have' }} nothing else in common with it, as far as types tell.
      </p>
    </div>
    <TargetList title="Extends" :targets="symbol.supertypes" data-part="supertypes" />
    <TargetList title="Extended by" :targets="symbol.subtypes" data-part="subtypes" />
    <TargetList title="The same method in related types" :targets="symbol.family" data-part="family" />
  </section>
</template>
