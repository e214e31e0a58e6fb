<script setup lang="ts">
import { useElementSize, useScroll } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ApiError, mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { ClipSheet, Lineup, Placed, Stray } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { clock, label, labelAt, length, TICKS, ticksPerFrame } from '@/player/time'
import WaveStrip from '@/player/WaveStrip.vue'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, complain, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'
import { clusters, offsetText, ruler } from './geometry'

const { production, day, base } = useDesk()
const route = useRoute()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer<Lineup>(() => production.value.ulid, () => `days/${day.value.ulid}/lineup`)

const cursor = ref<string | null>(null)
const zoom = ref(1)
const guide = ref(false)
const frame = ref<HTMLElement | null>(null)
const { width } = useElementSize(frame)
const { x: scrolled } = useScroll(frame)

const placed = computed(() => (data.value?.placements ?? []).filter((one) => one.group === 0))
const loose = computed(() => (data.value?.placements ?? []).filter((one) => one.group > 0))
const order = computed(() => [...placed.value].sort((a, b) => a.start_ticks - b.start_ticks || a.device.localeCompare(b.device)))
const chosen = computed<Placed | undefined>(() => data.value?.placements.find((one) => one.clip === cursor.value))
const lanes = computed(() => {
  const used = new Set(placed.value.map((one) => one.device))
  const devices = production.value.devices.filter((device) => used.has(device.letter))
  return [...devices.filter((device) => device.kind === 'recorder'), ...devices.filter((device) => device.kind === 'camera')]
})
/** A day of takes has hours of nothing between them; the map folds them away and keeps each cluster to scale. */
const map = computed(() => clusters(placed.value.map((one) => ({ from: one.start_ticks, to: one.start_ticks + one.duration_ticks }))))
const total = computed(() => Math.max(1, width.value * zoom.value))
const x = (ticks: number) => map.value.at(ticks) * total.value
const wide = (one: { start_ticks: number; duration_ticks: number }) => Math.max(3, x(one.start_ticks + one.duration_ticks) - x(one.start_ticks))
/** Only what is in sight is drawn: a day of 2 000 takes has thousands of clips. */
const inSight = (one: Placed) => x(one.start_ticks) < scrolled.value + width.value + 400 && x(one.start_ticks) + wide(one) > scrolled.value - 400
const byLane = computed(() => new Map(lanes.value.map((device) => [device.letter, placed.value.filter((one) => one.device === device.letter)])))
const marks = computed(() => ruler(map.value, total.value))
const windows = computed(() => {
  const byTake = new Map<string, { take: string; from: number; to: number }>()
  for (const one of placed.value) {
    if (one.take === null || one.kind !== 'picture') continue
    const there = byTake.get(one.take)
    const to = one.start_ticks + one.duration_ticks
    if (there === undefined) byTake.set(one.take, { take: one.take, from: one.start_ticks, to })
    else Object.assign(there, { from: Math.min(there.from, one.start_ticks), to: Math.max(there.to, to) })
  }
  return [...byTake.values()]
})

const { data: clip } = useAnswer<ClipSheet>(() => production.value.ulid, () => (cursor.value === null ? null : `clips/${cursor.value}`))
const clockOf = (letter: string) => data.value?.clocks.find((one) => one.device === letter)
const sureCount = computed(() => (data.value?.placements ?? []).filter((one) => one.sure).length)

watch(
  [data, () => route.query.clip],
  ([answer, asked], before) => {
    if (answer === undefined) return
    const known = [...answer.placements, ...answer.strays].some((one) => one.clip === asked)
    if (known && (before === undefined || before[1] !== asked || cursor.value === null)) select(String(asked))
    else if (cursor.value === null) cursor.value = order.value[0]?.clip ?? null
  },
  { immediate: true },
)

function select(ulid: string): void {
  cursor.value = ulid
  void nextTick(() => {
    const one = placed.value.find((other) => other.clip === ulid)
    const box = frame.value
    if (one === undefined || box === null) return
    const left = x(one.start_ticks)
    if (left < box.scrollLeft) box.scrollLeft = Math.max(0, left - 40)
    else if (left + wide(one) > box.scrollLeft + box.clientWidth) box.scrollLeft = Math.min(left - 40, left + wide(one) - box.clientWidth + 40)
  })
}
function move(step: number): void {
  const at = order.value.findIndex((one) => one.clip === cursor.value)
  const next = order.value[Math.max(0, Math.min(order.value.length - 1, at + step))]
  if (next !== undefined) select(next.clip)
}
function lane(step: number): void {
  const now = chosen.value
  if (now === undefined) return
  const letters = lanes.value.map((device) => device.letter)
  const letter = letters[letters.indexOf(now.device) + step]
  const near = placed.value.filter((one) => one.device === letter).sort((a, b) => Math.abs(a.start_ticks - now.start_ticks) - Math.abs(b.start_ticks - now.start_ticks))[0]
  if (near !== undefined) select(near.clip)
}

async function start(): Promise<void> {
  if (!production.value.may.work) return
  if ((await attempt(() => api.post(`${base.value}/days/${day.value.ulid}/lineup`))) !== undefined) makeStale('lineup')
}

async function nudge(unit: 'frame' | 'sample' | 'ticks', by: number): Promise<void> {
  const one = chosen.value
  if (one === undefined || !production.value.may.work) return
  try {
    await api.post(`${base.value}/clips/${one.clip}/nudge`, { unit, by, was_ticks: one.start_ticks })
  } catch (trouble) {
    if (trouble instanceof ApiError && trouble.status === 409) say('Somebody else moved it meanwhile; you see their place now.')
    else complain(trouble)
  }
  makeStale('lineup')
}

async function lock(): Promise<void> {
  const one = chosen.value
  if (one === undefined || !production.value.may.work) return
  await attempt(() => api.post(`${base.value}/clips/${one.clip}/lock`, { locked: !one.locked }))
  makeStale('lineup')
}

async function falseStart(stray: Stray): Promise<void> {
  await attempt(() => api.post(`${base.value}/days/${day.value.ulid}/log/slate`, { clips: [stray.clip], slate: null, false_start: true }))
  makeStale('takes')
}

const how = (one: Placed) => (one.is_anchor ? 'anchor' : one.locked ? `by ${one.way}, locked` : one.sure ? `by ${one.way}` : `by ${one.way}, look`)
const MS = TICKS / 1000
/** The frame that a place is nearest to, and how far it lies off that. */
const nearest = (one: Placed) => Math.round(one.start_ticks / ticksPerFrame(production.value.rate))
const within = (one: Placed) => {
  const off = (one.start_ticks - nearest(one) * ticksPerFrame(production.value.rate)) / MS
  return Math.abs(off) < 0.05 ? '' : `${off > 0 ? '+' : '−'} ${Math.abs(off).toFixed(1)} ms`
}

useShortcuts('Line-up', [
  { keys: ['ArrowRight', 'ArrowLeft'], what: 'Next clip, the one before', run: (event) => move(event.key === 'ArrowRight' ? 1 : -1) },
  { keys: ['ArrowDown', 'ArrowUp'], what: 'Lane below, lane above', run: (event) => lane(event.key === 'ArrowDown' ? 1 : -1) },
  { keys: ['Shift+Enter'], what: 'Line up the day', run: () => void start() },
  { keys: ['<', '>'], what: 'Nudge one frame earlier, later', run: (event) => void nudge('frame', event.key === '>' ? 1 : -1) },
  { keys: ['{', '}'], what: 'Nudge one sample earlier, later', run: (event) => void nudge('sample', event.key === '}' ? 1 : -1) },
  { keys: ['y'], what: 'It is right: lock, or unlock', run: () => void lock() },
  { keys: ['+', '-'], what: 'Closer, further', run: (event) => (zoom.value = Math.max(1, Math.min(40, zoom.value * (event.key === '+' ? 1.5 : 1 / 1.5)))) },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="split">
      <section class="left">
        <div class="bar">
          <button v-if="production.may.work" class="go" :disabled="data.task !== null" title="Line up the day (Shift Enter)" @click="start">Line up the day</button>
          <span class="soft">by sound, then timecode</span>
          <span v-if="data.placements.length > 0" class="pill" :class="{ warn: sureCount < data.placements.length }">{{ data.placements.length }} placed, {{ sureCount }} sure</span>
          <span class="push zoom"><button class="plain" aria-label="Further" title="Further (-)" @click="zoom = Math.max(1, zoom / 1.5)">−</button><button class="plain" aria-label="Closer" title="Closer (+)" @click="zoom = Math.min(40, zoom * 1.5)">+</button></span>
        </div>
        <div v-if="data.task" class="busy"><TaskProgress :task="data.task" /></div>
        <div v-if="placed.length === 0" class="empty"><b>Nothing is lined up yet.</b>{{ data.strays.length === 0 ? 'Offload the cards of this day first.' : `${data.strays.length} clips wait. Their sound and their timecode will place them.` }}<br><button v-if="production.may.work && data.strays.length > 0 && data.task === null" class="go" @click="start">Line up the day</button></div>
        <div v-else class="map">
          <div class="names">
            <div class="corner" />
            <div v-for="device in lanes" :key="device.letter" class="name">
              <span><DeviceBadge :letter="device.letter" /> <b>{{ device.kind === 'recorder' ? 'Recorder' : 'Camera ' + device.letter }}</b></span>
              <small>{{ device.note }}</small>
              <small :class="{ warn: clockOf(device.letter)?.applied_ticks == null && offsetText(clockOf(device.letter)?.learned_ticks ?? null, production.rate) !== '' }">{{ device.kind === 'recorder' ? 'the clock of the day' : offsetText(clockOf(device.letter)?.learned_ticks ?? null, production.rate) || 'clock in step' }}{{ clockOf(device.letter)?.applied_ticks != null ? ', applied' : '' }}</small>
            </div>
          </div>
          <div ref="frame" class="scroll">
            <div class="inner" :style="{ width: `${total}px` }">
              <div class="ruler mono"><span v-for="mark in marks" :key="mark.ticks" :style="{ left: `${mark.x}px` }">{{ clock(mark.ticks, mark.seconds) }}</span></div>
              <div class="takes"><button v-for="one in windows" :key="one.take" class="mono" :style="{ left: `${x(one.from)}px`, width: `${Math.max(3, x(one.to) - x(one.from))}px` }" :title="`${one.take}, ${length(one.to - one.from)}`" @click="select(placed.find((p) => p.take === one.take)?.clip ?? '')">{{ one.take }}</button></div>
              <div v-for="device in lanes" :key="device.letter" class="lane">
                <button
                  v-for="one in (byLane.get(device.letter) ?? []).filter(inSight)" :key="one.clip" data-row class="placed" :class="{ on: one.clip === cursor, unsure: !one.sure, locked: one.locked }" :data-clip="one.clip" :aria-label="`${one.name}, ${how(one)}`" :title="`${one.name} · ${one.take ?? 'no take'} · ${how(one)}`"
                  :style="{ left: `${x(one.start_ticks)}px`, width: `${wide(one)}px`, borderColor: `var(--dev-${one.device})` }" @click="select(one.clip)"
                >
                  <b class="mono">{{ one.name }}</b>
                  <span class="wave"><WaveStrip v-if="one.ready && one.has_sound && wide(one) > 14" :address="mediaUrl(production.ulid, one.clip, 'peaks')" :seconds="one.duration_ticks / TICKS" :gain="device.kind === 'recorder' ? 1.5 : 2.5" :colour="{ A: '#d9b05e', B: '#7db6b1', C: '#b49ac0', D: '#a9b675', S: '#8a9fc4' }[one.device] ?? '#999'" /></span>
                  <small :class="one.sure ? 'good' : 'warn'">{{ one.sure ? '●' : '◔' }} <span>{{ how(one) }}</span></small>
                </button>
              </div>
            </div>
          </div>
        </div>
        <div v-if="data.strays.length > 0 && placed.length > 0" class="strays">
          <h2>Strays <span class="soft">— {{ data.strays.length === 1 ? 'one clip nothing could place. It holds' : `${data.strays.length} clips nothing could place. They hold` }} nobody up.</span></h2>
          <div class="tray">
            <div v-for="stray in data.strays" :key="stray.clip" class="stray">
              <span><DeviceBadge :letter="stray.device" /> <b class="mono">{{ stray.name }}</b> <span class="mono soft">{{ length(stray.duration_ticks) }}</span></span>
              <p>{{ stray.reason }}</p>
              <button v-if="production.may.work && stray.kind === 'picture'" class="plain" @click="falseStart(stray)">Mark false start</button>
            </div>
          </div>
        </div>
        <p v-if="loose.length > 0" class="note warn loose">{{ loose.map((one) => one.name).join(', ') }}: tied to each other by sound, but to no recorder file. They are not on this map.</p>
      </section>
      <aside>
        <div v-if="chosen === undefined" class="empty"><b>No clip chosen.</b>Choose one on the map.</div>
        <template v-else>
          <h2><DeviceBadge :letter="chosen.device" /> {{ chosen.name }} <span class="soft">{{ chosen.take ?? 'no take' }}</span></h2>
          <p :class="chosen.sure ? 'good' : 'warn'" class="found">{{ chosen.is_anchor ? 'The day is counted from this recording.' : chosen.sure ? `Found by ${chosen.way}, sure.` : `Found by ${chosen.way}. Look before you trust it.` }}</p>
          <ClipPlayer v-if="clip && clip.ulid === chosen.clip" :production="production.ulid" :clip="clip" :guide="guide" @guide="guide = $event" />
          <div v-if="production.may.work && !chosen.is_anchor" class="nudge" role="group" aria-label="Nudge">
            <button class="plain" :disabled="chosen.locked" title="One frame earlier (<)" @click="nudge('frame', -1)">−1 f</button>
            <button class="plain" :disabled="chosen.locked" title="One millisecond earlier" @click="nudge('ticks', -MS)">−1 ms</button>
            <button class="plain" :disabled="chosen.locked" title="One millisecond later" @click="nudge('ticks', MS)">+1 ms</button>
            <button class="plain" :disabled="chosen.locked" title="One frame later (>)" @click="nudge('frame', 1)">+1 f</button>
          </div>
          <dl>
            <dt>Sure</dt><dd><span class="meter" :aria-label="`${Math.round(chosen.confidence * 100)} %`"><i :class="{ low: !chosen.sure }" :style="{ width: `${chosen.confidence * 100}%` }" /></span></dd>
            <dt>Place</dt><dd class="mono">{{ label(nearest(chosen), production.rate) }} <span class="soft">{{ within(chosen) }}</span></dd>
            <dt>Its own clock</dt><dd class="mono">{{ chosen.own_ticks === null ? 'none' : labelAt(chosen.own_ticks, production.rate) }}</dd>
            <template v-if="chosen.agreeing !== null && chosen.windows !== null"><dt>Agreement</dt><dd>{{ chosen.agreeing }} of {{ chosen.windows }} stretches of its sound</dd></template>
            <template v-if="chosen.drift_ppm !== null"><dt>Drift</dt><dd>{{ chosen.drift_ppm }} ppm against the recorder</dd></template>
          </dl>
          <button v-if="production.may.work && !chosen.is_anchor" class="plain" :class="{ go: !chosen.locked }" @click="lock">{{ chosen.locked ? 'Unlock' : 'It is right, lock' }} <kbd>Y</kbd></button>
          <button v-if="chosen.take_ulid" class="plain" @click="router.push({ name: 'log', params: route.params, query: { take: chosen.take_ulid } })">Go to {{ chosen.take }} in the log</button>
        </template>
      </aside>
    </div>
  </AnswerState>
</template>

<style scoped>
.split { display: grid; grid-template-columns: minmax(0, 1fr) 316px; grid-template-rows: minmax(0, 1fr); height: 100%; }
.left { display: flex; flex-direction: column; min-width: 0; min-height: 0; }
.busy { padding: 10px 18px; border-bottom: 1px solid var(--rule); }
.zoom { display: flex; gap: 4px; }
.map { display: grid; grid-template-columns: 124px minmax(0, 1fr); flex: 1; min-height: 0; overflow: hidden auto; align-items: start; }
.names { border-right: 1px solid var(--rule-strong); background: var(--sheet-2); }
.corner { height: 54px; border-bottom: 1px solid var(--rule); }
.name { height: 92px; padding: 10px 10px; border-bottom: 1px solid var(--rule); display: grid; align-content: start; gap: 1px; }
.name b { font-weight: 600; }
.name small { color: var(--ink-soft); font-size: 11px; }
.name small.warn { color: var(--warn); }
.scroll { overflow: auto hidden; }
.inner { position: relative; }
.ruler { height: 24px; position: relative; border-bottom: 1px solid var(--rule); font-size: 11px; color: var(--ink-soft); }
.ruler span { position: absolute; top: 4px; padding-left: 5px; border-left: 1px solid var(--rule-strong); white-space: nowrap; }
.takes { height: 30px; position: relative; border-bottom: 1px solid var(--rule); background: var(--sheet-2); }
.takes button { position: absolute; top: 5px; height: 26px; border: 1px solid var(--rule-strong); border-bottom: 0; border-radius: 6px 6px 0 0; background: var(--sheet); font-size: 11px; font-weight: 600; padding: 0 4px; overflow: hidden; white-space: nowrap; text-align: left; cursor: pointer; }
.lane { height: 92px; position: relative; border-bottom: 1px solid var(--rule); }
.placed { position: absolute; top: 11px; height: 70px; background: #fff; border: 1px solid; border-radius: 4px; padding: 2px 5px; overflow: hidden; text-align: left; cursor: pointer; display: flex; flex-direction: column; }
.placed b { font-size: 10.5px; font-weight: 500; white-space: nowrap; }
.placed small { font-size: 10.5px; white-space: nowrap; }
.placed { container-type: inline-size; }
@container (max-width: 62px) { .placed small span { display: none; } }
.placed .wave { flex: 1; min-height: 0; }
.placed.on { box-shadow: 0 0 0 2px var(--ink); z-index: 2; }
.placed.unsure { border-style: dashed; }
.placed.locked { background: repeating-linear-gradient(135deg, #fff 0 8px, #f4f6ef 8px 16px); }
.strays { border-top: 1px solid var(--rule-strong); background: var(--sheet-2); padding: 10px 18px; max-height: 190px; overflow: auto; flex: none; }
.strays h2 span { font-weight: 400; font-size: 12px; }
.tray { display: flex; gap: 10px; flex-wrap: wrap; margin-top: 8px; }
.stray { width: 226px; border: 1px dashed var(--fault); border-radius: 5px; padding: 8px 10px; background: var(--sheet); }
.stray p { margin: 4px 0 8px; font-size: 11.5px; color: var(--ink-soft); }
.loose { margin: 10px 18px; }
aside { border-left: 1px solid var(--rule-strong); background: var(--sheet-2); padding: 14px 16px; overflow: auto; display: grid; gap: 10px; align-content: start; }
aside h2 .soft { font-weight: 400; }
.found { margin: 0; }
.nudge { display: grid; grid-template-columns: repeat(4, 1fr); gap: 6px; }
.nudge button { padding: 4px 0; }
dl { display: grid; grid-template-columns: 88px 1fr; row-gap: 7px; margin: 0; font-size: 12.5px; align-items: center; }
dt { color: var(--ink-soft); }
dd { margin: 0; }
.meter { display: block; height: 6px; border-radius: 3px; background: #e4dac6; overflow: hidden; }
.meter i { display: block; height: 100%; background: var(--act); }
.meter i.low { background: var(--warn-edge); }
</style>
