<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { effectScope, onScopeDispose, ref, shallowReactive, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import type { Placed } from '@/api/types'
import { penFor } from '@/player/canvas'
import { peaksAt, type PeakFile } from '@/player/peaks'
import { TICKS } from '@/player/time'
import { type FoldedMap, type View, xOf } from './geometry'
import { loadPair, type Pair, TICKS_PER_SAMPLE } from './samples'

/**
 * The ground and the waveforms of one lane's clips, as much of them as is in sight: peaks from afar, samples from near.
 */
const props = defineProps<{
  production: string
  clips: Placed[]
  map: FoldedMap
  view: View
  colour: string
  gain: number
}>()

/** From so near that a bucket of the peaks is wider than two pixels, samples are drawn. */
const NEAR = 128 * TICKS_PER_SAMPLE
const PAGE_SECONDS = 4
const TOP = 24
const BOTTOM = 17
/** The box of a clip within its lane, px from above and below; the words on it lie over the canvas. */
const BOX = { edge: 11, radius: 4 }

const canvas = ref<HTMLCanvasElement | null>(null)
const { width, height } = useElementSize(canvas)
const pages = shallowReactive(new Map<string, Pair | null>())
/** Counts up when more of the peaks that are drawn has come. */
const come = ref(0)
const heeded = new WeakSet<PeakFile>()
const scope = effectScope()
onScopeDispose(() => scope.stop())
let isAsked = false

function peaksOf(clip: Placed): PeakFile {
  const file = peaksAt(mediaUrl(props.production, clip.clip, 'peaks'))
  if (!heeded.has(file)) {
    heeded.add(file)
    // Drawing is no part of the component's setting up: what it heeds ends with the component all the same.
    scope.run(() => watch(file.version, () => come.value++))
  }
  return file
}

function pageOf(clip: Placed, page: number): Pair | null {
  const key = `${clip.clip}:${page}`
  const there = pages.get(key)
  if (there === undefined) {
    if (pages.size > 16) pages.clear()
    pages.set(key, null)
    void loadPair(props.production, clip.clip, clip.clip, page * PAGE_SECONDS * TICKS, 0, PAGE_SECONDS).then((answer) =>
      pages.set(key, answer),
    )
  }
  return there ?? null
}

function drawSamples(
  pen: CanvasRenderingContext2D,
  clip: Placed,
  from: number,
  to: number,
  toX: (ticks: number) => number,
  middle: number,
  tall: number,
): void {
  const points: [number, number][] = []
  for (let page = Math.floor(from / (PAGE_SECONDS * TICKS)); page * PAGE_SECONDS * TICKS < to; page++) {
    const pair = pageOf(clip, page)
    if (pair === null) continue
    const base = page * PAGE_SECONDS * TICKS
    const first = Math.max(0, Math.floor((from - base) / TICKS_PER_SAMPLE) - 1)
    const last = Math.min(pair.left.length - 1, Math.ceil((to - base) / TICKS_PER_SAMPLE) + 1)
    for (let sample = first; sample <= last; sample++)
      points.push([toX(base + sample * TICKS_PER_SAMPLE), pair.left[sample]!])
  }
  // From so near the shape counts and not the level, which differs from microphone to microphone.
  const most = points.reduce((sum, [, value]) => Math.max(sum, Math.abs(value)), 0.002)
  pen.beginPath()
  points.forEach(([x, value], n) =>
    n === 0 ? pen.moveTo(x, middle - (value / most) * tall) : pen.lineTo(x, middle - (value / most) * tall),
  )
  pen.stroke()
}

function draw(): void {
  isAsked = false
  const pen = penFor(canvas.value, width.value, height.value)
  if (pen === null) return
  pen.strokeStyle = props.colour
  pen.lineWidth = 1.2
  const middle = (TOP + height.value - BOTTOM) / 2
  const tall = (height.value - TOP - BOTTOM) / 2
  for (const clip of props.clips) {
    const left = xOf(props.map, props.view, clip.start_ticks)
    const right = xOf(props.map, props.view, clip.start_ticks + clip.duration_ticks)
    if (right < 0 || left > width.value) continue
    pen.fillStyle = '#fff'
    pen.beginPath()
    pen.roundRect(
      Math.max(-BOX.radius, left),
      BOX.edge,
      Math.min(width.value + BOX.radius, Math.max(right, left + 3)) - Math.max(-BOX.radius, left),
      height.value - 2 * BOX.edge,
      BOX.radius,
    )
    pen.fill()
    pen.fillStyle = props.colour
    if (!clip.ready || !clip.has_sound || right - left < 4) continue
    const fromX = Math.max(0, left + 2)
    const toX = Math.min(width.value, right - 2)
    const perPixel = props.view.perPixel
    if (perPixel < NEAR) {
      drawSamples(
        pen,
        clip,
        (fromX - left) * perPixel,
        (toX - left) * perPixel,
        (ticks) => left + ticks / perPixel,
        middle,
        tall,
      )
      continue
    }
    const bars = Math.floor((toX - fromX) / 2)
    const values =
      bars < 1
        ? null
        : peaksOf(clip).columns(
            ((fromX - left) * perPixel) / TICKS,
            ((fromX - left + 2 * bars) * perPixel) / TICKS,
            bars,
          )
    if (values === null) {
      pen.globalAlpha = 0.4
      pen.fillRect(fromX, middle, toX - fromX, 1)
      pen.globalAlpha = 1
      continue
    }
    for (let bar = 0; bar < bars; bar++) {
      const size = Math.max(0.5, Math.min(1, values[bar]! * props.gain) * tall)
      pen.fillRect(fromX + 2 * bar, middle - size, 1.3, 2 * size)
    }
  }
}

watch(
  [() => props.clips, () => props.view, () => props.map, width, height, come, () => [...pages.values()]],
  () => {
    if (isAsked) return
    isAsked = true
    requestAnimationFrame(draw)
  },
  { immediate: true, flush: 'post' },
)
</script>

<template>
  <canvas ref="canvas" aria-hidden="true" />
</template>

<style scoped>
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
</style>
