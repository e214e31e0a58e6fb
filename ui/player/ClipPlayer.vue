<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import type { PlayableClip } from '@/api/types'
import { useShortcuts } from '@/shell/keys'
import { label, ofFrames, TICKS, toFrames } from './time'
import { isPlain, looksShown } from './look'
import LookFilter from './LookFilter.vue'
import TakeSoundMenu from './TakeSoundMenu.vue'
import { useFrames } from './useFrames'
import WaveStrip from './WaveStrip.vue'

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
}>()
const emit = defineEmits<{
  mark: [marks: { in_ticks: number | null; out_ticks: number | null }]
  guide: [on: boolean]
}>()

const video = ref<HTMLVideoElement | null>(null)
const region = ref<HTMLElement | null>(null)
const failed = ref(false)
const frameCount = computed(
  () =>
    props.clip.frames ??
    (props.clip.duration_ticks === null ? null : Math.max(1, toFrames(props.clip.duration_ticks, props.clip.rate))),
)
const isPicture = computed(() => props.clip.kind === 'picture')
const head = computed(() => (isPicture.value ? (props.clip.head_frames ?? 0) : 0))
const frames = useFrames(video, () => props.clip.rate, frameCount)
const soundTime = ref(0)
const withRecorder = computed(() => isPicture.value && props.clip.synced && props.guide !== true)
const source = computed(() =>
  mediaUrl(props.production, props.clip.ulid, withRecorder.value ? 'synced' : 'proxy', props.clip.media_version),
)

/** Frame under the playhead: of the picture, or of the sound's own time at the clip's rate. */
const frame = computed(() =>
  isPicture.value
    ? (frames.shown.value ?? 0)
    : Math.floor((soundTime.value * props.clip.rate.num) / props.clip.rate.den + 1e-6),
)
const startFrame = computed(() =>
  props.clip.start_ticks === null ? 0 : toFrames(props.clip.start_ticks, props.clip.rate),
)
const timecode = computed(() => label(startFrame.value + frame.value, props.clip.rate))
const seconds = computed(() => (props.clip.duration_ticks ?? 0) / TICKS)
const share = (ticks: number) => `${Math.min(100, (100 * ticks) / Math.max(1, props.clip.duration_ticks ?? 1))}%`

watch(
  () => [props.clip.ulid, source.value],
  async ([clip], before) => {
    failed.value = false
    const same = before !== undefined && before[0] === clip
    // Another sound for the same picture keeps its place; another clip starts at its first frame.
    frames.expect(same ? frame.value : head.value)
    soundTime.value = 0
    await nextTick()
    video.value?.load()
  },
  { immediate: true },
)

function goToShare(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const part = (event.clientX - box.left) / box.width
  go(Math.floor(part * (frameCount.value ?? 1)))
}

function go(target: number): void {
  if (isPicture.value) frames.goTo(target)
  else if (video.value !== null) {
    video.value.pause()
    video.value.currentTime = Math.max(0, Math.min(seconds.value, (target * props.clip.rate.den) / props.clip.rate.num))
  }
}

function step(count: number): void {
  if (isPicture.value) frames.step(count)
  else go(frame.value + count)
}

function mark(which: 'in_ticks' | 'out_ticks'): void {
  if (props.canMark !== true) return
  const marks = { in_ticks: props.marks?.in_ticks ?? null, out_ticks: props.marks?.out_ticks ?? null }
  const limit = props.clip.duration_ticks ?? 0
  // The out point is the end of the frame that is seen, so that one frame can be marked.
  marks[which] = Math.min(limit, ofFrames(frame.value + (which === 'out_ticks' ? 1 : 0), props.clip.rate))
  if (marks.in_ticks !== null && marks.out_ticks !== null && marks.out_ticks <= marks.in_ticks)
    marks[which === 'in_ticks' ? 'out_ticks' : 'in_ticks'] = null
  emit('mark', marks)
}

const hasLook = computed(() => isPicture.value && props.clip.look != null && !isPlain(props.clip.look))
const filterName = computed(() => `look-${props.clip.ulid}`)

let creeping = false
const shuttle = (direction: 1 | -1) => void (creeping ? frames.run(direction * 0.25) : frames.faster(direction))
useEventListener(window, 'keyup', (event) => {
  if (event.key === 'k' || event.key === 'K') creeping = false
})

useShortcuts('Player', [
  { keys: [' '], what: 'Play, stop', run: () => void frames.toggle() },
  { keys: ['Ctrl+ '], what: 'Play, stop, while typing', whileTyping: true, run: () => void frames.toggle() },
  {
    keys: ['Ctrl+ArrowLeft', 'Ctrl+ArrowRight'],
    what: 'A second back, a second on, while typing',
    whileTyping: true,
    run: (event) => step(event.key === 'ArrowLeft' ? -props.clip.rate.nominal : props.clip.rate.nominal),
  },
  { keys: ['j'], what: 'Back; again for 2x, 4x, 8x', run: () => shuttle(-1) },
  {
    keys: ['k'],
    what: 'Stop; held with J or L creeps',
    run: () => {
      creeping = true
      frames.stand()
    },
  },
  { keys: ['l'], what: 'Forward; again for 2x, 4x, 8x', run: () => shuttle(1) },
  { keys: [',', '.'], what: 'One frame back, one forward', run: (event) => step(event.key === ',' ? -1 : 1) },
  {
    keys: ['Home', 'End'],
    what: 'Where it begins, then its first frame; last frame',
    run: (event) => go(event.key === 'End' ? (frameCount.value ?? 1) - 1 : frame.value === head.value ? 0 : head.value),
  },
  {
    keys: ['i', 'o'],
    what: 'Set the in point, the out point',
    run: (event) => mark(event.key === 'i' ? 'in_ticks' : 'out_ticks'),
  },
  {
    keys: ['\\'],
    what: 'Look off, on',
    run: () => {
      looksShown.value = !looksShown.value
    },
  },
  { keys: ['g'], what: 'Guide sound or recorder', run: () => props.clip.synced && emit('guide', props.guide !== true) },
])

function regionKey(event: KeyboardEvent): void {
  const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1 }
  const count = steps[event.key]
  if (count === undefined || event.shiftKey) return
  event.preventDefault()
  step(count)
}

defineExpose({
  frame,
  timecode,
  step,
  go,
  region,
  stop: frames.stand,
  ticks: computed(() => ofFrames(frame.value, props.clip.rate)),
})
</script>

<template>
  <section
    ref="region"
    class="player"
    tabindex="0"
    role="group"
    :aria-label="`Player, ${timecode}`"
    :data-frame="frames.shown.value ?? ''"
    :data-timecode="timecode"
    :data-playing="frames.playing.value"
    @keydown="regionKey"
  >
    <div class="picture" :class="{ sound: !isPicture }">
      <LookFilter v-if="hasLook" :name="filterName" :look="clip.look!" />
      <video
        ref="video"
        preload="auto"
        playsinline
        :data-clip="clip.ulid"
        :style="hasLook && looksShown ? { filter: `url(#${filterName})` } : undefined"
        @error="failed = true"
        @timeupdate="soundTime = video?.currentTime ?? 0"
        @click="frames.toggle()"
      >
        <source :src="source" type="video/mp4" />
      </video>
      <div v-if="!isPicture" class="wide">
        <WaveStrip
          :address="mediaUrl(production, clip.ulid, 'peaks', clip.media_version)"
          :seconds="seconds"
          colour="#8fb0d8"
          :gain="2"
        />
      </div>
      <p v-if="failed" class="trouble" role="alert">
        It cannot be played yet. Its proxy is made when the card is catalogued.
      </p>
      <span v-if="frames.speed.value !== 0 && frames.speed.value !== 1" class="speed mono"
        >{{ frames.speed.value }}x</span
      >
    </div>
    <div class="line">
      <button
        class="plain play"
        :aria-label="frames.playing.value ? 'Stop' : 'Play'"
        :title="frames.playing.value ? 'Stop (Space)' : 'Play (Space)'"
        @click="frames.toggle()"
      >
        {{ frames.playing.value ? '❚❚' : '▶' }}
      </button>
      <span class="mono tc" data-testid="timecode">{{ timecode }}</span>
      <span class="mono soft len">{{ label(frameCount ?? 0, { ...clip.rate, drop: false }) }}</span>
    </div>
    <div class="wave" title="Click to go there" @click="goToShare">
      <WaveStrip
        v-if="clip.has_sound"
        :address="mediaUrl(production, clip.ulid, 'peaks', clip.media_version)"
        :seconds="seconds"
        :gain="isPicture ? 2.5 : 1.6"
      />
      <span v-else class="silent soft">no sound was recorded</span>
      <i
        v-if="marks?.in_ticks != null || marks?.out_ticks != null"
        class="range"
        :style="{
          left: share(marks?.in_ticks ?? 0),
          right: `calc(100% - ${share(marks?.out_ticks ?? clip.duration_ticks ?? 1)})`,
        }"
      />
      <i v-if="head > 0" class="before" :style="{ width: share(ofFrames(head, clip.rate)) }" title="Before the slate" />
      <i class="head" :style="{ left: share(ofFrames(frame, clip.rate)) }" />
    </div>
    <div v-if="isPicture && clip.has_sound" class="ears soft">
      <template v-if="clip.synced">
        <button
          class="ear"
          :class="{ on: guide !== true }"
          title="The recorder's sound (G)"
          @click="emit('guide', false)"
        >
          recorder
        </button>
        <button
          class="ear"
          :class="{ on: guide === true }"
          title="The camera's own sound (G)"
          @click="emit('guide', true)"
        >
          guide
        </button>
        <TakeSoundMenu
          v-if="clip.sound && take"
          :production="production"
          :take="take"
          :sound="clip.sound"
          :can-change="canWork === true"
        />
      </template>
      <span v-else>guide sound only: not lined up with a recorder</span>
      <button
        v-if="hasLook"
        class="ear push"
        :class="{ on: looksShown }"
        title="Look off, on (\\)"
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
video {
  width: 100%;
  height: 100%;
  display: block;
  object-fit: contain;
}
.wide {
  position: absolute;
  inset: 20% 12px;
  pointer-events: none;
}
.trouble {
  position: absolute;
  inset: auto 12px 12px;
  margin: 0;
  color: var(--on-dark);
  font-size: 12px;
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
  cursor: pointer;
  overflow: hidden;
}
.silent {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  font-size: 12px;
}
.head {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: var(--fault);
}
.before {
  position: absolute;
  top: 0;
  bottom: 0;
  left: 0;
  background: repeating-linear-gradient(135deg, #5c667033 0 4px, transparent 4px 8px);
}
.range {
  position: absolute;
  top: 0;
  bottom: 0;
  background: #1f6f5c26;
  border: solid var(--act);
  border-width: 0 2px;
}
.ears {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  font-size: 12px;
  min-height: 24px;
  align-items: center;
}
.ear {
  white-space: nowrap;
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
  border: 1px solid var(--rule-strong);
  background: var(--sheet);
  border-radius: 12px;
  padding: 1px 10px;
  font-size: 12px;
  cursor: pointer;
}
.push {
  margin-left: auto;
}
.ear.on {
  background: var(--ink);
  border-color: var(--ink);
  color: #fff;
}
</style>
