<script setup lang="ts">
import { t } from '@/words'
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { assembly } from '@/api/endpoints/assembly'
import { player as playerApi } from '@/api/endpoints/player'
import { words as wordsApi } from '@/api/endpoints/words'
import { makeStale, useAnswer } from '@/api/queries'
import type { WallAngle } from '@/api/types'
import { EMPTY, fromAnswer, pieceAt, type Picture, type Playlist } from '@/player/engine/playlist'
import { isPlain, looksShown } from '@/player/look'
import LookFilter from '@/player/LookFilter.vue'
import PlayerPlace from '@/player/PlayerPlace.vue'
import { labelAt, length, TICKS, ticksPerFrame } from '@/player/time'
import { TROUBLE } from '@/player/trouble'
import { usePlayer } from '@/player/usePlayer'
import { usePlayerKeys } from '@/player/usePlayerKeys'
import AnswerState from '@/shell/AnswerState.vue'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import PickDialog from '@/shell/PickDialog.vue'
import { attempt, refuse, say } from '@/shell/say'
import { backIn, type Piece, piecesOf, pieceOn, reach, withPending } from './score'
import OpenCuts from './OpenCuts.vue'
import ScoreStaves from './ScoreStaves.vue'
import { useCut } from './useCut'

/**
 * The angle wall: all cameras of an event in step, cut between them while they play, and the score of what is on air.
 */
const props = defineProps<{ cut: string }>()
const emit = defineEmits<{ leave: [] }>()
const { production } = useDesk()
const router = useRouter()
const mayCut = computed(() => production.value.may.organise)
const { data: wall, isPending, error, refetch } = useAnswer(() => assembly.wall(production.value.ulid, props.cut))
const cut = useCut(
  () => production.value.ulid,
  () => props.cut,
)
const { data: answer, refetch: hearAgain } = useAnswer(() => playerApi.sequence(production.value.ulid, props.cut))
watchDebounced(cut.step, (now) => answer.value?.step !== now && void hearAgain(), { debounce: 150, maxWait: 700 })

const page = useTemplateRef<HTMLElement>('page')
const none = ref<HTMLCanvasElement | null>(null)
const active = usePlayer(() => production.value.ulid, none)
const { player, position, speed, trouble } = active
const frame = computed(() => (wall.value === undefined ? 1 : ticksPerFrame(wall.value.rate)))
const at = computed(() => Math.floor(position.value / frame.value + 1e-6) * frame.value)
interface Shown extends WallAngle {
  list: Picture[]
}
const angles = computed<Shown[]>(() =>
  wall.value === undefined
    ? []
    : wall.value.angles.map((angle) => ({
        ...angle,
        list: fromAnswer({ ...EMPTY_ANSWER, rate: wall.value!.rate, pictures: angle.pictures }).pictures,
      })),
)
const EMPTY_ANSWER = {
  sequence: null,
  step: 0,
  name: '',
  start_ticks: 0,
  duration_ticks: 0,
  sounds: [],
  own_sounds: [],
  beside_sounds: [],
  recordings: [],
}
const devices = computed(
  () =>
    new Map(angles.value.flatMap((angle) => angle.pictures.map((one): [string, string] => [one.clip, angle.letter]))),
)
let isLoaded = false
watch(
  [wall, answer],
  ([now, heard]) => {
    if (now === undefined || heard === undefined) return
    const list: Playlist = { ...EMPTY, rate: now.rate, start: now.start_ticks, length: now.length_ticks }
    const sounds = fromAnswer(heard).sounds
    if (isLoaded) player.replace({ ...list, sounds })
    else player.load({ ...list, sounds })
    isLoaded = true
    player.setSounds(sounds)
  },
  { immediate: true },
)

// What is on air.
const pending = shallowRef<(Piece & { id: number })[]>([])
const items = computed(() => cut.value.value?.tracks[0]?.items ?? [])
const pieces = computed(() => withPending(piecesOf(items.value, devices.value), pending.value))
const onAir = computed(() => pieceOn(pieces.value, at.value)?.letter ?? null)
const takes = ref<'both' | 'picture' | 'sound'>('picture')
const TAKES = {
  both: t('assembly.WallPage.pictureAndSound'),
  picture: t('assembly.WallPage.pictureOnly'),
  sound: t('assembly.WallPage.soundOnly'),
} as const
const last = ref<{ at: number; letter: string }[]>([])
const range = shallowRef<{ from: number; to: number } | null>(null)
let counted = 0
const nameOf = (letter: string) => {
  const note = angles.value.find((one) => one.letter === letter)?.note ?? ''
  return note === '' ? letter : `${letter} ${note}`
}

async function turn(letter: string, from: number, to: number): Promise<void> {
  if (!mayCut.value) return
  const angle = angles.value.find((one) => one.letter === letter)
  const rolls = angle === undefined ? null : pieceAt(angle.list, from)
  if (angle === undefined || rolls === null) {
    const back = angle === undefined ? null : backIn(angle.list, from)
    refuse(
      t('assembly.WallPage.wasNotRollingHere', [
        letter,
        back === null ? '.' : t('assembly.WallPage.itIsAgainIn', [length(back)]),
      ]),
    )
    return
  }
  const id = ++counted
  // As far as it rolls; the server says the same.
  const one = { from, to: Math.min(to, rolls.at + rolls.length), letter, id }
  if (takes.value !== 'sound') pending.value = [...pending.value, one]
  last.value = [{ at: from, letter }, ...last.value].slice(0, 5)
  await cut.ask((step) =>
    assembly.turn(production.value.ulid, props.cut, {
      step,
      from_ticks: from,
      to_ticks: to,
      angle: letter,
      takes: takes.value,
    }),
  )
  pending.value = pending.value.filter((two) => two.id !== id)
}
/** The frame that is seen: of what is on air, else of the angle that comes. A machine that is late shows it late. */
function seenAt(coming: string): number {
  const clock = player.transport.position()
  if (speed.value === 0) return Math.floor(clock / frame.value + 1e-6) * frame.value
  const seen = [onAir.value, coming]
    .map((letter) => angles.value.find((angle) => angle.letter === letter))
    .map((angle) => (angle === undefined ? null : player.seenTicks(angle.list)))
    // After a jump the old picture stands for a moment longer; nobody means that one.
    .find((ticks) => ticks !== null && Math.abs(ticks - clock) < TICKS)
  return Math.ceil((seen ?? clock - frame.value + 1) / frame.value - 1e-6) * frame.value
}
/** The key cuts on the frame that is seen. */
function cutTo(letter: string): void {
  if (wall.value === undefined) return
  if (range.value !== null) {
    const { from, to } = range.value
    clearRange()
    void turn(letter, from, to)
    return
  }
  const now = seenAt(letter)
  const on = pieceOn(pieces.value, now)
  if (on?.letter === letter && takes.value !== 'sound') return
  // What is on its way counts as cut.
  const over = pending.value.findLast((one) => now >= one.from && now < one.to)
  void turn(letter, now, over?.to ?? reach(items.value, now, wall.value.length_ticks))
}
/** The whole piece at a place shows another camera. */
function change(letter: string, ticks: number): void {
  const piece = pieceOn(pieces.value, ticks)
  if (piece === null) void turn(letter, ticks, reach(items.value, ticks, wall.value!.length_ticks))
  else if (piece.letter !== letter) void turn(letter, piece.from, piece.to)
}
/** The nearest place at which one camera gives way to another. */
const nearest = computed(() => {
  let best: { index: number; far: number } | null = null
  items.value.forEach((item, index) => {
    const next = items.value[index + 1]
    const end = item.record_start_ticks + item.duration_ticks
    if (next === undefined || next.record_start_ticks !== end) return
    const far = Math.abs(end - at.value)
    if (best === null || far < best.far) best = { index, far }
  })
  return best as { index: number; far: number } | null
})
function move(index: number, by: number): void {
  void cut.edit([{ op: 'roll', track: 0, index, by_ticks: by }], 'Move the cut')
}
function moveNearest(frames: number): void {
  if (nearest.value === null) refuse(t('assembly.WallPage.thereIsNoCutYet'))
  else move(nearest.value.index, frames * frame.value)
}
/** The piece goes on showing what was on air before it. */
function join(): void {
  const piece = pieceOn(pieces.value, at.value)
  const before = piece === null ? undefined : pieces.value[pieces.value.indexOf(piece) - 1]
  if (piece === null || before === undefined || before.to !== piece.from)
    refuse(t('assembly.WallPage.nothingLiesBeforeThisPiece'))
  else void turn(before.letter, piece.from, piece.to)
}
function nextCut(direction: 1 | -1): void {
  const all = [0, ...pieces.value.flatMap((one) => [one.from, one.to])].sort((a, b) => a - b)
  const next = direction > 0 ? all.find((one) => one > at.value) : all.findLast((one) => one < at.value)
  if (next !== undefined) player.goTo(next)
}
function mark(edge: 'from' | 'to'): void {
  const now = edge === 'from' ? at.value : at.value + frame.value
  const whole = wall.value?.length_ticks ?? 0
  range.value =
    edge === 'from'
      ? { from: now, to: Math.max(now + frame.value, range.value?.to ?? whole) }
      : { from: Math.min(range.value?.from ?? 0, now - frame.value), to: now }
}
function clearRange(): void {
  range.value = null
}

// Into a cut.
const { data: cuts } = useAnswer(() => wordsApi.cuts(production.value.ulid))
const picking = ref(false)
const targets = computed(() =>
  [{ key: '', name: t('assembly.WallPage.aNewCutOfIts') }].concat(
    (cuts.value?.cuts ?? [])
      .filter((one) => one.kind !== 'angle_cut')
      .map((one) => ({ key: one.ulid, name: one.name })),
  ),
)
async function lay(into: string): Promise<void> {
  picking.value = false
  const target =
    into === ''
      ? (await attempt(() => wordsApi.makeCut(production.value.ulid, wall.value?.name ?? t('assembly.WallPage.cut2'))))
          ?.ulid
      : into
  if (target === undefined) return
  const done = await attempt(() => assembly.lay(production.value.ulid, props.cut, target, null))
  if (done === undefined) return
  makeStale('sequences')
  say(t('assembly.WallPage.itIsLaidInWith'))
  void router.push({ query: { cut: target } })
}

// Pages of nine.
const sheet = ref(0)
const NINE = 9
const shown = computed(() => angles.value.slice(NINE * sheet.value, NINE * sheet.value + NINE))
const sheets = computed(() => Math.max(1, Math.ceil(angles.value.length / NINE)))
/** In the score: what went on air, or the angles that were paged to. */
const sought = ref<string | null>(null)
watch(onAir, (letter) => (sought.value = letter ?? sought.value))
watch(sheet, () => (sought.value = shown.value.at(sheet.value === 0 ? 0 : -1)?.letter ?? null))
const across = computed(() => Math.max(1, Math.ceil(Math.sqrt(shown.value.length))))
const lookOf = (angle: Shown) => {
  const look = pieceAt(angle.list, position.value)?.look ?? null
  return look === null || isPlain(look) || !looksShown.value ? null : look
}
const turning = ref(false)
const keys = usePlayerKeys(active, [',', '.'])
useShortcuts('Angle wall', [
  ...keys.shortcuts,
  {
    keys: ['ArrowLeft', 'ArrowRight', ',', '.'],
    what: t('assembly.WallPage.oneFrameBackOneForward'),
    run: (event) => keys.step(event, event.key === 'ArrowLeft' || event.key === ',' ? -1 : 1, false),
  },
  {
    keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
    what: t('assembly.WallPage.cutToThatAngleAfter'),
    run: (event) => {
      const angle = shown.value[Number(event.key) - 1]
      if (angle === undefined) return refuse(t('assembly.WallPage.thereIsNoSuchAngle'))
      if (turning.value) change(angle.letter, at.value)
      else cutTo(angle.letter)
      turning.value = false
    },
  },
  { keys: ['='], what: t('assembly.WallPage.andADigitThisPiece'), run: () => (turning.value = true) },
  {
    keys: [';', "'"],
    what: t('assembly.WallPage.theCutBeforeTheNext'),
    run: (event) => nextCut(event.key === ';' ? -1 : 1),
  },
  {
    keys: ['[', ']'],
    what: t('assembly.WallPage.moveTheNearestCutA'),
    run: (event) => cut.act(() => moveNearest(event.key === '[' ? -1 : 1)),
  },
  { keys: ['Backspace'], what: t('assembly.WallPage.joinThisPieceToThe'), run: () => cut.act(join) },
  {
    keys: ['i', 'o'],
    what: t('assembly.WallPage.aRangeBeginsEnds'),
    run: (event) => mark(event.key === 'i' ? 'from' : 'to'),
  },
  {
    keys: ['q'],
    what: t('assembly.WallPage.whatACutTakesPicture'),
    run: () => {
      takes.value = takes.value === 'both' ? 'picture' : takes.value === 'picture' ? 'sound' : 'both'
    },
  },
  {
    keys: ['PageUp', 'PageDown'],
    what: t('assembly.WallPage.nineAnglesBeforeNineMore'),
    run: (event) => {
      sheet.value = Math.max(0, Math.min(sheets.value - 1, sheet.value + (event.key === 'PageUp' ? -1 : 1)))
    },
  },
  {
    keys: ['Home', 'End'],
    what: t('assembly.WallPage.itsBeginningItsEnd'),
    run: (event) => player.goTo(event.key === 'Home' ? 0 : player.transport.last),
  },
  { keys: ['Enter'], what: t('assembly.WallPage.layItIntoACut'), run: () => mayCut.value && (picking.value = true) },
  {
    keys: ['Escape'],
    what: t('assembly.WallPage.leaveTheRangeTheWall'),
    run: () => {
      if (turning.value) turning.value = false
      else if (range.value !== null) clearRange()
      else emit('leave')
    },
  },
])
onMounted(() => page.value?.focus())
</script>

<template>
  <div
    ref="page"
    class="wall"
    tabindex="-1"
    :data-at="Math.round(at)"
    :data-step="cut.step.value"
    :data-pending="pending.length"
    :data-playing="speed !== 0"
    :data-air="onAir ?? ''"
  >
    <AnswerState
      :pending="isPending || cut.isPending.value"
      :error="error ?? cut.error.value"
      @retry="(refetch(), cut.read())"
    >
      <template v-if="wall">
        <div class="screens" :style="{ '--across': across }">
          <div v-for="(angle, index) in shown" :key="angle.letter" class="cell">
            <button
              class="tile"
              data-row
              :class="{ air: onAir === angle.letter, dim: pieceAt(angle.list, at) === null }"
              :data-letter="angle.letter"
              :aria-label="t('assembly.WallPage.cutTo', [nameOf(angle.letter)])"
              :aria-pressed="onAir === angle.letter"
              @click="cutTo(angle.letter)"
            >
              <span class="picture">
                <LookFilter v-if="lookOf(angle)" :name="`wall-${angle.letter}`" :look="lookOf(angle)!" />
                <PlayerPlace
                  :active="active"
                  :pictures="angle.list"
                  :rendition="shown.length > 4 ? 'small' : 'proxy'"
                  :style="lookOf(angle) ? { filter: `url(#wall-${angle.letter})` } : undefined"
                />
                <span class="tag"><DeviceBadge :letter="angle.letter" /> {{ angle.note }}</span>
                <span class="digit mono">{{ index + 1 }}</span>
                <span v-if="pieceAt(angle.list, at) === null" class="state mono">{{
                  backIn(angle.list, at) === null
                    ? t('assembly.WallPage.notRolling')
                    : t('assembly.WallPage.backIn', [length(backIn(angle.list, at))])
                }}</span>
              </span>
              <span v-if="onAir === angle.letter" class="label mono">{{ t('assembly.WallPage.onAir') }}</span>
            </button>
          </div>
          <p v-if="trouble" class="trouble" role="alert">
            {{ TROUBLE[trouble] }}
            <button v-if="trouble !== 'browser'" class="plain" @click.stop="player.again()">
              {{ t('assembly.WallPage.tryAgain') }}
            </button>
          </p>
        </div>
        <aside>
          <p class="clock">
            <b class="mono" data-testid="timecode">{{ labelAt(wall.start_ticks + at, wall.rate) }}</b>
            <span class="soft">{{ t('assembly.WallPage.of', [length(at), length(wall.length_ticks)]) }}</span>
          </p>
          <h3>{{ t('assembly.WallPage.aCutTakes') }} <kbd>Q</kbd></h3>
          <button
            v-for="(name, what) in TAKES"
            :key="what"
            class="choice"
            :class="{ on: takes === what }"
            :aria-pressed="takes === what"
            @click="takes = what"
          >
            {{ name }}
          </button>
          <h3>{{ t('assembly.WallPage.soundOfTheWhole') }}</h3>
          <p v-if="wall.sounds.length > 0" class="held">
            <span class="name" :title="wall.sounds.join(', ')">{{ wall.sounds.join(', ') }}</span>
            <span class="mono">{{
              takes === 'picture' ? t('assembly.WallPage.held') : t('assembly.WallPage.cut')
            }}</span>
          </p>
          <p v-else class="soft">{{ t('assembly.WallPage.noRecorderRanACut') }}</p>
          <template v-if="last.length > 0">
            <h3>{{ t('assembly.WallPage.lastCuts') }}</h3>
            <p v-for="(one, index) in last" :key="index" class="soft">
              <span class="mono">{{ labelAt(wall.start_ticks + one.at, wall.rate) }}</span>
              {{ t('assembly.WallPage.to', [nameOf(one.letter)]) }}
            </p>
          </template>
          <p v-if="turning" class="note">{{ t('assembly.WallPage.aDigitSaysWhichAngle') }}</p>
          <p v-if="range" class="note">
            {{ t('assembly.WallPage.areMarkedADigitFills', [length(range.to - range.from)]) }}
            <button class="plain" @click="clearRange">{{ t('assembly.WallPage.leaveIt') }}</button>
          </p>
          <p v-if="sheets > 1" class="soft">
            {{
              t('assembly.WallPage.anglesToOf', [
                NINE * sheet + 1,
                Math.min(angles.length, NINE * sheet + NINE),
                angles.length,
              ])
            }}
            <kbd>{{ sheet < sheets - 1 ? 'PgDn' : 'PgUp' }}</kbd>
          </p>
          <p class="acts">
            <button v-if="mayCut" class="plain" :disabled="pieces.length === 0" @click="picking = true">
              {{ t('assembly.WallPage.layItIntoACut') }} <kbd>↵</kbd>
            </button>
            <button class="plain" @click="emit('leave')">{{ t('assembly.WallPage.allCuts') }}</button>
          </p>
          <OpenCuts :cut="props.cut" kind="wall" :name="wall.name" :at="at" />
        </aside>
        <ScoreStaves
          :angles="angles"
          :pieces="pieces"
          :items="items"
          :at="at"
          :length="wall.length_ticks"
          :start="wall.start_ticks"
          :rate="wall.rate"
          :range="range"
          :sounds="wall.sounds"
          :can-work="mayCut"
          :sought="sought"
          @go="player.goTo($event)"
          @change="change"
          @move="move"
        />
        <p class="keys soft">
          <kbd>1</kbd>…<kbd>9</kbd> {{ t('assembly.WallPage.cutThere') }} <kbd>=</kbd><kbd>1</kbd>
          {{ t('assembly.WallPage.changeThisPiece') }} <kbd>[</kbd><kbd>]</kbd> {{ t('assembly.WallPage.moveTheCut') }}
          <kbd>⌫</kbd> {{ t('assembly.WallPage.joinItAgain') }} <kbd>I</kbd><kbd>O</kbd>
          {{ t('assembly.WallPage.range') }} <kbd>Space</kbd> {{ t('assembly.WallPage.play') }} <kbd>↵</kbd>
          {{ t('assembly.WallPage.toTheCut') }}
        </p>
        <PickDialog
          :open="picking"
          :title="t('assembly.WallPage.layItInto')"
          :label="t('assembly.WallPage.cuts')"
          :choices="targets"
          @close="picking = false"
          @pick="lay($event.key)"
        >
          <template #default="{ one }">{{ one.name }}</template>
        </PickDialog>
      </template>
    </AnswerState>
  </div>
</template>

<style scoped>
.wall {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 284px;
  grid-template-rows: minmax(0, 1fr) auto auto;
  height: 100%;
  min-height: 0;
  background: var(--dark);
  color: var(--on-dark);
  outline: none;
}
.wall :deep(.soft) {
  color: var(--on-dark-soft);
}
.wall :deep(.plain) {
  color: #8cc9b7;
  background: none;
  border-color: var(--dark-rule);
}
.wall :deep(kbd) {
  background: var(--dark-2);
  border-color: var(--dark-rule);
  color: var(--on-dark);
}
.screens {
  position: relative;
  display: grid;
  grid-template-columns: repeat(var(--across), minmax(0, 1fr));
  grid-auto-rows: minmax(0, 1fr);
  gap: 10px;
  padding: 14px;
  min-height: 0;
}
.cell {
  container-type: size;
  display: grid;
  place-items: center;
  min-width: 0;
  min-height: 0;
}
.tile {
  position: relative;
  width: min(100cqw, 177.78cqh);
  aspect-ratio: 16 / 9;
  border: 0;
  padding: 0;
  background: #0c0f11;
  color: inherit;
  cursor: pointer;
  border-radius: 3px;
}
.picture {
  position: absolute;
  inset: 0;
  overflow: hidden;
  border-radius: 3px;
}
.tile.air {
  background: #e8e2d4;
}
.tile.air .picture {
  inset: 2% 4% 6%;
}
.tile:focus-visible {
  outline: 2px solid #8cc9b7;
}
.picture :deep(canvas) {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.dim .picture :deep(canvas) {
  opacity: 0.35;
}
.tag,
.digit,
.state {
  position: absolute;
  background: #101417d0;
  border-radius: 3px;
  padding: 1px 7px;
}
.tag {
  left: 7px;
  top: 7px;
  max-width: 70%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.digit {
  right: 7px;
  top: 7px;
}
.state {
  left: 7px;
  bottom: 7px;
}
.label {
  position: absolute;
  inset: auto auto 0 50%;
  transform: translateX(-50%);
  background: #e8e2d4;
  color: var(--ink);
  padding: 0 8px;
  font-size: 11px;
  line-height: 15px;
  border-radius: 3px 3px 0 0;
}
.trouble {
  position: absolute;
  inset: auto 0 20px;
  text-align: center;
  margin: 0;
}
aside {
  padding: 14px 16px;
  overflow: auto;
  min-height: 0;
}
aside p {
  margin: 0 0 4px;
}
.clock {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.clock b {
  font-size: 18px;
  font-weight: 400;
}
h3 {
  font-size: 12px;
  margin: 12px 0 5px;
}
.choice {
  display: block;
  width: 100%;
  text-align: left;
  border: 1px solid var(--dark-rule);
  border-radius: 4px;
  background: none;
  color: inherit;
  padding: 4px 10px;
  margin-bottom: 5px;
  cursor: pointer;
}
.choice.on {
  background: #e8e2d4;
  color: var(--ink);
  font-weight: 600;
}
.held {
  display: flex;
  gap: 8px;
  background: #e8e2d4;
  color: var(--ink);
  border-radius: 4px;
  padding: 4px 10px;
}
.held .name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.note {
  border-left: 3px solid #d9a441;
  padding-left: 8px;
  margin-top: 10px !important;
}
.acts {
  display: flex;
  gap: 14px;
  margin-top: 14px !important;
}
.staves {
  grid-column: 1 / -1;
}
.keys {
  grid-column: 1 / -1;
  margin: 0;
  padding: 5px 16px 8px;
  white-space: nowrap;
  overflow: hidden;
}
</style>
