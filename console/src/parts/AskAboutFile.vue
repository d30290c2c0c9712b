<script setup lang="ts">
import { ref, watch } from 'vue'
import * as requests from '../requests'
import type { AboutFile, Search } from '../wire'

// For a file that one knows to match and that is not there: which limit keeps it out.
const props = defineProps<{ search: Search }>()
const opened = ref(false)
const name = ref('')
const about = ref<AboutFile>()
const problem = ref('')

async function ask(path = name.value.trim()) {
  name.value = path
  about.value = undefined
  problem.value = ''
  const [repository, ...rest] = path.split(/[/:]/)
  if (!repository || !rest.length) {
    problem.value = 'Write the repository and the path: fare-gate/README.md'
    return
  }
  try {
    about.value = await requests.aboutFile(props.search, repository, path.slice(repository.length + 1))
  } catch (error) {
    problem.value = (error as Error).message
  }
}
watch(
  () => JSON.stringify(props.search),
  () => {
    if (opened.value && about.value) void ask()
  },
)
</script>

<template>
  <div data-part="about-file">
    <button type="button" class="part text-soft" :aria-expanded="opened" @click="opened = !opened">
      Is a file missing?
    </button>
    <form v-if="opened" class="mt-2 max-w-2xl text-left" @submit.prevent="ask()">
      <label class="block text-soft"
        >The file that should be here
        <span class="mt-0.5 flex gap-2"
          ><input v-model="name" class="field font-mono text-ink" placeholder="repository/path/of/the/file" /><button
            class="button shrink-0 text-ink"
          >
            Ask
          </button></span
        >
      </label>
      <p v-if="problem" role="alert" class="mt-1 text-bad">{{ problem }}</p>
      <div v-if="about" class="mt-2" aria-live="polite">
        <template v-if="about.indexed">
          <p>
            <strong class="font-semibold">It is {{ about.found ? '' : 'not ' }}among the results.</strong>{{ ' ' }}
            <span class="text-soft"
              >Type {{ about.type
              }}<template v-for="(why, trait) in about.traits" :key="trait">; {{ trait }} ({{ why }})</template></span
            >
          </p>
          <ul class="mt-1">
            <li
              v-for="check in about.checks"
              :key="check.limit"
              class="flex gap-2"
              :class="check.holds ? 'text-soft' : 'text-bad'"
            >
              <span class="w-24 shrink-0">{{ check.holds ? 'holds' : 'keeps it out' }}</span><span
                class="min-w-0 break-words"
                ><code class="font-mono text-[13px]">{{ check.limit }}</code> &nbsp;{{ check.why }}</span
              >
            </li>
          </ul>
          <p v-if="about.nearest" class="mt-1 text-soft">
            The nearest line is
            <RouterLink
              class="part"
              :to="{
                name: 'file',
                query: {
                  in: about.repository,
                  path: about.path,
                  rev: about.branch,
                  line: String(about.nearest.number),
                },
              }"
              >{{ about.nearest.number }}</RouterLink>:
            <code class="font-mono text-[13px] break-all">{{ about.nearest.text.trim() }}</code>
          </p>
        </template>
        <template v-else>
          <p>{{ about.repository }} has no file of that path on {{ about.branch }}.</p>
          <p v-for="path in about.nearestPaths" :key="path">
            <button type="button" class="part font-mono text-[13px]" @click="ask(`${about.repository}/${path}`)">
              {{ path }}
            </button>
          </p>
        </template>
      </div>
    </form>
  </div>
</template>
