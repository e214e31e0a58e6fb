import { TICKS } from '@/player/time'

/** A moment that a side of the hand dialog offers, ticks from the clip's start. */
export interface Offer {
  ticks: number
  said: string
  isNear: boolean
}

/** So far from where the clip should be a clap is told to be near it. */
const NEAR = 90 * TICKS
const MOST = 8

/**
 * The claps of a clip to choose from: those near where the moment should be first, the nearest before the rest; then
 * the strongest of the whole file.
 *
 * @param claps the strongest first
 * @param expected ticks; null where nothing says it
 */
export function offered(claps: { ticks: number }[], expected: number | null, said: (ticks: number) => string): Offer[] {
  const far = (one: { ticks: number }): number => (expected === null ? Infinity : Math.abs(one.ticks - expected))
  const near = claps.filter((one) => far(one) <= NEAR).sort((a, b) => far(a) - far(b))
  const rest = claps.filter((one) => far(one) > NEAR)
  return [...near, ...rest]
    .slice(0, MOST)
    .map((one) => ({ ticks: one.ticks, said: said(one.ticks), isNear: far(one) <= NEAR }))
}
