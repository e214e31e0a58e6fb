import { beforeEach, describe, expect, it, vi } from 'vitest'
import { PeakFile } from './peaks'

let bytes = new ArrayBuffer(0)
const asked: [number, number][] = []
vi.mock('@/api/client', () => ({
  fetchRange: async (_address: string, from: number, to: number) => {
    asked.push([from, to])
    return from < bytes.byteLength ? bytes.slice(from, to) : null
  },
}))

/** Buckets of 256 samples at 256 Hz: bucket n of level 0 is second n; each channel holds what `at` says. */
function file(seconds: number, channels: number, at: (second: number, channel: number) => number): ArrayBuffer {
  const levels: number[][][] = [
    Array.from({ length: seconds }, (_, n) => Array.from({ length: channels }, (_, channel) => at(n, channel + 1))),
  ]
  while (levels.at(-1)!.length > 1) {
    const below = levels.at(-1)!
    levels.push(
      Array.from({ length: Math.ceil(below.length / 2) }, (_, n) =>
        below[2 * n]!.map((one, channel) => Math.max(one, below[2 * n + 1]?.[channel] ?? 0)),
      ),
    )
  }
  const values = levels.reduce((sum, level) => sum + level.length * channels, 0)
  const buffer = new ArrayBuffer(24 + 4 * levels.length + 6 * values)
  const view = new DataView(buffer)
  view.setUint32(0, 0x43504b31)
  view.setUint16(4, channels, true)
  view.setUint16(6, levels.length, true)
  view.setUint32(8, 256, true)
  view.setUint32(12, 256, true)
  view.setBigUint64(16, BigInt(256 * seconds), true)
  levels.forEach((level, n) => view.setUint32(24 + 4 * n, level.length, true))
  let place = 24 + 4 * levels.length
  for (const level of levels)
    for (const bucket of level)
      for (const high of bucket) {
        view.setInt16(place, -high, true)
        view.setInt16(place + 2, high, true)
        place += 6
      }
  return buffer
}

let number = 0
const opened = async () => {
  const peaks = new PeakFile(`peaks ${number++}`)
  await vi.waitFor(() => expect(peaks.isThere).not.toBeNull())
  return peaks
}
const rounded = (values: Float32Array | null) => [...(values ?? [])].map((one) => Math.round(one * 2))

describe('peaks', () => {
  beforeEach(() => (asked.length = 0))

  it('draw the loudest of each column at any magnification', async () => {
    const highs = [0, 16384, 0, 0, 32767, 0, 0, 0]
    bytes = file(8, 1, (second) => highs[second]!)
    const peaks = await opened()
    expect(rounded(peaks.columns(0, 8, 8))).toEqual([0, 1, 0, 0, 2, 0, 0, 0])
    expect(rounded(peaks.columns(0, 8, 2))).toEqual([1, 2])
    expect(rounded(peaks.columns(4, 5, 3))).toEqual([2, 2, 2])
    expect(asked).toHaveLength(1)
  })

  it('draw one channel by itself', async () => {
    bytes = file(4, 3, (second, channel) => (second === channel ? 32767 : 0))
    const peaks = await opened()
    expect(rounded(peaks.columns(0, 4, 4))).toEqual([0, 2, 2, 2])
    expect(rounded(peaks.columns(0, 4, 4, 2))).toEqual([0, 0, 2, 0])
  })

  it('fetch of ten hours of eight channels what is drawn, and no more', async () => {
    bytes = file(36_000, 8, (second) => (second === 30_000 ? 32767 : 0))
    const peaks = await opened()
    expect(peaks.columns(0, 36_000, 400)).toBeNull()
    await vi.waitFor(() => expect(peaks.columns(0, 36_000, 400)).not.toBeNull())
    expect(rounded(peaks.columns(0, 36_000, 400)).findIndex((one) => one === 2)).toBe(333)
    expect(rounded(peaks.columns(29_999, 30_003, 4))).toEqual([2, 2, 2, 2])
    await vi.waitFor(() => expect(rounded(peaks.columns(29_999, 30_003, 4))).toEqual([0, 2, 0, 0]))
    expect(asked.reduce((sum, [from, to]) => sum + to - from, 0)).toBeLessThan(bytes.byteLength / 4)
  })

  it('are asked for once while they are on their way, however often somebody draws', async () => {
    bytes = file(36_000, 8, () => 1)
    const peaks = await opened()
    asked.length = 0
    const version = peaks.version.value
    for (let n = 0; n < 50; n++) peaks.columns(20_000, 20_010, 10)
    expect(peaks.version.value).toBe(version)
    await vi.waitFor(() => expect(peaks.version.value).toBeGreaterThan(version))
    expect(asked).toHaveLength(1)
    expect(peaks.version.value).toBe(version + 1)
  })

  it('are none where there is no such file', async () => {
    bytes = new ArrayBuffer(64)
    const peaks = await opened()
    expect([peaks.isThere, peaks.columns(0, 1, 4)]).toEqual([false, null])
  })
})
