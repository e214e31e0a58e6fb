<script setup lang="ts">
import { t } from '@/words'
import { locale } from '@/words/language'
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
  { key: 'delivered', words: t('settings.ConnectionList.delivered') },
  { key: 'accepted', words: t('settings.ConnectionList.accepted') },
  { key: 'asked', words: t('settings.ConnectionList.askedAbout') },
]
const url = ref('')
const events = ref(EVENTS.map((one) => one.key))
const name = ref('')
/** A secret, shown this once. */
const shown = ref<{ what: string; secret: string } | null>(null)
const when = (iso: string | null) =>
  iso === null ? t('settings.ConnectionList.never') : new Date(iso).toLocaleString(locale)

async function addHook(): Promise<void> {
  const made = await attempt(() => settingsApi.addHook(production.value.ulid, url.value.trim(), events.value))
  if (made !== undefined) {
    shown.value = {
      what: t('settings.ConnectionList.messagesToAreSignedWith', [url.value.trim()]),
      secret: made.secret,
    }
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
    say(
      address === null
        ? t('settings.ConnectionList.wordsAreFoundOnThis2')
        : t('settings.ConnectionList.itCanBeAskedFor'),
    )
    service.value = serviceToken.value = ''
  }
  makeStale('settings')
}
async function addToken(): Promise<void> {
  const made = await attempt(() => settingsApi.addToken(production.value.ulid, name.value.trim()))
  if (made !== undefined) {
    shown.value = { what: t('settings.ConnectionList.theTokenOfIs', [name.value.trim()]), secret: made.secret }
    name.value = ''
  }
  makeStale('settings')
}
async function removeHook(hook: string): Promise<void> {
  if ((await attempt(() => settingsApi.removeHook(production.value.ulid, hook))) !== undefined)
    say(t('settings.ConnectionList.itIsToldNothingAny'))
  makeStale('settings')
}
async function revoke(token: string): Promise<void> {
  if ((await attempt(() => settingsApi.revokeToken(production.value.ulid, token))) !== undefined)
    say(t('settings.ConnectionList.theTokenOpensNothingAny'))
  makeStale('settings')
}
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="box">
      <p v-if="shown" class="note" role="status">
        {{ shown.what }} <code>{{ shown.secret }}</code> {{ t('settings.ConnectionList.itIsShownThisOnce') }}
        <button class="plain" @click="shown = null">{{ t('settings.ConnectionList.iHaveIt') }}</button>
      </p>
      <section>
        <h2>{{ t('settings.ConnectionList.toldWhatBecomesOfHand') }}</h2>
        <ul>
          <li v-for="one in data.hooks" :key="one.ulid">
            <span class="mono cut">{{ one.url }}</span>
            <span class="soft">{{
              EVENTS.filter((event) => one.events.includes(event.key as never))
                .map((event) => event.words)
                .join(', ')
            }}</span>
            <span :class="one.trouble ? 'warn' : 'soft'">{{
              one.trouble ?? t('settings.ConnectionList.lastTold', [when(one.told_at)])
            }}</span>
            <button class="plain" @click="removeHook(one.ulid)">{{ t('settings.ConnectionList.remove') }}</button>
          </li>
        </ul>
        <form @submit.prevent="addHook">
          <input
            v-model="url"
            class="field mono"
            :aria-label="t('settings.ConnectionList.address')"
            :placeholder="t('settings.ConnectionList.https')"
          />
          <label v-for="one in EVENTS" :key="one.key"
            ><input v-model="events" type="checkbox" :value="one.key" />{{ one.words }}</label
          >
          <button class="plain" :disabled="url.trim() === '' || events.length === 0">
            {{ t('settings.ConnectionList.add') }}
          </button>
        </form>
      </section>
      <section>
        <h2>{{ t('settings.ConnectionList.mayReadThisProduction') }}</h2>
        <ul>
          <li v-for="one in data.tokens" :key="one.ulid">
            <b class="cut">{{ one.name }}</b>
            <span class="soft">{{ t('settings.ConnectionList.made', [when(one.made_at)]) }}</span>
            <span class="soft">{{ t('settings.ConnectionList.lastUsed', [when(one.used_at)]) }}</span>
            <button class="plain" @click="revoke(one.ulid)">{{ t('settings.ConnectionList.revoke') }}</button>
          </li>
        </ul>
        <form @submit.prevent="addToken">
          <input
            v-model="name"
            class="field"
            maxlength="80"
            :aria-label="t('settings.ConnectionList.whichProgram')"
            :placeholder="t('settings.ConnectionList.whichProgram')"
          />
          <button class="plain" :disabled="name.trim() === ''">{{ t('settings.ConnectionList.makeAToken') }}</button>
        </form>
      </section>
      <section>
        <h2>{{ t('settings.ConnectionList.findsWhatIsSaid') }}</h2>
        <p class="soft">
          {{
            t('settings.ConnectionList.wordsAreFoundOnThis', [
              data.languages.length === 0 ? t('settings.ConnectionList.noneYet') : data.languages.join(', '),
            ])
          }}
        </p>
        <ul v-if="data.words_service">
          <li>
            <span class="mono cut">{{ data.words_service }}</span>
            <span /><span />
            <button class="plain" @click="setService(null)">{{ t('settings.ConnectionList.remove') }}</button>
          </li>
        </ul>
        <form v-else @submit.prevent="setService(service.trim())">
          <input
            v-model="service"
            class="field mono"
            :aria-label="t('settings.ConnectionList.addressOfTheService')"
            :placeholder="t('settings.ConnectionList.https')"
          />
          <input
            v-model="serviceToken"
            class="field"
            type="password"
            autocomplete="off"
            :aria-label="t('settings.ConnectionList.itsToken')"
            :placeholder="t('settings.ConnectionList.itsTokenIfItHas')"
          />
          <button class="plain" :disabled="service.trim() === ''">{{ t('settings.ConnectionList.add') }}</button>
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
