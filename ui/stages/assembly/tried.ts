import type { Instead, Rate } from '@/api/types'
import { fromAnswer, type Playlist } from '@/player/engine/playlist'
import { ticksPerFrame } from '@/player/time'

/** Something that is tried in the place of a piece, ticks of the cut; nothing of it is written. */
export interface Trial {
  index: number
  one: Instead
  from: number
  to: number
}

/** How much later what follows comes: another take may be longer, or shorter. */
export const movesBy = (now: Trial, rate: Rate): number => {
  const frame = ticksPerFrame(rate)
  return Math.round((now.one.out_ticks - now.one.in_ticks - now.to + now.from) / frame) * frame + 0
}

/** In the place of what lies between two instants something else is shown and heard. */
export function tried(list: Playlist, now: Trial | null, rate: Rate): Playlist {
  if (now === null) return list
  const by = movesBy(now, rate)
  const out = <P extends { at: number; length: number; from: number }>(pieces: P[]): P[] =>
    pieces.flatMap((one) => {
      const end = one.at + one.length
      if (end <= now.from) return [one]
      if (one.at >= now.to) return [{ ...one, at: one.at + by }]
      const left = one.at < now.from ? [{ ...one, length: now.from - one.at }] : []
      const right =
        end > now.to ? [{ ...one, at: now.to + by, length: end - now.to, from: one.from + now.to - one.at }] : []
      return [...left, ...right]
    })
  const other = fromAnswer({
    ...{ sequence: null, step: 0, name: '', rate, start_ticks: 0, duration_ticks: 0 },
    pictures: [now.one.picture],
    sounds: now.one.sounds,
    own_sounds: [],
    beside_sounds: [],
    recordings: [],
  })
  const later = <P extends { at: number }>(one: P): P => ({ ...one, at: one.at + now.from })
  const isSoundLeft = now.one.sounds.length === 0 && by === 0
  const sounds = isSoundLeft ? list.sounds : [...out(list.sounds), ...other.sounds.map(later)]
  return {
    ...list,
    length: list.length + by,
    pictures: [...out(list.pictures), ...other.pictures.map(later)].sort((a, b) => a.at - b.at),
    sounds: sounds.sort((a, b) => a.at - b.at),
  }
}
