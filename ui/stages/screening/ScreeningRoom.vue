<script setup lang="ts">
import { log as logApi } from '@/api/endpoints/log'
import { screening as screeningApi } from '@/api/endpoints/screening'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { ReelAngle, ReelItem } from '@/api/types'
import { label, ofFrames, toFrames } from '@/player/time'
import { looksShown } from '@/player/look'
import LookFilter from '@/player/LookFilter.vue'
import { useFrames } from '@/player/useFrames'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'

/** The dark room: a reel take by take, full screen, with circles and notes while watching. */
const props = defineProps<{ reel: string }>()
const emit = defineEmits<{ leave: [] }>()
const { production } = useDesk()
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

const FALLBACK = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
const at = ref(0)
const angleIndex = ref<number | null>(null)
const video = ref<HTMLVideoElement | null>(null)
const room = ref<HTMLElement | null>(null)
const noteBox = ref<HTMLInputElement | null>(null)
const slateBox = ref<HTMLInputElement | null>(null)
const note = ref('')
const slate = ref<string | null>(null)

const item = computed<ReelItem | undefined>(() => data.value?.items[at.value])
const angle = computed<ReelAngle | undefined>(
  () =>
    item.value?.angles[angleIndex.value ?? -1] ??
    item.value?.angles.find((one) => one.clip === item.value?.clip) ??
    item.value?.angles[0],
)
const rate = computed(() => angle.value?.rate ?? FALLBACK)
const frames = useFrames(video, rate, () => angle.value?.frames ?? null)
const source = computed(() =>
  angle.value === undefined
    ? ''
    : mediaUrl(
        production.value.ulid,
        angle.value.clip,
        angle.value.synced ? 'synced' : 'proxy',
        angle.value.media_version,
      ),
)
const timecode = computed(() =>
  angle.value === undefined
    ? ''
    : label(toFrames(angle.value.start_ticks ?? 0, rate.value) + (frames.shown.value ?? 0), rate.value),
)

/** The first frame of the take on an angle, and its last. */
const inFrame = (one: ReelAngle | undefined) => (one === undefined ? 0 : toFrames(one.in_ticks, one.rate))
const lastFrame = (one: ReelAngle | undefined) =>
  one === undefined ? 0 : Math.max(inFrame(one), toFrames(one.out_ticks, one.rate) - 1)

let playNext = true
watch(
  source,
  async (now) => {
    if (now === '') return
    await nextTick()
    frames.expect(pendingFrame ?? inFrame(angle.value))
    pendingFrame = null
    video.value?.load()
    if (playNext) video.value?.addEventListener('seeked', () => void frames.run(1), { once: true })
  },
  { immediate: true },
)
let pendingFrame: number | null = null

function playedOut(): void {
  // Played to where the take ends: the next one comes by itself, and the last one stands.
  if (data.value !== undefined && at.value < data.value.items.length - 1) go(at.value + 1, true)
  else {
    frames.stand()
    frames.goTo(lastFrame(angle.value))
  }
}
watch(
  () => frames.playing.value,
  (playing, before) => {
    if (!playing && before && video.value?.ended) playedOut()
  },
)
watch(
  () => frames.shown.value,
  (shown) => {
    const now = angle.value
    if (shown === null || now === undefined || !frames.playing.value || frames.speed.value <= 0) return
    // An angle that goes on behind the take is not watched on.
    if (shown > lastFrame(now) && video.value?.dataset.clip === now.clip) playedOut()
  },
)

function go(index: number, play = frames.playing.value): void {
  const items = data.value?.items ?? []
  const next = Math.max(0, Math.min(items.length - 1, index))
  playNext = play
  angleIndex.value = null
  if (next === at.value) frames.goTo(inFrame(angle.value))
  else if (items[next]?.clip === item.value?.clip) {
    at.value = next
    frames.goTo(inFrame(angle.value))
  } else at.value = next
  room.value?.querySelector(`[data-item="${next}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
}

function turn(index: number): void {
  const now = angle.value
  const next = item.value?.angles[index]
  if (now === undefined || next === undefined || next.clip === now.clip) return
  playNext = frames.playing.value
  // The other camera shows the same moment: the server says where the take begins on either.
  const into = ofFrames(frames.shown.value ?? 0, now.rate) - now.in_ticks
  pendingFrame = Math.max(inFrame(next), Math.min(lastFrame(next), toFrames(next.in_ticks + into, next.rate)))
  angleIndex.value = index
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
  frames.stand()
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
      at_ticks: ofFrames(frames.shown.value ?? 0, rate.value),
      clip: angle.value?.clip,
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
  const items = data.value?.items ?? []
  const slateOf = (one: ReelItem) => `${one.take.setup}/${one.take.take}${one.take.part}`.toUpperCase()
  const index = items.findIndex((one) => slateOf(one) === wanted.replace(' ', '/'))
  const near =
    index >= 0 ? index : items.findIndex((one) => one.take.setup === wanted || slateOf(one).startsWith(wanted))
  if (wanted !== '' && near >= 0) go(near)
}
function goToNote(atTicks: number, clip: string | null): void {
  const index = item.value?.angles.findIndex((one) => one.clip === clip) ?? -1
  if (index >= 0 && item.value?.angles[index]?.clip !== angle.value?.clip) {
    playNext = false
    pendingFrame = toFrames(atTicks, rate.value)
    angleIndex.value = index
  } else frames.goTo(toFrames(atTicks, rate.value))
}
function fill(): void {
  if (document.fullscreenElement !== null) void document.exitFullscreen()
  else void room.value?.requestFullscreen().catch(() => {})
}

let creeping = false
useEventListener(window, 'keyup', (event) => {
  if (event.key === 'k' || event.key === 'K') creeping = false
})
const shuttle = (direction: 1 | -1) => void (creeping ? frames.run(direction * 0.25) : frames.faster(direction))
onMounted(() => {
  room.value?.focus()
  void bringUpToDate()
})

useShortcuts('Dark room', [
  {
    keys: ['\\'],
    what: 'Look off, on',
    run: () => {
      looksShown.value = !looksShown.value
    },
  },
  { keys: [' '], what: 'Play, stop', run: () => void frames.toggle() },
  {
    keys: ['j', 'l'],
    what: 'Back, forward; again for 2x, 4x, 8x',
    run: (event) => shuttle(event.key === 'j' ? -1 : 1),
  },
  {
    keys: ['k'],
    what: 'Stop; held with J or L creeps',
    run: () => {
      creeping = true
      frames.stand()
    },
  },
  {
    keys: ['ArrowLeft', 'ArrowRight'],
    what: 'One frame back, one forward',
    run: (event) => frames.step(event.key === 'ArrowLeft' ? -1 : 1),
  },
  { keys: [';', "'"], what: 'Take before, take after', run: (event) => go(at.value + (event.key === ';' ? -1 : 1)) },
  {
    keys: ['Home', 'End'],
    what: 'Start of the take, its last frame',
    run: (event) => frames.goTo(event.key === 'Home' ? inFrame(angle.value) : lastFrame(angle.value)),
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
    :data-frame="frames.shown.value ?? ''"
    :data-playing="frames.playing.value"
  >
    <AnswerState :pending="isPending" :error="error" @retry="refetch()">
      <template v-if="data && item && angle">
        <div class="screen" @click="frames.toggle()">
          <LookFilter v-if="angle.look" :name="`look-${angle.clip}`" :look="angle.look" />
          <video
            ref="video"
            preload="auto"
            playsinline
            :data-clip="angle.clip"
            :style="angle.look && looksShown ? { filter: `url(#look-${angle.clip})` } : undefined"
          >
            <source :src="source" type="video/mp4" />
          </video>
          <span class="corner left mono">{{ item.take.setup }} · take {{ item.take.take }}{{ item.take.part }}</span>
          <span class="corner right mono" data-testid="timecode">{{ timecode }}</span>
          <span v-if="frames.speed.value !== 0 && frames.speed.value !== 1" class="corner low mono"
            >{{ frames.speed.value }}x</span
          >
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
          </div>
          <form @submit.prevent="keepNote">
            <input
              ref="noteBox"
              v-model="note"
              class="say"
              :placeholder="`Note at ${timecode}…`"
              :aria-label="`Note at ${timecode}`"
              maxlength="1000"
              @focus="frames.stand()"
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
video {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
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
