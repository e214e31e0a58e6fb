<script setup lang="ts">
import { bins as binsApi } from '@/api/endpoints/bins'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { Placed, Stray } from '@/api/types'
import { label, length, ofFrames, TICKS, ticksPerFrame } from '@/player/time'
import FramePicture from '@/player/FramePicture.vue'
import WaveStrip from '@/player/WaveStrip.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt, say } from '@/shell/say'
import { waveColour } from '@/shell/device'

/**
 * Places a clip by one moment that both show: a frame of its picture, or a point of its sound, and a point of a
 * recording.
 */
const props = defineProps<{ clip: Placed | Stray | null; placements: Placed[] }>()
const emit = defineEmits<{ close: []; placed: [clip: string] }>()
const { production } = useDesk()

const open = computed(() => props.clip !== null)
const target = ref<string>('')
const { data: sheet } = useAnswer(() =>
  props.clip === null ? null : binsApi.clip(production.value.ulid, props.clip.clip),
)
const { data: points, isPending } = useAnswer(() =>
  props.clip === null ? null : lineupApi.points(production.value.ulid, props.clip.clip),
)
const { data: others } = useAnswer(() =>
  target.value === '' ? null : lineupApi.points(production.value.ulid, target.value),
)

/** Clips of other devices on the clock, recordings first and those of the same take before the rest. */
const targets = computed(() =>
  props.placements
    .filter(
      (one) => one.group === 0 && one.clip !== props.clip?.clip && one.device !== props.clip?.device && one.has_sound,
    )
    .sort(
      (a, b) =>
        Number(b.take !== null && b.take === props.clip?.take) -
          Number(a.take !== null && a.take === props.clip?.take) ||
        Number(b.kind === 'sound') - Number(a.kind === 'sound') ||
        nearness(a) - nearness(b),
    ),
)
const nearness = (one: Placed) => (props.clip?.own_ticks == null ? 0 : Math.abs(one.start_ticks - props.clip.own_ticks))
const against = computed(() => targets.value.find((one) => one.clip === target.value))

const frame = ref(0)
const goToFrame = (target: number): void => {
  frame.value = Math.max(0, Math.min((sheet.value?.frames ?? 1) - 1, target))
}
const isPicture = computed(() => props.clip?.kind === 'picture')
const ownTicks = ref(0)
const point = ref<number | null>(null)
const rate = computed(() => sheet.value?.rate ?? production.value.rate)

// Answers may be here already when a clip is opened again, so what is offered follows from both.
watch(
  [() => props.clip?.clip, points],
  ([now, answer], [before]) => {
    if (now !== before) {
      target.value = targets.value[0]?.clip ?? ''
      point.value = null
      ownTicks.value = 0
    }
    const first = answer?.flashes[0]
    if (isPicture.value && first !== undefined) goToFrame(first.frame)
    else if (!isPicture.value && answer?.claps[0] !== undefined) ownTicks.value = answer.claps[0].ticks
  },
  { immediate: true },
)
watch(
  [target, others],
  ([now, answer], [before]) => {
    if (now !== before) point.value = null
    point.value ??= answer?.claps[0]?.ticks ?? null
  },
  { immediate: true },
)

const MS = TICKS / 1000
const share = (ticks: number, of: number) => `${Math.min(100, Math.max(0, (100 * ticks) / Math.max(1, of)))}%`
function clickPoint(event: MouseEvent, duration: number): number {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return Math.round(((event.clientX - box.left) / box.width) * duration)
}
function movePoint(by: number): void {
  if (against.value !== undefined)
    point.value = Math.max(0, Math.min(against.value.duration_ticks - 1, (point.value ?? 0) + by))
}
function keys(event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  if ((event.currentTarget as HTMLElement).dataset.side === 'point')
    movePoint(by * (event.shiftKey ? ticksPerFrame(rate.value) : MS))
  else if (isPicture.value) goToFrame(frame.value + by * (event.shiftKey ? 10 : 1))
  else ownTicks.value = Math.max(0, ownTicks.value + by * (event.shiftKey ? ticksPerFrame(rate.value) : MS))
}

async function link(): Promise<void> {
  const clip = props.clip
  if (clip === null || point.value === null || target.value === '') return
  const done = await attempt(() =>
    lineupApi.byHand(production.value.ulid, clip.clip, {
      against: target.value,
      against_ticks: Math.round(point.value ?? 0),
      ...(isPicture.value ? { frame: frame.value } : { own_ticks: Math.round(ownTicks.value) }),
      was_ticks: 'start_ticks' in clip ? clip.start_ticks : null,
    }),
  )
  if (done === undefined) return
  makeStale('lineup')
  say(`${clip.name} lies where you said, and is locked. Ctrl Z takes it back.`)
  emit('placed', clip.clip)
}
const time = (ticks: number) => `${length(ticks)}.${String(Math.floor((ticks / TICKS) * 1000) % 1000).padStart(3, '0')}`
</script>

<template>
  <Modal
    :open="open"
    :width="820"
    :title="`Place ${clip?.name ?? ''} by hand`"
    ok-text="Link the two"
    :ok-button-props="{ disabled: point === null || target === '' }"
    @ok="link"
    @cancel="emit('close')"
  >
    <div v-if="clip" class="hand">
      <section tabindex="0" data-side="own" :aria-label="`${clip.name}, frame ${frame}`" @keydown="keys">
        <h3><DeviceBadge :letter="clip.device" /> {{ clip.name }} <small class="soft">arrow keys step</small></h3>
        <template v-if="isPicture">
          <FramePicture
            v-if="sheet && sheet.ulid === clip.clip"
            :production="production.ulid"
            :clip="clip.clip"
            :rate="sheet.rate"
            :frames="sheet.frames"
            :version="sheet.media_version"
            :look="sheet.look"
            :frame="frame"
          />
          <input
            type="range"
            min="0"
            :max="(sheet?.frames ?? 1) - 1"
            :value="frame"
            aria-label="Frame"
            @input="goToFrame(Number(($event.target as HTMLInputElement).value))"
          />
          <p class="mono at" data-testid="hand-frame">
            frame {{ frame }} <span class="soft">{{ label(frame, { ...rate, drop: false }) }}</span>
          </p>
          <div class="offers">
            <span v-if="isPending" class="soft">Looking for the slate…</span>
            <span v-else-if="points?.pending" class="soft">They are being looked for…</span>
            <span v-else-if="points?.flashes.length === 0" class="soft"
              >Nothing closes or flashes in this picture.</span
            >
            <button
              v-for="flash in points?.flashes.slice(0, 6) ?? []"
              :key="flash.frame"
              class="plain mono"
              :class="{ on: flash.frame === frame }"
              @click="goToFrame(flash.frame)"
            >
              {{ flash.frame }}
            </button>
          </div>
        </template>
        <template v-else>
          <div class="wave" @click="ownTicks = clickPoint($event, clip.duration_ticks)">
            <WaveStrip
              :address="mediaUrl(production.ulid, clip.clip, 'peaks')"
              :seconds="clip.duration_ticks / TICKS"
              :colour="waveColour(clip.device ?? '')"
            /><i :style="{ left: share(ownTicks, clip.duration_ticks) }" />
          </div>
          <p class="mono at">{{ time(ownTicks) }}</p>
          <div class="offers">
            <button
              v-for="clap in points?.claps.slice(0, 6) ?? []"
              :key="clap.ticks"
              class="plain mono"
              :class="{ on: clap.ticks === ownTicks }"
              @click="ownTicks = clap.ticks"
            >
              {{ time(clap.ticks) }}
            </button>
          </div>
        </template>
      </section>
      <section tabindex="0" data-side="point" :aria-label="`Point of ${against?.name ?? 'nothing'}`" @keydown="keys">
        <h3>is the same moment as</h3>
        <p v-if="targets.length === 0" class="note warn">
          Nothing of another device has a place and sound. Line up the day first.
        </p>
        <template v-else>
          <select v-model="target" aria-label="In which clip">
            <option v-for="one in targets" :key="one.clip" :value="one.clip">
              {{ one.device }} · {{ one.name }}{{ one.take ? ` · ${one.take}` : '' }}
            </option>
          </select>
          <div
            v-if="against"
            class="wave tall"
            title="Click where the clap is"
            @click="point = clickPoint($event, against.duration_ticks)"
          >
            <WaveStrip
              :address="mediaUrl(production.ulid, against.clip, 'peaks')"
              :seconds="against.duration_ticks / TICKS"
              :colour="waveColour(against.device)"
              :gain="1.5"
            />
            <i v-if="point !== null" :style="{ left: share(point, against.duration_ticks) }" />
          </div>
          <p class="mono at" data-testid="hand-point">
            {{ point === null ? 'no point yet' : time(point) }}
            <span class="fine"
              ><button class="plain" @click="movePoint(-ofFrames(1, rate))">−1 f</button
              ><button class="plain" @click="movePoint(-MS)">−1 ms</button
              ><button class="plain" @click="movePoint(MS)">+1 ms</button
              ><button class="plain" @click="movePoint(ofFrames(1, rate))">+1 f</button></span
            >
          </p>
          <div class="offers">
            <span v-if="others && others.claps.length === 0" class="soft"
              >No clap is heard on it. Click where the moment is.</span
            >
            <button
              v-for="clap in others?.claps.slice(0, 8) ?? []"
              :key="clap.ticks"
              class="plain mono"
              :class="{ on: clap.ticks === point }"
              @click="point = clap.ticks"
            >
              {{ time(clap.ticks) }}
            </button>
          </div>
        </template>
      </section>
    </div>
  </Modal>
</template>

<style scoped>
.hand {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
}
section {
  display: grid;
  gap: 8px;
  align-content: start;
  border-radius: 6px;
  padding: 6px;
}
h3 {
  font-size: 13.5px;
  margin: 0;
}
.picture {
  aspect-ratio: 16 / 9;
  background: var(--dark);
  border-radius: 5px;
  overflow: hidden;
}
video {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
}
.wave {
  position: relative;
  height: 70px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 4px;
  cursor: crosshair;
}
.wave.tall {
  height: 120px;
}
.wave i {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: var(--fault);
}
.at {
  margin: 0;
  font-size: 14px;
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
}
.fine {
  display: flex;
  gap: 4px;
}
.fine button {
  padding: 1px 6px;
  font-size: 11.5px;
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  min-height: 26px;
  align-items: center;
}
.offers button {
  padding: 1px 8px;
  font-size: 12px;
}
.offers .on {
  background: var(--ink);
  border-color: var(--ink);
  color: #fff;
}
select {
  font: inherit;
  padding: 4px 6px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  min-width: 0;
}
</style>
