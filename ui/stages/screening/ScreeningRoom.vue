<script setup lang="ts">
import { log as logApi } from '@/api/endpoints/log'
import { player as playerApi } from '@/api/endpoints/player'
import { screening as screeningApi } from '@/api/endpoints/screening'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { ReelAngle, ReelItem } from '@/api/types'
import { label, ofFrames, toFrames } from '@/player/time'
import { fromAnswer, type Picture, type Playlist } from '@/player/engine/playlist'
import { isPlain, looksShown } from '@/player/look'
import LookFilter from '@/player/LookFilter.vue'
import { TROUBLE } from '@/player/trouble'
import { usePlayer } from '@/player/usePlayer'
import { usePlayerKeys } from '@/player/usePlayerKeys'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { useSheet } from '@/shell/sheet'
import { attempt, say } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'

/** The dark room: a reel take by take, full screen, with circles and notes while watching. */
const props = defineProps<{ reel: string }>()
const emit = defineEmits<{ leave: [] }>()
const { production } = useDesk()
const route = useRoute()
/** A reel is brought up to date with its takes before it is shown, and says what is otherwise. */
const isCurrent = ref(false)
async function bringUpToDate(): Promise<void> {
  const answer = await attempt(() => screeningApi.bringUpToDate(production.value.ulid, props.reel))
  if (answer?.changed) {
    makeStale('sequences')
    say(`The reel was built again. ${answer.changed}`)
  }
  isCurrent.value = true
}
const { data, isPending, error, refetch } = useAnswer(() =>
  isCurrent.value ? screeningApi.reel(production.value.ulid, props.reel) : null,
)

const { data: answer } = useAnswer(() =>
  isCurrent.value ? playerApi.sequence(production.value.ulid, props.reel) : null,
)

const FALLBACK = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
/** The angle that was chosen for the take that plays; the next take begins with its own. */
const turned = ref<{ item: number; angle: number } | null>(null)
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const room = ref<HTMLElement | null>(null)
const noteBox = ref<HTMLInputElement | null>(null)
const slateBox = ref<HTMLInputElement | null>(null)
const note = ref('')
const slate = ref<string | null>(null)

const active = usePlayer(() => production.value.ulid, canvas)
const { player, position, shown, speed, trouble } = active
const { transport } = player
const items = computed<ReelItem[]>(() => data.value?.items ?? [])
const at = computed(() => {
  let found = 0
  items.value.forEach((one, index) => {
    if (one.at_ticks <= position.value) found = index
  })
  return found
})
const item = computed<ReelItem | undefined>(() => items.value[at.value])
const angle = computed<ReelAngle | undefined>(
  () =>
    item.value?.angles[turned.value?.item === at.value ? turned.value.angle : -1] ??
    item.value?.angles.find((one) => one.clip === item.value?.clip) ??
    item.value?.angles[0],
)
watch(at, (now) => {
  if (turned.value !== null && turned.value.item !== now) turned.value = null
})
const rate = computed(() => active.piece.value?.rate ?? angle.value?.rate ?? FALLBACK)

/**
 * The reel with the chosen angle in its place; where that one did not run yet, or no more, the take's own picture
 * stays.
 */
const playlist = computed<Playlist | null>(() => {
  if (answer.value === undefined) return null
  const list = fromAnswer(answer.value)
  const chosen = turned.value
  const piece = chosen === null ? undefined : items.value[chosen.item]
  const other = chosen === null ? undefined : piece?.angles[chosen.angle]
  if (piece === undefined || other === undefined || other.clip === piece.clip) return list
  return {
    ...list,
    pictures: list.pictures.flatMap((one) => (one.at === piece.at_ticks ? turnedInto(one, other) : [one])),
  }
})
function turnedInto(piece: Picture, other: ReelAngle): Picture[] {
  const from = Math.min(other.at_ticks, piece.length)
  const to = Math.min(piece.length, from + other.out_ticks - other.in_ticks)
  const rest = (begin: number, end: number): Picture[] =>
    end > begin ? [{ ...piece, at: piece.at + begin, length: end - begin, from: piece.from + begin }] : []
  return [
    ...rest(0, from),
    {
      ...piece,
      at: piece.at + from,
      length: to - from,
      clip: other.clip,
      from: other.in_ticks,
      rate: other.rate,
      frames: other.frames ?? Math.max(1, toFrames(other.duration_ticks, other.rate)),
      start: other.start_ticks,
      version: other.media_version,
      look: other.look,
    },
    ...rest(to, piece.length),
  ]
}
let isLoaded = false
watch(playlist, (list) => {
  if (list === null) return
  if (isLoaded) player.replace(list)
  else {
    // Come for one clip, the room begins where the reel shows it; else it plays from the start.
    const use = list.pictures.find((one) => one.clip === route.query.clip)
    player.load(list, use?.at ?? 0)
    if (use === undefined) transport.run(1)
  }
  isLoaded = true
  player.setSounds(list.sounds)
})
const timecode = computed(() => {
  const piece = active.piece.value
  return piece === null ? '' : label(toFrames(piece.start ?? 0, piece.rate) + (shown.value ?? 0), piece.rate)
})
const look = computed(() => {
  const own = active.piece.value?.look ?? null
  return own === null || isPlain(own) ? null : own
})

function go(index: number): void {
  const next = Math.max(0, Math.min(items.value.length - 1, index))
  const goesOn = speed.value !== 0
  player.goTo(items.value[next]?.at_ticks ?? 0)
  if (goesOn) transport.run(1)
}
watch(at, (now) =>
  room.value?.querySelector(`[data-item="${now}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
)
const endOf = (one: ReelItem | undefined) => (one === undefined ? 0 : one.at_ticks + one.out_ticks - one.in_ticks - 1)

/** The other camera at the same moment: the line-up has both on one clock. */
function turn(index: number): void {
  if (item.value?.angles[index] !== undefined) turned.value = { item: at.value, angle: index }
}

async function circle(): Promise<void> {
  const take = item.value?.take
  if (take === undefined || !production.value.may.review) return
  await attempt(() =>
    logApi.circle(production.value.ulid, take.ulid, {
      was: take.status,
      now: take.status === 'circled' ? 'none' : 'circled',
    }),
  )
  makeStale('takes')
}

function startNote(): void {
  player.stop()
  void nextTick(() => noteBox.value?.focus())
}
async function keepNote(): Promise<void> {
  const take = item.value?.take
  if (take === undefined || note.value.trim() === '') {
    noteBox.value?.blur()
    return
  }
  const done = await attempt(() =>
    screeningApi.note(production.value.ulid, take.ulid, {
      text: note.value.trim(),
      at_ticks: ofFrames(shown.value ?? 0, rate.value),
      clip: active.piece.value?.clip,
    }),
  )
  if (done === undefined) return
  note.value = ''
  noteBox.value?.blur()
  makeStale('notes')
}

function askSlate(): void {
  slate.value = ''
  void nextTick(() => slateBox.value?.focus())
}
function goToSlate(): void {
  const wanted = (slate.value ?? '').trim().toUpperCase()
  slate.value = null
  const list = items.value
  const slateOf = (one: ReelItem) => `${one.take.setup}/${one.take.take}${one.take.part}`.toUpperCase()
  const index = list.findIndex((one) => slateOf(one) === wanted.replace(' ', '/'))
  const near =
    index >= 0 ? index : list.findIndex((one) => one.take.setup === wanted || slateOf(one).startsWith(wanted))
  if (wanted !== '' && near >= 0) go(near)
}
function goToNote(atTicks: number, clip: string | null): void {
  const now = item.value
  const index = now?.angles.findIndex((one) => one.clip === clip) ?? -1
  const said = now?.angles[index] ?? angle.value
  if (now === undefined || said === undefined) return
  if (index >= 0) turn(index)
  void nextTick(() => player.goTo(now.at_ticks + said.at_ticks + atTicks - said.in_ticks))
}
function fill(): void {
  if (document.fullscreenElement !== null) void document.exitFullscreen()
  else void room.value?.requestFullscreen().catch(() => {})
}

const keys = usePlayerKeys(active, [',', '.'])
/** From a piece of the reel to its clip, its take and its bins, at the moment that is seen. */
const toSheet = useSheet(
  () => active.piece.value?.clip,
  () => {
    const piece = active.piece.value
    return piece === null ? 0 : piece.from + position.value - piece.at
  },
)
onMounted(() => {
  room.value?.focus()
  void bringUpToDate()
})

useShortcuts('Dark room', [
  ...keys.shortcuts,
  {
    keys: ['ArrowLeft', 'ArrowRight', ',', '.'],
    what: 'One frame back, one forward; held it crawls',
    run: (event) => keys.step(event, event.key === 'ArrowLeft' || event.key === ',' ? -1 : 1, false),
  },
  { keys: [';', "'"], what: 'Take before, take after', run: (event) => go(at.value + (event.key === ';' ? -1 : 1)) },
  {
    keys: ['Home', 'End'],
    what: 'Start of the take, its last frame',
    run: (event) => player.goTo(event.key === 'Home' ? (item.value?.at_ticks ?? 0) : endOf(item.value)),
  },
  { keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'], what: 'Angle', run: (event) => turn(Number(event.key) - 1) },
  { keys: ['g'], what: 'Go to a slate', run: askSlate },
  { keys: ['c'], what: 'Circle, or not', run: () => void circle() },
  { keys: ['Enter', 'n'], what: 'Note at this frame', run: startNote },
  { keys: ['f'], what: 'Full screen, or not', run: fill },
  { keys: ['Escape'], what: 'Leave the room', run: () => emit('leave') },
])
</script>

<template>
  <div
    ref="room"
    class="room"
    tabindex="-1"
    :data-frame="shown ?? ''"
    :data-playing="speed !== 0"
    :data-at="Math.round(position)"
  >
    <AnswerState :pending="isPending" :error="error" @retry="refetch()">
      <template v-if="data && item && angle">
        <div class="screen" @click="player.toggle()">
          <LookFilter v-if="look" name="look-room" :look="look" />
          <canvas
            ref="canvas"
            :data-clip="active.piece.value?.clip"
            :style="look && looksShown ? { filter: 'url(#look-room)' } : undefined"
          />
          <p v-if="trouble" class="trouble" role="alert">
            {{ TROUBLE[trouble]
            }}<button v-if="trouble !== 'browser'" class="plain" @click.stop="player.again()">Try again</button>
          </p>
          <span class="corner left mono">{{ item.take.setup }} · take {{ item.take.take }}{{ item.take.part }}</span>
          <span class="corner right mono" data-testid="timecode">{{ timecode }}</span>
          <span v-if="speed !== 0 && speed !== 1" class="corner low mono">{{ speed }}x</span>
        </div>
        <aside>
          <h1 class="mono">
            {{ item.take.setup }} /
            <span class="number"
              ><TakeNumber :take="item.take.take" :part="item.take.part" :status="item.take.status" dark
            /></span>
          </h1>
          <p class="soft">{{ item.take.description }}{{ item.take.description ? '. ' : '' }}{{ item.take.size }}</p>
          <p v-if="item.take.log_note" class="soft">From the log: {{ item.take.log_note }}</p>
          <div class="acts">
            <button class="plain" :class="{ on: item.take.status === 'circled' }" @click="circle">
              {{ item.take.status === 'circled' ? 'Circled' : 'Circle' }} <kbd>C</kbd>
            </button>
            <button class="plain" title="Its clip, take and bins (Alt Enter)" @click="toSheet">Sheet</button>
          </div>
          <form @submit.prevent="keepNote">
            <input
              ref="noteBox"
              v-model="note"
              class="say"
              :placeholder="`Note at ${timecode}…`"
              :aria-label="`Note at ${timecode}`"
              maxlength="1000"
              @focus="player.stop()"
              @keydown.esc.stop="noteBox?.blur()"
            />
          </form>
          <ul class="notes">
            <li v-for="one in item.notes" :key="one.ulid">
              <button @click="goToNote(one.at_ticks, one.clip)">
                <small class="mono">{{ one.timecode ?? '' }} · {{ one.by }}</small
                ><span>{{ one.text }}</span>
              </button>
            </li>
          </ul>
          <div v-if="item.angles.length > 1" class="angles">
            <span class="soft">Angles</span>
            <button
              v-for="(one, index) in item.angles"
              :key="one.clip"
              class="plain"
              :class="{ on: one.clip === angle.clip }"
              @click="turn(index)"
            >
              <DeviceBadge :letter="one.device" /> {{ one.device_note || one.name }} <kbd>{{ index + 1 }}</kbd>
            </button>
          </div>
        </aside>
        <footer>
          <div class="strip" role="listbox" aria-label="Takes of the reel">
            <button
              v-for="(one, index) in data.items"
              :key="one.position"
              role="option"
              :aria-selected="index === at"
              :class="{ on: index === at, first: index > 0 && data.items[index - 1]?.take.scene !== one.take.scene }"
              :data-item="index"
              :style="{ flexGrow: Math.max(1, one.out_ticks - one.in_ticks) }"
              @click="go(index)"
            >
              <span class="mono">{{ one.take.setup }}/{{ one.take.take }}{{ one.take.part }}</span>
              <svg v-if="one.take.status === 'circled'" viewBox="0 0 36 28" aria-label="circled">
                <path
                  d="M7 15C5 7 13 3 20 3.5c8 .4 12.5 5 12 11C31.5 21 25 25 17 24.5 9 24 4 20 5.5 13 6.5 9 10 6 15 5"
                />
              </svg>
            </button>
          </div>
          <div class="keys">
            <kbd>J</kbd><kbd>K</kbd><kbd>L</kbd> shuttle <kbd>;</kbd><kbd>'</kbd> take before, after <kbd>G</kbd> go to
            slate <kbd>C</kbd> circle <kbd>↵</kbd> note here <kbd>F</kbd> full screen <kbd>Esc</kbd> leave
          </div>
        </footer>
        <form v-if="slate !== null" class="ask" @submit.prevent="goToSlate">
          <label
            >Go to slate
            <input
              ref="slateBox"
              v-model="slate"
              class="say mono"
              placeholder="12A/2"
              @keydown.esc.stop="slate = null"
              @blur="slate = null"
          /></label>
        </form>
      </template>
      <div v-else class="empty">
        <b>This reel is empty.</b><button class="plain" @click="emit('leave')">Leave</button>
      </div>
    </AnswerState>
  </div>
</template>

<style scoped>
.room {
  position: fixed;
  inset: 0;
  z-index: 40;
  background: var(--dark);
  color: var(--on-dark);
  display: grid;
  grid-template: minmax(0, 1fr) 106px / minmax(0, 1fr) 292px;
  outline: none;
}
.room :deep(.soft) {
  color: var(--on-dark-soft);
}
.screen {
  position: relative;
  min-width: 0;
  display: grid;
  place-items: center;
  overflow: hidden;
}
canvas {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
}
.trouble {
  position: absolute;
  inset: auto 18px 18px;
  margin: 0;
  text-align: center;
}
.trouble button {
  margin-left: 8px;
}
.corner {
  position: absolute;
  top: 16px;
  background: #101417e6;
  border-radius: 5px;
  padding: 6px 12px;
  font-size: 18px;
  pointer-events: none;
}
.left {
  left: 18px;
}
.right {
  right: 18px;
}
.low {
  top: auto;
  bottom: 14px;
  right: 18px;
}
aside {
  border-left: 1px solid var(--dark-rule);
  background: var(--dark-2);
  padding: 16px 18px;
  overflow: auto;
  display: grid;
  gap: 10px;
  align-content: start;
}
h1 {
  font-size: 28px;
  font-weight: 600;
  margin: 0;
  display: flex;
  align-items: center;
  gap: 8px;
}
.number {
  transform: scale(1.5);
  margin-left: 10px;
  font-size: 17px;
}
p {
  margin: 0;
}
.plain {
  background: var(--dark);
  color: var(--on-dark);
  border-color: #4a545b;
}
.plain.on {
  border-color: #6dbfa6;
  color: #8fd6c0;
}
kbd {
  background: transparent;
  color: var(--on-dark-soft);
  border-color: #4a545b;
}
.say {
  width: 100%;
  background: var(--dark);
  color: var(--on-dark);
  border: 1px solid #5b666d;
  border-radius: 5px;
  padding: 8px 10px;
  font: inherit;
}
.notes {
  list-style: none;
  margin: 0;
  padding: 0;
}
.notes button {
  display: grid;
  gap: 2px;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  border-top: 1px solid var(--dark-rule);
  padding: 9px 0;
  cursor: pointer;
  color: var(--on-dark);
}
.notes small {
  color: var(--on-dark-soft);
  font-size: 11px;
}
.angles {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  align-items: center;
}
.angles .plain {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
footer {
  grid-column: 1 / 3;
  border-top: 1px solid var(--dark-rule);
  padding: 10px 18px;
  display: grid;
  gap: 8px;
  min-width: 0;
}
.strip {
  display: flex;
  gap: 3px;
  overflow-x: auto;
  scrollbar-width: thin;
}
.strip button {
  flex: 1 0 56px;
  min-width: 56px;
  height: 46px;
  border: 0;
  border-radius: 4px;
  background: #22292e;
  color: var(--on-dark);
  text-align: left;
  padding: 4px 6px;
  font-size: 11px;
  cursor: pointer;
  display: grid;
  align-content: space-between;
  justify-items: start;
}
.strip button.first {
  margin-left: 14px;
}
.strip button.on {
  background: var(--on-dark);
  color: var(--ink);
}
.strip svg {
  width: 22px;
  height: 17px;
  fill: none;
  stroke: #6dbfa6;
  stroke-width: 2.4;
  justify-self: center;
}
.strip button.on svg {
  stroke: var(--act);
}
.keys {
  font-size: 12px;
  color: var(--on-dark-soft);
  white-space: nowrap;
  overflow: hidden;
}
.keys kbd {
  margin: 0 1px 0 10px;
}
.keys kbd + kbd {
  margin-left: 0;
}
.ask {
  position: absolute;
  left: 50%;
  top: 32%;
  transform: translateX(-50%);
  background: var(--dark-2);
  border: 1px solid #5b666d;
  border-radius: 8px;
  padding: 16px 20px;
}
.ask label {
  display: flex;
  gap: 12px;
  align-items: center;
  white-space: nowrap;
}
.empty {
  grid-column: 1 / 3;
}
</style>
