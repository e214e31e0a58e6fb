import type { ClipLook, Playlist as PlaylistAnswer, Rate } from '@/api/answers'
import type { PlayableClip } from '@/api/types'
import { TICKS, ticksPerFrame } from '../time'

/** A stretch of picture. Ticks: `at` on the playlist's clock, `from` in the clip's own media. */
export interface Picture {
  clip: string
  at: number
  length: number
  from: number
  rate: Rate
  /** Of the clip's whole media. */
  frames: number
  /** The clip's own timecode at its first frame; null where it has none. */
  start: number | null
  version: string
  look: ClipLook | null
  name: string
  take: string | null
}

/** Which channel of a recording is heard, and how loud. */
export interface Heard {
  index: number
  gainDb: number
}

/** A stretch of sound; ticks as of {@link Picture}. */
export interface Sound {
  clip: string
  at: number
  length: number
  from: number
  channels: Heard[]
  /** By which the picture's clock is faster than the recording's; taken out as it plays. */
  driftPpm: number
  /** Over which it comes in and goes out, ticks; as short as does not click where nobody said. */
  fadeIn?: number
  fadeOut?: number
  /** Of a cut: on which of its tracks it lies. */
  track?: number | null
  /** Of all its channels together, beside their own. */
  gainDb?: number
  version: string
  /** On one ear only, whatever its channels are; two recordings are compared so. */
  ear?: 'left' | 'right'
}

export interface Recording {
  clip: string
  name: string
  kind: 'picture' | 'sound'
  channels: { index: number; name: string }[]
}

/** What plays when, on one clock that begins at 0. */
export interface Playlist {
  rate: Rate
  /** Of the first frame, since midnight. */
  start: number
  length: number
  pictures: Picture[]
  sounds: Sound[]
  /** The pictures' own sound, all along. */
  own: Sound[]
  /** Recordings that ran too and are not heard of themselves, such as a second recorder's. */
  beside: Sound[]
  recordings: Recording[]
}

export const EMPTY: Playlist = {
  rate: { num: 25, den: 1, nominal: 25, drop: false, name: '25' },
  start: 0,
  length: 0,
  pictures: [],
  sounds: [],
  own: [],
  beside: [],
  recordings: [],
}

const soundOf = (one: PlaylistAnswer['sounds'][number]): Sound => ({
  clip: one.clip,
  at: one.at_ticks,
  length: one.duration_ticks,
  from: one.in_ticks,
  channels: one.channels.map((channel) => ({ index: channel.index, gainDb: channel.gain_db })),
  driftPpm: one.drift_ppm,
  fadeIn: one.fade_in_ticks,
  fadeOut: one.fade_out_ticks,
  track: one.track,
  gainDb: one.gain_db,
  version: one.media_version,
})

const framesOf = (ticks: number, rate: Rate): number => Math.max(1, Math.floor(ticks / ticksPerFrame(rate)))

export function fromAnswer(answer: PlaylistAnswer): Playlist {
  return {
    rate: answer.rate,
    start: answer.start_ticks,
    length: answer.duration_ticks,
    pictures: answer.pictures.map((one) => ({
      clip: one.clip,
      at: one.at_ticks,
      length: one.duration_ticks,
      from: one.in_ticks,
      rate: one.rate,
      frames: one.frames ?? framesOf(one.clip_ticks, one.rate),
      start: one.start_ticks,
      version: one.media_version,
      look: one.look,
      name: one.name,
      take: one.take,
    })),
    sounds: answer.sounds.map(soundOf),
    own: answer.own_sounds.map(soundOf),
    beside: answer.beside_sounds.map(soundOf),
    recordings: answer.recordings,
  }
}

/** What is known of a clip before the server has said what is heard under it: its pictures can be shown at once. */
export function ofClip(clip: PlayableClip): Playlist {
  const length = clip.duration_ticks ?? (clip.frames === null ? 0 : clip.frames * ticksPerFrame(clip.rate))
  return {
    ...EMPTY,
    rate: clip.rate,
    start: clip.start_ticks ?? 0,
    length,
    pictures:
      clip.kind !== 'picture' || length === 0
        ? []
        : [
            {
              clip: clip.ulid,
              at: 0,
              length,
              from: 0,
              rate: clip.rate,
              frames: clip.frames ?? framesOf(length, clip.rate),
              start: clip.start_ticks,
              version: clip.media_version,
              look: clip.look ?? null,
              name: '',
              take: null,
            },
          ],
  }
}

/** The piece that plays at an instant, null in a gap; by halves, since a cut has thousands. */
export function pieceAt<Piece extends { at: number; length: number }>(pieces: Piece[], ticks: number): Piece | null {
  const index = indexAt(pieces, ticks)
  const piece = pieces[index]
  return piece !== undefined && ticks >= piece.at && ticks < piece.at + piece.length ? piece : null
}

/** The last piece that begins at an instant or before; -1 before the first. */
export function indexAt(pieces: { at: number }[], ticks: number): number {
  let low = 0
  let high = pieces.length - 1
  let found = -1
  while (low <= high) {
    const middle = (low + high) >> 1
    if (pieces[middle]!.at <= ticks) {
      found = middle
      low = middle + 1
    } else high = middle - 1
  }
  return found
}

/** The frame of a clip's media that a piece shows at an instant of the playlist. */
export function frameAt(piece: Picture, ticks: number): number {
  const frame = Math.floor((ticks - piece.at + piece.from) / ticksPerFrame(piece.rate))
  return Math.min(Math.max(frame, 0), piece.frames - 1)
}

/** When a piece begins to show a frame of its clip; never before the piece begins. */
export function ticksOfFrame(piece: Picture, frame: number): number {
  return Math.max(piece.at, frame * ticksPerFrame(piece.rate) - piece.from + piece.at)
}

const lastTicks = (piece: Picture): number => {
  const frame = frameAt(piece, piece.at + piece.length - 1)
  return ticksOfFrame(piece, frame)
}

/**
 * Where so many frames later or earlier is: through pieces of any rate and over the cuts between them, so that no
 * frame is shown
 * twice or left out. Without pictures frames are the playlist's own.
 */
export function stepFrames(playlist: Playlist, ticks: number, count: number): number {
  const { pictures } = playlist
  if (pictures.length === 0) {
    const frame = ticksPerFrame(playlist.rate)
    return clamp((Math.floor(ticks / frame + 1e-6) + count) * frame, 0, Math.max(0, playlist.length - 1))
  }
  let index = Math.max(0, indexAt(pictures, ticks))
  let piece = pictures[index]!
  if (ticks >= piece.at + piece.length) {
    // In a gap a step leads to the next picture or the one before.
    if (count === 0) return ticks
    if (count > 0 && index + 1 < pictures.length) {
      piece = pictures[++index]!
      ticks = piece.at
      count--
    } else {
      ticks = lastTicks(piece)
      count = count > 0 ? 0 : count + 1
    }
  }
  for (;;) {
    const first = frameAt(piece, piece.at)
    const last = frameAt(piece, piece.at + piece.length - 1)
    const wanted = frameAt(piece, ticks) + count
    if (wanted >= first && wanted <= last) return ticksOfFrame(piece, wanted)
    const next = pictures[index + Math.sign(count)]
    if (next === undefined) return ticksOfFrame(piece, wanted < first ? first : last)
    count = wanted < first ? wanted - first + 1 : wanted - last - 1
    index += wanted < first ? -1 : 1
    piece = next
    ticks = wanted < first ? lastTicks(next) : next.at
  }
}

/** The start of the frame that is seen at an instant. */
export function toFrameStart(playlist: Playlist, ticks: number): number {
  const piece = pieceAt(playlist.pictures, ticks)
  return piece === null ? ticks : ticksOfFrame(piece, frameAt(piece, ticks))
}

export function clamp(value: number, low: number, high: number): number {
  return Math.min(Math.max(value, low), high)
}

/** Samples at 48 kHz of a length, rounded. */
export function toSamples(ticks: number): number {
  return Math.round((ticks * 48_000) / TICKS)
}
