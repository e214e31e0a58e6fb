<script setup lang="ts">
import { bins as binsApi } from '@/api/endpoints/bins'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { log as logApi } from '@/api/endpoints/log'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { Placed, Stray, StrayStep } from '@/api/types'
import { clock, labelAt, length, TICKS } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { deviceColour, waveColour } from '@/shell/device'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'
import { gaps } from '@/shell/gaps'
import { clusters, fitted, offsetText, ruler, type View, within, xOf, zoomed } from './geometry'
import CutDialog from './CutDialog.vue'
import HandDialog from './HandDialog.vue'
import LaneCanvas from './LaneCanvas.vue'
import LooksDialog from './LooksDialog.vue'
import PlacePanel from './PlacePanel.vue'
import RunsDialog from './RunsDialog.vue'
import SplitDialog from './SplitDialog.vue'
import WaysMenu from './WaysMenu.vue'
import { type LineupWish, useKeptWays } from './wish'

const { production, day } = useDesk()
const route = useRoute()
const { data, isPending, error, refetch } = useAnswer(() => lineupApi.day(production.value.ulid, day.value.ulid))

/** Pixels above the lanes (ruler and takes) and below them. */
const HEAD = 54
const STRIP = 13

const cursor = ref<string | null>(null)
/** Clips that were picked one by one, to be lined up together. */
const picked = ref(new Set<string>())
const runsOpen = ref(false)
const cutOpen = ref(false)
const splitting = shallowRef<Placed | Stray | null>(null)
const looksOpen = ref(false)
const byHand = shallowRef<Placed | Stray | null>(null)
const playhead = ref<number | null>(null)
const frame = ref<HTMLElement | null>(null)
const { width } = useElementSize(frame)
const mapBox = ref<HTMLElement | null>(null)
const { height: mapHeight } = useElementSize(mapBox)

const keptWays = useKeptWays(computed(() => production.value.ulid))
const about = ref<Pick<LineupWish, 'scope' | 'key' | 'anchor'>>({ scope: 'day', key: '', anchor: null })
const wish = computed<LineupWish>(() => ({ ...about.value, ...keptWays.value }))
function setWish(next: LineupWish): void {
  about.value = { scope: next.scope, key: next.key, anchor: next.anchor }
  keptWays.value = { ways: next.ways, cut: next.cut }
}
watch(
  () => day.value.ulid,
  () => {
    picked.value = new Set()
    about.value = { scope: 'day', key: '', anchor: null }
  },
)

const placed = computed(() => (data.value?.placements ?? []).filter((one) => one.group === 0))
const loose = computed(() => (data.value?.placements ?? []).filter((one) => one.group > 0))
const order = computed(() =>
  [...placed.value].sort((a, b) => a.start_ticks - b.start_ticks || a.device.localeCompare(b.device)),
)
const chosen = computed<Placed | undefined>(() => data.value?.placements.find((one) => one.clip === cursor.value))
const lanes = computed(() => {
  const used = new Set(placed.value.map((one) => one.device))
  return production.value.devices.filter((device) => used.has(device.letter))
})
/** Few lanes take the room that there is, so that their waveforms are read from further away; many are scrolled. */
const laneHeight = computed(() =>
  Math.round(Math.max(92, Math.min(148, (mapHeight.value - HEAD - STRIP) / Math.max(1, lanes.value.length)))),
)
/** A day of takes has hours of nothing between them; the map folds them away and keeps each cluster to scale. */
const map = computed(() =>
  clusters(placed.value.map((one) => ({ from: one.start_ticks, to: one.start_ticks + one.duration_ticks }))),
)
const asked = shallowRef<Omit<View, 'width'> | null>(null)
const view = computed<View>(() =>
  within(map.value, { left: 0, perPixel: Number.MAX_VALUE, ...asked.value, width: width.value }),
)
const isWhole = computed(() => view.value.width * view.value.perPixel >= map.value.length * 0.999)
const x = (ticks: number) => xOf(map.value, view.value, ticks)
/** As much of a clip's box as is in sight, so that its name is read however close one looks. */
function box(from: number, to: number): { left: string; width: string } {
  const left = Math.max(-1, x(from))
  return { left: `${left}px`, width: `${Math.max(3, Math.min(view.value.width + 1, x(to)) - left)}px` }
}
const end = (one: Placed) => one.start_ticks + one.duration_ticks
const inSight = (one: Placed) => x(one.start_ticks) < view.value.width && x(end(one)) > 0
/**
 * The clips of each lane that are in sight. Where a box has no room for words there are none: a day of 400 clips moves
 * smoothly so.
 */
const byLane = computed(() => {
  const all = new Map(
    lanes.value.map((device) => [
      device.letter,
      [] as { one: Placed; style: { left: string; width: string }; room: 'none' | 'name' | 'all' }[],
    ]),
  )
  for (const one of placed.value) {
    const left = x(one.start_ticks)
    const right = x(end(one))
    if (left >= view.value.width || right <= 0) continue
    all.get(one.device)?.push({
      one,
      style: box(one.start_ticks, end(one)),
      room: right - left < 22 ? 'none' : right - left < 62 ? 'name' : 'all',
    })
  }
  return all
})
/** Moments at which others rolled and this lane did not, as the day sheet has them. */
const holes = computed(() =>
  gaps(
    lanes.value.map((device) => ({
      device: device.letter,
      kind: device.kind,
      spans: placed.value
        .filter((one) => one.device === device.letter)
        .map((one) => [one.start_ticks, end(one), one.clip, one.take, one.alone]),
    })),
  ),
)
const drawn = computed(
  () => new Map([...byLane.value].map(([letter, boxes]) => [letter, boxes.map((each) => each.one)])),
)
const marks = computed(() => ruler(map.value, view.value))
const windows = computed(() => {
  const byTake = new Map<string, { take: string; what: string; from: number; to: number }>()
  for (const one of placed.value) {
    if (one.take === null || one.kind !== 'picture') continue
    const there = byTake.get(one.take)
    if (there === undefined)
      byTake.set(one.take, { take: one.take, what: one.what, from: one.start_ticks, to: end(one) })
    else Object.assign(there, { from: Math.min(there.from, one.start_ticks), to: Math.max(there.to, end(one)) })
  }
  return [...byTake.values()]
})
const windowOf = computed(() => windows.value.find((one) => one.take === chosen.value?.take))

const { data: clip } = useAnswer(() =>
  cursor.value === null ? null : binsApi.clip(production.value.ulid, cursor.value),
)
const { data: check } = useAnswer(() =>
  chosen.value === undefined ? null : lineupApi.check(production.value.ulid, chosen.value.clip),
)
const clockOf = (letter: string) => data.value?.clocks.find((one) => one.device === letter)
const sureCount = computed(() => (data.value?.placements ?? []).filter((one) => one.sure).length)

watch(
  [data, () => route.query.clip],
  ([answer, wanted], before) => {
    if (answer === undefined) return
    const known = [...answer.placements, ...answer.strays].some((one) => one.clip === wanted)
    if (known && (before === undefined || before[1] !== wanted || cursor.value === null)) select(String(wanted))
    else if (
      cursor.value === null ||
      ![...answer.placements, ...answer.strays].some((one) => one.clip === cursor.value)
    )
      cursor.value = order.value[0]?.clip ?? null
  },
  { immediate: true },
)

/** Adds a clip to those that the next run is about, or takes it away again. */
function pick(ulid: string): void {
  const next = new Set(picked.value)
  if (!next.delete(ulid)) next.add(ulid)
  picked.value = next
  about.value = next.size > 0 ? { ...about.value, scope: 'clips', key: '' } : { ...about.value, scope: 'day' }
}
function choose(ulid: string, event: MouseEvent): void {
  if (event.ctrlKey || event.metaKey || event.shiftKey) {
    if (picked.value.size === 0 && cursor.value !== null && cursor.value !== ulid) pick(cursor.value)
    pick(ulid)
  } else if (picked.value.size > 0) {
    picked.value = new Set()
    about.value = { ...about.value, scope: 'day' }
  }
  select(ulid)
  point(event)
}
function select(ulid: string): void {
  cursor.value = ulid
  void nextTick(() => {
    const one = placed.value.find((other) => other.clip === ulid)
    if (one !== undefined) show(one.start_ticks, end(one))
  })
}
/** Moves the view as little as shows a stretch, or its start where it is longer than the view. */
function show(from: number, to: number): void {
  const left = x(from)
  const right = x(to)
  const wide = view.value.width
  if (left >= 0 && right <= wide) return
  if (left < 0 && right > wide) return
  pan(left < 0 || right - left > wide ? left - 40 : right - wide + 40)
}
const look = (next: View) => {
  asked.value = { left: next.left, perPixel: next.perPixel }
}
const pan = (pixels: number) =>
  look(within(map.value, { ...view.value, left: view.value.left + pixels * view.value.perPixel }))
function zoom(factor: number, atPixel?: number): void {
  const centre =
    atPixel ??
    (chosen.value !== undefined && inSight(chosen.value)
      ? (Math.max(0, x(chosen.value.start_ticks)) + Math.min(view.value.width, x(end(chosen.value)))) / 2
      : view.value.width / 2)
  look(zoomed(map.value, view.value, factor, centre))
}
/** The take of the chosen clip, and from there the whole day again. */
function fit(): void {
  const one = chosen.value
  if (!isWhole.value || one === undefined) asked.value = null
  else look(fitted(map.value, view.value.width, windowOf.value ?? { from: one.start_ticks, to: end(one) }))
}
function fitClip(): void {
  const one = chosen.value
  if (one !== undefined) look(fitted(map.value, view.value.width, { from: one.start_ticks, to: end(one) }))
}
/** Single samples around the playhead. */
function fitSamples(): void {
  const one = chosen.value
  if (one === undefined) return
  const at = playhead.value ?? one.start_ticks
  look(
    within(map.value, {
      width: view.value.width,
      perPixel: TICKS / 48_000 / 2,
      left: map.value.pos(at) - (view.value.width / 2) * (TICKS / 48_000 / 2),
    }),
  )
}
function wheel(event: WheelEvent): void {
  if (event.ctrlKey || event.metaKey) {
    event.preventDefault()
    zoom(Math.exp(-event.deltaY / 300), event.clientX - (frame.value?.getBoundingClientRect().left ?? 0))
  } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
    event.preventDefault()
    pan(event.deltaX !== 0 ? event.deltaX : event.deltaY)
  }
}
function grab(event: PointerEvent): void {
  const track = event.currentTarget as HTMLElement
  const area = track.getBoundingClientRect()
  const to = (clientX: number) =>
    look(
      within(map.value, {
        ...view.value,
        left: ((clientX - area.left) / area.width) * map.value.length - (view.value.width * view.value.perPixel) / 2,
      }),
    )
  track.setPointerCapture(event.pointerId)
  to(event.clientX)
  track.onpointermove = (move) => to(move.clientX)
  track.onpointerup = track.onpointercancel = () => {
    track.onpointermove = null
  }
}
function point(event: MouseEvent): void {
  const left = frame.value?.getBoundingClientRect().left ?? 0
  playhead.value = map.value.ticksAt(view.value.left + (event.clientX - left) * view.value.perPixel)
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
  const near = placed.value
    .filter((one) => one.device === letter)
    .sort((a, b) => Math.abs(a.start_ticks - now.start_ticks) - Math.abs(b.start_ticks - now.start_ticks))[0]
  if (near !== undefined) select(near.clip)
}
/** Those that a person has not looked at, the least certain first. */
const doubtful = computed(() =>
  placed.value
    .filter((one) => !one.locked && !one.is_anchor)
    .sort((a, b) => Number(a.sure) - Number(b.sure) || a.confidence - b.confidence),
)
function nextDoubtful(): void {
  const at = doubtful.value.findIndex((one) => one.clip === cursor.value)
  const next = doubtful.value[(at + 1) % Math.max(1, doubtful.value.length)]
  if (next === undefined) say('A person has looked at every place.')
  else select(next.clip)
}

async function start(): Promise<void> {
  if (!production.value.may.work || data.value?.task != null) return
  const { scope, key, ways, anchor, cut } = wish.value
  const clips = scope === 'clips' ? { clips: picked.value.size > 0 ? [...picked.value] : [cursor.value] } : {}
  await begin({ scope, key, ways, anchor, cut, ...clips })
}
async function begin(what: object): Promise<void> {
  if ((await attempt(() => lineupApi.start(production.value.ulid, day.value.ulid, what))) !== undefined)
    makeStale('lineup')
}

const strayWords = computed(() => {
  const strays = data.value?.strays ?? []
  const fresh = strays.filter((one) => one.steps[0] === 'lineup').length
  const out = strays.filter((one) => one.left_out).length
  const groups: [number, string][] = [
    [strays.length - fresh - out, 'nothing could place'],
    [fresh, 'came in since the last run'],
    [out, 'taken out by a person'],
  ]
  return `${groups
    .filter(([count]) => count > 0)
    .map(([count, what]) => `${count} ${what}`)
    .join(', ')}. ${strays.length === 1 ? 'It holds' : 'They hold'} nobody up.`
})
const STEPS: Record<StrayStep, string> = {
  back: 'Let it in again',
  lineup: 'Line it up',
  clap: 'Match a clap',
  hand: 'Place by hand',
  false_start: 'Mark false start',
  out: 'Not in this line-up',
  wild: 'It is wild',
}
async function step(stray: Stray, which: StrayStep): Promise<void> {
  if (which === 'clap' || which === 'hand') {
    byHand.value = stray
    return
  }
  if (which === 'lineup')
    await begin({ scope: 'clips', clips: [stray.clip], ways: wish.value.ways, cut: wish.value.cut })
  else if (which === 'false_start')
    await attempt(() =>
      logApi.setSlate(production.value.ulid, day.value.ulid, {
        clips: [stray.clip],
        slate: null,
        false_start: true,
      }),
    )
  else if (which === 'wild') await attempt(() => lineupApi.wild(production.value.ulid, stray.clip, {}))
  else await attempt(() => lineupApi.leaveOut(production.value.ulid, stray.clip, { out: which === 'out' }))
  makeStale(which === 'false_start' || which === 'wild' ? 'takes' : 'lineup')
}

/** Letters of the devices whose clips can start and stop the takes of the chosen one. */
const angles = computed(() =>
  lanes.value.map((one) => one.letter).filter((letter) => letter !== splitting.value?.device),
)
function split(): void {
  if (!production.value.may.work) return
  if (chosen.value === undefined) say('Choose a clip on the map first.')
  else splitting.value = chosen.value
}

/** The focus goes to what fits the next stray; Enter does it. */
function nextStray(): void {
  const first = [...document.querySelectorAll('.stray')]
    .map((stray) => stray.querySelector<HTMLElement>('button'))
    .filter((button) => button !== null)
  const at = first.findIndex((button) => button.closest('.stray')?.contains(document.activeElement))
  if (first.length === 0) say('There is no stray.')
  else first[(at + 1) % first.length]!.focus()
}

let carried: string | null = null
function carry(letter: string, event: DragEvent): void {
  carried = letter
  // Some browsers drag nothing that carries no data.
  event.dataTransfer?.setData('text/plain', letter)
}
async function drop(onto: string): Promise<void> {
  const letter = carried
  carried = null
  if (letter === null || letter === onto) return
  await arrange(letter, (all) => all.indexOf(onto))
}
async function arrange(letter: string, to: (letters: string[]) => number): Promise<void> {
  const letters = production.value.devices.map((device) => device.letter)
  const place = to(letters)
  const rest = letters.filter((one) => one !== letter)
  rest.splice(Math.max(0, Math.min(rest.length, place)), 0, letter)
  if ((await attempt(() => lineupApi.lanes(production.value.ulid, { letters: rest }))) !== undefined) makeStale('lanes')
}
function laneKey(event: KeyboardEvent, letter: string): void {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (by === undefined || !event.altKey || !production.value.may.work) return
  event.preventDefault()
  const used = lanes.value.map((device) => device.letter)
  const neighbour = used[used.indexOf(letter) + by]
  if (neighbour !== undefined) void arrange(letter, (all) => all.indexOf(neighbour))
}

const how = (one: Placed) =>
  one.is_anchor ? 'anchor' : one.locked ? `by ${one.way}, locked` : one.sure ? `by ${one.way}` : `by ${one.way}, look`
useShortcuts('Line-up', [
  {
    keys: ['ArrowRight', 'ArrowLeft'],
    what: 'Next clip, the one before',
    run: (event) => move(event.key === 'ArrowRight' ? 1 : -1),
  },
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Lane below, lane above',
    run: (event) => lane(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['Shift+Enter'], what: 'Line up', run: () => void start() },
  {
    keys: ['v'],
    what: 'Pick the clip for the next run, or not',
    run: () => {
      if (cursor.value !== null) pick(cursor.value)
    },
  },
  { keys: ['c'], what: 'Next of the least certain', run: nextDoubtful },
  { keys: ['q'], what: 'To the next stray; Enter takes its step', run: nextStray },
  { keys: ['+', '-'], what: 'Closer, further', run: (event) => zoom(event.key === '+' ? 1.6 : 1 / 1.6) },
  { keys: ['f'], what: 'The take of this clip, then the whole day', run: fit },
  { keys: ['F'], what: 'This clip', run: fitClip },
  { keys: ['s'], what: 'Single samples at the playhead', run: fitSamples },
  {
    keys: ['u'],
    what: 'Cut into takes',
    run: () => {
      cutOpen.value = production.value.may.work
    },
  },
  {
    keys: ['m'],
    what: 'Split the clip into takes',
    run: split,
  },
  {
    keys: ['r'],
    what: 'Runs: compare, go back',
    run: () => {
      runsOpen.value = true
    },
  },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="split">
      <section class="left">
        <div class="bar">
          <button
            v-if="production.may.work"
            class="go"
            :disabled="data.task !== null"
            title="Line up (Shift Enter)"
            @click="start"
          >
            Line up
            {{
              wish.scope === 'day'
                ? 'the day'
                : wish.scope === 'clips'
                  ? picked.size > 1
                    ? `these ${picked.size} clips`
                    : 'this clip'
                  : `${wish.scope} ${wish.key}`
            }}
          </button>
          <WaysMenu
            v-if="production.may.work"
            :lineup="data"
            :chosen="cursor"
            :picked="picked.size"
            :wish="wish"
            @wish="setWish"
          />
          <button
            v-if="production.may.work && placed.length > 0"
            class="plain"
            title="Takes, false starts, wild tracks and MOS from the line-up (U)"
            @click="cutOpen = true"
          >
            Cut into takes
          </button>
          <button class="plain" title="Every run of this day (R)" @click="runsOpen = true">Runs</button>
          <span v-if="data.placements.length > 0" class="pill" :class="{ warn: sureCount < data.placements.length }"
            >{{ data.placements.length }} placed, {{ sureCount }} sure</span
          >
          <span class="push zoom">
            <span v-if="playhead !== null" class="mono now">{{ labelAt(playhead, production.rate) }}</span>
            <button class="plain" title="The take of this clip, then the whole day (F)" @click="fit">
              {{ isWhole ? 'Take' : 'Day' }}
            </button>
            <button class="plain" aria-label="Further" title="Further (-)" @click="zoom(1 / 1.6)">−</button
            ><button class="plain" aria-label="Closer" title="Closer (+)" @click="zoom(1.6)">+</button>
          </span>
        </div>
        <div v-if="data.task" class="busy"><TaskProgress :task="data.task" /></div>
        <div v-if="placed.length === 0" class="empty">
          <b>Nothing is lined up yet.</b
          >{{
            data.strays.length === 0
              ? 'Offload the cards of this day first.'
              : `${data.strays.length} clips wait. Their sound and their timecode will place them.`
          }}<br /><button
            v-if="production.may.work && data.strays.length > 0 && data.task === null"
            class="go"
            @click="start"
          >
            Line up the day
          </button>
        </div>
        <div v-else ref="mapBox" class="map" :style="{ '--lane': `${laneHeight}px` }" @wheel="wheel">
          <div class="names">
            <div class="corner" />
            <div
              v-for="device in lanes"
              :key="device.letter"
              class="name"
              tabindex="0"
              :draggable="production.may.work"
              :title="production.may.work ? 'Drag to order the lanes (Alt ↑ ↓)' : ''"
              @dragstart="carry(device.letter, $event)"
              @dragover.prevent
              @drop.prevent="drop(device.letter)"
              @keydown="laneKey($event, device.letter)"
            >
              <span
                ><DeviceBadge :letter="device.letter" />{{ ' ' }}
                <b>{{ device.kind === 'recorder' ? 'Recorder' : 'Camera ' + device.letter }}</b></span
              >
              <small>{{ device.note }}</small>
              <small
                :class="{
                  warn:
                    clockOf(device.letter)?.applied_ticks == null &&
                    offsetText(clockOf(device.letter)?.learned_ticks ?? null, production.rate) !== '',
                }"
                >{{
                  device.kind === 'recorder'
                    ? 'the clock of the day'
                    : offsetText(clockOf(device.letter)?.learned_ticks ?? null, production.rate) || 'clock in step'
                }}{{ clockOf(device.letter)?.applied_ticks != null ? ', applied' : '' }}</small
              >
            </div>
          </div>
          <div ref="frame" class="scroll">
            <div class="ruler mono" @click="point">
              <span v-for="mark in marks" :key="mark.ticks" :style="{ left: `${mark.x}px` }"
                >{{ clock(mark.ticks, true)
                }}{{ mark.digits > 0 ? ((mark.ticks / TICKS) % 1).toFixed(mark.digits).slice(1) : '' }}</span
              >
            </div>
            <div class="takes">
              <template v-for="one in windows" :key="one.take"
                ><button
                  v-if="x(one.to) > 0 && x(one.from) < view.width"
                  class="mono"
                  tabindex="-1"
                  :class="{ on: one.take === chosen?.take }"
                  :style="box(one.from, one.to)"
                  :title="`${one.take}${one.what === '' ? '' : ` · ${one.what}`}, ${length(one.to - one.from)}`"
                  @click="select(placed.find((p) => p.take === one.take)?.clip ?? '')"
                >
                  {{ one.take }}<span v-if="one.what !== '' && x(one.to) - x(one.from) > 100"> · {{ one.what }}</span>
                </button></template
              >
            </div>
            <i
              v-if="windowOf && x(windowOf.to) > 0 && x(windowOf.from) < view.width"
              class="window"
              :style="box(windowOf.from, windowOf.to)"
            />
            <i
              v-if="playhead !== null && x(playhead) >= 0 && x(playhead) <= view.width"
              class="playhead"
              :style="{ left: `${x(playhead)}px` }"
            />
            <div
              v-for="device in lanes"
              :key="device.letter"
              class="lane"
              :style="{ color: deviceColour(device.letter) }"
              @click.self="point"
            >
              <template v-for="[from, to] in holes[device.letter] ?? []" :key="from"
                ><i
                  v-if="x(to) > 0 && x(from) < view.width"
                  class="hole"
                  :style="box(from, to)"
                  :title="`${device.letter} did not roll at ${clock(from, true)}`"
                  @click="point"
              /></template>
              <LaneCanvas
                :production="production.ulid"
                :clips="drawn.get(device.letter) ?? []"
                :map="map"
                :view="view"
                :colour="waveColour(device.letter)"
                :gain="device.kind === 'recorder' ? 1.5 : 2.5"
              />
              <button
                v-for="{ one, style, room } in byLane.get(device.letter)"
                :key="one.clip"
                data-row
                class="placed"
                :tabindex="one.clip === cursor ? 0 : -1"
                :class="{
                  on: one.clip === cursor,
                  picked: picked.has(one.clip),
                  unsure: !one.sure,
                  locked: one.locked,
                }"
                :data-clip="one.clip"
                :aria-label="`${one.name}, ${how(one)}`"
                :title="`${one.name} · ${one.take ?? 'no take'} · ${how(one)}`"
                :style="style"
                @click="choose(one.clip, $event)"
              >
                <template v-if="room !== 'none'">
                  <b class="mono">{{ one.name }}</b>
                  <small :class="one.sure ? 'good' : 'warn'"
                    >{{ one.sure ? '●' : '◔' }}{{ room === 'all' ? ` ${how(one)}` : '' }}</small
                  >
                </template>
              </button>
            </div>
            <div
              v-if="!isWhole"
              class="strip"
              role="scrollbar"
              aria-orientation="horizontal"
              aria-controls="lanes"
              :aria-valuenow="Math.round((100 * view.left) / map.length)"
              title="Drag to move along the day"
              @pointerdown="grab"
            >
              <i
                :style="{
                  left: `${(100 * view.left) / map.length}%`,
                  width: `${Math.max(0.5, (100 * view.width * view.perPixel) / map.length)}%`,
                }"
              />
            </div>
          </div>
        </div>
        <div v-if="data.strays.length > 0 && placed.length > 0" class="strays">
          <h2>
            Strays <span class="soft">— {{ strayWords }}</span>
          </h2>
          <div class="tray">
            <div v-for="stray in data.strays" :key="stray.clip" class="stray" :class="{ out: stray.left_out }">
              <span
                ><DeviceBadge :letter="stray.device" /> <b class="mono">{{ stray.name }}</b>{{ ' ' }}
                <span class="mono soft">{{ length(stray.duration_ticks) }}</span></span
              >
              <p>{{ stray.reason }}</p>
              <span v-if="production.may.work" class="steps"
                ><button v-for="which in stray.steps" :key="which" class="plain" @click="step(stray, which)">
                  {{ STEPS[which] }}
                </button></span
              >
            </div>
          </div>
        </div>
        <p v-if="loose.length > 0" class="note warn loose">
          {{ loose.map((one) => one.name).join(', ') }}: tied to each other by sound, but to no recorder file. They are
          not on this map.
        </p>
      </section>
      <PlacePanel
        v-if="chosen"
        :lineup="data"
        :chosen="chosen"
        :clip="clip"
        :check="check"
        @hand="byHand = chosen ?? null"
        @split="split"
        @looks="looksOpen = true"
        @next="nextDoubtful"
        @moment="playhead = $event"
      />
      <aside v-else>
        <div class="empty"><b>No clip chosen.</b>Choose one on the map.</div>
      </aside>
      <RunsDialog
        :open="runsOpen"
        @close="runsOpen = false"
        @go="
          (ulid) => {
            runsOpen = false
            select(ulid)
          }
        "
      />
      <CutDialog
        :open="cutOpen"
        @close="cutOpen = false"
        @go="
          (ulid) => {
            cutOpen = false
            select(ulid)
          }
        "
      />
      <SplitDialog :clip="splitting" :angles="angles" @close="splitting = null" />
      <LooksDialog :open="looksOpen" :clip="clip" @close="looksOpen = false" />
      <HandDialog
        :clip="byHand"
        :placements="data.placements"
        @close="byHand = null"
        @placed="
          (ulid) => {
            byHand = null
            select(ulid)
          }
        "
      />
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 316px;
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.left {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.busy {
  padding: 10px 18px;
  border-bottom: 1px solid var(--rule);
}
.zoom {
  display: flex;
  gap: 4px;
  align-items: center;
}
.now {
  margin-right: 8px;
}
.map {
  display: grid;
  grid-template-columns: 124px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
  overflow: hidden auto;
  align-items: start;
}
.names {
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet-2);
}
.corner {
  height: 54px;
  border-bottom: 1px solid var(--rule);
}
.name {
  height: var(--lane);
  padding: 10px 10px;
  border-bottom: 1px solid var(--rule);
  display: grid;
  align-content: start;
  gap: 1px;
}
.name b {
  font-weight: 600;
}
.name small {
  color: var(--ink-soft);
  font-size: 11px;
}
.name small.warn {
  color: var(--warn);
}
.scroll {
  overflow: hidden;
  position: relative;
}
.window {
  position: absolute;
  top: 54px;
  bottom: 0;
  background: #1f6f5c12;
  border: dashed #1f6f5c80;
  border-width: 0 1px;
  pointer-events: none;
}
.playhead {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--fault);
  z-index: 3;
  pointer-events: none;
}
.strip {
  position: sticky;
  bottom: 0;
  height: 12px;
  background: var(--sheet-2);
  border-top: 1px solid var(--rule);
  cursor: grab;
  touch-action: none;
}
.strip i {
  position: absolute;
  top: 2px;
  height: 8px;
  border-radius: 4px;
  background: var(--rule-strong);
}
.ruler {
  cursor: crosshair;
  height: 24px;
  position: relative;
  border-bottom: 1px solid var(--rule);
  font-size: 11px;
  color: var(--ink-soft);
}
.ruler span {
  position: absolute;
  top: 4px;
  padding-left: 5px;
  border-left: 1px solid var(--rule-strong);
  white-space: nowrap;
}
.takes {
  height: 30px;
  position: relative;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet-2);
}
.takes button.on {
  background: var(--act-soft);
  border-color: var(--act);
  color: var(--act);
}
.takes button {
  position: absolute;
  top: 5px;
  height: 26px;
  border: 1px solid var(--rule-strong);
  border-bottom: 0;
  border-radius: 6px 6px 0 0;
  background: var(--sheet);
  font-size: 11px;
  font-weight: 600;
  padding: 0 4px;
  overflow: hidden;
  white-space: nowrap;
  text-align: left;
  cursor: pointer;
}
.lane {
  height: var(--lane);
  position: relative;
  border-bottom: 1px solid var(--rule);
}
.takes button span {
  font-weight: 400;
  color: var(--ink-soft);
}
.hole {
  position: absolute;
  top: 17px;
  bottom: 17px;
  border: 1px dashed var(--rule-strong);
  border-radius: 4px;
  background: repeating-linear-gradient(-45deg, transparent 0 5px, #b0412e12 5px 7px);
}
.placed {
  contain: strict;
  position: absolute;
  top: 11px;
  bottom: 11px;
  background: none;
  border: 1px solid currentColor;
  color: inherit;
  border-radius: 4px;
  padding: 2px 5px;
  overflow: hidden;
  text-align: left;
  cursor: pointer;
  display: flex;
  flex-direction: column;
}
.placed b {
  color: var(--ink);
  font-size: 10.5px;
  font-weight: 500;
  white-space: nowrap;
}
.placed small {
  font-size: 10.5px;
  white-space: nowrap;
}
.placed small {
  margin-top: auto;
}
.placed.on {
  box-shadow: 0 0 0 2px var(--ink);
  z-index: 1;
}
.placed.picked {
  outline: 2px dashed var(--act);
  outline-offset: 1px;
}
.placed.unsure {
  border-style: dashed;
}
.placed.locked {
  background: repeating-linear-gradient(135deg, transparent 0 8px, #6b7d2a17 8px 16px);
}
.strays {
  border-top: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 10px 18px;
  max-height: 212px;
  overflow: auto;
  flex: none;
}
.strays h2 span {
  font-weight: 400;
  font-size: 12px;
}
.tray {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  margin-top: 8px;
}
.stray {
  width: 258px;
  border: 1px dashed var(--fault);
  border-radius: 5px;
  padding: 8px 10px;
  background: var(--sheet);
}
.stray p {
  margin: 4px 0 8px;
  font-size: 11.5px;
  color: var(--ink-soft);
}
.loose {
  margin: 10px 18px;
}
aside {
  border-left: 1px solid var(--rule-strong);
  background: var(--sheet-2);
}
.name[draggable='true'] {
  cursor: grab;
}
.steps {
  display: flex;
  gap: 5px;
  flex-wrap: wrap;
}
.steps button {
  padding: 3px 8px;
  font-size: 12px;
}
.stray.out {
  border-color: var(--rule-strong);
  opacity: 0.8;
}
</style>
