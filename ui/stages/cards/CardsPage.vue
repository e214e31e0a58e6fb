<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { Card, CardDetail, CardsAnswer, VolumeDetail } from '@/api/types'
import { bytes, length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'

const { production, day, base } = useDesk()
const route = useRoute()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer<CardsAnswer>(() => production.value.ulid, () => `days/${day.value.ulid}/cards`, { poll: 2000 })

const chosen = ref<{ kind: 'volume' | 'card'; key: string } | null>(null)
const releasing = ref<Card | null>(null)
const roll = ref('')
const device = ref('')

const places = computed(() => [...(data.value?.volumes ?? []).map((one) => ({ kind: 'volume' as const, key: one.name })), ...(data.value?.cards ?? []).map((one) => ({ kind: 'card' as const, key: one.ulid }))])
watch(
  [data, () => route.query.card],
  () => {
    const asked = places.value.find((place) => place.key === route.query.card)
    if (asked !== undefined && chosen.value?.key !== asked.key) chosen.value = asked
    if (chosen.value === null || !places.value.some((place) => place.key === chosen.value?.key)) {
      // What was a volume a moment ago is a card now; the person still looks at the same thing.
      const became = data.value?.cards.find((card) => card.volume === chosen.value?.key)
      chosen.value = became ? { kind: 'card', key: became.ulid } : (places.value[0] ?? null)
    }
  },
  { immediate: true },
)

const { data: volume, error: volumeError } = useAnswer<VolumeDetail>(
  () => production.value.ulid,
  () => (chosen.value?.kind === 'volume' && production.value.may.work ? `days/${day.value.ulid}/volumes/${encodeURIComponent(chosen.value.key)}` : null),
)
const { data: detail } = useAnswer<CardDetail>(() => production.value.ulid, () => (chosen.value?.kind === 'card' ? `cards/${chosen.value.key}` : null))
const card = computed(() => data.value?.cards.find((one) => one.ulid === chosen.value?.key))
watch(() => volume.value?.name, () => {
  roll.value = volume.value?.roll ?? ''
  device.value = volume.value?.device ?? ''
}, { immediate: true })

const safe = computed(() => (data.value?.cards ?? []).filter((one) => one.is_safe && one.released_at === null).length)
const total = computed(() => (data.value?.cards ?? []).reduce((sum, one) => sum + (one.verified_at === null ? 0 : one.size_bytes), 0))

async function offload(name: string, as: string, letter: string): Promise<void> {
  const task = await attempt(() => api.post(`${base.value}/days/${day.value.ulid}/volumes/${encodeURIComponent(name)}/offload`, { roll: as, device: letter === '' ? null : letter }))
  if (task === undefined) return
  say(`${as} is on its way to ${data.value?.stores.length ?? 2} places.`)
  makeStale('cards')
}

/** What "all" means: cards dated on this day, and undated ones unless the bench holds another day's. */
const ours = computed(() => {
  const volumes = data.value?.volumes ?? []
  const others = volumes.some((one) => one.day !== null && one.day !== day.value.number)
  return volumes.filter((one) => one.day === day.value.number || (one.day === null && (!others || volumes.some((other) => other.day === day.value.number))))
})

async function offloadAll(): Promise<void> {
  for (const one of ours.value) await offload(one.name, one.roll, one.device ?? '')
}

async function release(): Promise<void> {
  const one = releasing.value
  releasing.value = null
  if (one === null) return
  const done = await attempt(() => api.post(`${base.value}/cards/${one.ulid}/release`))
  if (done !== undefined) say(`${one.roll} is released. It may be wiped.`)
  makeStale('cards')
}

const copyOn = (store: string) => card.value?.copies.find((copy) => copy.store === store)
function differencesOf(store: string): { sign: string; what: string; look: string; text: string }[] {
  const found = copyOn(store)?.differences
  if (!found) return []
  return [
    ...found.missing.map((text) => ({ sign: '−', what: 'missing', look: 'fault', text })),
    ...found.altered.map((text) => ({ sign: '≠', what: 'altered', look: 'fault', text })),
    ...found.renamed.map((one) => ({ sign: '→', what: 'renamed', look: 'warn', text: `${one.from} → ${one.to}` })),
    ...found.new.map((text) => ({ sign: '+', what: 'new', look: 'soft', text })),
    ...found.problems.map((text) => ({ sign: '!', what: 'problem', look: 'fault', text })),
  ]
}

async function verifyAgain(): Promise<void> {
  const one = card.value
  if (one === undefined || one.task !== null || one.copies.length === 0 || !production.value.may.work) return
  if ((await attempt(() => api.post(`${base.value}/cards/${one.ulid}/verify`))) !== undefined) say(`Every copy of ${one.roll} is read again.`)
  makeStale('cards')
}

function stamp(one: Card): { text: string; look: string } | null {
  if (one.released_at !== null) return { text: 'RELEASED', look: 'info' }
  if (one.state === 'fault' || one.state === 'stopped' || one.copies.some((copy) => !copy.is_whole)) return { text: 'KEEP', look: 'fault' }
  if (one.is_safe) return { text: 'VERIFIED', look: 'good' }
  return one.state === 'copying' ? null : { text: 'COPIED', look: 'good' }
}
const time = (iso: string | null) => (iso === null ? '' : new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }))
const deviceTitle = (letter: string | null) => {
  const found = production.value.devices.find((one) => one.letter === letter)
  return found === undefined ? 'Folder of imports' : `${found.kind === 'recorder' ? 'Recorder' : 'Camera'} ${letter}${found.note === '' || found.kind === 'recorder' ? '' : ` · ${found.note}`}`
}

function toDay(number: number): void {
  const other = production.value.days.find((one) => one.number === number)
  if (other !== undefined) void router.push({ name: 'cards', params: { production: production.value.ulid, day: other.ulid } })
}

function move(step: number): void {
  const at = places.value.findIndex((place) => place.key === chosen.value?.key)
  const next = places.value[Math.max(0, Math.min(places.value.length - 1, at + step))]
  if (next !== undefined) choose(next)
}
function choose(place: { kind: 'volume' | 'card'; key: string }): void {
  chosen.value = place
  if (route.query.card !== undefined) void router.replace({ query: {} })
}
function act(): void {
  if (!production.value.may.work) return
  if (chosen.value?.kind === 'volume' && volume.value !== undefined) void offload(volume.value.name, roll.value, device.value)
  else if (card.value?.is_safe && card.value.released_at === null) releasing.value = card.value
  else if (card.value !== undefined && (card.value.state === 'fault' || card.value.state === 'stopped')) void offload(card.value.volume, card.value.roll, card.value.device ?? '')
}

useShortcuts('Cards', [
  { keys: ['ArrowRight', 'ArrowLeft'], what: 'Next card, the one before', run: (event) => move(event.key === 'ArrowRight' ? 1 : -1) },
  { keys: ['Enter'], what: 'Offload, try again or release the card', run: act },
  { keys: ['v'], what: 'Verify the copies again', run: () => void verifyAgain() },
  { keys: ['a'], what: 'Offload everything on the bench', run: () => production.value.may.work && void offloadAll() },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="split">
      <section class="bench">
        <div class="bar">
          <button v-if="production.may.work && ours.length > 0" class="go" title="Offload everything on the bench (A)" @click="offloadAll">Offload {{ ours.length === 1 ? ours[0]?.name : `all ${ours.length} cards` }}</button>
          <span v-if="ours.length > 0" class="soft">to {{ data.stores.length }} places, verified</span>
          <span v-else-if="data.volumes.length > 0" class="soft">{{ data.volumes.length }} {{ data.volumes.length === 1 ? 'card' : 'cards' }} of another day on the bench.</span>
          <span v-else class="soft">Nothing new in the readers.</span>
          <span class="push soft">{{ bytes(total) }} in on this day · <b :class="{ good: safe > 0 }">{{ safe }} {{ safe === 1 ? 'card' : 'cards' }} safe to release</b></span>
        </div>
        <div class="cards">
          <button v-for="one in data.volumes" :key="one.name" data-row class="card new" :class="{ on: chosen?.key === one.name }" @click="choose({ kind: 'volume', key: one.name })">
            <span class="head"><b class="mono">{{ one.name }}</b><DeviceBadge :letter="one.device" size="large" /></span>
            <span class="soft">{{ one.known_roll === null ? `${deviceTitle(one.device)}, ${one.why}` : `Seen before as ${one.known_roll}, with other content now` }}</span>
            <span class="facts"><span><b class="mono">{{ one.clips }}</b>clips</span><span><b class="mono">{{ bytes(one.size_bytes).split(' ')[0] }}</b>{{ bytes(one.size_bytes).split(' ')[1] }}</span><span><b class="mono">{{ one.files }}</b>files</span></span>
            <span v-if="one.problems.length > 0" class="warn">{{ one.problems.length }} {{ one.problems.length === 1 ? 'file' : 'files' }} to look at</span>
            <span v-if="one.day !== null && one.day !== day.number" class="foot warn">Dated {{ one.date }}: day {{ one.day }}</span>
            <span v-else class="foot">On the bench, not copied yet</span>
          </button>
          <button v-for="one in data.cards" :key="one.ulid" data-row class="card" :class="{ on: chosen?.key === one.ulid, bad: one.state === 'fault' || one.state === 'stopped', quiet: one.released_at !== null }" @click="choose({ kind: 'card', key: one.ulid })">
            <span class="head"><b class="mono">{{ one.roll }}</b><DeviceBadge :letter="one.device" size="large" /></span>
            <span class="soft">{{ deviceTitle(one.device) }}</span>
            <TaskProgress v-if="one.task" :task="one.task" @click.stop />
            <span v-else class="facts"><span><b class="mono">{{ one.clips }}</b>clips</span><span><b class="mono">{{ bytes(one.size_bytes).split(' ')[0] }}</b>{{ bytes(one.size_bytes).split(' ')[1] }}</span><span><b class="mono">{{ length(one.running_ticks) }}</b>running</span></span>
            <span v-if="stamp(one)" class="stamp" :class="stamp(one)?.look">{{ stamp(one)?.text }}</span>
            <span class="foot">
              <template v-if="one.released_at">{{ time(one.released_at) }} by {{ one.released_by }}</template>
              <template v-else-if="one.is_safe">{{ one.copies.length }} copies, {{ one.copies.length }} volumes{{ one.on_bench ? ', still in the reader' : '' }}</template>
              <template v-else-if="one.task === null">{{ one.verified_files }} of {{ one.files }} files safe</template>
            </span>
          </button>
          <div class="slot">Put the next card in the reader.<br>It shows up here by itself.</div>
        </div>
      </section>

      <aside aria-live="polite">
        <div v-if="chosen === null" class="empty"><b>The bench is empty.</b>Put a card in a reader; it shows up by itself.</div>
        <template v-else-if="chosen.kind === 'volume'">
          <h2>{{ chosen.key }}, on the bench</h2>
          <p v-if="!production.may.work" class="soft">Assistants offload cards.</p>
          <p v-else-if="volumeError" class="note fault">{{ volumeError.message }} {{ volumeError.fix }}</p>
          <template v-else-if="volume && volume.name === chosen.key">
            <form class="as" @submit.prevent="offload(volume.name, roll, device)">
              <label>Roll<input v-model="roll" class="field mono" required maxlength="60"></label>
              <label>Device
                <select v-model="device" class="field"><option value="">none: a folder of imports</option><option v-for="one in production.devices" :key="one.letter" :value="one.letter">{{ one.letter }} {{ one.note }}</option></select>
              </label>
              <p class="soft">{{ volume.why.charAt(0).toUpperCase() + volume.why.slice(1) }}. Lands in <span class="mono path">{{ volume.lands_in }}</span> on {{ data.stores.map((store) => store.name).join(' and ') }}.</p>
              <div v-if="volume.day !== null && volume.day !== day.number" class="note warn">Its clips are dated {{ volume.date }}, which is day {{ volume.day }}. You are on day {{ day.number }}.<br><button type="button" class="go to-day" @click="toDay(volume.day)">Go to day {{ volume.day }}</button></div>
              <p v-for="problem in volume.problems" :key="problem" class="note warn">{{ problem }}</p>
              <button class="big" :class="volume.day !== null && volume.day !== day.number ? 'plain' : 'go'" type="submit">Offload {{ roll || volume.name }} <kbd>↵</kbd></button>
            </form>
            <table class="list files">
              <tbody><tr v-for="file in volume.list" :key="file.path"><td class="mono name" :title="file.path">{{ file.path.split('/').at(-1) }}</td><td class="soft">{{ file.kind ?? 'other' }}</td><td class="mono num">{{ bytes(file.size_bytes) }}</td></tr></tbody>
            </table>
          </template>
          <div v-else class="bones"><i v-for="n in 5" :key="n" /></div>
        </template>
        <template v-else-if="card">
          <h2>{{ card.roll }}{{ card.task ? ', on its way' : '' }}</h2>
          <div v-for="store in data.stores" :key="store.key" class="store">
            <b>{{ store.name }}</b><span class="soft">{{ store.free_bytes === null ? 'not there' : `${bytes(store.free_bytes)} free` }}</span>
            <span class="soft wide">{{ copyOn(store.name)?.manifest ?? 'no manifest yet' }}</span>
            <span v-if="copyOn(store.name)?.checked_at" class="wide" :class="copyOn(store.name)?.is_whole ? 'good' : 'fault'">{{ copyOn(store.name)?.is_whole ? 'read again' : 'not as it was copied' }}, {{ time(copyOn(store.name)?.checked_at ?? null) }}</span>
            <ul v-if="differencesOf(store.name).length > 0" class="differences">
              <li v-for="one in differencesOf(store.name)" :key="one.sign + one.text" class="mono" :class="one.look"><b :title="one.what">{{ one.sign }}</b> {{ one.text }}</li>
            </ul>
          </div>
          <p v-if="card.faults.length > 0" class="note fault" role="alert">
            <template v-for="fault in card.faults.slice(0, 4)" :key="fault.path + fault.reason"><b>{{ fault.path === '' ? (fault.destination ?? card.roll) : fault.path.split('/').at(-1) }}</b>: {{ fault.reason }}<template v-if="fault.byte !== undefined"> Byte {{ fault.byte.toLocaleString('en-GB') }}.</template><br></template>
            {{ card.verified_files }} of {{ card.files }} files are safe. Clean the contacts and try again before the card goes back.
          </p>
          <div v-if="production.may.work && !card.task" class="acts">
            <button v-if="card.state === 'fault' || card.state === 'stopped'" class="go" @click="act">Try again</button>
            <button v-if="card.is_safe && card.released_at === null" class="go" @click="releasing = card">Release… <kbd>↵</kbd></button>
            <button v-if="card.copies.length > 0" class="plain" title="Read every copy again and compare it with its manifest (V)" @click="verifyAgain">Verify again <kbd>V</kbd></button>
          </div>
          <p v-if="card.released_at" class="soft">Released {{ time(card.released_at) }} by {{ card.released_by }}: {{ card.files }} files verified on {{ card.copies.map((copy) => copy.store).join(' and ') }}.</p>
          <table v-if="detail && detail.ulid === card.ulid" class="list files">
            <tbody><tr v-for="file in detail.list" :key="file.path" :title="`${file.path}\n${file.algorithm ?? ''} ${file.hash ?? ''}`"><td class="mono name">{{ file.path.split('/').at(-1) }}</td><td class="mono num">{{ bytes(file.size_bytes) }}</td><td class="num" :class="file.fault ? 'fault' : 'good'">{{ file.fault ?? (file.copies >= 2 ? 'verified twice' : `${file.copies} copy`) }}</td></tr></tbody>
          </table>
        </template>
      </aside>

      <Modal :open="releasing !== null" :title="`Release ${releasing?.roll}?`" ok-text="Release the card" cancel-text="Keep it" @ok="release" @cancel="releasing = null">
        <p>All {{ releasing?.files }} files ({{ bytes(releasing?.size_bytes ?? 0) }}) are verified on {{ releasing?.copies.map((copy) => copy.store).join(' and ') }}. The card may then be wiped. Your name and the time are kept with it.</p>
      </Modal>
    </div>
  </AnswerState>
</template>

<style scoped>
.split { display: grid; grid-template-columns: minmax(0, 1fr) 352px; grid-template-rows: minmax(0, 1fr); height: 100%; }
.bench { overflow: auto; min-width: 0; }
.cards { display: grid; grid-template-columns: repeat(auto-fill, minmax(248px, 1fr)); gap: 14px; padding: 16px 18px; }
.card { text-align: left; position: relative; min-height: 186px; border: 1px solid var(--rule-strong); border-radius: 10px 24px 10px 10px; background: #fff; padding: 12px 15px; display: flex; flex-direction: column; gap: 8px; cursor: pointer; overflow: hidden; }
.card.new { border-style: dashed; border-color: var(--act); }
.card.on { border-color: var(--act); box-shadow: 0 0 0 2px var(--act-soft), 0 0 0 3px var(--act); border-style: solid; }
.card.bad { border-color: var(--fault); }
.card.quiet { background: var(--sheet-2); }
.head { display: flex; justify-content: space-between; align-items: center; gap: 8px; }
.head b { font-size: 24px; font-weight: 600; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.card > .soft { font-size: 12px; }
.facts { display: flex; gap: 18px; }
.facts > span { display: grid; color: var(--ink-soft); font-size: 12px; }
.facts b { font-size: 15px; color: var(--ink); }
.foot { margin-top: auto; font-size: 12px; color: var(--ink-soft); }
.stamp { position: absolute; right: 14px; bottom: 34px; transform: rotate(-7deg); font: 600 16px var(--mono); letter-spacing: 2px; border: 2px solid; border-radius: 4px; padding: 1px 9px; }
.stamp.info { color: var(--info); }
.slot { min-height: 186px; border: 1px dashed var(--rule-strong); border-radius: 10px 24px 10px 10px; display: grid; place-items: center; text-align: center; color: var(--ink-soft); font-size: 12px; align-content: center; }
aside { border-left: 1px solid var(--rule-strong); background: var(--sheet-2); padding: 16px 18px; overflow: auto; display: grid; gap: 12px; align-content: start; }
.as { display: grid; gap: 10px; }
.as label { display: grid; gap: 2px; font-weight: 500; }
.as p { margin: 0; font-size: 12px; }
.path { overflow-wrap: anywhere; color: var(--ink); }
.field { height: 30px; }
.big { height: 38px; font-size: 14px; }
.store { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 0 8px; background: #fff; border: 1px solid var(--rule); border-radius: 5px; padding: 7px 11px; font-size: 12px; }
.wide { flex-basis: 100%; overflow: hidden; text-overflow: ellipsis; font-size: 11px; }
.differences { list-style: none; margin: 4px 0 0; padding: 0; flex-basis: 100%; font-size: 11px; max-height: 220px; overflow: auto; }
.differences li { overflow-wrap: anywhere; }
.files { font-size: 12px; table-layout: fixed; }
.files td { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.num { text-align: right; }
.acts { display: flex; gap: 8px; }
.note { margin: 0; overflow-wrap: anywhere; }
.to-day { margin-top: 7px; }
</style>
