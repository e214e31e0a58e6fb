<script setup lang="ts">
import { t } from '@/words'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { cards as cardsApi } from '@/api/endpoints/cards'
import { player as playerApi } from '@/api/endpoints/player'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { PlayableClip } from '@/api/types'
import { useShortcuts } from '@/shell/keys'
import { attempt, refuse, say } from '@/shell/say'
import { fromAnswer, type Heard, ofClip, type Sound } from './engine/playlist'
import { beginsPlace, placeTyped } from './goTo'
import { label, ofFrames, ticksPerFrame, toFrames } from './time'
import { isPlain, looksShown } from './look'
import HearMenu from './HearMenu.vue'
import LookFilter from './LookFilter.vue'
import TakeSoundMenu from './TakeSoundMenu.vue'
import { TROUBLE } from './trouble'
import { usePlayer } from './usePlayer'
import { usePlayerKeys } from './usePlayerKeys'
import PlayerWave from './PlayerWave.vue'

/** Plays one clip, frame by frame where it has pictures, with the recorder's sound when it is lined up. */
const props = defineProps<{
  production: string
  clip: PlayableClip
  /** Ticks from the clip's start; out is exclusive. */
  marks?: { in_ticks: number | null; out_ticks: number | null }
  /** Marks can be set with I and O. */
  canMark?: boolean
  guide?: boolean
  /** The take whose sound may be chosen, and whether this person may. */
  take?: string | null
  canWork?: boolean
  /** Keys that the page needs for itself. */
  taken?: string[]
  /** Ticks from the clip's start at which it is opened. */
  from?: number | null
  /** Which of the clip's own channels are heard, and how loud; null leaves that to the player. */
  channels?: Heard[] | null
  /** The page draws the sound itself. */
  bare?: boolean
  /** Beyond these ticks of the clip nothing is played; null is all of it. */
  limits?: { from: number; to: number } | null
}>()
const emit = defineEmits<{
  mark: [marks: { in_ticks: number | null; out_ticks: number | null }]
  guide: [on: boolean]
  /** Closer to the sound, or wider, where the page draws it. */
  look: [closer: number]
}>()

const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const region = ref<HTMLElement | null>(null)
const active = usePlayer(() => props.production, canvas)
const { player, position, shown, speed, trouble, level, volume } = active
const isPicture = computed(() => props.clip.kind === 'picture')
const rate = computed(() => props.clip.rate)
const frameCount = computed(
  () =>
    props.clip.frames ??
    (props.clip.duration_ticks === null ? null : Math.max(1, toFrames(props.clip.duration_ticks, rate.value))),
)
const head = computed(() => (isPicture.value ? (props.clip.head_frames ?? 0) : 0))
const playing = computed(() => speed.value !== 0)

const { data: heard } = useAnswer(() => playerApi.clip(props.production, props.clip.ulid))
const playlist = computed(() =>
  heard.value === undefined || heard.value.recordings === undefined ? null : fromAnswer(heard.value),
)
/** One channel that somebody listens to by itself. */
const alone = ref<{ clip: string; index: number } | null>(null)
/** Nobody chose channels, so that recorder or guide is heard as it is. */
const isOwnChoice = computed(() => alone.value === null && props.channels == null)
watch(
  () => props.channels,
  (channels) => channels != null && (alone.value = null),
)
const withRecorder = computed(() => isPicture.value && props.clip.synced && props.guide !== true)
const sounds = computed<Sound[]>(() => {
  const list = playlist.value
  if (list === null) return []
  const one = alone.value
  if (one !== null)
    return [...list.sounds, ...list.beside, ...list.own]
      .filter((sound, index, all) => sound.clip === one.clip && all.findIndex((other) => same(other, sound)) === index)
      .map((sound) => ({ ...sound, channels: [{ index: one.index, gainDb: 0 }] }))
  const chosen = props.channels
  if (chosen != null) return ownSounds.value.map((sound) => ({ ...sound, channels: chosen }))
  return !isPicture.value || withRecorder.value ? list.sounds : list.own
})
/** The clip's own, whatever is heard: what the wave under the picture shows. */
const ownSounds = computed<Sound[]>(() => {
  const list = playlist.value
  return list === null ? [] : isPicture.value ? list.own : list.sounds
})
const peaks = computed(() => mediaUrl(props.production, props.clip.ulid, 'peaks', props.clip.media_version))
const same = (a: Sound, b: Sound) => a.clip === b.clip && a.at === b.at && a.from === b.from

watch(
  [() => props.clip.ulid, () => props.clip.media_version],
  ([clip], before) => {
    const goesOn = before[0] === clip
    if (!goesOn) alone.value = null
    // Media made anew keep their place; another clip starts where it begins.
    const start = props.from ?? ofFrames(head.value, rate.value)
    player.load(ofClip(props.clip), goesOn ? player.transport.position() : start)
    if (goesOn) player.setSounds(sounds.value)
  },
  { immediate: true },
)
watch(
  () => props.from,
  (from) => from != null && player.goTo(from),
)
watch(
  playlist,
  (list) => {
    if (list !== null) player.replace(list)
  },
  { immediate: true },
)
watch(sounds, (list) => player.setSounds(list), { immediate: true })
watch(
  [() => props.marks?.in_ticks, () => props.marks?.out_ticks],
  ([from, to]) => {
    player.transport.range =
      from == null && to == null ? null : { from: from ?? 0, to: to ?? props.clip.duration_ticks ?? 0 }
  },
  { immediate: true },
)

watch(
  () => props.limits ?? null,
  (limits) => player.transport.setBounds(limits),
  { immediate: true },
)

/** Frame under the playhead: the one that is seen, or that of the sound's own time at the clip's rate. */
const frame = computed(() =>
  isPicture.value
    ? (shown.value ?? active.frameAt(position.value) ?? 0)
    : Math.floor(position.value / ticksPerFrame(rate.value) + 1e-6),
)
const startFrame = computed(() => (props.clip.start_ticks === null ? 0 : toFrames(props.clip.start_ticks, rate.value)))
const timecode = computed(() => label(startFrame.value + frame.value, rate.value))
const plain = computed(() => ({ ...rate.value, drop: false }))
const range = computed(() => {
  const { in_ticks: from, out_ticks: to } = props.marks ?? { in_ticks: null, out_ticks: null }
  if (from === null && to === null) return null
  return toFrames((to ?? props.clip.duration_ticks ?? 0) - (from ?? 0), rate.value)
})

const bars = computed(() =>
  [level.value.left, level.value.right].map((value) => ({ part: dbPart(value), hot: value >= 0.99 })),
)
/** Of -48 dB to 0 dB. */
const dbPart = (value: number) => Math.max(0, Math.min(100, 100 + (20 * Math.log10(Math.max(value, 1e-5)) * 100) / 48))

function go(target: number): void {
  player.goTo(ofFrames(target, rate.value))
}
const step = (count: number): void => player.step(count)

type Which = 'in_ticks' | 'out_ticks'
function mark(which: Which): void {
  if (props.canMark !== true) return
  const marks = { in_ticks: props.marks?.in_ticks ?? null, out_ticks: props.marks?.out_ticks ?? null }
  const limit = props.clip.duration_ticks ?? 0
  // The out point is the end of the frame that is seen, so that one frame can be marked. Sound is marked where it
  // stands.
  const here = isPicture.value ? ofFrames(frame.value, rate.value) : Math.round(player.transport.position())
  const end = isPicture.value ? ofFrames(frame.value + 1, rate.value) : here + 1
  marks[which] = Math.min(limit, which === 'out_ticks' ? end : here)
  if (marks.in_ticks !== null && marks.out_ticks !== null && marks.out_ticks <= marks.in_ticks)
    marks[which === 'in_ticks' ? 'out_ticks' : 'in_ticks'] = null
  emit('mark', marks)
}
function clear(which: Which): void {
  if (props.canMark !== true || props.marks?.[which] == null) return
  emit('mark', { in_ticks: props.marks.in_ticks, out_ticks: props.marks.out_ticks, [which]: null })
}
function goToMark(which: Which): void {
  const at = props.marks?.[which]
  if (at != null) player.goTo(which === 'out_ticks' ? at - 1 : at)
}
const playRange = (): void => {
  if (player.transport.range !== null) player.transport.run(1, player.transport.range)
}

/** A typed place; null while nobody types one. */
const typed = ref<string | null>(null)
const placeBox = useTemplateRef<HTMLInputElement>('place')
function askPlace(first = ''): void {
  typed.value = first
  void nextTick(() => {
    placeBox.value?.focus()
    placeBox.value?.setSelectionRange(first.length, first.length)
  })
}
function goToTyped(): void {
  const text = typed.value ?? ''
  const target = placeTyped(text, rate.value, props.clip.start_ticks, frame.value)
  if (target === null) refuse(t('player.ClipPlayer.isNoTimecodeType91210', [text]))
  else if (target < 0 || target >= (frameCount.value ?? 1))
    refuse(t('player.ClipPlayer.theClipDoesNotReach', [label(startFrame.value + target, rate.value)]))
  else go(target)
  leavePlace()
}
function leavePlace(): void {
  typed.value = null
  region.value?.focus()
}

async function remake(): Promise<void> {
  if ((await attempt(() => cardsApi.remake(props.production, props.clip.ulid))) === undefined) return
  say(t('player.ClipPlayer.itsProxySoundAndPictures'))
  makeStale('tasks')
}
const hasLook = computed(() => isPicture.value && props.clip.look != null && !isPlain(props.clip.look))
const filterName = computed(() => `look-${props.clip.ulid}`)
const wave = useTemplateRef<InstanceType<typeof PlayerWave>>('wave')
const wideWave = useTemplateRef<InstanceType<typeof PlayerWave>>('wideWave')
const box = useTemplateRef<HTMLElement>('box')
const { width: boxWidth } = useElementSize(box)

const keys = usePlayerKeys(active, props.taken)
useShortcuts(
  'Player',
  [
    ...keys.shortcuts,
    {
      keys: ['Home', 'End'],
      what: t('player.ClipPlayer.whereItBeginsThenIts'),
      run: (event) =>
        go(event.key === 'End' ? (frameCount.value ?? 1) - 1 : frame.value === head.value ? 0 : head.value),
    },
    { keys: ['='], what: t('player.ClipPlayer.goToATimecodeIn'), run: () => askPlace() },
    {
      keys: ['i', 'o'],
      what: t('player.ClipPlayer.setTheInPointThe'),
      run: (event) => mark(event.key === 'i' ? 'in_ticks' : 'out_ticks'),
    },
    {
      keys: ['Alt+i', 'Alt+o'],
      what: t('player.ClipPlayer.goToTheInPoint'),
      run: (event) => goToMark(event.key === 'i' ? 'in_ticks' : 'out_ticks'),
    },
    {
      keys: ['Alt+Shift+i', 'Alt+Shift+o'],
      what: t('player.ClipPlayer.clearTheInPointThe'),
      run: (event) => clear(event.key.toLowerCase() === 'i' ? 'in_ticks' : 'out_ticks'),
    },
    { keys: ['Alt+p'], what: t('player.ClipPlayer.playFromInToOut2'), run: playRange },
    {
      keys: ['Alt+z', 'Alt+Shift+z'],
      what: t('player.ClipPlayer.seeTheSoundCloserDown'),
      run: (event) => {
        if (props.bare === true) emit('look', event.shiftKey ? -1 : 1)
        else (wideWave.value ?? wave.value)?.look(event.shiftKey ? -1 : 1)
      },
    },
    {
      keys: ['g'],
      what: t('player.ClipPlayer.guideSoundOrRecorder'),
      run: () => {
        if (!props.clip.synced) return
        alone.value = null
        emit('guide', props.guide !== true)
      },
    },
  ],
  region,
)

function regionKey(event: KeyboardEvent): void {
  if (event.target instanceof HTMLInputElement) return
  if (keys.arrows(event)) event.preventDefault()
  else if (beginsPlace(event.key) && !event.altKey && !event.ctrlKey && !event.metaKey) {
    event.preventDefault()
    event.stopPropagation()
    askPlace(event.key)
  }
}

defineExpose({
  player,
  position,
  /** The clip's own sound, all of its channels. */
  ownSounds,
  /** What is heard now, of whatever recording. */
  sounds,
  playing,
  frame,
  timecode,
  step,
  go,
  region,
  stop: () => player.stop(),
  /** From in to out. */
  playRange,
  /** Any stretch, once from its start; the marks stay as they are. */
  playStretch: (from: number, to: number) => {
    player.transport.goExactly(from)
    player.transport.run(1, { from, to })
  },
  goToTicks: (ticks: number) => (isPicture.value ? player.goTo(ticks) : player.goExactly(ticks)),
  /** Stands there from the start, and nothing is heard. */
  put: (ticks: number) => player.transport.goExactly(ticks),
  ticks: computed(() => (isPicture.value ? ofFrames(frame.value, rate.value) : Math.round(position.value))),
})
</script>

<template>
  <section
    ref="region"
    class="player"
    tabindex="0"
    role="group"
    :aria-label="t('player.ClipPlayer.player', [timecode])"
    :data-clip="clip.ulid"
    :data-frame="isPicture ? (shown ?? '') : frame"
    :data-timecode="timecode"
    :data-playing="playing"
    :data-channels="sounds.reduce((sum, sound) => sum + sound.channels.length, 0)"
    @keydown="regionKey"
  >
    <div v-show="isPicture || bare !== true" ref="box" class="picture" :class="{ sound: !isPicture }">
      <LookFilter v-if="hasLook" :name="filterName" :look="clip.look!" />
      <canvas
        v-if="isPicture"
        ref="canvas"
        class="shown"
        :data-clip="clip.ulid"
        :style="hasLook && looksShown ? { filter: `url(#${filterName})` } : undefined"
        @click="player.toggle()"
      />
      <div v-else class="wide">
        <PlayerWave
          ref="wideWave"
          :player="player"
          :address="peaks"
          :duration="clip.duration_ticks ?? 0"
          :position="position"
          :sounds="ownSounds"
          colour="#8fb0d8"
          :gain="2"
          @go="player.goExactly($event)"
        />
      </div>
      <p v-if="trouble" class="trouble" role="alert">
        {{ TROUBLE[trouble]
        }}<button v-if="trouble !== 'browser'" class="plain" @click="player.again()">
          {{ t('player.ClipPlayer.tryAgain') }}</button
        ><button v-if="canWork && (trouble === 'missing' || trouble === 'decode')" class="plain" @click="remake">
          {{ t('player.ClipPlayer.makeItAnew') }}
        </button>
      </p>
      <span v-if="speed !== 0 && speed !== 1" class="speed mono">{{ t('player.ClipPlayer.x', [speed]) }}</span>
    </div>
    <div class="line">
      <button
        class="plain play"
        :aria-label="playing ? t('player.ClipPlayer.stop') : t('player.ClipPlayer.play')"
        :title="playing ? t('player.ClipPlayer.stopSpace') : t('player.ClipPlayer.playSpace')"
        @click="player.toggle()"
      >
        {{ playing ? '❚❚' : '▶' }}
      </button>
      <form v-if="typed !== null" @submit.prevent="goToTyped">
        <input
          ref="place"
          v-model="typed"
          class="place mono"
          :aria-label="t('player.ClipPlayer.goToTimecode')"
          placeholder="91210"
          maxlength="14"
          @keydown.esc.stop.prevent="leavePlace"
          @blur="typed = null"
        />
      </form>
      <button
        v-else
        class="mono tc"
        data-testid="timecode"
        :title="t('player.ClipPlayer.goToATimecode')"
        @click="askPlace()"
      >
        {{ timecode }}
      </button>
      <span class="mono soft len" :title="t('player.ClipPlayer.frames', [frameCount ?? 0])">{{
        label(frameCount ?? 0, plain)
      }}</span>
    </div>
    <div v-if="bare !== true" class="wave">
      <PlayerWave
        v-if="clip.has_sound"
        ref="wave"
        :player="player"
        :address="peaks"
        :duration="clip.duration_ticks ?? 0"
        :position="isPicture ? ofFrames(frame, rate) : position"
        :sounds="ownSounds"
        :marks="marks"
        :before="head > 0 ? ofFrames(head, rate) : 0"
        :gain="isPicture ? 2.5 : 1.6"
        @go="isPicture ? player.goTo($event) : player.goExactly($event)"
      />
      <template v-else>
        <span class="silent soft">{{ t('player.ClipPlayer.noSoundWasRecorded') }}</span>
        <input
          class="along"
          type="range"
          min="0"
          :max="(frameCount ?? 1) - 1"
          :value="frame"
          :aria-label="t('player.ClipPlayer.frame')"
          @input="go(Number(($event.target as HTMLInputElement).value))"
        />
      </template>
    </div>
    <div class="more soft">
      <span class="mono" :title="t('player.ClipPlayer.frameAndHowManyThere')">{{ frame }} / {{ frameCount ?? 0 }}</span>
      <span v-if="range !== null" class="mono" :title="t('player.ClipPlayer.fromInToOut')">{{
        t('player.ClipPlayer.inToOut', [label(range, plain)])
      }}</span>
      <button
        v-if="range !== null"
        class="ear"
        :title="t('player.ClipPlayer.playFromInToOut')"
        :aria-label="t('player.ClipPlayer.playFromInToOut2')"
        @click="playRange"
      >
        {{ t('player.ClipPlayer.playIt') }}
      </button>
      <div v-if="clip.has_sound || sounds.length > 0" class="loud">
        <button
          class="ear"
          :class="{ on: volume.muted }"
          :title="t('player.ClipPlayer.silentOrNotAltS')"
          @click="volume = { ...volume, muted: !volume.muted }"
        >
          {{ volume.muted ? t('player.ClipPlayer.silent') : t('player.ClipPlayer.sound') }}
        </button>
        <input
          v-if="boxWidth > 300"
          type="range"
          min="0"
          max="1"
          step="0.05"
          :value="volume.level"
          :aria-label="t('player.ClipPlayer.howLoud')"
          :title="t('player.ClipPlayer.howLoudAltAndUp')"
          @input="volume = { level: Number(($event.target as HTMLInputElement).value), muted: false }"
        />
        <span class="meter" aria-hidden="true"
          ><i v-for="(bar, n) in bars" :key="n" :class="{ hot: bar.hot }" :style="{ '--part': `${bar.part}%` }"
        /></span>
      </div>
    </div>
    <div v-if="isPicture ? clip.has_sound || clip.synced : true" class="ears soft">
      <template v-if="isPicture && clip.synced">
        <button
          class="ear"
          :class="{ on: guide !== true && isOwnChoice }"
          :title="t('player.ClipPlayer.theRecordersSoundG')"
          @click="((alone = null), emit('guide', false))"
        >
          {{ t('player.ClipPlayer.recorder') }}
        </button>
        <button
          v-if="clip.has_sound"
          class="ear"
          :class="{ on: guide === true && isOwnChoice }"
          :title="t('player.ClipPlayer.theCamerasOwnSoundG')"
          @click="((alone = null), emit('guide', true))"
        >
          {{ t('player.ClipPlayer.guide') }}
        </button>
        <TakeSoundMenu
          v-if="clip.sound && take"
          :production="production"
          :take="take"
          :sound="clip.sound"
          :can-change="canWork === true"
        />
      </template>
      <span v-else-if="isPicture">{{ t('player.ClipPlayer.guideSoundOnlyNotLined') }}</span>
      <HearMenu
        v-if="playlist !== null && playlist.recordings.length > 0"
        :recordings="playlist.recordings"
        :alone="alone"
        @hear="alone = $event"
      />
      <button
        v-if="hasLook"
        class="ear push"
        :class="{ on: looksShown }"
        :title="t('player.ClipPlayer.lookOffOn')"
        @click="looksShown = !looksShown"
      >
        {{ clip.look!.name }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.player {
  display: grid;
  gap: 6px;
  border-radius: 6px;
}
.picture {
  position: relative;
  background: var(--dark);
  border-radius: 5px;
  overflow: hidden;
  aspect-ratio: 16 / 9;
}
canvas.shown {
  width: 100%;
  height: 100%;
  display: block;
  object-fit: contain;
}
.wide {
  position: absolute;
  inset: 14% 12px;
}
.trouble {
  position: absolute;
  inset: auto 0 0;
  margin: 0;
  padding: 6px 10px;
  color: var(--on-dark);
  background: #14181be6;
  font-size: 12px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.speed {
  position: absolute;
  right: 8px;
  top: 6px;
  color: var(--on-dark);
  background: #14181bcc;
  border-radius: 4px;
  padding: 1px 7px;
}
.trouble button {
  padding: 1px 8px;
  font-size: 12px;
}
.more {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  font-size: 12px;
}
.loud {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
}
.loud input {
  width: 64px;
  accent-color: var(--act);
}
.meter {
  display: grid;
  gap: 2px;
  width: 72px;
}
.meter i {
  height: 4px;
  border-radius: 2px;
  background: linear-gradient(90deg, var(--act) var(--part), var(--rule) var(--part));
}
.meter i.hot {
  background: linear-gradient(90deg, var(--fault) var(--part), var(--rule) var(--part));
}
.place {
  width: 118px;
  font-size: 15px;
}
.line {
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 15px;
}
.play {
  min-width: 34px;
  padding: 2px 0;
}
.tc {
  font-weight: 600;
  border: 0;
  background: none;
  padding: 0;
  font-size: inherit;
  color: inherit;
  cursor: text;
}
.len {
  margin-left: auto;
}
.wave {
  height: 44px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 4px;
  position: relative;
  overflow: hidden;
}
.silent {
  position: absolute;
  inset: 4px 0 auto;
  text-align: center;
  font-size: 12px;
}
.along {
  position: absolute;
  inset: auto 6px 2px;
  accent-color: var(--act);
}
.ears {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  font-size: 12px;
  min-height: 24px;
  align-items: center;
}
.push {
  margin-left: auto;
}
</style>
