<script setup lang="ts">
import { onMounted, reactive } from 'vue'
import { counted } from '../amounts'
import { countLines } from '../requests'
import { emptySearch, toUrl } from '../searchUrl'
import { lessons, type Example } from '../lessons'

// Each example runs on the indexed repositories, so that people see what it does to code they know.
const found = reactive<Record<string, string>>({})
const key = (example: Example) => `${example.reading} ${example.text}`
const to = (example: Example) => ({
  name: 'search',
  query: toUrl({ ...emptySearch(), text: example.text, reading: example.reading }),
})

onMounted(async () => {
  for (const example of lessons.flatMap(lesson => lesson.examples)) {
    try {
      const { counts } = await countLines(example.text, example.reading)
      found[key(example)] = counts.hits
        ? counted(counts.hits, 'hit')
        : counts.files
          ? counted(counts.files, 'file')
          : 'nothing here'
    } catch {
      found[key(example)] = ''
    }
  }
})
</script>

<template>
  <main class="mx-auto max-w-4xl px-4 pb-24 pt-6">
    <h1 class="text-lg font-semibold">How to ask</h1>
    <p class="mt-1 text-soft">
      A text is read in one of three ways. Case and whole words combine with all of them. The examples below are run on
      what is indexed here; each is a link.
    </p>
    <section v-for="lesson in lessons" :key="lesson.title" class="mt-6">
      <h2 class="font-semibold">{{ lesson.title }}</h2>
      <p class="mt-1">{{ lesson.text }}</p>
      <table class="mt-2 w-full">
        <tbody>
          <tr v-for="example in lesson.examples" :key="key(example)" class="border-t border-rule align-baseline">
            <td class="w-[22rem] py-1 pr-4 max-sm:block max-sm:w-auto">
              <RouterLink :to="to(example)" class="part break-all font-mono text-[13px]" data-part="example">{{
                example.text
              }}</RouterLink>
            </td>
            <td class="py-1 pr-4 text-soft max-sm:block">{{ example.finds }}</td>
            <td class="w-24 py-1 text-right tabular-nums text-soft max-sm:block max-sm:text-left">
              {{ found[key(example)] }}
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>
