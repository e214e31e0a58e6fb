<script setup lang="ts">
import { t } from '@/words'
import { computed, shallowRef, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import type { ClipSheet, Marker, Subclip } from '@/api/types'
import type { Player } from '@/player/engine/player'
import { toSamples, type Sound } from '@/player/engine/playlist'
import { labelAt, length, TICKS } from '@/player/time'
import { useStretch } from '@/player/useStretch'
import WaveStrip from '@/player/WaveStrip.vue'

/** A channel of the clip and how it is heard on the sheet. */
export interface SheetChannel {
  index: number
  name: string
  on: boolean
  solo: boolean
  gainDb: number
}

/**
 * The sound of a clip in full: an overview, every channel with its switches, markers as flags above and subclips as
 * brackets below. Looked at as closely as single samples.
 */
const props = defineProps<{
  production: string
  clip: ClipSheet
  player: Player | null
  /** Ticks from the clip's start. */
  position: number
  sounds: Sound[]
  channels: SheetChannel[]
  mayChange: boolean
  /** Sound alone has the room that a picture would take. */
  roomy?: boolean
}>()
const emit = defineEmits<{
  go: [ticks: number]
  mark: [marks: { in_ticks: number | null; out_ticks: number | null }]
  change: [channel: SheetChannel]
  edge: [subclip: Subclip, inTicks: number, outTicks: number]
  choose: [subclip: Subclip]
}>()

/** How much one sees, seconds; null is all of it. */
const SPANS = [null, 300, 60, 20, 5, 1, 0.1, 0.01]
const SAMPLES_BELOW = 2
/** So many channels are drawn by their samples at once. */
const MOST_SAMPLED = 8
const duration = computed(() => props.clip.duration_ticks ?? 0)
const { first, span, share, isSeen, said, look, isWidest, isClosest } = useStretch({
  spans: SPANS,
  duration,
  position: () => props.position,
  plays: () => (props.player?.transport.speed ?? 0) > 0,
})
defineExpose({ look })

const peaks = computed(() => mediaUrl(props.production, props.clip.ulid, 'peaks', props.clip.media_version))
const shareOfAll = (ticks: number) => `${(100 * ticks) / Math.max(1, duration.value)}%`

const samples = shallowRef(new Map<number, Float32Array>())
watch(
  [first, span, () => props.sounds, () => props.channels.length],
  async ([from, wide, sounds]) => {
    if (wide >= SAMPLES_BELOW * TICKS || sounds.length === 0 || props.player === null) {
      samples.value = new Map()
      return
    }
    const drawn = new Map<number, Float32Array>()
    for (const { index } of props.channels.slice(0, MOST_SAMPLED)) {
      const alone = sounds.map((sound) => ({ ...sound, channels: [{ index, gainDb: 0 }] }))
      drawn.set(index, await props.player.samples(alone, from, Math.max(2, toSamples(wide))))
      if (from !== first.value || wide !== span.value) return
    }
    samples.value = drawn
  },
  { immediate: true },
)

/** Where in the clip a pointer is. */
function ticksAt(event: PointerEvent | MouseEvent, lane: HTMLElement, all = false): number {
  const box = lane.getBoundingClientRect()
  const along = Math.min(1, Math.max(0, (event.clientX - box.left) / Math.max(1, box.width)))
  return Math.round(all ? along * duration.value : first.value + along * span.value)
}
function goThere(event: MouseEvent, all = false): void {
  emit('go', ticksAt(event, event.currentTarget as HTMLElement, all))
}
/** An edge under the pointer moves until it is let go of. */
function dragEdge(event: PointerEvent, move: (ticks: number) => void, done: () => void): void {
  event.preventDefault()
  event.stopPropagation()
  const grip = event.currentTarget as HTMLElement
  const lane = grip.closest<HTMLElement>('.lane')
  if (lane === null) return
  grip.setPointerCapture(event.pointerId)
  const onMove = (now: PointerEvent) => move(ticksAt(now, lane))
  grip.addEventListener('pointermove', onMove)
  grip.addEventListener('pointerup', () => (grip.removeEventListener('pointermove', onMove), done()), { once: true })
}
/** A subclip while its edge is moved. */
const moved = shallowRef<{ ulid: string; in_ticks: number; out_ticks: number } | null>(null)
const stretchOf = (one: Subclip) =>
  moved.value?.ulid === one.ulid
    ? moved.value
    : { in_ticks: one.in_ticks ?? 0, out_ticks: one.out_ticks ?? duration.value }
function moveEdge(event: PointerEvent, one: Subclip, which: 'in_ticks' | 'out_ticks'): void {
  if (!props.mayChange || one.in_ticks === null) return
  dragEdge(
    event,
    (ticks) => {
      const now = { ulid: one.ulid, ...stretchOf(one), [which]: ticks }
      if (now.out_ticks > now.in_ticks) moved.value = { ...now }
    },
    () => {
      const now = moved.value
      if (now !== null) emit('edge', one, now.in_ticks, now.out_ticks)
      moved.value = null
    },
  )
}
const markMoved = shallowRef<{ in_ticks: number | null; out_ticks: number | null } | null>(null)
const marks = computed(() => markMoved.value ?? props.clip.marks)
function moveMark(event: PointerEvent, which: 'in_ticks' | 'out_ticks'): void {
  dragEdge(
    event,
    (ticks) => {
      const now = { ...marks.value, [which]: ticks }
      if (now.in_ticks === null || now.out_ticks === null || now.out_ticks > now.in_ticks) markMoved.value = now
    },
    () => {
      if (markMoved.value !== null) emit('mark', markMoved.value)
      markMoved.value = null
    },
  )
}

/** Brackets that overlap hang below each other. */
const pieces = computed(() => {
  const ends: number[] = []
  return [...props.clip.subclips]
    .filter((one) => one.in_ticks !== null)
    .sort((a, b) => a.in_ticks! - b.in_ticks!)
    .map((one) => {
      let lane = ends.findIndex((end) => end <= one.in_ticks!)
      if (lane < 0) lane = ends.length
      ends[lane] = one.out_ticks!
      return { one, lane }
    })
})
const lanes = computed(() => 1 + Math.max(-1, ...pieces.value.map((piece) => piece.lane)))
const timecode = (ticks: number) => labelAt((props.clip.start_ticks ?? 0) + ticks, props.clip.rate)
const flagTitle = (one: Marker) =>
  [one.name || 'marked', one.about, one.note, one.by ?? t('bins.SheetWaves.inTheFile'), timecode(one.in_ticks)]
    .filter(Boolean)
    .join(' · ')
const tall = computed(() => {
  const usual = props.channels.length > 6 ? 26 : props.channels.length > 3 ? 38 : 50
  return props.roomy === true && props.channels.length <= 6 ? 68 : usual
})
</script>

<template>
  <div class="waves" :data-span="said">
    <div class="line">
      <span class="label"
        ><button
          class="plain"
          :title="t('bins.SheetWaves.widerAltShiftZ')"
          :aria-label="t('bins.SheetWaves.wider')"
          :disabled="isWidest"
          @click="look(-1)"
        >
          −</button
        ><b class="mono">{{ said }}</b
        ><button
          class="plain"
          :title="t('bins.SheetWaves.closerDownToSingleSamples')"
          :aria-label="t('bins.SheetWaves.closer')"
          :disabled="isClosest"
          @click="look(1)"
        >
          +
        </button></span
      >
      <div class="lane overview" :title="t('bins.SheetWaves.allOfTheClip')" @click="goThere($event, true)">
        <WaveStrip :address="peaks" :from="0" :seconds="duration / TICKS" :gain="1.8" colour="#a9a08c" />
        <i v-if="!isWidest" class="window" :style="{ left: shareOfAll(first), width: shareOfAll(span) }" />
        <i v-for="one in clip.markers" :key="one.ulid" class="dot" :style="{ left: shareOfAll(one.in_ticks) }" />
        <i class="head" :style="{ left: shareOfAll(position) }" />
      </div>
    </div>
    <div class="line ruler">
      <span class="label mono soft">{{ timecode(first) }}</span>
      <div class="lane" @click="goThere($event)">
        <template v-for="one in clip.markers" :key="one.ulid"
          ><button
            v-if="isSeen(one.in_ticks, (one.out_ticks ?? one.in_ticks) + 1)"
            class="flag"
            :class="{ ofFile: one.kind === 'file' }"
            :style="{ left: share(one.in_ticks) }"
            :title="flagTitle(one)"
            @click.stop="emit('go', one.in_ticks)"
          >
            {{ one.name || '·' }}
          </button></template
        >
        <i
          v-if="marks.in_ticks !== null && isSeen(marks.in_ticks, marks.in_ticks + 1)"
          class="mark in"
          :style="{ left: share(marks.in_ticks) }"
          :title="t('bins.SheetWaves.inPointDragIt')"
          @pointerdown="moveMark($event, 'in_ticks')"
          @click.stop
          >{{ t('bins.SheetWaves.in') }}</i
        >
        <i
          v-if="marks.out_ticks !== null && isSeen(marks.out_ticks - 1, marks.out_ticks)"
          class="mark out"
          :style="{ left: share(marks.out_ticks) }"
          :title="t('bins.SheetWaves.outPointDragIt')"
          @pointerdown="moveMark($event, 'out_ticks')"
          @click.stop
          >{{ t('bins.SheetWaves.out') }}</i
        >
      </div>
    </div>
    <div
      v-for="one in channels"
      :key="one.index"
      class="line channel"
      :style="{ height: `${tall}px` }"
      :data-channel="one.index"
    >
      <span class="label">
        <button
          class="switch"
          :class="{ on: one.on }"
          :aria-pressed="one.on"
          :title="one.on ? t('bins.SheetWaves.heardSwitchItOff') : t('bins.SheetWaves.notHeardSwitchItOn')"
          @click="emit('change', { ...one, on: !one.on })"
        >
          {{ one.on ? t('bins.SheetWaves.on') : t('bins.SheetWaves.off') }}
        </button>
        <b :title="`${one.index} ${one.name}`">{{ one.name }}</b>
        <button
          class="switch alone"
          :class="{ on: one.solo }"
          :aria-pressed="one.solo"
          :title="t('bins.SheetWaves.thisChannelAlone')"
          @click="emit('change', { ...one, solo: !one.solo })"
        >
          {{ t('bins.SheetWaves.alone') }}
        </button>
        <input
          class="gain mono"
          type="number"
          min="-60"
          max="24"
          step="1"
          :value="one.gainDb"
          :aria-label="t('bins.SheetWaves.levelOfInDb', [one.name])"
          :title="t('bins.SheetWaves.levelInDb')"
          @change="emit('change', { ...one, gainDb: Number(($event.target as HTMLInputElement).value) || 0 })"
        />
      </span>
      <div class="lane" :class="{ silent: !one.on && !one.solo }" @click="goThere($event)">
        <WaveStrip
          :address="peaks"
          :from="first / TICKS"
          :seconds="span / TICKS"
          :channel="one.index"
          :samples="samples.get(one.index) ?? null"
          :gain="1.8 * 10 ** (one.gainDb / 20)"
          colour="#3f5e8c"
        />
        <i
          v-if="marks.in_ticks !== null || marks.out_ticks !== null"
          class="range"
          :style="{ left: share(marks.in_ticks ?? 0), right: `calc(100% - ${share(marks.out_ticks ?? duration)})` }"
        />
        <i v-if="isSeen(position, position + 1)" class="head" :style="{ left: share(position) }" />
      </div>
    </div>
    <p v-if="channels.length === 0" class="soft none">{{ t('bins.SheetWaves.noSoundWasRecorded') }}</p>
    <div class="line brackets" :style="{ height: `${Math.max(1, lanes) * 26}px` }">
      <span class="label soft">{{
        clip.subclips.length === 0 ? t('bins.SheetWaves.noSubclipsYet') : t('bins.SheetWaves.subclips')
      }}</span>
      <div class="lane bare">
        <template v-for="{ one, lane } in pieces" :key="one.ulid"
          ><span
            v-if="isSeen(stretchOf(one).in_ticks, stretchOf(one).out_ticks)"
            class="bracket"
            :class="{ held: position >= stretchOf(one).in_ticks && position < stretchOf(one).out_ticks }"
            :style="{
              left: share(stretchOf(one).in_ticks),
              right: `calc(100% - ${share(stretchOf(one).out_ticks)})`,
              top: `${lane * 26}px`,
            }"
            :title="`${one.name} · ${length(stretchOf(one).out_ticks - stretchOf(one).in_ticks)}`"
            :data-subclip="one.ulid"
            @click="emit('choose', one)"
            ><i class="edge left" @pointerdown="moveEdge($event, one, 'in_ticks')" /><b>{{ one.name }}</b
            ><i class="edge right" @pointerdown="moveEdge($event, one, 'out_ticks')" /></span
        ></template>
      </div>
    </div>
  </div>
</template>

<style scoped>
.waves {
  display: grid;
  gap: 4px;
  align-content: start;
  padding: 10px 16px 14px;
  overflow: auto;
}
.line {
  display: grid;
  grid-template-columns: 246px minmax(0, 1fr);
  gap: 10px;
  align-items: stretch;
}
.label {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  font-size: 12px;
}
.label b {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-weight: 600;
}
.lane {
  position: relative;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 4px;
  overflow: hidden;
  cursor: pointer;
}
.lane.bare {
  background: none;
  border-color: transparent;
  cursor: default;
}
.lane.silent > canvas {
  opacity: 0.35;
}
.overview {
  height: 26px;
}
.ruler .lane {
  height: 22px;
  background: var(--sheet-2);
}
.window {
  position: absolute;
  top: 0;
  bottom: 0;
  background: #1f6f5c1c;
  border: 1px solid var(--act);
  min-width: 3px;
}
.head {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: var(--fault);
}
.dot {
  position: absolute;
  top: 0;
  width: 3px;
  height: 6px;
  background: var(--warn-edge);
}
.range {
  position: absolute;
  top: 0;
  bottom: 0;
  background: #1f6f5c22;
  border: solid var(--act);
  border-width: 0 2px;
}
.flag {
  position: absolute;
  top: 1px;
  height: 18px;
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border: 0;
  border-left: 2px solid var(--warn-edge);
  background: var(--warn-soft);
  color: var(--ink);
  font-size: 11px;
  padding: 0 6px;
  border-radius: 0 8px 8px 0;
  cursor: pointer;
}
.flag.ofFile {
  background: var(--info-soft);
  border-left-color: var(--info);
}
.mark {
  position: absolute;
  bottom: 0;
  font-style: normal;
  font-size: 10px;
  line-height: 14px;
  padding: 0 4px;
  background: var(--act);
  color: var(--sheet);
  cursor: ew-resize;
  touch-action: none;
}
.mark.out {
  transform: translateX(-100%);
}
.switch {
  border: 1px solid var(--rule-strong);
  background: none;
  border-radius: 10px;
  font-size: 11px;
  padding: 1px 8px;
  cursor: pointer;
  color: var(--ink-soft);
}
.switch.on {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--sheet);
}
.switch.alone.on {
  background: var(--warn-edge);
  border-color: var(--warn-edge);
}
.gain {
  width: 44px;
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  font-size: 11px;
  text-align: right;
}
.none {
  margin: 4px 0;
}
.bracket {
  position: absolute;
  height: 18px;
  border: solid var(--ink);
  border-width: 0 2px 2px;
  border-radius: 0 0 4px 4px;
  font-size: 11.5px;
  padding: 0 8px;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  cursor: pointer;
}
.bracket.held {
  background: var(--act-soft);
  border-color: var(--act);
}
.bracket b {
  font-weight: 500;
}
.edge {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 9px;
  cursor: ew-resize;
  touch-action: none;
}
.edge.left {
  left: -2px;
}
.edge.right {
  right: -2px;
}
</style>
