<script setup lang="ts">
import { t } from '@/words'
import { Modal } from 'ant-design-vue'
import { useLocalStorage, watchDebounced } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { assembly } from '@/api/endpoints/assembly'
import { player as playerApi } from '@/api/endpoints/player'
import { makeStale, useAnswer } from '@/api/queries'
import type { CutClip, Rate } from '@/api/types'
import { EMPTY, fromAnswer, type Playlist, type Sound } from '@/player/engine/playlist'
import { placeTyped } from '@/player/goTo'
import { isPlain, looksShown } from '@/player/look'
import LookFilter from '@/player/LookFilter.vue'
import { labelAt, length, ofFrames, ticksPerFrame, toFrames } from '@/player/time'
import { TROUBLE } from '@/player/trouble'
import { usePlayer } from '@/player/usePlayer'
import { usePlayerKeys } from '@/player/usePlayerKeys'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts, type Shortcut } from '@/shell/keys'
import { attempt, refuse, say } from '@/shell/say'
import SequenceFiles from '@/shell/SequenceFiles.vue'
import { ratesTold } from '@/shell/useLastCut'
import BeneathPane from './BeneathPane.vue'
import CutHistory from './CutHistory.vue'
import OpenCuts from './OpenCuts.vue'
import { playedOf } from './played'
import ReadsPane, { type Stuff } from './ReadsPane.vue'
import TrackHeads from './TrackHeads.vue'
import TrackPaper from './TrackPaper.vue'
import { movesBy, tried, type Trial } from './tried'
import { useCopied } from './useCopied'
import { trimmed } from './along'
import { useActs } from './useActs'
import { useChosen } from './useChosen'
import { useCut, type Operation } from './useCut'
import { useTrial } from './useTrial'
import { amountTyped, endOf, lengthOf, paperOrder, type CutItem } from './value'

/**
 * One cut: the reads that drive it, its picture, what lies under the playhead, and the tracks on ruled paper.
 */
const props = defineProps<{ cut: string }>()
const emit = defineEmits<{ leave: [] }>()
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const cut = useCut(
  () => production.value.ulid,
  () => props.cut,
)
const value = computed(() => cut.value.value)
const mayCut = computed(() => production.value.may.organise)

// What plays: made of the cut and what is known of its clips, so that each step is seen at once. A cut without a track
// for sound is heard by the line-up, which the server knows.
const isHeardByLineup = computed(
  () => cut.value.value !== null && !cut.value.value.tracks.some((one) => one.kind === 'sound'),
)
const { data: answer, refetch } = useAnswer(() =>
  isHeardByLineup.value ? playerApi.sequence(production.value.ulid, props.cut) : null,
)
watchDebounced(
  cut.step,
  (now) => {
    if (answer.value !== undefined && answer.value.step !== now) void refetch()
  },
  { debounce: 120, maxWait: 600 },
)
const { data: sources, refetch: refetchSources } = useAnswer(() => assembly.sources(production.value.ulid, props.cut))
const clips = computed(() => new Map((sources.value?.clips ?? []).map((clip): [string, CutClip] => [clip.ulid, clip])))
const unknown = computed(() =>
  (value.value?.tracks ?? []).some((track) => track.items.some((item) => !clips.value.has(item.source.id))),
)
watch([unknown, cut.step], ([is]) => is && sources.value !== undefined && void refetchSources())

const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const page = useTemplateRef<HTMLElement>('page')
const paper = useTemplateRef('paper')
const active = usePlayer(() => production.value.ulid, canvas)
const { player, position, speed, trouble, piece, level } = active
const FALLBACK: Rate = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
const rate = computed<Rate>(() => sources.value?.rate ?? FALLBACK)
const frame = computed(() => ticksPerFrame(rate.value))
const onFrame = (ticks: number): number => Math.floor(ticks / frame.value + 1e-6) * frame.value
const at = computed(() => onFrame(position.value))
const solo = ref(new Set<number>())
const trial = shallowRef<Trial | null>(null)
const whole = computed<Playlist | null>(() => {
  if (value.value === null || sources.value === undefined) return null
  const played = playedOf(value.value, clips.value)
  const heardUnder = answer.value === undefined ? [] : fromAnswer(answer.value).sounds
  return {
    ...EMPTY,
    rate: rate.value,
    start: value.value.start_ticks,
    length: lengthOf(value.value),
    pictures: played.pictures,
    sounds: isHeardByLineup.value ? heardUnder : played.sounds,
  }
})

let isLoaded = false
watch([whole, trial], ([list]) => {
  if (list === null) return
  const now = tried(list, trial.value, rate.value)
  if (isLoaded) player.replace(now)
  else {
    // Come for one clip, it opens where that is seen.
    const use = now.pictures.find((one) => one.clip === route.query.clip)
    player.load(now, use?.at ?? (Number(route.query.at ?? 0) || 0))
  }
  isLoaded = true
})
const heard = computed<Sound[]>(() => {
  const list = whole.value === null ? [] : tried(whole.value, trial.value, rate.value).sounds
  return solo.value.size === 0 ? list : list.filter((one) => one.track == null || solo.value.has(one.track))
})
watch(heard, (list) => player.setSounds(list), { immediate: true })
/** How loud each track is now: the loudest of the channels that lie on it here. */
const meters = computed(() => {
  const found = new Map<number, number>()
  for (const one of heard.value) {
    if (one.track == null || one.at > position.value || one.at + one.length <= position.value) continue
    for (const channel of one.channels) {
      const loud = level.value.channels.get(`${one.clip}/${channel.index}`) ?? 0
      found.set(one.track, Math.max(found.get(one.track) ?? 0, loud))
    }
  }
  return found
})

// Acts.
const rippling = useLocalStorage('cartella.cut.ripples', true)
const snaps = useLocalStorage('cartella.cut.snaps', true)
const takes = useLocalStorage<'both' | 'picture' | 'sound'>('cartella.cut.takes', 'both')
const TAKES = {
  both: t('assembly.CutDesk.pictureSound'),
  picture: t('assembly.CutDesk.pictureOnly'),
  sound: t('assembly.CutDesk.soundOnly'),
} as const
/** Only the piece itself: otherwise a take's picture and sound stay together in whatever is done to one of them. */
const alone = computed(() => takes.value !== 'both')
const picked = useChosen({
  ...{ cut, at, frame, alone },
  ranged: (now) => (player.transport.range = now),
})
const { track, tracks, here, current, currentItem, chosen, choose, meant, withAlong, goesAlong } = picked
const { range, mark, clearRange } = picked
const edit = (operations: Operation[], label: string) => {
  drop()
  return cut.edit(operations, label)
}
const nothing = () => refuse(t('assembly.CutDesk.nothingIsChosenAndNothing'))
const acts = useActs({
  ...{ at, frame, rippling, alone, edit, nothing },
  chosen: picked,
  goTo: (ticks) => player.goTo(ticks),
})
const { split, trimTo, roll, slip, lift, extract, closeHole, join, enable } = acts
const { turnTo, angles, plain, setLevel, dragged, edged } = acts

// From the left into the cut.
async function put(pieces: Stuff[], how: 'append' | 'insert' | 'lay_over'): Promise<void> {
  drop()
  const wasEmpty = value.value !== null && lengthOf(value.value) === 0
  const place = range.value?.from ?? at.value
  let end = 0
  let told = ''
  const done = await cut.ask(async (step) => {
    const answer = await assembly.put(production.value.ulid, props.cut, {
      pieces: pieces.map((one) => ({ ...one, label: undefined, day: undefined })),
      how,
      takes: takes.value,
      track:
        here.value?.kind === 'picture' && here.value.role !== '' && here.value.role !== 'picture' ? track.value : null,
      at_ticks: how === 'append' ? null : place,
      step,
      label:
        how === 'append'
          ? `Add ${pieces[0]!.label}`
          : how === 'insert'
            ? `Put in ${pieces[0]!.label}`
            : `Lay over ${pieces[0]!.label}`,
    })
    end = answer.end_ticks
    told = ratesTold(answer)
    return answer
  })
  if (!done) return
  say(t('assembly.CutDesk.isInTheCut', [pieces[0]!.label, told]).trim())
  // Its first picture may have given it another rate.
  if (wasEmpty) void cut.read()
  if (how !== 'append' || wasEmpty) player.goTo(how === 'append' ? 0 : end)
  if (wasEmpty) void nextTick(() => paper.value?.fit())
}
async function lineOut(scene: string, line: number): Promise<void> {
  const done = await attempt(() => assembly.stringOut(production.value.ulid, { of: 'line', scene, line }))
  if (done === undefined) return
  makeStale('sequences')
  say(
    t('assembly.CutDesk.isLaid', [
      done.name,
      done.left.length > 0 ? t('assembly.CutDesk.leftOut', [done.left.join(', ')]) : '',
    ]),
  )
  void router.push({ name: 'assembly', params: route.params, query: { cut: done.ulid } })
}
function open(item: CutItem | null = currentItem.value): void {
  if (item === null || !clips.value.has(item.source.id)) return
  const into = at.value >= item.record_start_ticks && at.value < endOf(item) ? at.value - item.record_start_ticks : 0
  void router.push({
    name: 'clip',
    params: { ...route.params, clip: item.source.id },
    query: { at: String(Math.round(item.source_start_ticks + into)) },
  })
}

const { copy, paste } = useCopied({
  production: () => production.value.ulid,
  meant: computed(() => withAlong(meant.value)),
  tracks,
  at,
  edit,
  nothing,
})

// Under the playhead.
const { beneath, tryOne, tryNext, drop, keep } = useTrial({
  production: () => production.value.ulid,
  sequence: () => props.cut,
  cut,
  trial,
  track,
  current,
  currentItem,
  tracks,
  speed,
})

// Places.
function nextCut(direction: 1 | -1): void {
  const items = here.value?.items ?? []
  const all = [0, ...items.flatMap((item) => [item.record_start_ticks, endOf(item)])]
  const next =
    direction > 0
      ? all.filter((ticks) => ticks > at.value).sort((a, b) => a - b)[0]
      : all.filter((ticks) => ticks < at.value).sort((a, b) => b - a)[0]
  if (next !== undefined) player.goTo(next)
}
function nextTrack(direction: 1 | -1): void {
  const order = paperOrder(tracks.value)
  track.value = order[Math.max(0, Math.min(order.length - 1, order.indexOf(track.value) + direction))] ?? 0
  chosen.value = new Set()
}
const typed = ref<{ what: 'place' | 'amount'; text: string } | null>(null)
const what = ref<'tail' | 'head' | 'roll' | 'slip' | 'move'>('tail')
const typedBox = useTemplateRef<HTMLInputElement>('typedBox')
function ask(kind: 'place' | 'amount'): void {
  typed.value = { what: kind, text: '' }
  void nextTick(() => typedBox.value?.focus())
}
function answerTyped(): void {
  const now = typed.value
  typed.value = null
  page.value?.focus()
  if (now === null || now.text.trim() === '') return
  if (now.what === 'place') {
    const target = placeTyped(now.text, rate.value, value.value!.start_ticks, toFrames(at.value, rate.value))
    if (target === null) refuse(t('assembly.CutDesk.isNoTimecodeType2114', [now.text]))
    else player.goTo(ofFrames(Math.max(0, target), rate.value))
    return
  }
  const frames = amountTyped(now.text, rate.value.nominal)
  const by = (frames ?? 0) * frame.value
  if (frames === null) refuse(t('assembly.CutDesk.isNoAmountType12', [now.text]))
  else if (what.value === 'roll') roll(frames)
  else if (what.value === 'slip') slip(frames)
  else if (meant.value.length === 0) nothing()
  else
    void edit(
      what.value === 'move'
        ? withAlong(meant.value).map((one) => ({
            op: 'move',
            track: one.track,
            index: one.index,
            to_track: one.track,
            at_ticks: one.item.record_start_ticks + by,
          }))
        : trimmed(tracks.value, meant.value, what.value, by, rippling.value, alone.value),
      what.value === 'move' ? 'Move' : 'Trim',
    )
}

const heights = useLocalStorage<Record<string, number>>('cartella.cut.heights', {})
const history = ref(false)
const writing = ref(false)
const scene = ref(String(route.query.scene ?? ''))
// The script opens where the cut begins; while somebody cuts it stays where they put it.
let isOpened = scene.value !== ''
watch(
  [sources, value],
  ([known, now]) => {
    if (isOpened || known === undefined || now === null) return
    isOpened = true
    const first = now.tracks.flatMap((one) => one.items.slice(0, 1)).find((item) => item.metadata.take !== undefined)
    scene.value = known.takes.find((take) => take.ulid === first?.metadata.take)?.scene ?? ''
  },
  { immediate: true },
)
function chooseScene(name: string): void {
  isOpened = true
  scene.value = name
}
const timecode = computed(() => labelAt((value.value?.start_ticks ?? 0) + at.value, rate.value))
const shownLook = computed(() => {
  const now = piece.value?.look ?? null
  return now === null || isPlain(now) || !looksShown.value ? null : now
})
const counted = computed(() => tracks.value.reduce((sum, one) => sum + one.items.length, 0))
function hear(stuff: Stuff): void {
  void router.push({
    name: 'clip',
    params: { ...route.params, day: stuff.day, clip: stuff.clip },
    query: { at: String(stuff.in_ticks), tab: 'words' },
  })
}

/** Waits for the digit after `=`. */
const turning = ref(false)
const keys = usePlayerKeys(active, [',', '.'])
const own = (
  [
    {
      keys: ['ArrowLeft', 'ArrowRight', ',', '.'],
      what: t('assembly.CutDesk.oneFrameBackOneForward'),
      run: (event) => keys.step(event, event.key === 'ArrowLeft' || event.key === ',' ? -1 : 1, false),
    },
    {
      keys: ['Home', 'End'],
      what: t('assembly.CutDesk.itsBeginningItsEnd'),
      run: (event) => player.goTo(event.key === 'Home' ? 0 : player.transport.last),
    },
    {
      keys: [';', "'"],
      what: t('assembly.CutDesk.theCutBeforeTheNext'),
      run: (event) => nextCut(event.key === ';' ? -1 : 1),
    },
    {
      keys: ['ArrowUp', 'ArrowDown'],
      what: t('assembly.CutDesk.theTrackAboveBelow'),
      run: (event) => nextTrack(event.key === 'ArrowUp' ? -1 : 1),
    },
    { keys: ['g'], what: t('assembly.CutDesk.goToATimecode'), run: () => ask('place') },
    { keys: ['|'], what: t('assembly.CutDesk.splitHere'), run: split },
    {
      keys: ['{', '}'],
      what: t('assembly.CutDesk.thePieceBeginsHereEnds'),
      run: (event) => trimTo(event.key === '{' ? 'head' : 'tail'),
    },
    {
      keys: ['[', ']'],
      what: t('assembly.CutDesk.moveTheNearestCutA'),
      run: (event) => roll(event.key === '[' ? -1 : 1),
    },
    {
      keys: ['(', ')'],
      what: t('assembly.CutDesk.showMaterialAFrameEarlier'),
      run: (event) => slip(event.key === '(' ? -1 : 1),
    },
    { keys: ['#'], what: t('assembly.CutDesk.trimRollSlipOrMove'), run: () => ask('amount') },
    { keys: ['x'], what: t('assembly.CutDesk.closeTheHoleAtThe'), run: closeHole },
    { keys: ['Delete'], what: t('assembly.CutDesk.leaveAGapInIts'), run: lift },
    { keys: ['-'], what: t('assembly.CutDesk.takeItOutAndClose'), run: extract },
    { keys: ['Backspace'], what: t('assembly.CutDesk.joinTheNearestTwoPieces'), run: join },
    { keys: ['0'], what: t('assembly.CutDesk.offOrOnAgain'), run: enable },
    { keys: ['='], what: t('assembly.CutDesk.andADigitAnotherAngle'), run: () => (turning.value = true) },
    {
      keys: ['p', 'P'],
      what: t('assembly.CutDesk.plainClipsInsteadOfAngles'),
      run: (event) => plain(event.key === 'P'),
    },
    { keys: ['t'], what: t('assembly.CutDesk.tryTheNextTakeOr'), run: tryNext },
    {
      keys: ['i', 'o'],
      what: t('assembly.CutDesk.aRangeBeginsEnds'),
      run: (event) => mark(event.key === 'i' ? 'from' : 'to'),
    },
    { keys: ['Ctrl+c'], what: t('assembly.CutDesk.copy'), run: () => void copy() },
    { keys: ['Ctrl+x'], what: t('assembly.CutDesk.cutOutToBePasted'), run: () => copy() && lift() },
    { keys: ['Ctrl+v'], what: t('assembly.CutDesk.pasteAtThePlayhead'), run: paste },
    {
      keys: ['Ctrl+a'],
      what: t('assembly.CutDesk.allOfTheTrack'),
      run: () => (chosen.value = new Set(here.value?.items ?? [])),
    },
    {
      keys: ['c'],
      what: t('assembly.CutDesk.chooseWhatPlaysHereOr'),
      run: () =>
        (chosen.value = new Set(chosen.value.size > 0 || currentItem.value === null ? [] : [currentItem.value])),
    },
    { keys: ['r'], what: t('assembly.CutDesk.whatIsBehindMovesAlong2'), run: () => (rippling.value = !rippling.value) },
    { keys: ['w'], what: t('assembly.CutDesk.dragsLeadToCutsAnd2'), run: () => (snaps.value = !snaps.value) },
    {
      keys: ['q'],
      what: t('assembly.CutDesk.pictureAndSoundPictureOnly'),
      run: () => {
        takes.value = takes.value === 'both' ? 'picture' : takes.value === 'picture' ? 'sound' : 'both'
      },
    },
    {
      keys: ['z', 'Z'],
      what: t('assembly.CutDesk.closerFarther'),
      run: (event) => paper.value?.zoom(event.key === 'z' ? 1 / 1.6 : 1.6),
    },
    {
      keys: ['f'],
      what: t('assembly.CutDesk.theRangeThenTheWhole'),
      run: () => paper.value?.fit(range.value?.from, range.value?.to),
    },
    { keys: ['Alt+v'], what: t('assembly.CutDesk.versionsAndHistory'), run: () => (history.value = true) },
    {
      keys: ['Escape'],
      what: t('assembly.CutDesk.leaveWhatIsTriedThe'),
      run: () => {
        if (turning.value) turning.value = false
        else if (trial.value !== null) drop()
        else if (chosen.value.size > 0) chosen.value = new Set()
        else if (range.value !== null) clearRange()
        else emit('leave')
      },
    },
  ] as Shortcut[]
).map((one) => ({ ...one, run: (event: KeyboardEvent) => cut.act(() => one.run(event)) }))
useShortcuts('Cut', [...keys.shortcuts, ...own])
function digit(number: number): void {
  turning.value = false
  const angle = angles.value[number - 1]
  if (angle === undefined) refuse(t('assembly.CutDesk.thisPieceHasNoSuch'))
  else turnTo(angle)
}
onMounted(() => page.value?.focus())

function setTrack(index: number, change: Record<string, unknown>, label: string): void {
  void edit([{ op: 'set_track', track: index, ...change }], label)
}
const adding = ref<{ kind: 'picture' | 'sound'; name: string; role: string } | null>(null)
const naming = ref<{ track: number; name: string } | null>(null)
function addTrack(): void {
  const one = adding.value
  adding.value = null
  if (one !== null && one.name.trim() !== '')
    void edit([{ op: 'add_track', ...one }], `Add the track ${one.name.trim()}`)
}
function nameTrack(): void {
  const one = naming.value
  naming.value = null
  if (one !== null && one.name.trim() !== '')
    setTrack(one.track, { name: one.name }, `Name the track ${one.name.trim()}`)
}
</script>

<template>
  <div
    ref="page"
    class="cut"
    tabindex="-1"
    :data-at="Math.round(at)"
    :data-step="cut.step.value"
    :data-shown="active.shown.value ?? ''"
    :data-clip="piece?.clip ?? ''"
    :data-playing="speed !== 0"
    :data-trying="trial?.one.label ?? ''"
  >
    <AnswerState :pending="cut.isPending.value" :error="cut.error.value" @retry="cut.read()">
      <template v-if="value">
        <ReadsPane
          class="left"
          :value="value"
          :scene="scene"
          :can-work="mayCut"
          :trying="trial !== null"
          :turning="turning"
          @keep="keep"
          @turn="digit"
          @scene="chooseScene"
          @put="(stuff, how) => cut.act(() => void put([stuff], how))"
          @line="lineOut"
          @hear="hear"
        />
        <section class="middle">
          <div class="screen" @click="player.toggle()">
            <LookFilter v-if="shownLook" name="cut-look" :look="shownLook" />
            <canvas ref="canvas" :style="shownLook ? { filter: 'url(#cut-look)' } : undefined" />
            <p v-if="counted === 0" class="hint">
              {{ mayCut ? t('assembly.CutDesk.anEmptyCutChooseA') : t('assembly.CutDesk.nothingHasBeenCutYet') }}
            </p>
            <p v-if="trouble" class="trouble" role="alert">
              {{ TROUBLE[trouble] }}
              <button v-if="trouble !== 'browser'" class="plain" @click.stop="player.again()">
                {{ t('assembly.CutDesk.tryAgain') }}
              </button>
            </p>
            <span v-if="trial" class="tag">{{ t('assembly.CutDesk.tried', [trial.one.label]) }}</span>
          </div>
          <div class="under">
            <button
              class="play"
              :aria-label="speed === 0 ? t('assembly.CutDesk.play') : t('assembly.CutDesk.stop')"
              @click="player.toggle()"
            >
              {{ speed === 0 ? '▶' : '■' }}
            </button>
            <b class="mono time" data-testid="timecode">{{ timecode }}</b>
            <span class="soft"
              >{{ t('assembly.CutDesk.of', [length(at), length(lengthOf(value))])
              }}<template v-if="speed !== 0 && speed !== 1">{{ t('assembly.CutDesk.x', [speed]) }}</template></span
            >
            <span v-if="angles.length > 0" class="angles"
              ><kbd>=</kbd>
              <button
                v-for="(angle, index) in angles"
                :key="angle"
                class="angle mono"
                :class="{ on: angle === currentItem?.angles?.current, waits: turning }"
                :title="t('assembly.CutDesk.thisPieceAsSawIt', [angle, index + 1])"
                :disabled="!mayCut"
                @click="turnTo(angle)"
              >
                {{ index + 1 }} {{ angle }}
              </button></span
            >
          </div>
        </section>
        <BeneathPane
          :found="beneath"
          :item="currentItem"
          :kind="here?.kind ?? 'picture'"
          :rate="rate"
          :own-rate="clips.get(currentItem?.source.id ?? '')?.rate ?? null"
          :trying="trial?.index ?? null"
          :can-work="mayCut"
          @try="tryOne"
          @keep="keep"
          @drop="drop"
          @open="open()"
          @level="setLevel"
        />
        <div class="bar">
          <OpenCuts :cut="props.cut" kind="cut" :name="cut.name.value" :at="at">
            <b class="name" :title="cut.name.value">{{ cut.name.value }}</b>
          </OpenCuts>
          <button
            class="chip"
            :class="{ on: rippling }"
            :aria-pressed="rippling"
            :title="t('assembly.CutDesk.whatIsBehindMovesAlong')"
            @click="rippling = !rippling"
          >
            {{ rippling ? t('assembly.CutDesk.rippling') : t('assembly.CutDesk.notRippling') }}
          </button>
          <button
            class="chip"
            :class="{ on: snaps }"
            :aria-pressed="snaps"
            :title="t('assembly.CutDesk.dragsLeadToCutsAnd')"
            @click="snaps = !snaps"
          >
            {{ snaps ? t('assembly.CutDesk.snapsCutsPlayhead') : t('assembly.CutDesk.noSnaps') }}
          </button>
          <button
            class="chip"
            :title="t('assembly.CutDesk.whatIsPutInQ')"
            @click="takes = takes === 'both' ? 'picture' : takes === 'picture' ? 'sound' : 'both'"
          >
            {{ TAKES[takes] }}
          </button>
          <span v-if="range" class="chip on mono"
            >{{ length(range.to - range.from) }}
            <button class="plain" :aria-label="t('assembly.CutDesk.clearTheRange')" @click="clearRange">×</button></span
          >
          <span v-if="chosen.size > 0" class="soft">{{ t('assembly.CutDesk.chosen', [chosen.size]) }}</span>
          <span class="keys soft"
            >{{ t('assembly.CutDesk.split') }} <kbd>|</kbd> {{ t('assembly.CutDesk.trim') }} <kbd>{</kbd> <kbd>}</kbd>
            {{ t('assembly.CutDesk.roll') }} <kbd>[</kbd> <kbd>]</kbd> {{ t('assembly.CutDesk.try') }} <kbd>T</kbd>
            {{ t('assembly.CutDesk.closeTheHole') }} <kbd>X</kbd></span
          >
          <button class="plain" :title="t('assembly.CutDesk.versionsAndHistoryAltV')" @click="history = true">
            {{ t('assembly.CutDesk.versions') }}
          </button>
          <button class="plain" @click="writing = true">{{ t('assembly.CutDesk.writeAFile') }}</button>
          <button class="plain" @click="emit('leave')">{{ t('assembly.CutDesk.allCuts') }}</button>
        </div>
        <TrackHeads
          :tracks="tracks"
          :rows="paper?.rows ?? []"
          :scroll="paper?.scroll ?? 0"
          :track="track"
          :solo="solo"
          :meters="meters"
          :can-work="mayCut"
          @choose="((track = $event), (chosen = new Set()))"
          @set="setTrack"
          @solo="solo = $event"
          @height="(name, high) => (heights = { ...heights, [name]: high })"
          @add="adding = { kind: 'sound', name: '', role: 'effects' }"
          @name="naming = { track: $event, name: tracks[$event]?.name ?? '' }"
          @wheel="paper?.wheel($event)"
        />
        <TrackPaper
          ref="paper"
          :production="production.ulid"
          :value="value"
          :rate="rate"
          :clips="clips"
          :at="at"
          :chosen="chosen"
          :along="goesAlong"
          :track="track"
          :range="range"
          :snaps="snaps"
          :trial="trial === null ? null : { from: trial.from, to: trial.to + movesBy(trial, rate) }"
          :heights="heights"
          :can-work="mayCut"
          @go="player.goTo($event)"
          @choose="choose"
          @move="dragged"
          @edge="edged"
          @open="open"
        />
        <p class="unseen" aria-live="polite">
          {{ here?.name }}, {{ currentItem === null ? t('assembly.CutDesk.nothing') : currentItem.name }}
        </p>
        <form v-if="typed" class="ask" @submit.prevent="answerTyped">
          <template v-if="typed.what === 'place'"
            ><label
              >{{ t('assembly.CutDesk.goTo') }}
              <input
                ref="typedBox"
                v-model="typed.text"
                class="field mono"
                placeholder="2114"
                @keydown.esc.stop="typed = null"
                @blur="typed = null" /></label
          ></template>
          <template v-else
            ><select v-model="what" class="field" :aria-label="t('assembly.CutDesk.whatIsMoved')">
              <option value="tail">{{ t('assembly.CutDesk.end') }}</option>
              <option value="head">{{ t('assembly.CutDesk.beginning') }}</option>
              <option value="roll">{{ t('assembly.CutDesk.nearestCut') }}</option>
              <option value="slip">{{ t('assembly.CutDesk.material') }}</option>
              <option value="move">{{ t('assembly.CutDesk.place') }}</option></select
            ><label
              >{{ t('assembly.CutDesk.by') }}
              <input
                ref="typedBox"
                v-model="typed.text"
                class="field mono"
                :placeholder="t('assembly.CutDesk.n12Or1')"
                @keydown.esc.stop="typed = null" /></label
            ><button class="plain">{{ t('assembly.CutDesk.doIt') }}</button></template
          >
        </form>
        <Modal
          :open="adding !== null"
          :title="t('assembly.CutDesk.anotherTrack')"
          :ok-text="t('assembly.CutDesk.addIt')"
          @cancel="adding = null"
          @ok="addTrack"
        >
          <form v-if="adding" class="dialog" @submit.prevent="addTrack">
            <label>{{ t('assembly.CutDesk.name') }} <input v-model="adding.name" class="field" maxlength="60" /></label>
            <label
              >{{ t('assembly.CutDesk.holds') }}
              <select v-model="adding.kind" class="field">
                <option value="picture">{{ t('assembly.CutDesk.picture') }}</option>
                <option value="sound">{{ t('assembly.CutDesk.sound') }}</option>
              </select></label
            >
          </form>
        </Modal>
        <Modal
          :open="naming !== null"
          :title="t('assembly.CutDesk.nameOfTheTrack')"
          :ok-text="t('assembly.CutDesk.nameIt')"
          @cancel="naming = null"
          @ok="nameTrack"
        >
          <form v-if="naming" class="dialog" @submit.prevent="nameTrack">
            <label>{{ t('assembly.CutDesk.name') }} <input v-model="naming.name" class="field" maxlength="60" /></label>
          </form>
        </Modal>
        <Modal
          :open="writing"
          :title="t('assembly.CutDesk.filesOf', [cut.name.value])"
          :footer="null"
          width="760px"
          @cancel="writing = false"
        >
          <SequenceFiles v-if="writing" :production="production.ulid" :reel="props.cut" :may-export="mayCut" is-cut />
        </Modal>
        <CutHistory
          :open="history"
          :cut="props.cut"
          :name="cut.name.value"
          :versions="cut.versions.value"
          :step="cut.step.value"
          :can-work="mayCut"
          @close="history = false"
          @again="cut.read()"
          @go="player.goTo($event)"
        />
      </template>
    </AnswerState>
  </div>
</template>

<style scoped>
.cut {
  display: grid;
  grid-template-columns: 132px minmax(200px, 268px) minmax(0, 1fr) 268px;
  grid-template-rows: minmax(180px, 1fr) auto minmax(200px, 42%);
  height: 100%;
  min-height: 0;
  outline: none;
  position: relative;
}
.left {
  grid-column: 1 / 3;
  border-right: 1px solid var(--rule);
}
.middle {
  grid-column: 3;
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 12px 16px 8px;
}
.screen {
  position: relative;
  flex: 1;
  min-height: 0;
  background: var(--dark);
  border-radius: 4px;
  overflow: hidden;
}
.screen canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.hint,
.trouble {
  position: absolute;
  inset: auto 12px 40%;
  text-align: center;
  color: var(--on-dark);
  margin: 0;
}
.tag {
  position: absolute;
  left: 10px;
  bottom: 10px;
  background: var(--warn-soft);
  color: var(--warn);
  border-radius: 3px;
  padding: 2px 8px;
}
.under {
  display: flex;
  gap: 12px;
  align-items: center;
  padding-top: 8px;
  white-space: nowrap;
  overflow: auto hidden;
  scrollbar-width: thin;
}
.under > * {
  flex: none;
}
.play {
  width: 32px;
  height: 26px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  cursor: pointer;
}
.time {
  font-size: 17px;
  font-weight: 400;
}
.angles {
  margin-left: auto;
  display: flex;
  gap: 5px;
  align-items: center;
}
.angle {
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--sheet);
  padding: 1px 8px;
  cursor: pointer;
}
.angle.on {
  background: var(--ink);
  border-color: var(--ink);
  color: #fff;
}
.angle.waits {
  outline: 2px solid var(--act);
}
.bar {
  grid-column: 1 / -1;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 14px;
  border-top: 1px solid var(--rule-strong);
  border-bottom: 1px solid var(--rule);
  background: var(--sheet-2);
  white-space: nowrap;
  overflow: hidden;
}
.bar .name {
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 260px;
}
.chip {
  border: 1px solid var(--rule-strong);
  border-radius: 12px;
  background: var(--sheet);
  padding: 1px 10px;
  cursor: pointer;
}
.chip.on {
  background: var(--act-soft);
  border-color: var(--act);
  color: var(--act);
}
.keys {
  margin-left: auto;
}
.paper {
  grid-column: 2 / -1;
}
.unseen {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  margin: 0;
}
.ask {
  position: absolute;
  left: 50%;
  top: 30%;
  transform: translateX(-50%);
  display: flex;
  gap: 8px;
  align-items: center;
  background: var(--sheet);
  border: 1px solid var(--rule-strong);
  border-radius: 5px;
  box-shadow: 0 6px 24px #0003;
  padding: 10px 14px;
}
.ask input {
  width: 120px;
}
.dialog {
  display: grid;
  gap: 8px;
}
@media (max-width: 860px) {
  .bar {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: thin;
  }
  .bar > * {
    flex: none;
  }
}
</style>
