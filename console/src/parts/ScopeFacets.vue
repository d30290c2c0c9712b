<script setup lang="ts">
import type { Facet, Scope, ScopePart } from '../wire'
import FacetBars from './FacetBars.vue'

// Where the hits fall. A click narrows the scope to a value, or takes that back; a trait can be left out as well.
defineProps<{
  facets: { repository: Facet[]; folder?: Facet[]; type: Facet[]; trait: Facet[] }
  exact: boolean
  scope: Scope
}>()
defineEmits<{ choose: [part: ScopePart, value: string] }>()
</script>

<template>
  <FacetBars
    title="By repository"
    :facets="facets.repository"
    :exact="exact"
    :chosen="scope.repo"
    @choose="$emit('choose', 'repo', $event)"
  />
  <FacetBars
    v-if="facets.folder?.length"
    title="By folder"
    :facets="facets.folder"
    :exact="exact"
    :chosen="scope.under"
    @choose="$emit('choose', 'under', $event)"
  />
  <FacetBars
    v-if="facets.type.length"
    title="By type"
    :facets="facets.type"
    :exact="exact"
    :chosen="scope.type"
    @choose="$emit('choose', 'type', $event)"
  />
  <FacetBars
    v-if="facets.trait.length"
    title="By trait"
    leaves-out
    :facets="facets.trait"
    :exact="exact"
    :chosen="scope.trait"
    @choose="$emit('choose', 'trait', $event)"
    @leave-out="$emit('choose', 'notTrait', $event)"
  />
</template>
