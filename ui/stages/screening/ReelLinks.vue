<script setup lang="ts">
import { t } from '@/words'
import { locale } from '@/words/language'
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
  [4, t('screening.ReelLinks.n4Hours')],
  [24, t('screening.ReelLinks.aDay')],
  [48, t('screening.ReelLinks.twoDays')],
  [168, t('screening.ReelLinks.aWeek')],
  [720, t('screening.ReelLinks.n30Days')],
]
const address = (secret: string) => `${location.origin}/watch/${secret}`
const clock = (moment: string | null) =>
  moment === null
    ? ''
    : new Date(moment).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

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
  say(t('screening.ReelLinks.theLinkIsCopied'))
}
async function end(link: Link): Promise<void> {
  if ((await attempt(() => screening.endLink(props.production, props.reel, link.ulid))) === undefined) return
  if (made.value?.ulid === link.ulid) made.value = null
  say(t('screening.ReelLinks.cannotWatchByThatLink', [link.for_name]))
  makeStale('notes', { sequence: props.reel })
}
</script>

<template>
  <div class="links">
    <form class="new" @submit.prevent="make">
      <label
        >{{ t('screening.ReelLinks.for') }}
        <input
          v-model="who"
          class="say"
          maxlength="80"
          :placeholder="t('screening.ReelLinks.nameOverThePicture')"
          required
      /></label>
      <label
        >{{ t('screening.ReelLinks.for2') }}
        <select v-model.number="hours" class="say">
          <option v-for="[count, words] in HOURS" :key="count" :value="count">{{ words }}</option>
        </select></label
      >
      <label
        >{{ t('screening.ReelLinks.password') }}
        <input
          v-model="password"
          class="say short"
          maxlength="120"
          :placeholder="t('screening.ReelLinks.none')"
          autocomplete="new-password"
      /></label>
      <button class="go" :disabled="who.trim() === ''">{{ t('screening.ReelLinks.makeALink') }}</button>
    </form>
    <div v-if="made" class="made" role="status">
      <p>
        {{ t('screening.ReelLinks.theLinkFor') }} <b>{{ made.for_name }}</b>
        {{ t('screening.ReelLinks.isShownThisOnceCopy') }}
      </p>
      <input
        class="say mono whole"
        readonly
        :value="address(made.secret ?? '')"
        :aria-label="t('screening.ReelLinks.theLink')"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <button class="plain" @click="take">{{ t('screening.ReelLinks.copy') }}</button>
    </div>
    <p v-if="data && data.links.length === 0" class="soft">
      {{ t('screening.ReelLinks.nobodyWatchesThisReelFrom') }}
    </p>
    <ul v-else>
      <li v-for="one in data?.links ?? []" :key="one.ulid" :class="{ ended: one.ended }">
        <b>{{ one.for_name }}</b>
        <span class="soft">{{
          t('screening.ReelLinks.openedBy', [
            one.ended ? t('screening.ReelLinks.ended') : t('screening.ReelLinks.until', [clock(one.expires_at)]),
            one.has_password ? t('screening.ReelLinks.password2') : '',
            one.opens,
            one.opens === 1 ? t('screening.ReelLinks.time') : t('screening.ReelLinks.times'),
            one.last_opened_at ? t('screening.ReelLinks.last', [clock(one.last_opened_at)]) : '',
            one.by,
          ])
        }}</span>
        <button v-if="!one.ended" class="plain" @click="end(one)">{{ t('screening.ReelLinks.endIt') }}</button>
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
