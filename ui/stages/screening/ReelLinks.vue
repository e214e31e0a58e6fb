<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { ref } from 'vue'
import { screening } from '@/api/endpoints/screening'
import { makeStale, useAnswer } from '@/api/queries'
import type { Link } from '@/api/types'
import { attempt, say } from '@/shell/say'

/** Who may watch a reel from afar: links are made for a person, shown once, counted, and ended. */
const props = defineProps<{ production: string; reel: string }>()
const { data } = useAnswer(() => screening.links(props.production, props.reel))
const who = ref('')
const hours = ref(48)
const password = ref('')
const made = ref<Link | null>(null)
const { copy } = useClipboard({ legacy: true })
const HOURS: [number, string][] = [
  [4, '4 hours'],
  [24, 'a day'],
  [48, 'two days'],
  [168, 'a week'],
  [720, '30 days'],
]
const address = (secret: string) => `${location.origin}/watch/${secret}`
const clock = (moment: string | null) =>
  moment === null
    ? ''
    : new Date(moment).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

async function make(): Promise<void> {
  const link = await attempt(() =>
    screening.makeLink(props.production, props.reel, {
      for_name: who.value.trim(),
      hours: hours.value,
      password: password.value === '' ? null : password.value,
    }),
  )
  if (link === undefined) return
  made.value = link
  who.value = password.value = ''
  makeStale('notes', { sequence: props.reel })
}
async function take(): Promise<void> {
  await copy(address(made.value?.secret ?? ''))
  say('The link is copied.')
}
async function end(link: Link): Promise<void> {
  if ((await attempt(() => screening.endLink(props.production, props.reel, link.ulid))) === undefined) return
  if (made.value?.ulid === link.ulid) made.value = null
  say(`${link.for_name} cannot watch by that link any more.`)
  makeStale('notes', { sequence: props.reel })
}
</script>

<template>
  <div class="links">
    <form class="new" @submit.prevent="make">
      <label
        >For <input v-model="who" class="say" maxlength="80" placeholder="name, over the picture" required
      /></label>
      <label
        >for
        <select v-model.number="hours" class="say">
          <option v-for="[count, words] in HOURS" :key="count" :value="count">{{ words }}</option>
        </select></label
      >
      <label
        >password
        <input v-model="password" class="say short" maxlength="120" placeholder="none" autocomplete="new-password"
      /></label>
      <button class="go" :disabled="who.trim() === ''">Make a link</button>
    </form>
    <div v-if="made" class="made" role="status">
      <p>
        The link for <b>{{ made.for_name }}</b> is shown this once; copy it now.
      </p>
      <input
        class="say mono whole"
        readonly
        :value="address(made.secret ?? '')"
        aria-label="The link"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <button class="plain" @click="take">Copy</button>
    </div>
    <p v-if="data && data.links.length === 0" class="soft">
      Nobody watches this reel from afar yet. A link shows this reel and nothing else, on their own or in step with the
      room.
    </p>
    <ul v-else>
      <li v-for="one in data?.links ?? []" :key="one.ulid" :class="{ ended: one.ended }">
        <b>{{ one.for_name }}</b>
        <span class="soft"
          >{{ one.ended ? 'ended' : `until ${clock(one.expires_at)}` }}{{ one.has_password ? ', password' : '' }} ·
          opened {{ one.opens }} {{ one.opens === 1 ? 'time' : 'times'
          }}{{ one.last_opened_at ? `, last ${clock(one.last_opened_at)}` : '' }} · by {{ one.by }}</span
        >
        <button v-if="!one.ended" class="plain" @click="end(one)">End it</button>
      </li>
    </ul>
  </div>
</template>

<style scoped src="./parts.css"></style>
<style scoped>
.links {
  display: grid;
  gap: 12px;
}
.short {
  width: 110px;
}
.whole {
  width: 100%;
  font-size: 12px;
}
.made {
  border: 1px solid #6dbfa6;
  border-radius: 6px;
  padding: 10px 12px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
li {
  grid-template-columns: minmax(80px, auto) minmax(0, 1fr) auto;
}
.ended {
  opacity: 0.6;
}
</style>
