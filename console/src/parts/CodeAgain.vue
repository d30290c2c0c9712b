<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { hint } from '../keys'
import * as requests from '../requests'
import { emptySearch, toUrl } from '../searchUrl'
import type { ShapeOfCode } from '../wire'

// What is selected in a file, as a search for where it is written again.
const props = defineProps<{ code: string; language: string }>()
const router = useRouter()
const problem = ref('')
const LONGEST = 8000

/** One name alone is looked for by other means. */
const isCode = computed(() => /\w\W+\w|\w\W*\(/.test(props.code.trim()) && props.code.length <= LONGEST)
watch(
  () => props.code,
  () => {
    problem.value = ''
  },
)

async function find(which: keyof ShapeOfCode) {
  problem.value = ''
  try {
    const shapes = await requests.shapeOfCode(props.code, props.language)
    const text = shapes[which] ?? shapes.same
    await router.push({ name: 'search', query: toUrl({ ...emptySearch(), text, reading: 'expression' }) })
  } catch (error) {
    problem.value = (error as Error).message
  }
}
defineExpose({ find, isCode })
</script>

<template>
  <div
    v-if="isCode"
    class="absolute right-4 bottom-3 z-10 flex max-w-[90%] flex-wrap items-center gap-1 rounded-md border border-rule bg-sheet px-2 py-1 shadow-sm"
    role="group"
    aria-label="The selected code"
    data-part="code-again"
  >
    <span v-if="problem" role="alert" class="text-accent">{{ problem }}</span>
    <template v-else>
      <span class="mr-1 text-soft">Written again:</span>
      <button
        type="button"
        class="button"
        :title="`${hint('again')}. Blanks, comments and ends of lines do not count`"
        data-part="same-code"
        @click="find('same')"
      >
        the same
      </button>
      <button
        type="button"
        class="button"
        title="Whatever its variables are called, and whatever numbers and strings stand in it"
        data-part="code-alike"
        @click="find('alike')"
      >
        with other names
      </button>
    </template>
  </div>
</template>
