import { clock, TICKS } from '@/player/time'

/**
 * Round moments between two instants, at most about ten of them; ticks. Of a short day they lie less than a minute
 * apart, and are told with their seconds.
 */
export function hours(from: number, to: number): { at: number; text: string }[] {
  const steps = [10, 30, 60, 300, 600, 1800, 3600, 7200].map((seconds) => seconds * TICKS)
  const step = steps.find((one) => (to - from) / one <= 10) ?? 4 * 3600 * TICKS
  const marks: { at: number; text: string }[] = []
  for (let at = Math.ceil(from / step) * step; at < to; at += step)
    marks.push({ at, text: clock(at, step < 60 * TICKS) })
  return marks
}
