import { fetchBytes } from '@/api/client'
import { TICKS } from '@/player/time'

/** Two clips' sound at one moment, 48 kHz, -1 to 1; silence where one of them does not run. */
export interface Pair {
  left: Float32Array
  right: Float32Array
  fromTicks: number
  apartTicks: number
}

export const SAMPLE_RATE = 48_000

export const TICKS_PER_SAMPLE = TICKS / SAMPLE_RATE

const KEPT = 12
const kept = new Map<string, Promise<Pair | null>>()

/**
 * @param fromTicks of the clip's own time; may lie before its start
 * @param apartTicks where the clip begins in the other one
 */
export function loadPair(
  production: string,
  clip: string,
  against: string,
  fromTicks: number,
  apartTicks: number,
  seconds: number,
): Promise<Pair | null> {
  const from = Math.round(fromTicks)
  const apart = Math.round(apartTicks)
  const asked = `against=${against}&from_ticks=${from}&apart_ticks=${apart}&seconds=${seconds}`
  const address = `/api/productions/${production}/clips/${clip}/pair?${asked}`
  let pair = kept.get(address)
  if (pair === undefined) {
    pair = fetchBytes(address)
      .then((bytes) => (bytes === null ? null : { ...readStereo(bytes), fromTicks: from, apartTicks: apart }))
      .catch(() => null)
    kept.set(address, pair)
    for (const oldest of kept.keys()) {
      if (kept.size <= KEPT) break
      kept.delete(oldest)
    }
    void pair.then((answer) => {
      if (answer === null) kept.delete(address)
    })
  }
  return pair
}

/** The samples of a stereo WAV of 16 bits, whatever chunks stand before them. */
export function readStereo(bytes: ArrayBuffer): { left: Float32Array; right: Float32Array } {
  const view = new DataView(bytes)
  let at = 12
  while (at + 8 <= view.byteLength && view.getUint32(at, false) !== 0x64617461) at += 8 + view.getUint32(at + 4, true)
  const from = at + 8
  const count = Math.max(0, Math.floor((view.byteLength - from) / 4))
  const left = new Float32Array(count)
  const right = new Float32Array(count)
  for (let sample = 0; sample < count; sample++) {
    left[sample] = view.getInt16(from + 4 * sample, true) / 32768
    right[sample] = view.getInt16(from + 4 * sample + 2, true) / 32768
  }
  return { left, right }
}

/** One side less the other at its best level: what is left is what the two do not have in common. */
export function difference(left: Float32Array, right: Float32Array): Float32Array {
  let both = 0
  let own = 0
  for (let i = 0; i < left.length; i++) {
    both += left[i]! * right[i]!
    own += left[i]! * left[i]!
  }
  const gain = own > 0 ? both / own : 0
  return left.map((value, i) => value * gain - right[i]!)
}
