<script setup lang="ts">
import { computed, onMounted, watch } from 'vue'
import { type LocationQueryRaw, useRoute } from 'vue-router'
import SignInForm from './parts/SignInForm.vue'
import ThemeButton from './parts/ThemeButton.vue'
import { counted } from './amounts'
import { type Subject, subjectPages, useSubjects } from './state/subjects'
import { useRepositories } from './state/repositories'
import { useSession } from './state/session'
import { useSets } from './state/sets'

const repositories = useRepositories()
const sets = useSets()
const subjects = useSubjects()
const session = useSession()
const route = useRoute()

const pages = [
  { name: 'search', title: 'Search' },
  { name: 'files', title: 'Files' },
  { name: 'symbols', title: 'Symbols' },
  { name: 'commits', title: 'Commits' },
  { name: 'places', title: 'Places' },
  { name: 'repositories', title: 'Repositories' },
  { name: 'sets', title: 'Exclusion sets' },
  { name: 'learn', title: 'How to ask' },
]
/** Where a link of the head leads: a change of subject keeps text and scope. */
function addressOf(page: string): LocationQueryRaw {
  if (page === route.name) return route.query
  return subjectPages.includes(page as Subject) ? subjects.linkTo(page as Subject) : {}
}
const shownPages = computed(() =>
  session.accounts && session.may('administrator') ? [...pages, { name: 'people', title: 'People' }] : pages,
)
const standing = computed(() => {
  if (!session.open || !repositories.loaded) return ''
  const busy = repositories.busy
  return busy
    ? `${counted(busy, 'repository', 'repositories')} being indexed`
    : counted(repositories.count, 'repository', 'repositories')
})

/** Some pages are for somebody who is signed in, whatever guests may see. */
const needsPerson = computed(
  () =>
    session.accounts &&
    ['sign-in', 'account', 'people', 'changes', 'credentials', 'rosters', 'health', 'device'].includes(
      String(route.name),
    ),
)
const showsPage = computed(
  () => session.loaded && (route.name === 'first' || (session.open && (!!session.person || !needsPerson.value))),
)

onMounted(() => void session.load())
watch(
  () => session.open,
  open => {
    if (!open) {
      repositories.stop()
      return
    }
    void repositories.load()
    void sets.load()
    repositories.listen()
  },
)
</script>

<template>
  <header class="border-b border-rule bg-paper">
    <div class="mx-auto flex max-w-[92rem] items-center gap-x-5 px-4 py-2">
      <RouterLink
        :to="{ name: 'search', query: addressOf('search') }"
        class="flex items-center gap-2 text-[15px] font-semibold tracking-tight"
      >
        <img src="/beacon.svg" alt="" class="size-6 shrink-0" /><span class="whitespace-nowrap max-sm:sr-only"
          >Odd Beacon</span
        >
      </RouterLink>
      <nav v-if="session.open" aria-label="Pages" class="flex flex-wrap gap-1">
        <RouterLink
          v-for="page in shownPages"
          :key="page.name"
          :to="{ name: page.name, query: addressOf(page.name) }"
          class="whitespace-nowrap rounded px-2 py-0.5 hover:bg-shade max-sm:px-1"
          active-class=""
          exact-active-class="font-semibold underline decoration-accent decoration-2 underline-offset-6"
          >{{ page.title }}</RouterLink
        >
      </nav>
      <span class="ml-auto text-soft max-sm:hidden" role="status">{{ standing }}</span>
      <RouterLink
        v-if="session.person"
        :to="{ name: 'account' }"
        class="part whitespace-nowrap"
        title="Your account, tokens, signing out"
        >{{ session.person.displayName }}</RouterLink
      >
      <RouterLink
        v-else-if="session.open && session.accounts && route.name !== 'sign-in'"
        :to="{ name: 'sign-in', query: { back: route.fullPath } }"
        class="part whitespace-nowrap"
        >Sign in</RouterLink
      >
      <RouterLink v-if="session.open" :to="{ name: 'settings' }" class="part" title="Your editor, your keys"
        >Settings</RouterLink
      >
      <ThemeButton />
    </div>
  </header>
  <p v-if="repositories.gone" role="alert" class="border-b border-bad bg-sheet px-4 py-2 text-center text-bad">
    The service does not answer. This page tries again by itself; if it stays so, start the service with
    <code class="font-mono">./oddbeacon serve</code>.
  </p>
  <RouterView v-if="showsPage" v-slot="{ Component }">
    <KeepAlive :include="['SearchPage', 'FilesPage', 'SymbolsPage', 'CommitsPage']">
      <component :is="Component" />
    </KeepAlive>
  </RouterView>
  <SignInForm v-else-if="session.loaded" />
</template>
