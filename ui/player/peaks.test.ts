import { describe, expect, it } from 'vitest'
import { columns, readPeaks } from './peaks'

/** One channel at 256 Hz: bucket n of level 0 is second n. */
function file(highs: number[]): ArrayBuffer {
  const levels: number[][] = [highs]
  while (levels.at(-1)!.length > 1) {
    const below = levels.at(-1)!
    levels.push(
      Array.from({ length: Math.ceil(below.length / 2) }, (_, n) => Math.max(below[2 * n]!, below[2 * n + 1] ?? 0)),
    )
  }
  const buffer = new ArrayBuffer(24 + 4 * levels.length + 6 * levels.reduce((sum, level) => sum + level.length, 0))
  const view = new DataView(buffer)
  view.setUint32(0, 0x43504b31)
  view.setUint16(4, 1, true)
  view.setUint16(6, levels.length, true)
  view.setUint32(8, 256, true)
  view.setUint32(12, 256, true)
  view.setBigUint64(16, BigInt(256 * highs.length), true)
  levels.forEach((level, n) => view.setUint32(24 + 4 * n, level.length, true))
  let at = 24 + 4 * levels.length
  for (const level of levels)
    for (const high of level) {
      view.setInt16(at, -high, true)
      view.setInt16(at + 2, high, true)
      at += 6
    }
  return buffer
}

describe('peaks', () => {
  it('draws the loudest of each column at any magnification', () => {
    const peaks = readPeaks(file([0, 16384, 0, 0, 32767, 0, 0, 0]))!
    expect([...columns(peaks, 0, 8, 8)].map((one) => Math.round(one * 2))).toEqual([0, 1, 0, 0, 2, 0, 0, 0])
    expect([...columns(peaks, 0, 8, 2)].map((one) => Math.round(one * 2))).toEqual([1, 2])
    expect([...columns(peaks, 4, 5, 3)].map((one) => Math.round(one * 2))).toEqual([2, 2, 2])
  })

  it('refuses what is no such file', () => {
    expect(readPeaks(new ArrayBuffer(3))).toBeNull()
    expect(readPeaks(new ArrayBuffer(64))).toBeNull()
  })
})
