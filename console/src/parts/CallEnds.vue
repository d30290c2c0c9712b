<script setup lang="ts">
import { ref } from 'vue'
import { counted } from '../amounts'
import * as requests from '../requests'
import type { CallDirection, CallEnd, CallsAnswer } from '../wire'

// Ends of calls, each of which unfolds to its own. What stands above an end is not unfolded below it again.
const props = defineProps<{ ends: CallEnd[]; direction: CallDirection; above: string[] }>()
const FEW = 3
const open = ref<Record<string, CallsAnswer | 'loading' | Error>>({})

const key = (end: CallEnd) => end.at ?? `${end.repository}/${end.path}`
const isAbove = (end: CallEnd) => !!end.at && props.above.includes(end.at)
const answer = (end: CallEnd) => {
  const found = open.value[key(end)]
  return found && found !== 'loading' && !(found instanceof Error) ? found : null
}
const problem = (end: CallEnd) => {
  const found = open.value[key(end)]
  return found instanceof Error ? found.message : ''
}
async function toggle(end: CallEnd) {
  const at = key(end)
  if (open.value[at]) {
    open.value = Object.fromEntries(Object.entries(open.value).filter(([one]) => one !== at))
    return
  }
  open.value = { ...open.value, [at]: 'loading' }
  const found = await requests.calls({ of: at }, props.direction).catch((error: unknown) => error as Error)
  if (open.value[at] === 'loading') open.value = { ...open.value, [at]: found }
}
const to = (end: CallEnd, line: number) => ({
  name: 'file',
  query: { in: end.repository, path: end.path, line: String(line) },
})
const file = (end: CallEnd) => end.path.slice(end.path.lastIndexOf('/') + 1)
/** The type of a member; what stands in a package needs none. */
const innermost = (end: CallEnd) => {
  if (!['method', 'constructor', 'field'].includes(end.declaration?.kind ?? '')) return ''
  const container = end.declaration?.container ?? ''
  return container.slice(Math.max(container.lastIndexOf('.'), container.lastIndexOf(':')) + 1)
}
</script>

<template>
  <ul class="border-l border-rule pl-3" data-part="ends">
    <li v-for="end in ends" :key="key(end)" class="py-1">
      <div class="flex items-baseline gap-1.5">
        <button
          v-if="end.at && !isAbove(end)"
          type="button"
          class="w-5 shrink-0 rounded text-soft hover:bg-shade"
          :aria-expanded="!!open[key(end)]"
          :aria-label="`${direction === 'callers' ? 'What calls' : 'What is called by'} ${end.declaration?.name}`"
          @click="toggle(end)"
        >
          {{ open[key(end)] ? '▾' : '▸' }}
        </button>
        <span v-else class="w-5 shrink-0 text-center text-soft" aria-hidden="true">·</span>
        <span class="min-w-0">
          <RouterLink
            class="font-mono text-[13px] break-all hover:underline"
            :to="to(end, end.declaration?.line ?? end.sites[0]?.line ?? 1)"
            ><template v-if="end.declaration"
              ><span v-if="innermost(end)" class="text-soft">{{ innermost(end) }}.</span
              ><b>{{ end.declaration.name }}</b></template
            ><b v-else>{{ file(end) }}</b></RouterLink
          >
          <span class="ml-2 text-[12px] text-soft" :title="`${end.repository}/${end.path}`"
            >{{ end.declaration?.kind ?? 'the file itself' }} in {{ end.repository }}/…/{{ file(end) }};
            {{ counted(end.sites.length, 'call') }}</span
          >
          <span v-if="end.certainty !== 'sure'" class="ml-2 rounded border border-rule px-1 text-[12px] text-soft"
            >likely</span
          >
          <span v-if="isAbove(end)" class="ml-2 text-[12px] text-soft">stands above</span>
        </span>
      </div>
      <ul v-if="direction === 'callers'" class="ml-6">
        <li v-for="site in end.sites.slice(0, FEW)" :key="`${site.line}:${site.column}`" class="min-w-0">
          <RouterLink
            class="flex min-h-6 items-center gap-2 font-mono text-[12px] hover:underline"
            :to="to(end, site.line)"
            ><span class="w-10 shrink-0 text-right text-soft tabular-nums">{{ site.line }}</span
            ><span class="truncate">{{ site.text }}</span></RouterLink
          >
        </li>
        <li v-if="end.sites.length > FEW" class="ml-12 text-[12px] text-soft">
          and {{ counted(end.sites.length - FEW, 'more', 'more') }}
        </li>
      </ul>
      <div v-if="open[key(end)]" class="mt-1 ml-2.5">
        <p v-if="open[key(end)] === 'loading'" class="pl-3 text-soft" role="status">Loading</p>
        <p v-else-if="problem(end)" class="pl-3" role="alert">{{ problem(end) }}</p>
        <template v-else-if="answer(end)">
          <p v-if="!answer(end)!.ends.length" class="pl-3 text-[12px] text-soft">
            {{ direction === 'callers' ? 'Nothing that is indexed calls it.' : 'It calls nothing that is indexed.' }}
          </p>
          <CallEnds v-else :ends="answer(end)!.ends" :direction="direction" :above="[...above, key(end)]" />
        </template>
      </div>
    </li>
  </ul>
</template>
