import type { DaySheet } from '@/api/types'
import { TICKS } from '@/player/time'

/** Round moments between two instants, at most about ten of them; ticks. */
export function hours(from: number, to: number): number[] {
  const steps = [10, 30, 60, 300, 600, 1800, 3600, 7200].map((seconds) => seconds * TICKS)
  const step = steps.find((one) => (to - from) / one <= 10) ?? 4 * 3600 * TICKS
  const marks: number[] = []
  for (let mark = Math.ceil(from / step) * step; mark < to; mark += step) marks.push(mark)
  return marks
}

/**
 * Stretches in which at least one other device rolled for two seconds and this one did not at all; ticks, by device.
 * A wild track, a MOS take and a false start are meant to be alone.
 */
export function gaps(lanes: DaySheet['rolled']): Record<string, [number, number][]> {
  const moments = lanes.flatMap((lane) => lane.spans.map((span) => ({ from: span[0], to: span[1], alone: span[4] }))).sort((a, b) => a.from - b.from)
  // What overlaps is one moment of the day.
  const merged: { from: number; to: number; alone: boolean }[] = []
  for (const moment of moments) {
    const last = merged.at(-1)
    if (last !== undefined && moment.from < last.to) Object.assign(last, { to: Math.max(last.to, moment.to), alone: last.alone || moment.alone })
    else merged.push({ ...moment })
  }
  const missed: Record<string, [number, number][]> = {}
  for (const lane of lanes) {
    missed[lane.device] = merged
      .filter((moment) => !moment.alone && moment.to - moment.from > 2 * TICKS && !lane.spans.some((span) => span[0] < moment.to && span[1] > moment.from))
      .map((moment) => [moment.from, moment.to])
  }
  return missed
}
