<script setup lang="ts">
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useActing } from '../acting'
import { ago, counted, number } from '../amounts'
import * as requests from '../requests'
import { useSession } from '../state/session'
import type { NewRoster, RosterEntry, RosterInfo, RosterPreview } from '../wire'

// Lists of repositories that are followed, for administrators. Nothing is followed that was not looked at first.
const session = useSession()
const rosters = ref<RosterInfo[]>()
const form = reactive({
  name: '',
  source: '',
  path: '',
  only: '',
  labels: '',
  branches: '',
  visibleTo: '',
  graceDays: 7,
})
const preview = ref<RosterPreview>()
const { problem, done, busy, act } = useActing()
const now = Date.now()
const MOST_SHOWN = 200

/** The values of a field, of which each may stand behind a pattern: `timetable*=planning`. */
const words = (text: string) =>
  text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(word => {
      const equals = word.indexOf('=')
      return { match: equals > 0 ? word.slice(0, equals) : '*', value: word.slice(equals > 0 ? equals + 1 : 0) }
    })
function wanted(): NewRoster {
  const rules = new Map<string, { match: string; labels: string[]; branches: string[]; visibleTo: string[] }>()
  const parts = ['labels', 'branches', 'visibleTo'] as const
  for (const part of parts) {
    for (const { match, value } of words(form[part])) {
      const rule = rules.get(match) ?? { match, labels: [], branches: [], visibleTo: [] }
      rule[part].push(value)
      rules.set(match, rule)
    }
  }
  return {
    name: form.name.trim(),
    source: form.source.trim(),
    path: form.path.trim() || null,
    only: words(form.only).map(word => word.value),
    rules: [...rules.values()],
    graceDays: form.graceDays,
  }
}
const standings: Record<RosterEntry['standing'], string> = {
  new: '+ new',
  changed: '~ changes',
  same: '= as it is',
  leaving: '− leaves',
  'left-out': '✕ left out',
}
const counts = computed(() =>
  (Object.keys(standings) as RosterEntry['standing'][])
    .map(standing => ({ standing, count: preview.value?.entries.filter(one => one.standing === standing).length ?? 0 }))
    .filter(one => one.count),
)

const load = async () => {
  rosters.value = await requests.rosters()
}
const look = () =>
  act(async () => {
    preview.value = undefined
    preview.value = await requests.previewRoster(wanted())
  })
const follow = () =>
  act(async () => {
    const followed = await requests.followRoster(wanted())
    done.value = `${followed.roster.name} is followed: ${counted(followed.repositories, 'repository', 'repositories')}.`
    preview.value = undefined
    Object.assign(form, { name: '', source: '', path: '', only: '', labels: '', branches: '', visibleTo: '' })
    await load()
  })
const read = (one: RosterInfo) =>
  act(async () => {
    await requests.readRoster(one.roster.name)
    await load()
  })
const remove = (one: RosterInfo) =>
  act(async () => {
    await requests.removeRoster(one.roster.name)
    done.value = `${one.roster.name} is not followed any more. What came of it stays.`
    await load()
  })
const joined = (one: RosterInfo, part: 'labels' | 'branches' | 'visibleTo') =>
  one.roster.rules.flatMap(rule => rule[part].map(value => (rule.match === '*' ? value : `${rule.match}=${value}`)))
function edit(one: RosterInfo) {
  Object.assign(form, {
    name: one.roster.name,
    source: one.roster.source,
    path: one.roster.path ?? '',
    only: one.roster.only.join(' '),
    labels: joined(one, 'labels').join(' '),
    branches: joined(one, 'branches').join(' '),
    visibleTo: joined(one, 'visibleTo').join(' '),
    graceDays: one.roster.graceDays ?? 7,
  })
}
watch(form, () => {
  preview.value = undefined
})
onMounted(() => act(load))
</script>

<template>
  <main class="mx-auto max-w-6xl px-4 pb-24">
    <div class="flex flex-wrap items-center gap-2 py-4">
      <h1 class="mr-2 text-lg font-semibold">Rosters</h1>
      <RouterLink class="button ml-auto" :to="{ name: 'repositories' }">Repositories</RouterLink>
    </div>
    <p class="text-soft">
      A roster is a list of repositories that is followed: what appears in it is indexed, and what goes is taken out
      after some days. A roster that cannot be read takes nothing out.
    </p>
    <p v-if="!rosters && !problem" class="py-6 text-soft" role="status">Loading</p>
    <p v-else-if="rosters && !rosters.length" class="py-6 text-soft">None is followed yet.</p>
    <div v-else-if="rosters" class="mt-4 relative overflow-x-auto">
      <table class="w-full border-collapse text-left">
        <thead class="text-soft">
          <tr class="border-b border-rule [&>th]:px-2 [&>th]:py-1.5 [&>th]:font-normal">
            <th>Roster</th>
            <th>Source</th>
            <th class="text-right">Repositories</th>
            <th class="text-right">Leaving</th>
            <th class="text-right">Left out</th>
            <th>Read</th>
            <th><span class="sr-only">Actions</span></th>
          </tr>
        </thead>
        <tbody
          v-for="one in rosters"
          :key="one.roster.name"
          :data-roster="one.roster.name"
          class="border-b border-rule"
        >
          <tr class="align-top [&>td]:px-2 [&>td]:py-2">
            <td class="min-w-28 font-semibold break-words">{{ one.roster.name }}</td>
            <td class="min-w-40 font-mono text-[13px] break-all">
              {{ one.roster.source }}<template v-if="one.roster.path"> {{ one.roster.path }}</template>
            </td>
            <td class="text-right tabular-nums">{{ number(one.repositories) }}</td>
            <td class="text-right tabular-nums">{{ number(one.leaving) }}</td>
            <td class="text-right tabular-nums">{{ number(one.leftOut) }}</td>
            <td class="whitespace-nowrap">{{ one.read ? ago(one.read, now) : 'never' }}</td>
            <td class="text-right whitespace-nowrap">
              <button type="button" class="button" :aria-label="`Read ${one.roster.name} now`" @click="read(one)">
                Read now</button
              >{{ ' ' }}
              <button type="button" class="button" :aria-label="`Change ${one.roster.name}`" @click="edit(one)">
                Change</button
              >{{ ' ' }}
              <button
                type="button"
                class="button"
                :aria-label="`Follow ${one.roster.name} no more`"
                @click="remove(one)"
              >
                Follow no more
              </button>
            </td>
          </tr>
          <tr v-if="one.problem">
            <td colspan="7" class="px-2 pb-2 text-bad">{{ one.problem }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <form class="panel mt-5 grid grid-cols-1 gap-3 p-4" @submit.prevent="look">
      <h2 class="font-semibold">Follow a roster</h2>
      <div class="flex flex-wrap gap-3">
        <label class="w-48"
          >Name
          <input v-model="form.name" class="field mt-0.5" placeholder="fleet" spellcheck="false" required />
        </label>
        <label class="grow"
          >Source: a folder of repositories, a list in a file or at an address, or a repository that holds one
          <input
            v-model="form.source"
            class="field mt-0.5 font-mono"
            placeholder="/srv/git"
            spellcheck="false"
            autocapitalize="none"
            required
          />
        </label>
        <label class="w-48"
          >The list in that repository
          <input v-model="form.path" class="field mt-0.5 font-mono" placeholder="fleet.tsv" spellcheck="false" />
        </label>
      </div>
      <div class="grid grid-cols-1 gap-3 sm:grid-cols-2">
        <label
          >Only names like
          <input v-model="form.only" class="field mt-0.5 font-mono" placeholder="all" spellcheck="false" />
        </label>
        <label
          >Labels
          <input
            v-model="form.labels"
            class="field mt-0.5 font-mono"
            placeholder="ours timetable*=planning"
            spellcheck="false"
          />
        </label>
        <label
          >Branches and tags
          <input
            v-model="form.branches"
            class="field mt-0.5 font-mono"
            placeholder="what HEAD stands for; main release/* tags/v*:5"
            spellcheck="false"
          />
        </label>
        <label v-if="session.accounts"
          >Who sees them
          <input
            v-model="form.visibleTo"
            class="field mt-0.5 font-mono"
            placeholder="administrators alone; everybody, payroll*=team:money"
            spellcheck="false"
          />
        </label>
        <label
          >Days until what goes is taken out
          <input v-model.number="form.graceDays" class="field mt-0.5 block w-24" type="number" min="0" max="3650" />
        </label>
      </div>
      <p class="text-[13px] text-soft">
        A value holds for all, or, with a pattern of names and = before it, for some. A branch may be a pattern, with
        :NUMBER for the newest of those that match.
      </p>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
      <p v-if="done" role="status">{{ done }}</p>
      <button type="submit" :class="preview ? 'button' : 'button-strong'" class="justify-self-start" :disabled="busy">
        Look at what it would do
      </button>
      <template v-if="preview">
        <p v-if="preview.problem" class="text-bad">{{ preview.problem }}</p>
        <p v-if="!preview.entries.length" class="text-soft">It lists no repository that is wanted.</p>
        <p v-else data-part="counts">
          <span v-for="one in counts" :key="one.standing" class="mr-4"
            >{{ standings[one.standing] }} {{ number(one.count) }}</span
          >
        </p>
        <div class="max-h-96 overflow-auto">
          <table class="w-full border-collapse text-left text-[13px]">
            <tbody>
              <tr
                v-for="one in preview.entries.slice(0, MOST_SHOWN)"
                :key="one.standing + one.name + one.location"
                class="border-b border-rule align-top [&>td]:px-2 [&>td]:py-1"
              >
                <td class="whitespace-nowrap" :class="{ 'text-bad': one.standing === 'left-out' }">
                  {{ standings[one.standing] }}
                </td>
                <td class="font-semibold break-all">{{ one.name }}</td>
                <td>{{ one.labels.join(', ') }}</td>
                <td class="font-mono">{{ one.branches.join(' ') }}</td>
                <td v-if="session.accounts">{{ one.visibleTo.join(', ') || 'administrators' }}</td>
                <td class="font-mono break-all text-soft">
                  {{ one.location }}
                  <div v-if="one.problem" class="font-sans text-bad">{{ one.problem }}</div>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="preview.entries.length > MOST_SHOWN" class="text-soft">
          and {{ number(preview.entries.length - MOST_SHOWN) }} more
        </p>
        <button type="button" class="button-strong justify-self-start" :disabled="busy" @click="follow">
          Follow it
        </button>
      </template>
    </form>
  </main>
</template>
