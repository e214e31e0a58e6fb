<script setup lang="ts">
import { t } from '@/words'
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Rate } from '@/api/types'
import { labelAt, length as spoken, ticksPerFrame } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { toneOf } from '@/shell/device'
import { following, ruled, toTicks, toX, within, zoomed, type PaperView } from './paper'
import type { Piece } from './score'
import { endOf, type CutItem } from './value'

/** A stave for each camera: grey where it rolled, ink where it is on air, and the playhead over all. */
const props = defineProps<{
  angles: { letter: string; note: string; list: { at: number; length: number }[] }[]
  pieces: Piece[]
  items: CutItem[]
  at: number
  length: number
  start: number
  rate: Rate
  range: { from: number; to: number } | null
  sounds: string[]
  canWork: boolean
  /** The stave that is brought into sight, by its letter. */
  sought: string | null
}>()
const emit = defineEmits<{
  go: [ticks: number]
  change: [letter: string, ticks: number]
  move: [index: number, by: number]
}>()
const area = useTemplateRef<HTMLElement>('area')
watch(
  () => props.sought,
  (letter) => area.value?.querySelector(`[data-stave="${letter}"]`)?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)
const { width } = useElementSize(area)
const frame = computed(() => ticksPerFrame(props.rate))
const asked = shallowRef<PaperView>({ left: 0, perPixel: Number.MAX_VALUE })
const view = computed<PaperView>(() => {
  const whole = props.length / Math.max(1, width.value)
  const now = within(asked.value, props.length, width.value, frame.value)
  return now.perPixel >= whole ? { left: 0, perPixel: whole } : now
})
watch(
  () => props.at,
  (at) => (asked.value = following(view.value, at, width.value)),
)
const x = (ticks: number) => toX(view.value, ticks)
function box(from: number, to: number): { left: string; width: string } {
  const left = Math.max(-2, x(from))
  return { left: `${left}px`, width: `${Math.max(2, Math.min(width.value + 2, x(to)) - left)}px` }
}
const inSight = (from: number, to: number) => x(from) < width.value && x(to) > 0
const labels = computed(() => {
  const { step, from } = ruled(view.value, frame.value, 130)
  const all: number[] = []
  for (let ticks = from; ticks < toTicks(view.value, width.value) && all.length < 60; ticks += step) all.push(ticks)
  return all
})
function ticksAt(event: MouseEvent): number {
  const left = area.value?.getBoundingClientRect().left ?? 0
  const ticks = toTicks(view.value, event.clientX - left)
  return Math.max(0, Math.min(props.length - 1, Math.floor(ticks / frame.value) * frame.value))
}
function wheel(event: WheelEvent): void {
  event.preventDefault()
  const left = area.value?.getBoundingClientRect().left ?? 0
  if (event.ctrlKey || event.metaKey)
    asked.value = zoomed(view.value, Math.exp(event.deltaY / 300), event.clientX - left)
  else asked.value = { ...view.value, left: view.value.left + (event.deltaX || event.deltaY) * view.value.perPixel }
}
/** Cuts that can be dragged: where two items meet. */
const seams = computed(() =>
  props.items.flatMap((item, index) => {
    const next = props.items[index + 1]
    return next !== undefined && next.record_start_ticks === endOf(item) ? [{ index, at: endOf(item) }] : []
  }),
)
const dragged = ref<{ index: number; at: number; by: number } | null>(null)
function take(event: PointerEvent, seam: { index: number; at: number }): void {
  if (!props.canWork) return
  const begin = event.clientX
  const handle = event.currentTarget as HTMLElement
  handle.setPointerCapture(event.pointerId)
  dragged.value = { ...seam, by: 0 }
  handle.onpointermove = (move) => {
    const by = Math.round(((move.clientX - begin) * view.value.perPixel) / frame.value) * frame.value
    dragged.value = { ...seam, by }
  }
  handle.onpointerup = handle.onpointercancel = () => {
    handle.onpointermove = handle.onpointerup = handle.onpointercancel = null
    const by = dragged.value?.by ?? 0
    dragged.value = null
    if (by !== 0) emit('move', seam.index, by)
  }
}
</script>

<template>
  <section class="staves" :aria-label="t('assembly.ScoreStaves.score')">
    <div class="names">
      <p class="ruler">
        <b>{{ t('assembly.ScoreStaves.score') }}</b>
      </p>
      <p v-for="angle in angles" :key="angle.letter" class="name" :title="angle.note">
        <DeviceBadge :letter="angle.letter" /><span>{{ angle.note }}</span>
      </p>
      <p v-if="sounds.length > 0" class="name soft">{{ t('assembly.ScoreStaves.sound') }}</p>
    </div>
    <div ref="area" class="area" @wheel="wheel">
      <p class="ruler" @pointerdown="emit('go', ticksAt($event))">
        <span v-for="ticks in labels" :key="ticks" class="mono" :style="{ left: `${x(ticks)}px` }">{{
          labelAt(start + ticks, rate)
        }}</span>
      </p>
      <div
        v-for="angle in angles"
        :key="angle.letter"
        class="stave"
        :data-stave="angle.letter"
        @click="canWork ? emit('change', angle.letter, ticksAt($event)) : emit('go', ticksAt($event))"
      >
        <template v-for="(one, index) in angle.list" :key="index">
          <i v-if="inSight(one.at, one.at + one.length)" class="rolled" :style="box(one.at, one.at + one.length)" />
        </template>
        <template v-for="piece in pieces" :key="piece.from">
          <button
            v-if="piece.letter === angle.letter && inSight(piece.from, piece.to)"
            class="ink mono"
            data-row
            tabindex="-1"
            :data-from="piece.from"
            :style="{ ...box(piece.from, piece.to), background: `var(--dev-${toneOf(angle.letter)})` }"
            :title="t('assembly.ScoreStaves.onAir', [angle.letter, spoken(piece.to - piece.from)])"
            @click.stop="emit('go', ticksAt($event))"
          >
            {{ (piece.to - piece.from) / view.perPixel > 40 ? spoken(piece.to - piece.from) : '' }}
          </button>
        </template>
      </div>
      <div v-if="sounds.length > 0" class="stave sound">
        <i class="held mono" :style="box(0, length)">{{ sounds.join(', ') }}</i>
      </div>
      <i v-if="range" class="range" :style="box(range.from, range.to)" />
      <template v-for="seam in seams" :key="seam.index">
        <i
          v-if="inSight(seam.at, seam.at)"
          class="seam"
          :class="{ moves: dragged?.index === seam.index }"
          :style="{ left: `${x(seam.at + (dragged?.index === seam.index ? dragged.by : 0))}px` }"
          :title="t('assembly.ScoreStaves.dragItToMoveThe')"
          @pointerdown.stop="take($event, seam)"
        />
      </template>
      <i class="pen" :style="{ left: `${x(at)}px` }" />
    </div>
  </section>
</template>

<style scoped>
.staves {
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr);
  border-top: 1px solid var(--dark-rule);
  background: var(--dark-2);
  padding: 4px 16px 6px;
  max-height: 34vh;
  overflow-y: auto;
}
p {
  margin: 0;
}
.ruler {
  height: 20px;
  position: relative;
}
.ruler span {
  position: absolute;
  font-size: 10px;
  color: var(--on-dark-soft);
  border-left: 1px solid var(--dark-rule);
  padding-left: 4px;
  white-space: nowrap;
}
.name {
  height: 34px;
  display: flex;
  gap: 7px;
  align-items: center;
  white-space: nowrap;
}
.name span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.area {
  position: relative;
  overflow: hidden;
}
.stave {
  position: relative;
  height: 34px;
  cursor: pointer;
}
.stave::before {
  content: '';
  position: absolute;
  inset: 50% 0 auto;
  border-top: 1px solid var(--dark-rule);
}
.rolled,
.held {
  position: absolute;
  top: 10px;
  height: 14px;
  background: #363f46;
  border-radius: 2px;
}
.held {
  top: 7px;
  height: 20px;
  background: #8facd8;
  color: #14181b;
  font-style: normal;
  font-size: 11px;
  line-height: 20px;
  padding: 0 8px;
  overflow: hidden;
}
.ink {
  position: absolute;
  top: 3px;
  height: 28px;
  border: 0;
  border-radius: 3px;
  color: #fff;
  font-size: 11px;
  text-align: left;
  padding: 0 6px;
  overflow: hidden;
  cursor: pointer;
}
.seam {
  position: absolute;
  top: 20px;
  bottom: 0;
  width: 9px;
  margin-left: -4px;
  cursor: col-resize;
}
.seam.moves {
  background: #e8e2d433;
}
.range {
  position: absolute;
  top: 0;
  bottom: 0;
  background: #8cc9b722;
  pointer-events: none;
}
.pen {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: #e2674f;
  pointer-events: none;
}
</style>
