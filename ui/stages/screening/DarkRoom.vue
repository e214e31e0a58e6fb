<script setup lang="ts">
import { t } from '@/words'
import { bins as binsApi } from '@/api/endpoints/bins'
import { log as logApi } from '@/api/endpoints/log'
import { player as playerApi } from '@/api/endpoints/player'
import { screening as screeningApi } from '@/api/endpoints/screening'
import { computed, nextTick, onMounted, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { TakeStatus } from '@/api/types'
import type { Sound } from '@/player/engine/playlist'
import { looksShown } from '@/player/look'
import { label, ofFrames, toFrames } from '@/player/time'
import { tellPlace } from '@/player/tellPlace'
import { TROUBLE } from '@/player/trouble'
import { usePlayer } from '@/player/usePlayer'
import { usePlayerKeys } from '@/player/usePlayerKeys'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import PickDialog from '@/shell/PickDialog.vue'
import { useSheet } from '@/shell/sheet'
import { attempt, refuse, say } from '@/shell/say'
import HouseChip from './room/HouseChip.vue'
import NameCard from './room/NameCard.vue'
import PinButton from './room/PinButton.vue'
import RoomNotes from './room/RoomNotes.vue'
import RoomScreens from './room/RoomScreens.vue'
import RoomStrip from './room/RoomStrip.vue'
import RoomTimecode from './room/RoomTimecode.vue'
import ScriptBeside from './room/ScriptBeside.vue'
import { PARTS, useCalled } from './room/useCalled'
import { useHouse } from './room/useHouse'
import { useReel } from './room/useReel'
import { useTogether } from './room/useTogether'
import { actionOf, called as calledSlate, otherSetup, partners, slateOf } from './room/view'

/**
 * The dark room: a reel take by take. The picture has the whole screen; all else comes when it is called and goes by
 * itself, unless it is pinned.
 */
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
    say(t('screening.DarkRoom.theReelWasBuiltAgain', [answer.changed]))
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
const canvas = shallowRef<HTMLCanvasElement | null>(null)
const room = useTemplateRef<HTMLElement>('room')
const active = usePlayer(() => production.value.ulid, canvas)
const { player, position, shown, speed, trouble } = active
const { transport } = player
const show = useReel(active, data, answer)
const { view, items, at, item, angle, playlist, beside } = show
tellPlace(room, active)

/** Where the room stood when its page was loaded again; it goes on there. */
const memory = `cartella.room.${props.reel}`
function remembered(): { at: number } | null {
  const [loaded] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[]
  if (loaded?.type !== 'reload') return null
  try {
    return JSON.parse(sessionStorage.getItem(memory) ?? 'null') as { at: number } | null
  } catch {
    return null
  }
}
const begin = remembered()
show.play(() => {
  // Come for one clip, the room begins where the reel shows it.
  const use = playlist.value?.pictures.find((one) => one.clip === route.query.clip)
  return use?.at ?? begin?.at ?? 0
})
const whenLoaded = watch(playlist, (list) => {
  if (list === null) return
  void nextTick(() => whenLoaded())
  if (data.value?.together) view.value = { ...view.value, mode: 'all' }
  if (route.query.clip === undefined && begin === null) transport.run(1)
})
const keepPlace = setInterval(() => {
  if (playlist.value !== null) sessionStorage.setItem(memory, JSON.stringify({ at: Math.round(transport.position()) }))
}, 500)
onScopeDispose(() => {
  clearInterval(keepPlace)
  sessionStorage.removeItem(memory)
})

const rate = computed(() => active.piece.value?.rate ?? angle.value?.rate ?? FALLBACK)
const timecodeAt = (frame: number): string => {
  const piece = active.piece.value
  return piece === null ? '' : label(toFrames(piece.start ?? 0, piece.rate) + frame, piece.rate)
}
const timecodeNow = (): string => timecodeAt(shown.value ?? 0)

/** Behind its last frame the reel is over, until something moves it. */
const isOver = ref(false)
let wasPlaying = false
player.onChange(() => {
  const stands = transport.speed === 0
  if (stands && wasPlaying && playlist.value !== null && transport.position() >= lastFrame()) isOver.value = true
  if (!stands || transport.position() < lastFrame()) isOver.value = false
  wasPlaying = !stands
})
const lastFrame = () => transport.last - ofFrames(1, rate.value)

// What is heard.
const only = ref<string | null>(null)
const channelsOf = (sound: Sound) => playlist.value?.recordings.find((one) => one.clip === sound.clip)?.channels ?? []
const soundsNow = computed(() => (playlist.value?.sounds ?? []).filter((one) => plays(one)))
const plays = (one: { at: number; length: number }) =>
  one.at < (item.value === undefined ? 0 : endOf(at.value) + 1) && one.at + one.length > (item.value?.at_ticks ?? 0)
const choices = computed(() => [
  { key: '', name: t('screening.DarkRoom.allThatIsChosenFor') },
  ...[...new Set(soundsNow.value.flatMap((one) => channelsOf(one).map((channel) => channel.name)))].map((name) => ({
    key: name,
    name,
  })),
])
const hears = ref(false)
watch([playlist, only], ([list, name]) => {
  if (list === null) return
  player.setSounds(
    name === null
      ? list.sounds
      : list.sounds.map((sound) => {
          // Where a take has no channel of that name, it is heard as it was chosen.
          const channel = channelsOf(sound).find((one) => one.name === name)
          return channel === undefined ? sound : { ...sound, channels: [{ index: channel.index, gainDb: 0 }] }
        }),
  )
})

// From take to take.
const endOf = (index: number): number => {
  const one = items.value[index]
  return one === undefined ? 0 : one.at_ticks + one.out_ticks - one.in_ticks - 1
}
function goTo(ticks: number): void {
  const goesOn = speed.value !== 0
  isOver.value = false
  player.goTo(ticks)
  if (goesOn) transport.run(1)
}
function go(index: number): void {
  const next = Math.max(0, Math.min(items.value.length - 1, index))
  goTo(items.value[next]?.at_ticks ?? 0)
}
function goSetup(direction: 1 | -1): void {
  const next = otherSetup(items.value, at.value, direction)
  if (next !== null) go(next)
}
function goAction(): void {
  const one = item.value
  if (one !== undefined) goTo(actionOf(one))
}
const slate = ref<string | null>(null)
const slateBox = useTemplateRef<HTMLInputElement>('slateBox')
const slateMatch = computed(() => {
  const index = slate.value === null ? null : calledSlate(items.value, at.value, slate.value)
  return index === null ? null : items.value[index]!
})
function askSlate(): void {
  slate.value = ''
  void nextTick(() => slateBox.value?.focus())
}
function goToSlate(): void {
  const found = slateMatch.value
  const words = slate.value?.trim() ?? ''
  slate.value = null
  if (found !== null) go(found.position)
  else if (words !== '') refuse(t('screening.DarkRoom.noTakeOfThisReel', [words.toUpperCase()]))
}

// What is seen.
function turn(index: number): void {
  if (item.value?.angles[index] === undefined) return
  view.value = { ...view.value, turned: { item: at.value, angle: index } }
}
function all(): void {
  if (view.value.mode === 'all') view.value = { ...view.value, mode: 'one' }
  else if ((item.value?.angles.length ?? 0) > 1 || data.value?.together === true)
    view.value = { ...view.value, mode: 'all', beside: null }
  else refuse(t('screening.DarkRoom.nothingButThisCameraSaw'))
}
/** Two takes of a setup beside each other, both at their action. */
function pair(): void {
  if (view.value.mode === 'pair') {
    view.value = { ...view.value, mode: 'one', beside: null }
    return
  }
  const [first] = partners(items.value, at.value)
  if (first === undefined) {
    refuse(t('screening.DarkRoom.noOtherTakeOfThis'))
    return
  }
  view.value = { ...view.value, mode: 'pair', beside: first }
  goTo(actionOf(item.value!))
}
function otherPartner(): void {
  if (view.value.mode !== 'pair') return
  const list = partners(items.value, at.value)
  const next = list[(list.indexOf(view.value.beside ?? -1) + 1) % list.length]
  if (next !== undefined) view.value = { ...view.value, beside: next }
}
// Two takes are beside each other within their setup only.
watch(at, (now) => {
  const other = view.value.beside
  if (view.value.mode !== 'pair' || other === null) return
  if (items.value[other]?.take.setup !== items.value[now]?.take.setup)
    view.value = { ...view.value, mode: 'one', beside: null }
  else if (other === now) otherPartner()
})
function loop(): void {
  const one = item.value
  if (one === undefined) return
  transport.range = { from: one.at_ticks, to: endOf(at.value) + 1 }
  transport.setLoop(!transport.loops)
  say(transport.loops ? t('screening.DarkRoom.roundAndRound', [slateOf(one)]) : t('screening.DarkRoom.onToTheNextTake'))
}

// What is said.
interface Writing {
  take: string
  clip: string
  at: number
  out: number | null
  label: string
  toLabel: string | null
}
const writing = ref<Writing | null>(null)
const range = ref<{ clip: string; frame: number } | null>(null)
const notes = useTemplateRef<InstanceType<typeof RoomNotes>>('notes')
const mayReview = computed(() => production.value.may.review)
/** The frame that is seen when the key is pressed is meant; it plays on while the words are written. */
function startNote(): void {
  const one = item.value
  const piece = active.piece.value
  if (one === undefined || piece === null || !mayReview.value) return
  const frame = shown.value ?? 0
  writing.value = {
    take: one.take.ulid,
    clip: piece.clip,
    at: ofFrames(frame, rate.value),
    out: null,
    label: timecodeAt(frame),
    toLabel: null,
  }
  called.call()
  void nextTick(() => notes.value?.focus())
}
function setIn(): void {
  const piece = active.piece.value
  if (piece === null) return
  range.value = { clip: piece.clip, frame: shown.value ?? 0 }
  say(t('screening.DarkRoom.fromOEndsTheStretch', [timecodeNow()]))
}
function setOut(): void {
  const from = range.value
  const piece = active.piece.value
  if (piece === null) return
  if (from === null || from.clip !== piece.clip) {
    refuse(t('screening.DarkRoom.pressIFirstWhereThe'))
    return
  }
  const [first, last] = [Math.min(from.frame, shown.value ?? 0), Math.max(from.frame, shown.value ?? 0)]
  range.value = null
  startNote()
  if (writing.value !== null)
    writing.value = {
      ...writing.value,
      at: ofFrames(first, rate.value),
      out: ofFrames(last + 1, rate.value),
      label: timecodeAt(first),
      toLabel: timecodeAt(last),
    }
}
async function keepNote(text: string): Promise<void> {
  const now = writing.value
  writing.value = null
  room.value?.focus()
  if (now === null) return
  const done = await attempt(() =>
    screeningApi.note(production.value.ulid, now.take, {
      text,
      at_ticks: now.at,
      out_ticks: now.out,
      clip: now.clip,
      reel: props.reel,
    }),
  )
  if (done === undefined) return
  if (!called.isPinned('notes')) say(t('screening.DarkRoom.notedAt', [now.label]))
  makeStale('notes', { take: now.take })
}
function leaveNote(): void {
  writing.value = null
  room.value?.focus()
}
async function mark(wanted: TakeStatus): Promise<void> {
  const take = item.value?.take
  if (take === undefined || !mayReview.value) return
  await attempt(() =>
    logApi.circle(production.value.ulid, take.ulid, {
      was: take.status,
      now: take.status === wanted ? 'none' : wanted,
    }),
  )
  makeStale('takes')
}
const rates = ref(false)
async function stars(count: number | null): Promise<void> {
  const take = item.value?.take
  rates.value = false
  if (take === undefined || !mayReview.value) return
  await attempt(() => screeningApi.rate(production.value.ulid, take.ulid, count))
  makeStale('notes', { take: take.ulid })
}
function goToPlace(clip: string | null, ticks: number): void {
  const now = item.value
  const index = now?.angles.findIndex((one) => one.clip === clip) ?? -1
  const said = now?.angles[index] ?? angle.value
  if (now === undefined || said === undefined) return
  if (index >= 0) turn(index)
  void nextTick(() => goTo(now.at_ticks + said.at_ticks + ticks - said.in_ticks))
}
/** The frame that is seen, at once; it plays on. A name is given on the clip's page. */
async function setMarker(): Promise<void> {
  const piece = active.piece.value
  if (piece === null || !production.value.may.organise) return
  const [clip, at] = [piece.clip, timecodeNow()]
  const body = { in_ticks: ofFrames(shown.value ?? 0, rate.value), name: '' }
  if ((await attempt(() => binsApi.addMarker(production.value.ulid, clip, body))) === undefined) return
  say(t('screening.DarkRoom.markedAt', [at]))
  makeStale('clips', { clip })
}

// The house, and those who follow from afar.
const house = useHouse({
  production: () => production.value.ulid,
  reel: () => props.reel,
  transport,
  view,
  looks: looksShown,
  isOver,
  frame: () => ofFrames(1, rate.value),
})
const isBlank = computed(() => house.curtain.value === 'blank')
const together = useTogether({
  production: () => production.value.ulid,
  reel: () => props.reel,
  transport,
  view,
  blank: isBlank,
})
const wantsHouse = ref(false)

const called = useCalled(
  () => writing.value !== null || slate.value !== null || document.querySelector('.room .stays:hover') !== null,
)
const sides = computed(() => ({
  'has-right': called.isPinned('notes'),
  'has-left': called.isPinned('script'),
  'has-below': called.isPinned('strip'),
}))
function fill(): void {
  if (document.fullscreenElement !== null) void document.exitFullscreen()
  else void document.documentElement.requestFullscreen().catch(() => {})
}

const keys = usePlayerKeys(active, [',', '.', 'Alt+r'])
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
    what: t('screening.DarkRoom.oneFrameBackOneForward'),
    run: (event) => keys.step(event, event.key === 'ArrowLeft' || event.key === ',' ? -1 : 1, false),
  },
  {
    keys: [';', "'"],
    what: t('screening.DarkRoom.takeBeforeTakeAfter'),
    run: (event) => go(at.value + (event.key === ';' ? -1 : 1)),
  },
  {
    keys: [':', '"'],
    what: t('screening.DarkRoom.setupBeforeSetupAfter'),
    run: (event) => goSetup(event.key === ':' ? -1 : 1),
  },
  {
    keys: ['Home', 'End'],
    what: t('screening.DarkRoom.startOfTheTakeIts'),
    run: (event) => goTo(event.key === 'Home' ? (item.value?.at_ticks ?? 0) : endOf(at.value)),
  },
  { keys: ['a'], what: t('screening.DarkRoom.pastTheSlateToThe'), run: goAction },
  { keys: ['g'], what: t('screening.DarkRoom.goToASlate1c'), run: askSlate },
  {
    keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
    what: t('screening.DarkRoom.angleOfTheStarsAfter'),
    run: (event) => (rates.value ? void stars(Math.min(5, Number(event.key))) : turn(Number(event.key) - 1)),
  },
  { keys: ['0'], what: t('screening.DarkRoom.allAnglesAtOnceOr'), run: () => (rates.value ? void stars(null) : all()) },
  { keys: ['v'], what: t('screening.DarkRoom.twoTakesOfTheSetup'), run: pair },
  { keys: ['V'], what: t('screening.DarkRoom.anotherTakeBesideIt'), run: otherPartner },
  { keys: ['Alt+r'], what: t('screening.DarkRoom.theTakeRoundAndRound'), run: loop },
  { keys: ['e'], what: t('screening.DarkRoom.oneChannelByItsName'), run: () => (hears.value = true) },
  { keys: ['c'], what: t('screening.DarkRoom.circleOrNot'), run: () => void mark('circled') },
  { keys: ['x'], what: t('screening.DarkRoom.ngOrNot'), run: () => void mark('ng') },
  { keys: ['Alt+h'], what: t('screening.DarkRoom.holdOrNot'), run: () => void mark('hold') },
  {
    keys: ['r'],
    what: t('screening.DarkRoom.yourStarsThen1To'),
    run: () => {
      if (!mayReview.value) return
      rates.value = !rates.value
      called.call()
    },
  },
  { keys: ['Enter', 'n'], what: t('screening.DarkRoom.noteAtThisFrameIt'), run: startNote },
  { keys: ['m'], what: t('screening.DarkRoom.markerAtThisFrameIt'), run: () => void setMarker() },
  {
    keys: ['i', 'o'],
    what: t('screening.DarkRoom.aStretchBeginsEndsAnd'),
    run: (event) => (event.key === 'i' ? setIn() : setOut()),
  },
  { keys: ['s'], what: t('screening.DarkRoom.theScriptBesideItOr'), run: () => called.pin('script') },
  { keys: ['p'], what: t('screening.DarkRoom.keepAllOfItOn'), run: called.pinAll },
  {
    keys: ['Alt+1', 'Alt+2', 'Alt+3', 'Alt+4', 'Alt+5'],
    what: t('screening.DarkRoom.keepSlateTimecodeTakesNotes'),
    run: (event) => called.pin(PARTS[Number(event.code.slice(-1)) - 1]!),
  },
  {
    keys: ['q'],
    what: t('screening.DarkRoom.callWhatStandsAroundOr'),
    run: () => (called.isCalled.value ? called.hide() : called.call()),
  },
  {
    keys: ['h'],
    what: t('screening.DarkRoom.houseScreenOpensItOr'),
    run: () => {
      wantsHouse.value = true
      called.call()
      void house.open()
    },
  },
  { keys: ['b'], what: t('screening.DarkRoom.theHouseSeesNothingOr'), run: () => house.draw('blank') },
  { keys: ['Alt+n'], what: t('screening.DarkRoom.theHouseSeesTheName2'), run: () => house.draw('card') },
  { keys: ['Alt+t'], what: t('screening.DarkRoom.theHouseSeesTheTest2'), run: () => house.draw('test') },
  {
    keys: ['w'],
    what: t('screening.DarkRoom.letThoseWithALink'),
    run: () => {
      if (production.value.may.organise) void together.toggle()
    },
  },
  { keys: ['f'], what: t('screening.DarkRoom.fullScreenOrNot'), run: fill },
  {
    keys: ['Escape'],
    what: t('screening.DarkRoom.leaveTheRoom'),
    run: () => (rates.value ? (rates.value = false) : emit('leave')),
  },
])
</script>

<template>
  <div
    ref="room"
    class="room"
    tabindex="-1"
    :class="{ bare: !called.isCalled.value, ...sides }"
    :data-playing="speed !== 0"
    :data-item="at"
    :data-house="!house.isThere.value ? 'none' : house.isInStep.value ? t('screening.DarkRoom.inStep') : 'coming'"
  >
    <AnswerState :pending="isPending" :error="error" @retry="refetch()">
      <template v-if="data && item && angle">
        <div class="screen" @click="player.toggle()" @dblclick="fill">
          <RoomScreens :active="active" :beside="beside" @canvas="canvas = $event">
            <template #place="{ place, piece }">
              <span v-if="beside.length > 0 && piece" class="tag mono">{{
                view.mode === 'pair'
                  ? slateOf(place === 0 ? item : (items[view.beside ?? 0] ?? item))
                  : (item.angles.find((one) => one.clip === piece.clip)?.device ?? '')
              }}</span>
            </template>
          </RoomScreens>
          <p v-if="trouble" class="trouble" role="alert">
            {{ TROUBLE[trouble]
            }}<button v-if="trouble !== 'browser'" class="plain" @click.stop="player.again()">
              {{ t('screening.DarkRoom.tryAgain') }}
            </button>
          </p>
          <NameCard
            v-if="isOver"
            :production="production.name"
            :name="data.name"
            :takes="items.length"
            :running="playlist?.length ?? 0"
            is-end
          />
          <span v-if="called.shows('slate')" class="corner left mono" data-testid="slate"
            >{{ t('screening.DarkRoom.take', [item.take.setup, item.take.take, item.take.part])
            }}<PinButton part="slate" :called="called"
          /></span>
          <span v-if="called.shows('timecode')" class="corner right mono"
            ><RoomTimecode :active="active" data-testid="timecode" /><PinButton part="timecode" :called="called"
          /></span>
          <p class="states">
            <span v-if="speed !== 0 && speed !== 1" class="chip mono">{{ t('screening.DarkRoom.x', [speed]) }}</span>
            <span v-if="only !== null" class="chip">{{ t('screening.DarkRoom.only', [only]) }}</span>
            <span v-if="house.isThere.value && house.curtain.value !== 'picture'" class="chip">{{
              {
                blank: t('screening.DarkRoom.theHouseSeesNothing'),
                card: t('screening.DarkRoom.theHouseSeesTheName'),
                test: t('screening.DarkRoom.theHouseSeesTheTest'),
              }[house.curtain.value]
            }}</span>
            <span v-if="together.isOn.value" class="chip follow">{{ t('screening.DarkRoom.othersFollow') }}</span>
            <span v-if="range !== null" class="chip">{{
              t('screening.DarkRoom.aStretchFrom', [timecodeAt(range.frame)])
            }}</span>
            <span v-if="rates" class="chip">{{ t('screening.DarkRoom.yourStars1To5') }}</span>
          </p>
        </div>
        <aside v-if="called.shows('notes') || writing !== null" class="side stays">
          <PinButton part="notes" :called="called" class="corner-pin" />
          <RoomNotes
            ref="notes"
            :production="production.ulid"
            :item="item"
            :angle="angle"
            :view="view"
            :writes="writing === null ? null : { at: writing.label, to: writing.toLabel }"
            :may-review="mayReview"
            @begin="startNote"
            @write="keepNote"
            @cancel="leaveNote"
            @go="goToPlace($event.clip, $event.at_ticks)"
            @place="goToPlace"
            @turn="turn"
            @stars="stars"
          />
          <div class="acts">
            <button
              v-for="one in ['circled', 'hold', 'ng'] as const"
              :key="one"
              class="plain"
              :class="{ on: item.take.status === one }"
              :disabled="!mayReview"
              @click="mark(one)"
            >
              {{
                {
                  circled: t('screening.DarkRoom.circle'),
                  hold: t('screening.DarkRoom.hold'),
                  ng: t('screening.DarkRoom.ng'),
                }[one]
              }}
              <kbd>{{ { circled: 'C', hold: 'Alt H', ng: 'X' }[one] }}</kbd>
            </button>
            <button class="plain" :title="t('screening.DarkRoom.itsClipTakeAndBins')" @click="toSheet">
              {{ t('screening.DarkRoom.sheet') }}
            </button>
            <button
              v-if="production.may.organise"
              class="plain"
              :class="{ on: together.isOn.value }"
              :title="t('screening.DarkRoom.thoseWhoHaveALink')"
              @click="together.toggle()"
            >
              {{ together.isOn.value ? t('screening.DarkRoom.othersFollow') : t('screening.DarkRoom.letOthersFollow') }}
              <kbd>W</kbd>
            </button>
          </div>
          <HouseChip :house="house" />
        </aside>
        <aside v-if="called.shows('script')" class="side script stays">
          <PinButton part="script" :called="called" class="corner-pin" />
          <ScriptBeside :production="production.ulid" :scene="item.take.scene" />
        </aside>
        <footer v-if="called.shows('strip')" class="stays">
          <PinButton part="strip" :called="called" class="corner-pin" />
          <RoomStrip :items="items" :at="at" :active="active" @go="go" />
          <div class="keys">
            <kbd>;</kbd><kbd>'</kbd> {{ t('screening.DarkRoom.takeBeforeAfter') }} <kbd>G</kbd>
            {{ t('screening.DarkRoom.goToSlate') }} <kbd>A</kbd> {{ t('screening.DarkRoom.toTheAction') }} <kbd>C</kbd>
            {{ t('screening.DarkRoom.circle2') }} <kbd>↵</kbd> {{ t('screening.DarkRoom.noteHere') }} <kbd>V</kbd>
            {{ t('screening.DarkRoom.beside') }} <kbd>H</kbd> {{ t('screening.DarkRoom.house') }} <kbd>P</kbd>
            {{ t('screening.DarkRoom.keep') }} <kbd>?</kbd> {{ t('screening.DarkRoom.keys') }} <kbd>Esc</kbd>
            {{ t('screening.DarkRoom.leave') }}
          </div>
        </footer>
        <form v-if="slate !== null" class="ask stays" @submit.prevent="goToSlate">
          <label
            >{{ t('screening.DarkRoom.goToSlate2') }}
            <input
              ref="slateBox"
              v-model="slate"
              class="say mono"
              placeholder="12a/3"
              @keydown.esc.stop="slate = null"
              @blur="slate = null"
          /></label>
          <p class="soft">
            <template v-if="slateMatch"
              ><b class="mono">{{ slateOf(slateMatch) }}</b> {{ slateMatch.take.description }}</template
            ><template v-else-if="slate.trim() === ''">{{ t('screening.DarkRoom.aSetupSetupTakeOr') }}</template
            ><template v-else>{{ t('screening.DarkRoom.noSuchTakeInThis') }}</template>
          </p>
        </form>
        <PickDialog
          :open="hears"
          :title="t('screening.DarkRoom.whatIsHeard')"
          :label="t('screening.DarkRoom.channels')"
          :choices="choices"
          @close="hears = false"
          @pick="((only = $event.key === '' ? null : $event.key), (hears = false))"
        >
          <template #default="{ one }">{{ one.name }}</template>
        </PickDialog>
      </template>
      <div v-else class="empty">
        <b>{{ t('screening.DarkRoom.thisReelIsEmpty') }}</b>{{ t('screening.DarkRoom.itsTakesAreGoneOr')
        }}<button class="plain" @click="emit('leave')">
          {{ t('screening.DarkRoom.leave2') }}
        </button>
      </div>
    </AnswerState>
  </div>
</template>

<style scoped>
.room {
  --right: 0px;
  --left: 0px;
  --below: 0px;
  position: fixed;
  inset: 0;
  z-index: 40;
  background: #0c0f11;
  color: var(--on-dark);
  outline: none;
}
.room.has-right {
  --right: 300px;
}
.room.has-left {
  --left: 320px;
}
.room.has-below {
  --below: 104px;
}
.room.bare {
  cursor: none;
}
.room :deep(.soft) {
  color: var(--on-dark-soft);
}
.screen {
  position: absolute;
  inset: 0 var(--right) var(--below) var(--left);
  overflow: hidden;
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
.tag {
  position: absolute;
  left: 10px;
  bottom: 10px;
  background: #101417e6;
  border-radius: 4px;
  padding: 2px 8px;
}
.corner {
  position: absolute;
  top: 16px;
  background: #101417e6;
  border-radius: 5px;
  padding: 6px 6px 6px 12px;
  font-size: 18px;
  display: flex;
  align-items: center;
  gap: 4px;
}
.corner.left {
  left: 18px;
}
.corner.right {
  right: 18px;
}
.room:not(.has-right) .corner.right {
  right: 18px;
}
.states {
  position: absolute;
  top: 16px;
  left: 50%;
  transform: translateX(-50%);
  margin: 0;
  display: flex;
  gap: 6px;
  pointer-events: none;
}
.chip {
  background: #101417e6;
  border-radius: 5px;
  padding: 4px 10px;
  white-space: nowrap;
}
.chip.follow {
  color: #8fd6c0;
}
.side {
  position: absolute;
  right: 0;
  top: 0;
  bottom: var(--below);
  width: 300px;
  border-left: 1px solid var(--dark-rule);
  background: #1c2125f2;
  padding: 16px 18px;
  overflow: auto;
  display: grid;
  gap: 12px;
  align-content: start;
  scrollbar-width: thin;
  scrollbar-color: #4a545b transparent;
}
.room:not(.has-right) .side:not(.script) {
  top: 64px;
  bottom: 116px;
  border-radius: 8px 0 0 8px;
}
.side.script {
  right: auto;
  left: 0;
  width: 320px;
  border-left: 0;
  border-right: 1px solid var(--dark-rule);
}
.corner-pin {
  position: absolute;
  top: 12px;
  right: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
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
  background: var(--dark);
  color: var(--on-dark);
  border: 1px solid #5b666d;
  border-radius: 5px;
  padding: 8px 10px;
  font: inherit;
}
footer {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  height: 104px;
  border-top: 1px solid var(--dark-rule);
  background: #14181bf2;
  padding: 12px 34px 8px 18px;
  display: grid;
  gap: 8px;
  align-content: start;
}
footer :deep(.strip) {
  min-width: 0;
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
  display: grid;
  gap: 8px;
  min-width: 340px;
}
.ask label {
  display: flex;
  gap: 12px;
  align-items: center;
  white-space: nowrap;
}
.ask p {
  margin: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.ask .say {
  flex: 1;
  min-width: 0;
}
</style>
