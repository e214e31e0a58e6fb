import { TICKS } from '../time'
import { toSamples, type Sound } from './playlist'
import { SAMPLE_RATE } from './tape'

/** Reads samples of one channel of a recording. */
export type ReadChannel = (sound: Sound, channel: number, from: number, count: number) => Promise<Float32Array>

export interface Mixed {
  left: Float32Array
  right: Float32Array
  /** The greatest sample of each channel that was heard, by `clip/channel`. */
  peaks: Map<string, number>
}

/** Samples over which a piece comes in and goes out, so that a cut does not click: 3 ms. */
const FADE = 144

export const fromDb = (db: number): number => 10 ** (db / 20)

/** Whether the second piece goes on with the same sound where the first one ends: nothing is faded between them. */
function goesOn(before: Sound | undefined, after: Sound): boolean {
  return (
    before !== undefined &&
    before.clip === after.clip &&
    before.at + before.length === after.at &&
    before.from + before.length === after.from &&
    before.driftPpm === after.driftPpm
  )
}

/** Where in its recording a piece is at an instant of the playlist, samples; a clock that runs fast stretches it. */
function sourceSample(sound: Sound, sample: number): number {
  const from = (sound.from * SAMPLE_RATE) / TICKS
  return from + (sample - toSamples(sound.at)) / (1 + sound.driftPpm * 1e-6)
}

/** A value between samples, by the cubic through the four around it. */
function between(samples: Float32Array, at: number): number {
  const index = Math.floor(at)
  const part = at - index
  const a = samples[index - 1] ?? 0
  const b = samples[index] ?? 0
  const c = samples[index + 1] ?? 0
  const d = samples[index + 2] ?? 0
  return b + 0.5 * part * (c - a + part * (2 * a - 5 * b + 4 * c - d + part * (3 * (b - c) + d - a)))
}

/**
 * What is heard of some pieces in a stretch of the playlist: each channel at its gain, a pair of which nothing was
 * changed left and
 * right.
 *
 * @param from sample of the playlist's clock, 48 kHz
 */
export async function mix(sounds: Sound[], from: number, count: number, read: ReadChannel): Promise<Mixed> {
  const left = new Float32Array(count)
  const right = new Float32Array(count)
  const peaks = new Map<string, number>()
  const heard = sounds
    .map((sound, index) => ({ sound, before: sounds[index - 1], after: sounds[index + 1] }))
    .filter(({ sound }) => toSamples(sound.at) < from + count && toSamples(sound.at + sound.length) > from)
  await Promise.all(
    heard.flatMap(({ sound, before, after }) => {
      const begin = toSamples(sound.at)
      const end = toSamples(sound.at + sound.length)
      const start = Math.max(0, begin - from)
      const stop = Math.min(count, end - from)
      const isPair =
        sound.ear === undefined && sound.channels.length === 2 && sound.channels.every((one) => one.gainDb === 0)
      const fades = (wanted: number | undefined, isOn: boolean): number =>
        isOn && !wanted ? 0 : Math.min(Math.max(FADE, toSamples(wanted ?? 0)), (end - begin) / (wanted ? 1 : 2))
      const fadeIn = fades(sound.fadeIn, goesOn(before, sound))
      const fadeOut = fades(sound.fadeOut, after !== undefined && goesOn(sound, after))
      return sound.channels.map(async (channel, number) => {
        const first = sourceSample(sound, from + start)
        const speed = 1 / (1 + sound.driftPpm * 1e-6)
        const isPlain = sound.driftPpm === 0
        const sourceFrom = isPlain ? Math.round(first) : Math.floor(first) - 1
        const samples = await read(
          sound,
          channel.index,
          sourceFrom,
          isPlain ? stop - start : Math.ceil((stop - start) * speed) + 5,
        )
        const gain = fromDb(channel.gainDb + (sound.gainDb ?? 0))
        const toLeft = sound.ear !== 'right' && (!isPair || number === 0)
        const toRight = sound.ear !== 'left' && (!isPair || number === 1)
        let peak = 0
        for (let n = 0; n < stop - start; n++) {
          let value = gain * (isPlain ? samples[n]! : between(samples, first - sourceFrom + n * speed))
          const intoPiece = from + start + n - begin
          const beforeEnd = end - 1 - (from + start + n)
          if (intoPiece < fadeIn) value *= (intoPiece + 1) / (fadeIn + 1)
          if (beforeEnd < fadeOut) value *= (beforeEnd + 1) / (fadeOut + 1)
          if (toLeft) left[start + n]! += value
          if (toRight) right[start + n]! += value
          const size = Math.abs(value)
          if (size > peak) peak = size
        }
        peaks.set(`${sound.clip}/${channel.index}`, peak)
      })
    }),
  )
  return { left, right, peaks }
}

export function reversed(samples: Float32Array): Float32Array {
  return samples.slice().reverse()
}

/** So many samples out of those given, evenly: faster and higher. */
export function squeezed(samples: Float32Array, count: number): Float32Array {
  const out = new Float32Array(count)
  const step = samples.length / count
  for (let n = 0; n < count; n++) out[n] = between(samples, n * step)
  return out
}
