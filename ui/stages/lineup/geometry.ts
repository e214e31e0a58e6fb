import type { Rate } from '@/api/types'
import { TICKS, ticksPerFrame } from '@/player/time'

export interface Span { from: number; to: number }

export interface FoldedMap {
  /** Stretches that are drawn to scale, in order; ticks. */
  spans: Span[]
  /** 0 to 1 along the map for an instant; between two stretches it lies in the fold. */
  at: (ticks: number) => number
}

/** Ticks of nothing that stay as they are; longer ones are folded to this. */
const FOLD = 3 * TICKS

/** Joins what lies near together, and folds the hours between away, so that a day of takes fits a screen. */
export function clusters(spans: Span[]): FoldedMap {
  const sorted = [...spans].sort((a, b) => a.from - b.from)
  const joined: Span[] = []
  for (const span of sorted) {
    const last = joined.at(-1)
    if (last !== undefined && span.from - last.to < FOLD) last.to = Math.max(last.to, span.to)
    else joined.push({ ...span })
  }
  const length = joined.reduce((sum, span) => sum + span.to - span.from, 0) + FOLD * (joined.length + 1)
  const starts: number[] = []
  let position = FOLD
  for (const span of joined) {
    starts.push(position)
    position += span.to - span.from + FOLD
  }
  return {
    spans: joined,
    at: (ticks) => {
      let index = joined.findIndex((span) => ticks <= span.to)
      if (index < 0) index = joined.length - 1
      const span = joined[index]
      if (span === undefined) return 0
      return (starts[index]! + Math.max(-FOLD, Math.min(ticks, span.to + FOLD) - span.from)) / length
    },
  }
}

/** Where the ruler has a label: the start of each stretch, and round moments inside long ones, at least 64 px apart. */
export function ruler(map: FoldedMap, width: number): { ticks: number; x: number; seconds: boolean }[] {
  const marks: { ticks: number; x: number; seconds: boolean }[] = []
  let next = 0
  for (const span of map.spans) {
    const perPixel = (span.to - span.from) / Math.max(1, (map.at(span.to) - map.at(span.from)) * width)
    const step = [1, 5, 10, 30, 60, 300].map((seconds) => seconds * TICKS).find((one) => one / perPixel >= 70) ?? 600 * TICKS
    for (let ticks = span.from; ticks < span.to; ticks = (Math.floor(ticks / step) + 1) * step) {
      const x = map.at(ticks) * width
      if (x >= next) {
        marks.push({ ticks, x, seconds: true })
        next = x + 64
      }
    }
  }
  return marks
}

/** `+31 f`, `1 s 7 f late`, `not set`: how far a device's clock is off; empty under a frame. */
export function offsetText(ticks: number | null, rate: Rate): string {
  if (ticks === null) return ''
  const frames = Math.round(Math.abs(ticks) / ticksPerFrame(rate))
  if (frames === 0) return ''
  if (frames > 3600 * rate.nominal) return 'clock not set'
  const seconds = Math.floor(frames / rate.nominal)
  const rest = frames % rate.nominal
  return `${seconds > 0 ? `${seconds} s ` : ''}${rest > 0 || seconds === 0 ? `${rest} f ` : ''}${ticks > 0 ? 'late' : 'early'}`
}
