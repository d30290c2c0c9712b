<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { hint, isKey } from '../keys'
import { date } from '../amounts'
import DiffView from '../parts/DiffView.vue'
import * as requests from '../requests'
import { savePatch } from '../takeaway'
import type { CommitPage, DiffAnswer } from '../wire'

// A commit: its message and people, where it belongs, and what it changed.
const route = useRoute()
const router = useRouter()
const page = shallowRef<CommitPage>()
const diff = shallowRef<DiffAnswer>()
const problem = ref('')
const copied = ref(false)
const view = ref<InstanceType<typeof DiffView>>()
const repository = computed(() => String(route.query.in ?? ''))
const id = computed(() => String(route.query.id ?? ''))
let loading = new AbortController()

watch(
  [repository, id],
  async () => {
    if (route.name !== 'commit') return
    loading.abort()
    const own = (loading = new AbortController())
    problem.value = ''
    try {
      const found = await requests.commit(repository.value, id.value, own.signal)
      if (own !== loading) return
      page.value = found
      diff.value = undefined
      document.title = `${found.commit.summary || found.commit.id.slice(0, 10)} · Odd Beacon`
      const files = await requests.diff(repository.value, '', found.commit.id, [], own.signal)
      if (own === loading) diff.value = files
    } catch (error) {
      if (!own.signal.aborted) problem.value = (error as Error).message
    }
  },
  { immediate: true },
)

const commit = computed(() => page.value?.commit)
const title = computed(() => commit.value?.message.trim().split('\n')[0] ?? '')
const body = computed(() => commit.value?.message.trim().split('\n').slice(1).join('\n').trim() ?? '')
const to = (other: string) => ({ name: 'commit', query: { in: repository.value, id: other } })
const byPerson = (name: string) => ({ name: 'commits', query: { by: name } })
async function copy() {
  await navigator.clipboard.writeText(commit.value!.id)
  copied.value = true
  setTimeout(() => {
    copied.value = false
  }, 1500)
}
function keys(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target instanceof HTMLInputElement) return
  if (isKey(event, 'nextChange')) view.value?.step(1)
  else if (isKey(event, 'previousChange')) view.value?.step(-1)
  else if (isKey(event, 'backFromDifference')) router.back()
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <main class="mx-auto max-w-[92rem] px-4 pb-16">
    <div v-if="problem" role="alert" class="py-16 text-center">
      <p class="font-semibold">This commit cannot be shown</p>
      <p class="mt-1 text-soft">{{ problem }}</p>
      <RouterLink class="button mt-3 inline-block" :to="{ name: 'commits' }">To the commits</RouterLink>
    </div>
    <p v-else-if="!commit" class="py-6 text-soft" role="status">Loading</p>
    <template v-else>
      <header class="py-3">
        <div class="flex flex-wrap items-center gap-2">
          <button type="button" class="button" :title="hint('backFromDifference')" @click="router.back()">Back</button>
          <RouterLink class="text-soft hover:underline" :to="{ name: 'log', query: { in: repository } }">{{
            repository
          }}</RouterLink><span class="font-mono text-[13px] text-soft" data-part="id">{{ commit.id }}</span>
          <span class="ml-auto flex flex-wrap gap-1"
            ><button type="button" class="button" @click="copy">{{ copied ? 'Copied' : 'Copy id' }}</button
            ><RouterLink class="button" :to="{ name: 'tree', query: { in: repository, rev: commit.id } }"
              >Files at this commit</RouterLink
            ><button type="button" class="button" data-part="patch" @click="savePatch(repository, '', commit.id, [])">
              Save as patch
            </button></span
          >
        </div>
        <h1 class="mt-3 text-lg font-semibold break-words">
          <template v-if="title">{{ title }}</template><em v-else class="text-soft">no message</em>
        </h1>
        <p v-if="body" class="mt-1 max-w-4xl whitespace-pre-wrap break-words">{{ body }}</p>
        <dl class="mt-2 grid grid-cols-[max-content_1fr] gap-x-4 gap-y-0.5 text-soft">
          <dt>Author</dt>
          <dd>
            <RouterLink class="part text-ink" :to="byPerson(commit.author.name)">{{ commit.author.name }}</RouterLink>
            {{ commit.author.email }}, {{ date(commit.authored) }}
          </dd>
          <template v-if="commit.committer.email !== commit.author.email || commit.committed !== commit.authored"
            ><dt>Committer</dt>
            <dd>
              <RouterLink class="part text-ink" :to="byPerson(commit.committer.name)">{{
                commit.committer.name
              }}</RouterLink>
              {{ commit.committer.email }}, {{ date(commit.committed) }}
            </dd></template
          >
          <template v-if="commit.parents.length"
            ><dt>{{ commit.parents.length > 1 ? 'Parents' : 'Parent' }}</dt>
            <dd>
              <RouterLink
                v-for="parent in commit.parents"
                :key="parent"
                class="part mr-2 inline-block min-h-6 font-mono text-[13px] leading-6"
                :to="to(parent)"
                >{{ parent.slice(0, 10) }}</RouterLink
              >
            </dd></template
          >
          <template v-if="page!.children.length"
            ><dt>{{ page!.children.length > 1 ? 'Children' : 'Child' }}</dt>
            <dd>
              <RouterLink
                v-for="child in page!.children"
                :key="child"
                class="part mr-2 inline-block min-h-6 font-mono text-[13px] leading-6"
                :to="to(child)"
                >{{ child.slice(0, 10) }}</RouterLink
              >
            </dd></template
          >
          <dt>Contained in</dt>
          <dd data-part="contained">
            {{ page!.branches.length ? page!.branches.slice(0, 8).join(', ') : 'no branch'
            }}<template v-if="page!.branches.length > 8"> and {{ page!.branches.length - 8 }} more</template
            ><template v-if="page!.tags.length"
              >; tags {{ page!.tags.slice(0, 8).join(', ')
              }}<template v-if="page!.tags.length > 8"> and {{ page!.tags.length - 8 }} more</template></template
            >
          </dd>
        </dl>
      </header>
      <p v-if="commit.parents.length > 1" class="mb-2 text-soft">
        A merge: what it brought to the first of the commits that it merges.
      </p>
      <DiffView
        v-if="diff"
        ref="view"
        :files="diff.files"
        :total="diff.total"
        :repository="repository"
        :from="diff.from"
        :to="diff.to"
      />
      <p v-else class="py-6 text-soft" role="status">Comparing</p>
    </template>
  </main>
</template>
