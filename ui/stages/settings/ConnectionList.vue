<script setup lang="ts">
import { settings as settingsApi } from '@/api/endpoints/settings'
import { ref } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** Programs of others: addresses that are told what becomes of hand-offs, and tokens with which they read. */
const { production } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => settingsApi.connections(production.value.ulid))
const EVENTS = [
  { key: 'delivered', words: 'delivered' },
  { key: 'accepted', words: 'accepted' },
  { key: 'asked', words: 'asked about' },
]
const url = ref('')
const events = ref(EVENTS.map((one) => one.key))
const name = ref('')
/** A secret, shown this once. */
const shown = ref<{ what: string; secret: string } | null>(null)
const when = (iso: string | null) => (iso === null ? 'never' : new Date(iso).toLocaleString('en-GB'))

async function addHook(): Promise<void> {
  const made = await attempt(() => settingsApi.addHook(production.value.ulid, url.value.trim(), events.value))
  if (made !== undefined) {
    shown.value = { what: `Messages to ${url.value.trim()} are signed with`, secret: made.secret }
    url.value = ''
  }
  makeStale('settings')
}
/** Where another service finds what is said. */
const service = ref('')
const serviceToken = ref('')
async function setService(address: string | null): Promise<void> {
  const token = serviceToken.value.trim()
  if (
    (await attempt(() => settingsApi.setWordsService(production.value.ulid, address, token === '' ? null : token))) !==
    undefined
  ) {
    say(address === null ? 'Words are found on this machine only.' : 'It can be asked for the words of clips.')
    service.value = serviceToken.value = ''
  }
  makeStale('settings')
}
async function addToken(): Promise<void> {
  const made = await attempt(() => settingsApi.addToken(production.value.ulid, name.value.trim()))
  if (made !== undefined) {
    shown.value = { what: `The token of ${name.value.trim()} is`, secret: made.secret }
    name.value = ''
  }
  makeStale('settings')
}
async function removeHook(hook: string): Promise<void> {
  if ((await attempt(() => settingsApi.removeHook(production.value.ulid, hook))) !== undefined)
    say('It is told nothing any more.')
  makeStale('settings')
}
async function revoke(token: string): Promise<void> {
  if ((await attempt(() => settingsApi.revokeToken(production.value.ulid, token))) !== undefined)
    say('The token opens nothing any more.')
  makeStale('settings')
}
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="box">
      <p v-if="shown" class="note" role="status">
        {{ shown.what }} <code>{{ shown.secret }}</code> It is shown this once.
        <button class="plain" @click="shown = null">I have it</button>
      </p>
      <section>
        <h2>Told what becomes of hand-offs</h2>
        <ul>
          <li v-for="one in data.hooks" :key="one.ulid">
            <span class="mono cut">{{ one.url }}</span>
            <span class="soft">{{
              EVENTS.filter((event) => one.events.includes(event.key as never))
                .map((event) => event.words)
                .join(', ')
            }}</span>
            <span :class="one.trouble ? 'warn' : 'soft'">{{ one.trouble ?? `last told ${when(one.told_at)}` }}</span>
            <button class="plain" @click="removeHook(one.ulid)">Remove</button>
          </li>
        </ul>
        <form @submit.prevent="addHook">
          <input v-model="url" class="field mono" aria-label="Address" placeholder="https://" />
          <label v-for="one in EVENTS" :key="one.key"
            ><input v-model="events" type="checkbox" :value="one.key" />{{ one.words }}</label
          >
          <button class="plain" :disabled="url.trim() === '' || events.length === 0">Add</button>
        </form>
      </section>
      <section>
        <h2>May read this production</h2>
        <ul>
          <li v-for="one in data.tokens" :key="one.ulid">
            <b class="cut">{{ one.name }}</b>
            <span class="soft">made {{ when(one.made_at) }}</span>
            <span class="soft">last used {{ when(one.used_at) }}</span>
            <button class="plain" @click="revoke(one.ulid)">Revoke</button>
          </li>
        </ul>
        <form @submit.prevent="addToken">
          <input v-model="name" class="field" maxlength="80" aria-label="Which program" placeholder="Which program" />
          <button class="plain" :disabled="name.trim() === ''">Make a token</button>
        </form>
      </section>
      <section>
        <h2>Finds what is said</h2>
        <p class="soft">
          Words are found on this machine, and nothing leaves it; languages that it has:
          {{ data.languages.length === 0 ? 'none yet' : data.languages.join(', ') }}. Another service can be asked for
          single clips; it gets their sound.
        </p>
        <ul v-if="data.words_service">
          <li>
            <span class="mono cut">{{ data.words_service }}</span>
            <span /><span />
            <button class="plain" @click="setService(null)">Remove</button>
          </li>
        </ul>
        <form v-else @submit.prevent="setService(service.trim())">
          <input v-model="service" class="field mono" aria-label="Address of the service" placeholder="https://" />
          <input
            v-model="serviceToken"
            class="field"
            type="password"
            autocomplete="off"
            aria-label="Its token"
            placeholder="Its token, if it has one"
          />
          <button class="plain" :disabled="service.trim() === ''">Add</button>
        </form>
      </section>
    </div>
  </AnswerState>
</template>

<style scoped>
.box {
  padding: 16px 18px;
  max-width: 900px;
  display: grid;
  gap: 22px;
}
ul {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
form {
  display: flex;
  gap: 12px;
  align-items: center;
}
form .field {
  max-width: 340px;
}
label {
  display: flex;
  gap: 5px;
  align-items: center;
}
code {
  overflow-wrap: anywhere;
  font-family: var(--mono);
}
</style>
