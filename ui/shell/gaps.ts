import type { DaySheet } from '@/api/types'
import { TICKS } from '@/player/time'

/**
 * Stretches in which at least one other device rolled for two seconds and this one did not at all; ticks, by device.
 * A wild track, a MOS take and a false start are meant to be alone.
 */
export function gaps(lanes: DaySheet['rolled']): Record<string, [number, number][]> {
  const moments = lanes
    .flatMap((lane) => lane.spans.map((span) => ({ from: span[0], to: span[1], alone: span[4] })))
    .sort((a, b) => a.from - b.from)
  // What overlaps is one moment of the day.
  const merged: { from: number; to: number; alone: boolean }[] = []
  for (const moment of moments) {
    const last = merged.at(-1)
    if (last !== undefined && moment.from < last.to)
      Object.assign(last, { to: Math.max(last.to, moment.to), alone: last.alone || moment.alone })
    else merged.push({ ...moment })
  }
  const missed: Record<string, [number, number][]> = {}
  for (const lane of lanes) {
    missed[lane.device] = merged
      .filter(
        (moment) =>
          !moment.alone &&
          moment.to - moment.from > 2 * TICKS &&
          !lane.spans.some((span) => span[0] < moment.to && span[1] > moment.from),
      )
      .map((moment) => [moment.from, moment.to])
  }
  return missed
}
