import { fetchBytes } from '@/api/client'

/** Peaks of one clip: for each level the count of buckets and where they begin; values of 16 bits. */
export interface Peaks {
  channels: number
  bucketSamples: number
  sampleRate: number
  samples: number
  levels: { count: number; offset: number }[]
  view: DataView
}

/** Reads the file that the core writes: `CPK1`, then counts and levels, little-endian; see docs/formats.md. */
export function readPeaks(buffer: ArrayBuffer): Peaks | null {
  const view = new DataView(buffer)
  if (buffer.byteLength < 24 || view.getUint32(0, false) !== 0x43504b31) return null
  const channels = view.getUint16(4, true)
  const count = view.getUint16(6, true)
  const levels: Peaks['levels'] = []
  let offset = 24 + 4 * count
  for (let level = 0; level < count; level++) {
    const buckets = view.getUint32(24 + 4 * level, true)
    levels.push({ count: buckets, offset })
    offset += buckets * channels * 6
  }
  return {
    channels,
    bucketSamples: view.getUint32(8, true),
    sampleRate: view.getUint32(12, true),
    samples: Number(view.getBigUint64(16, true)),
    levels,
    view,
  }
}

/**
 * Loudness for drawing: the greatest peak over all channels, 0 to 1, one a column.
 *
 * @param from seconds from the clip's start
 * @param to seconds, exclusive
 */
export function columns(peaks: Peaks, from: number, to: number, count: number): Float32Array {
  const out = new Float32Array(count)
  if (peaks.levels.length === 0 || to <= from) return out
  const perColumn = ((to - from) * peaks.sampleRate) / count
  let level = 0
  while (level + 1 < peaks.levels.length && peaks.bucketSamples * 2 ** (level + 1) <= perColumn) level++
  const { count: buckets, offset } = peaks.levels[level]!
  const size = peaks.bucketSamples * 2 ** level
  for (let column = 0; column < count; column++) {
    const first = Math.floor((from * peaks.sampleRate + column * perColumn) / size)
    const end = Math.max(first + 1, Math.floor((from * peaks.sampleRate + (column + 1) * perColumn) / size))
    let most = 0
    for (let bucket = Math.max(0, first); bucket < Math.min(buckets, end); bucket++) {
      for (let channel = 0; channel < peaks.channels; channel++) {
        const at = offset + (bucket * peaks.channels + channel) * 6
        most = Math.max(most, -peaks.view.getInt16(at, true), peaks.view.getInt16(at + 2, true))
      }
    }
    out[column] = most / 32768
  }
  return out
}

const kept = new Map<string, Promise<Peaks | null>>()

export function loadPeaks(address: string): Promise<Peaks | null> {
  let answer = kept.get(address)
  if (answer === undefined) {
    answer = fetchBytes(address)
      .then((buffer) => (buffer === null ? null : readPeaks(buffer)))
      .catch(() => null)
    kept.set(address, answer)
    if (kept.size > 300) kept.delete(kept.keys().next().value as string)
  }
  return answer
}
