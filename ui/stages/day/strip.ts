import { TICKS } from '@/player/time'

/** Round moments between two instants, at most about ten of them; ticks. */
export function hours(from: number, to: number): number[] {
  const steps = [10, 30, 60, 300, 600, 1800, 3600, 7200].map((seconds) => seconds * TICKS)
  const step = steps.find((one) => (to - from) / one <= 10) ?? 4 * 3600 * TICKS
  const marks: number[] = []
  for (let mark = Math.ceil(from / step) * step; mark < to; mark += step) marks.push(mark)
  return marks
}
