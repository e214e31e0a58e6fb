import { t } from '@/words'
import type { Rate } from '@/api/types'
import { TICKS, ticksPerFrame } from '@/player/time'

export interface Span {
  from: number
  to: number
}

export interface FoldedMap {
  /** Stretches that are drawn to scale, in order; ticks. */
  spans: Span[]
  /** Ticks from the map's start to its end, folds included. */
  length: number
  /** Where an instant lies from the map's start, ticks; between two stretches it lies in the fold. */
  pos: (ticks: number) => number
  /** The instant at a position; in a fold, the nearer edge of it. */
  ticksAt: (pos: number) => number
}

/** What of a map is in sight: its left edge in the map's ticks, ticks to a pixel, and pixels. */
export interface View {
  left: number
  perPixel: number
  width: number
}

/** Ticks of nothing that stay as they are; longer ones are folded to this. */
export const FOLD = 3 * TICKS

/** Closest: a sample at 48 kHz is six pixels wide. */
const CLOSEST = TICKS / 48_000 / 6

/** Joins what lies near together, and folds the hours between away, so that a day of takes fits a screen. */
export function clusters(spans: Span[]): FoldedMap {
  const sorted = [...spans].sort((a, b) => a.from - b.from)
  const joined: Span[] = []
  for (const span of sorted) {
    const last = joined.at(-1)
    if (last !== undefined && span.from - last.to < FOLD) last.to = Math.max(last.to, span.to)
    else joined.push({ ...span })
  }
  const starts: number[] = []
  let length = FOLD
  for (const span of joined) {
    starts.push(length)
    length += span.to - span.from + FOLD
  }
  /** The last stretch whose edge is not beyond; the stretches are in order. */
  const find = (isBefore: (index: number) => boolean) => {
    let low = 0
    let high = joined.length - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (isBefore(middle)) low = middle
      else high = middle - 1
    }
    return low
  }
  return {
    spans: joined,
    length,
    pos: (ticks) => {
      if (joined.length === 0) return 0
      let index = find((at) => joined[at]!.from <= ticks)
      // What lies in the fold before a stretch is measured from that stretch.
      if (
        index + 1 < joined.length &&
        ticks > joined[index]!.to &&
        joined[index + 1]!.from - ticks < ticks - joined[index]!.to
      )
        index++
      const span = joined[index]!
      return starts[index]! + Math.max(-FOLD / 2, Math.min(ticks, span.to + FOLD / 2) - span.from)
    },
    ticksAt: (pos) => {
      if (joined.length === 0) return 0
      const index = find((at) => starts[at]! - FOLD / 2 <= pos)
      const span = joined[index]!
      return Math.max(span.from, Math.min(span.to, span.from + pos - starts[index]!))
    },
  }
}

export const xOf = (map: FoldedMap, view: View, ticks: number): number => (map.pos(ticks) - view.left) / view.perPixel

/** The same view, brought within what the map and the screen allow. */
export function within(map: FoldedMap, view: View): View {
  const width = Math.max(1, view.width)
  const perPixel = Math.min(Math.max(view.perPixel, CLOSEST), Math.max(CLOSEST, map.length / width))
  return { width, perPixel, left: Math.max(0, Math.min(view.left, map.length - width * perPixel)) }
}

/** Closer or further, with what lies under a pixel staying there. */
export function zoomed(map: FoldedMap, view: View, factor: number, atPixel: number): View {
  const perPixel = within(map, { ...view, perPixel: view.perPixel / factor }).perPixel
  return within(map, { ...view, perPixel, left: view.left + atPixel * (view.perPixel - perPixel) })
}

/** A view of one stretch with a little room on both sides. */
export function fitted(map: FoldedMap, width: number, span: Span): View {
  const from = map.pos(span.from)
  const to = map.pos(span.to)
  const room = (to - from) * 0.04
  return within(map, { width, left: from - room, perPixel: (to - from + 2 * room) / Math.max(1, width) })
}

const STEPS = [0.0001, 0.0005, 0.001, 0.005, 0.01, 0.05, 0.1, 0.5, 1, 5, 10, 30, 60, 300, 600]

/** Labels of the ruler that are in sight: the start of each stretch, and round moments inside, at least 78 px apart. */
export function ruler(map: FoldedMap, view: View): { ticks: number; x: number; digits: number }[] {
  const marks: { ticks: number; x: number; digits: number }[] = []
  const seconds = STEPS.find((one) => (one * TICKS) / view.perPixel >= 90) ?? 600
  const step = seconds * TICKS
  const digits = seconds >= 1 ? 0 : Math.ceil(-Math.log10(seconds) - 1e-9)
  let next = -Infinity
  const first = map.ticksAt(view.left)
  const last = map.ticksAt(view.left + view.width * view.perPixel)
  for (const span of map.spans) {
    if (span.to < first || span.from > last) continue
    const begin = span.from >= first ? span.from : Math.ceil(first / step) * step
    for (
      let ticks = begin;
      ticks < Math.min(span.to, last + step);
      ticks = (Math.floor(ticks / step + 1e-9) + 1) * step
    ) {
      const x = xOf(map, view, ticks)
      if (x >= next && x <= view.width) {
        marks.push({ ticks, x, digits })
        next = x + 78
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
  if (frames > 3600 * rate.nominal) return t('lineup.geometry.clockNotSet')
  const seconds = Math.floor(frames / rate.nominal)
  const rest = frames % rate.nominal
  const by = [seconds > 0 ? `${seconds} s` : '', rest > 0 || seconds === 0 ? `${rest} f` : '']
  return [...by, ticks > 0 ? t('lineup.geometry.late') : t('lineup.geometry.early')]
    .filter((word) => word !== '')
    .join(' ')
}

/** What says where a clip lies that nothing ties to the day's clock. */
export function laidBy(one: { laid_by: 'timecode' | 'date' | 'order' | null }): string {
  return {
    timecode: t('lineup.geometry.byItsTimecode'),
    date: t('lineup.geometry.byItsDate'),
    order: t('lineup.geometry.behindTheOthers'),
  }[one.laid_by ?? 'order']
}
