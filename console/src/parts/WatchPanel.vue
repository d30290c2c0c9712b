<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue'
import { useActing } from '../acting'
import { ago, counted, date } from '../amounts'
import * as requests from '../requests'
import type { Gathered, Watch, WatchDelivery, WatchNotice } from '../wire'
import FoundResults from './FoundResults.vue'

// Whether a saved search is watched, how that is told, and what was told.
const props = defineProps<{ name: string; of: string }>()
const watched = ref<Watch>()
const loaded = ref(false)
const notices = ref<WatchNotice[]>([])
const next = ref<number | null>(null)
const deliveries = ref<WatchDelivery[]>([])
const once = reactive({ feed: '', secret: '' })
const form = reactive({ went: false, gathered: 'not' as Gathered, webhook: '', mail: '', muted: '' })
const { problem, done, busy, act } = useActing()
const now = Date.now()

const search = computed(() => ({ name: props.name, of: props.of }))
const isMuted = computed(() => !!watched.value?.mutedUntil)

async function load() {
  watched.value = (await requests.watches()).find(one => one.search === props.name && one.of === props.of)
  loaded.value = true
  if (!watched.value) return
  Object.assign(form, {
    went: watched.value.went,
    gathered: watched.value.gathered,
    webhook: watched.value.webhook ?? '',
    mail: watched.value.mail ?? '',
    muted: watched.value.mutedUntil?.slice(0, 10) ?? '',
  })
  const page = await requests.notices(search.value)
  notices.value = page.notices
  next.value = page.next
  deliveries.value = watched.value.webhook || watched.value.mail ? await requests.deliveries(search.value) : []
}
function remember(saved: Watch) {
  if (saved.feed) once.feed = `${window.location.origin}${saved.feed}`
  if (saved.secret) once.secret = saved.secret
}
const begin = () =>
  act(async () => {
    remember(await requests.saveWatch(search.value, {}))
    await load()
  })
const save = () =>
  act(async () => {
    const muted = form.muted ? new Date(`${form.muted}T00:00:00`) : new Date(0)
    remember(
      await requests.saveWatch(search.value, {
        went: form.went,
        gathered: form.gathered,
        webhook: form.webhook.trim(),
        mail: form.mail.trim(),
        mutedUntil: form.muted || isMuted.value ? muted.toISOString() : null,
      }),
    )
    await load()
    done.value = 'Saved.'
  })
const renewFeed = () =>
  act(async () => {
    remember(await requests.saveWatch(search.value, { newFeed: true }))
  })
const end = () =>
  act(async () => {
    await requests.removeWatch(search.value)
    Object.assign(once, { feed: '', secret: '' })
    notices.value = []
    deliveries.value = []
    await load()
  })
const more = () =>
  act(async () => {
    const page = await requests.notices(search.value, next.value ?? undefined)
    notices.value.push(...page.notices)
    next.value = page.next
  })
const again = (delivery: WatchDelivery) =>
  act(async () => {
    await requests.sendAgain(search.value, delivery.id)
    await load()
  })
onMounted(() => act(load))
</script>

<template>
  <section aria-labelledby="watch" data-part="watch">
    <h2 id="watch" class="font-semibold">Watch</h2>
    <p v-if="!loaded && !problem" class="text-soft" role="status">Loading</p>
    <template v-else-if="loaded && !watched">
      <p class="text-soft">
        Whoever watches a search is told once of each new match, however lines move: here, in a feed, and by mail, and
        by messages to a webhook. What matches already is not told.
      </p>
      <button type="button" class="button-strong mt-2" :disabled="busy" @click="begin">Watch this search</button>
    </template>
    <template v-else-if="watched">
      <p v-if="watched.problem" class="mt-1 text-bad">{{ watched.problem }}</p>
      <p v-if="once.feed" class="panel mt-2 p-3" data-part="feed">
        Feed, told this once: whoever has this address reads it.
        <a :href="once.feed" class="part block font-mono text-[13px] break-all">{{ once.feed }}</a>
      </p>
      <p v-if="once.secret" class="panel mt-2 p-3" data-part="secret">
        Messages are signed with this secret, told this once.
        <span class="block font-mono text-[13px] break-all">{{ once.secret }}</span>
      </p>
      <form class="mt-2 flex flex-wrap items-end gap-3" @submit.prevent="save">
        <label class="min-w-64 grow"
          >Webhook<input
            v-model="form.webhook"
            class="field mt-0.5 font-mono"
            placeholder="none"
            spellcheck="false"
            autocapitalize="none"
        /></label>
        <label
          >Mail to<input
            v-model="form.mail"
            class="field mt-0.5 w-56"
            type="email"
            placeholder="nobody"
            data-part="mail"
        /></label>
        <label
          >Messages
          <select v-model="form.gathered" class="field mt-0.5">
            <option value="not">at once</option>
            <option value="hour">together, by the hour</option>
            <option value="day">together, by the day</option>
          </select>
        </label>
        <label>None before<input v-model="form.muted" type="date" class="field mt-0.5" /></label>
        <label class="flex items-center gap-2 pb-1"
          ><input v-model="form.went" type="checkbox" /> tell also what goes</label
        >
        <button type="submit" class="button-strong" :disabled="busy">Save</button>
        <button type="button" class="button" :disabled="busy" @click="renewFeed">New feed address</button>
        <button type="button" class="button" :disabled="busy" @click="end">Watch no more</button>
      </form>
      <p v-if="done" role="status" class="mt-1 text-good">{{ done }}</p>
      <p v-if="!notices.length" class="mt-3 text-soft">Nothing new has matched since it is watched.</p>
      <ol v-else class="mt-3 divide-y divide-rule border-y border-rule" data-part="notices">
        <li v-for="notice in notices" :key="notice.id" class="py-2">
          <h3>
            <span class="font-semibold">{{ notice.repository }}</span>
            <time class="ml-2 text-soft" :datetime="notice.happened" :title="date(notice.happened)">{{
              ago(notice.happened, now)
            }}</time>
          </h3>
          <FoundResults :results="notice.came" :count="notice.cameCount" sign="+" label="What came" />
          <FoundResults :results="notice.went" :count="notice.wentCount" sign="−" label="What went" />
        </li>
      </ol>
      <button v-if="next" type="button" class="button mt-2" :disabled="busy" @click="more">What was before</button>
      <template v-if="deliveries.length">
        <h3 class="mt-4 font-semibold">Messages</h3>
        <ul class="mt-1 divide-y divide-rule border-y border-rule text-[13px]" data-part="deliveries">
          <li v-for="delivery in deliveries" :key="delivery.id" class="flex flex-wrap items-baseline gap-x-4 py-1">
            <span>{{ ago(delivery.made, now) }}</span>
            <span>{{ delivery.channel }}</span>
            <span :class="{ 'text-bad': delivery.state === 'failed' }">{{ delivery.state }}</span>
            <span class="text-soft">{{ counted(delivery.attempts, 'attempt') }}</span>
            <span class="min-w-0 grow break-words text-soft">{{ delivery.answer }}</span>
            <button type="button" class="part" :disabled="busy" @click="again(delivery)">Again</button>
          </li>
        </ul>
      </template>
    </template>
    <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
  </section>
</template>
