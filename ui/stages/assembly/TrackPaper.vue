<script setup lang="ts">
import { t } from '@/words'
import { useElementSize } from '@vueuse/core'
import { computed, effectScope, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import type { CutClip, Rate } from '@/api/types'
import { penFor } from '@/player/canvas'
import { peaksAt, type PeakFile } from '@/player/peaks'
import { labelAt, TICKS, ticksPerFrame } from '@/player/time'
import { toneOf, waveColour } from '@/shell/device'
import { following, ruled, snapped, toTicks, toX, within, zoomed, type PaperView } from './paper'
import { cutsOf, endOf, indexAt, itemAt, lengthOf, paperOrder, type CutItem, type CutValue } from './value'

/**
 * The cut on ruled paper: a line for each track, its items where they play. All of it is one drawing, so that
 * thousands of items cost what is in sight; what it shows is said in words beside it.
 */
const props = defineProps<{
  production: string
  value: CutValue
  rate: Rate
  clips: Map<string, CutClip>
  /** Where the playhead stands, ticks. */
  at: number
  chosen: Set<CutItem>
  /** What goes along with those that are chosen. */
  along: Set<CutItem>
  track: number
  range: { from: number; to: number } | null
  snaps: boolean
  /** What of the picture is tried in place. */
  trial: { from: number; to: number } | null
  heights: Record<string, number>
  canWork: boolean
}>()
const emit = defineEmits<{
  go: [ticks: number]
  choose: [track: number, item: CutItem | null, more: boolean]
  /** Dragged to another place or track. */
  move: [item: CutItem, from: number, to: number, ticks: number]
  /** An edge, dragged by so much. */
  edge: [item: CutItem, track: number, which: 'head' | 'tail' | 'cut', by: number]
  open: [item: CutItem]
}>()

const HEAD = 26
const frame = computed(() => ticksPerFrame(props.rate))
const paper = useTemplateRef<HTMLElement>('paper')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height } = useElementSize(paper)
const length = computed(() => lengthOf(props.value))
const asked = shallowRef<PaperView>({ left: 0, perPixel: Number.MAX_VALUE })
const view = computed(() => within(asked.value, length.value, width.value, frame.value))
const scroll = ref(0)

const rows = computed(() => {
  let top = HEAD
  return paperOrder(props.value.tracks).map((index) => {
    const track = props.value.tracks[index]!
    const usual = track.kind === 'sound' ? 44 : track.role === 'picture' || track.role === '' ? 58 : 34
    const high = props.heights[`${track.kind} ${track.name}`] ?? usual
    const row = { index, track, top, high }
    top += high
    return row
  })
})
const whole = computed(() => rows.value.reduce((sum, row) => sum + row.high, HEAD))
const most = computed(() => Math.max(0, whole.value - height.value))
watch(most, (now) => (scroll.value = Math.min(scroll.value, now)))

// It follows the playhead: a page further while it plays, as little as shows it else.
watch(
  () => props.at,
  (at) => (asked.value = following(view.value, at, width.value)),
)

// Pictures and peaks of what is in sight.
const images = new Map<string, HTMLImageElement>()
const come = ref(0)
function imageOf(clip: CutClip): HTMLImageElement | null {
  if (!clip.ready || (clip.kind !== 'picture' && clip.kind !== 'still')) return null
  let image = images.get(clip.ulid)
  if (image === undefined) {
    if (images.size > 400) images.clear()
    image = new Image()
    image.onload = () => come.value++
    image.src = mediaUrl(props.production, clip.ulid, clip.kind === 'still' ? 'thumb-1' : 'thumb-3', clip.media_version)
    images.set(clip.ulid, image)
  }
  return image.complete && image.naturalWidth > 0 ? image : null
}
const scope = effectScope()
onScopeDispose(() => scope.stop())
const heeded = new WeakSet<PeakFile>()
function peaksOf(clip: CutClip): PeakFile {
  const file = peaksAt(mediaUrl(props.production, clip.ulid, 'peaks', clip.media_version))
  if (!heeded.has(file)) {
    heeded.add(file)
    scope.run(() => watch(file.version, () => come.value++))
  }
  return file
}

const INK = '#1f2a33'
const SOFT = '#5c6670'
const FONT = "11px 'IBM Plex Mono', monospace"
const colours: Record<string, string> = {}
const colour = (tone: string): string =>
  (colours[tone] ??= getComputedStyle(document.documentElement).getPropertyValue(`--dev-${tone}`).trim() || SOFT)

function drawItem(pen: CanvasRenderingContext2D, item: CutItem, top: number, high: number, kind: string): void {
  const left = toX(view.value, item.record_start_ticks)
  const right = toX(view.value, endOf(item))
  const clip = props.clips.get(item.source.id)
  const from = Math.max(-4, left)
  const wide = Math.max(1, Math.min(width.value + 4, right) - from)
  const isChosen = props.chosen.has(item)
  pen.globalAlpha = item.enabled ? 1 : 0.35
  pen.fillStyle = isChosen ? '#dcebe4' : props.along.has(item) ? '#eff5ee' : '#fffcf5'
  pen.fillRect(from, top + 3, wide, high - 6)
  if (wide < 3) {
    pen.fillStyle = clip?.device ? colour(toneOf(clip.device)) : '#b9ac90'
    pen.fillRect(from, top + 3, Math.max(1, wide), high - 6)
    pen.globalAlpha = 1
    return
  }
  if (kind === 'picture' && clip !== undefined && wide > 46 && high > 40) {
    const image = imageOf(clip)
    const tall = high - 24
    if (image !== null) {
      const across = (tall * image.naturalWidth) / image.naturalHeight
      if (wide > across + 12) pen.drawImage(image, Math.max(left, 0) + 7, top + 19, across, tall)
    }
  }
  if (kind === 'sound' && clip !== undefined && clip.ready && clip.has_sound && wide > 8) {
    const bars = Math.floor((wide - 6) / 2)
    const begin = (item.source_start_ticks + (from + 5 - left) * view.value.perPixel) / TICKS
    const values = peaksOf(clip).columns(begin, begin + (2 * bars * view.value.perPixel) / TICKS, bars)
    const gain = 10 ** (Number(item.metadata.gain_millibels ?? 0) / 2000)
    const middle = top + 14 + (high - 18) / 2
    pen.fillStyle = clip.device === null ? '#8f9aa3' : waveColour(clip.device)
    if (values !== null)
      for (let bar = 0; bar < bars; bar++) {
        const size = Math.max(0.5, Math.min(1, values[bar]! * gain * 1.6) * (high - 20) * 0.5)
        pen.fillRect(from + 5 + 2 * bar, middle - size, 1.2, 2 * size)
      }
  }
  pen.fillStyle = clip?.device ? colour(toneOf(clip.device)) : '#b9ac90'
  pen.fillRect(left, top + 3, 4, high - 6)
  pen.strokeStyle = isChosen ? '#1f6f5c' : '#c7baa2'
  pen.lineWidth = isChosen ? 2 : 1
  pen.strokeRect(from + 0.5, top + 3.5, wide - 1, high - 7)
  // Two letters of a name say nothing.
  if (wide > 44) {
    pen.save()
    pen.beginPath()
    pen.rect(from, top, wide - 4, high)
    pen.clip()
    pen.fillStyle = INK
    pen.font = FONT
    pen.fillText(item.name, Math.max(left, 0) + 8, top + 15)
    pen.restore()
  }
  if (clip === undefined && props.clips.size > 0) {
    pen.fillStyle = '#b0412e'
    pen.font = FONT
    if (wide > 60) pen.fillText(t('assembly.TrackPaper.clipIsGone'), Math.max(left, 0) + 8, top + 28)
  }
  const [fadeIn, fadeOut] = [Number(item.metadata.fade_in_ticks ?? 0), Number(item.metadata.fade_out_ticks ?? 0)]
  pen.strokeStyle = SOFT
  pen.lineWidth = 1
  for (const [edge, ticks, sign] of [
    [left, fadeIn, 1],
    [right, fadeOut, -1],
  ] as const)
    if (ticks > 0) {
      pen.beginPath()
      pen.moveTo(edge, top + high - 4)
      pen.lineTo(edge + (sign * ticks) / view.value.perPixel, top + 5)
      pen.stroke()
    }
  pen.globalAlpha = 1
}

function draw(): void {
  isAsked = false
  const pen = penFor(canvas.value, width.value, height.value)
  if (pen === null) return
  const now = view.value
  const end = toTicks(now, width.value)
  for (const row of rows.value) {
    const top = row.top - scroll.value
    if (top + row.high < HEAD || top > height.value) continue
    pen.fillStyle = row.track.locked ? '#efe7d6' : row.index === props.track ? '#fbf7ec' : '#f6f1e5'
    pen.fillRect(0, top, width.value, row.high)
    pen.fillStyle = '#ddd3c0'
    pen.fillRect(0, top + row.high - 1, width.value, 1)
    if (!row.track.enabled) pen.globalAlpha = 0.4
    const { items } = row.track
    // Of many in one pixel one is drawn.
    let drawn = -1
    for (let index = indexAt(items, now.left); index < items.length; index++) {
      const item = items[index]!
      if (item.record_start_ticks > end) break
      const right = toX(now, endOf(item))
      if (right - drawn < 0.8) continue
      drawItem(pen, item, top, row.high, row.track.kind)
      drawn = right
    }
    pen.globalAlpha = 1
  }
  const x = (ticks: number) => toX(now, ticks)
  if (props.range !== null) {
    pen.fillStyle = '#1f6f5c22'
    pen.fillRect(x(props.range.from), 0, x(props.range.to) - x(props.range.from), height.value)
  }
  if (props.trial !== null) {
    const [from, to] = [x(props.trial.from), x(props.trial.to)]
    pen.strokeStyle = '#8a5510'
    pen.setLineDash([5, 3])
    pen.lineWidth = 2
    const row = rows.value.find((one) => one.track.role === 'picture') ?? rows.value[0]
    if (row !== undefined) pen.strokeRect(from, row.top - scroll.value + 3, to - from, row.high - 6)
    pen.setLineDash([])
  }
  if (drag.value !== null && drag.value.ghost !== null) {
    pen.fillStyle = '#1f6f5c44'
    pen.fillRect(drag.value.ghost.x, drag.value.ghost.top, drag.value.ghost.wide, drag.value.ghost.high)
  }
  // The ruler lies above all.
  pen.fillStyle = '#fffcf5'
  pen.fillRect(0, 0, width.value, HEAD)
  pen.fillStyle = '#c7baa2'
  pen.fillRect(0, HEAD - 1, width.value, 1)
  const { step, from } = ruled(now, frame.value)
  pen.font = FONT
  for (let ticks = from; ticks < end; ticks += step) {
    pen.fillStyle = '#c7baa2'
    pen.fillRect(x(ticks), 0, 1, HEAD)
    pen.fillStyle = SOFT
    pen.fillText(labelAt(props.value.start_ticks + ticks, props.rate), x(ticks) + 5, 12)
  }
  pen.fillStyle = '#b0412e'
  pen.fillRect(Math.round(x(props.at)), 0, 2, height.value)
  if (drag.value !== null && drag.value.why !== null) {
    pen.fillStyle = '#1f6f5c'
    pen.fillRect(x(drag.value.snap) - 0.5, 0, 1, height.value)
    pen.fillText(drag.value.why, x(drag.value.snap) + 4, HEAD + 12)
  }
}
let isAsked = false
function ask(): void {
  if (isAsked) return
  isAsked = true
  requestAnimationFrame(draw)
}

// What the pointer does.
interface Drag {
  what: 'head' | 'tail' | 'cut' | 'item' | 'playhead'
  item: CutItem | null
  row: number
  begin: number
  by: number
  toRow: number
  snap: number
  why: string | null
  ghost: { x: number; top: number; wide: number; high: number } | null
  isMoved: boolean
}
const drag = shallowRef<Drag | null>(null)
const cursor = ref('default')
const NEAR = 5

watch(
  [
    () => props.value,
    () => props.at,
    () => props.chosen,
    () => props.along,
    () => props.clips,
    () => props.track,
    () => props.range,
    () => props.trial,
    rows,
    view,
    scroll,
    width,
    height,
    come,
    drag,
  ],
  ask,
  { immediate: true, flush: 'post' },
)

function rowAt(y: number): number {
  return rows.value.findIndex((row) => y >= row.top - scroll.value && y < row.top + row.high - scroll.value)
}
function place(event: PointerEvent | WheelEvent | MouseEvent): { x: number; y: number } {
  const area = canvas.value!.getBoundingClientRect()
  return { x: event.clientX - area.left, y: event.clientY - area.top }
}
/** What lies under the pointer: an edge, the cut between two items, or an item. */
function under(x: number, y: number): { what: Drag['what']; item: CutItem | null; row: number } {
  const row = rowAt(y)
  if (y < HEAD || row < 0) return { what: 'playhead', item: null, row }
  const { items, locked } = rows.value[row]!.track
  const ticks = toTicks(view.value, x)
  const index = itemAt(items, ticks) ?? indexAt(items, ticks)
  if (!locked && props.canWork)
    for (const one of [index - 1, index]) {
      const item = items[one]
      if (item === undefined || (endOf(item) - item.record_start_ticks) / view.value.perPixel < 4 * NEAR) continue
      const next = items[one + 1]
      const isCut = next !== undefined && next.record_start_ticks === endOf(item)
      if (Math.abs(toX(view.value, endOf(item)) - x) < NEAR)
        return { what: isCut && y - (rows.value[row]!.top - scroll.value) < 16 ? 'cut' : 'tail', item, row }
      if (Math.abs(toX(view.value, item.record_start_ticks) - x) < NEAR) return { what: 'head', item, row }
    }
  const item = items[itemAt(items, ticks) ?? -1] ?? null
  return { what: item === null ? 'playhead' : 'item', item, row }
}
/** Where things lead to, in order of the clock. */
const places = computed(() => [
  ...cutsOf(props.value).map((ticks) => ({ ticks, why: 'cut' })),
  { ticks: props.at, why: 'playhead' },
])
const onFrame = (ticks: number): number => Math.round(ticks / frame.value) * frame.value
function led(ticks: number, except: number[] = []): { ticks: number; why: string | null } {
  const near = 8 * view.value.perPixel
  return props.snaps
    ? snapped(
        onFrame(ticks),
        places.value.filter((one) => !except.includes(one.ticks)),
        near,
      )
    : { ticks: onFrame(ticks), why: null }
}

function down(event: PointerEvent): void {
  if (event.button !== 0) return
  const { x, y } = place(event)
  const found = under(x, y)
  canvas.value!.setPointerCapture(event.pointerId)
  drag.value = {
    ...found,
    begin: x,
    by: 0,
    toRow: found.row,
    snap: 0,
    why: null,
    ghost: null,
    isMoved: false,
  }
  if (found.what === 'playhead') go(x)
  else emit('choose', rows.value[found.row]!.index, found.item, event.shiftKey || event.ctrlKey || event.metaKey)
}
const go = (x: number): void => emit('go', Math.max(0, led(toTicks(view.value, x), [props.at]).ticks))
function moved(event: PointerEvent): void {
  const { x, y } = place(event)
  const now = drag.value
  if (now === null) {
    const { what } = under(x, y)
    cursor.value = what === 'head' || what === 'tail' ? 'ew-resize' : what === 'cut' ? 'col-resize' : 'default'
    return
  }
  if (now.what === 'playhead') return go(x)
  if (now.item === null || (!now.isMoved && Math.abs(x - now.begin) < 3)) return
  if (!props.canWork) return
  const ticks = (x - now.begin) * view.value.perPixel
  const edge = now.what === 'head' || now.what === 'item' ? now.item.record_start_ticks : endOf(now.item)
  let snap = led(edge + ticks, [edge])
  // Of an item that is moved either edge may lead.
  if (now.what === 'item' && snap.why === null) {
    const tail = led(edge + now.item.duration_ticks + ticks, [edge + now.item.duration_ticks])
    if (tail.why !== null) snap = { ticks: tail.ticks - now.item.duration_ticks, why: tail.why }
  }
  const by = snap.ticks - edge
  const row = Math.max(0, rowAt(y))
  const to = now.what === 'item' && rows.value[row]?.track.kind === rows.value[now.row]!.track.kind ? row : now.row
  const at = toX(view.value, now.what === 'item' ? now.item.record_start_ticks + by : Math.min(edge, edge + by))
  drag.value = {
    ...now,
    isMoved: true,
    by,
    toRow: to,
    snap: snap.ticks,
    why: snap.why,
    ghost: {
      x: at,
      top: rows.value[to]!.top - scroll.value + 3,
      wide: Math.max(2, (now.what === 'item' ? now.item.duration_ticks : Math.abs(by)) / view.value.perPixel),
      high: rows.value[to]!.high - 6,
    },
  }
}
function up(): void {
  const now = drag.value
  drag.value = null
  if (now === null || now.item === null || !now.isMoved || (now.by === 0 && now.toRow === now.row)) return
  const from = rows.value[now.row]!.index
  if (now.what === 'item')
    emit('move', now.item, from, rows.value[now.toRow]!.index, Math.max(0, now.item.record_start_ticks + now.by))
  else if (now.what !== 'playhead') emit('edge', now.item, from, now.what, now.by)
}
function wheel(event: WheelEvent): void {
  event.preventDefault()
  const { x } = place(event)
  if (event.ctrlKey || event.metaKey) asked.value = zoomed(view.value, Math.exp(event.deltaY / 300), x)
  else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY))
    asked.value = { ...view.value, left: view.value.left + (event.deltaX || event.deltaY) * view.value.perPixel }
  else scroll.value = Math.min(most.value, Math.max(0, scroll.value + event.deltaY))
}
function double(event: MouseEvent): void {
  const { x, y } = place(event)
  const { item } = under(x, y)
  if (item !== null) emit('open', item)
}

function zoom(factor: number): void {
  const x = toX(view.value, props.at)
  asked.value = zoomed(view.value, factor, x >= 0 && x <= width.value ? x : width.value / 2)
}
function fit(from = 0, to = length.value): void {
  const perPixel = (to - from) / Math.max(1, width.value * 0.92)
  asked.value = { perPixel, left: from - width.value * 0.04 * perPixel }
}
/** The track in sight. */
function show(track: number): void {
  const row = rows.value.find((one) => one.index === track)
  if (row === undefined) return
  if (row.top - scroll.value < HEAD) scroll.value = row.top - HEAD
  else if (row.top + row.high - scroll.value > height.value) scroll.value = row.top + row.high - height.value
}
watch(() => props.track, show)
defineExpose({ zoom, fit, rows, scroll, wheel })
</script>

<template>
  <div
    ref="paper"
    class="paper"
    :data-per-pixel="Math.round(view.perPixel)"
    :data-left="Math.round(view.left)"
    @wheel="wheel"
  >
    <canvas
      ref="canvas"
      :style="{ cursor }"
      aria-hidden="true"
      @pointerdown="down"
      @pointermove="moved"
      @pointerup="up"
      @pointercancel="drag = null"
      @dblclick="double"
    />
  </div>
</template>

<style scoped>
.paper {
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  background: #f6f1e5;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
}
</style>
