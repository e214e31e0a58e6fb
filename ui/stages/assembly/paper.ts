import { TICKS } from '@/player/time'

/** What of a cut the paper shows: its first tick, and how many ticks a pixel is. */
export interface PaperView {
  left: number
  perPixel: number
}

export const toX = (view: PaperView, ticks: number): number => (ticks - view.left) / view.perPixel
export const toTicks = (view: PaperView, x: number): number => view.left + x * view.perPixel

/** Frames are not drawn wider than this, pixels; and a cut not smaller than in some of its window. */
const WIDEST_FRAME = 40

/** A view that stays beside the cut, and neither closer than a frame is worth nor farther than the whole. */
export function within(view: PaperView, length: number, width: number, frame: number): PaperView {
  const whole = (Math.max(length, 10 * TICKS) * 1.15) / Math.max(1, width)
  const perPixel = Math.min(whole, Math.max(view.perPixel, frame / WIDEST_FRAME))
  const most = Math.max(0, length - width * perPixel * 0.5)
  return { perPixel, left: Math.min(most, Math.max(0, view.left)) }
}

export function zoomed(view: PaperView, factor: number, x: number): PaperView {
  const perPixel = view.perPixel * factor
  return { perPixel, left: toTicks(view, x) - x * perPixel }
}

/** As little of a move as brings an instant into sight, with some room beyond it. */
export function following(view: PaperView, ticks: number, width: number): PaperView {
  const x = toX(view, ticks)
  if (x >= 0 && x <= width) return view
  return { ...view, left: Math.max(0, ticks - width * view.perPixel * (x < 0 ? 0.8 : 0.1)) }
}

const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200]

/** Where the ruler has words: far enough apart to be read, on whole seconds or on frames. Ticks. */
export function ruled(view: PaperView, frame: number, apart = 110): { step: number; from: number } {
  const wanted = apart * view.perPixel
  const frames = [1, 2, 5, 10].map((count) => count * frame)
  const step = [...frames, ...STEPS.map((seconds) => seconds * TICKS)].find((one) => one >= wanted) ?? 7200 * TICKS
  return { step, from: Math.floor(view.left / step) * step }
}

export interface Snap {
  ticks: number
  /** What it lies on, in a word; null where it lies on nothing. */
  why: string | null
}

/**
 * Leads an instant to the nearest place that counts, where one is near.
 *
 * @param places in order, each with a word
 * @param near ticks
 */
export function snapped(ticks: number, places: { ticks: number; why: string }[], near: number): Snap {
  let best: Snap = { ticks, why: null }
  let least = near
  for (const place of places) {
    const far = Math.abs(place.ticks - ticks)
    if (far <= least) [best, least] = [{ ticks: place.ticks, why: place.why }, far]
  }
  return best
}
