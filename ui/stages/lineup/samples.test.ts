import { describe, expect, it } from 'vitest'
import { difference, readStereo } from './samples'

describe('samples for eye and ear', () => {
  it('are read from behind whatever chunks a file begins with', () => {
    const bytes = new ArrayBuffer(12 + 8 + 4 + 8 + 8)
    const view = new DataView(bytes)
    view.setUint32(12, 0x4c495354, false) // LIST
    view.setUint32(16, 4, true)
    view.setUint32(24, 0x64617461, false) // data
    view.setUint32(28, 8, true)
    ;[16384, -16384, 8192, 0].forEach((value, n) => view.setInt16(32 + 2 * n, value, true))
    expect(readStereo(bytes)).toEqual({ left: new Float32Array([0.5, 0.25]), right: new Float32Array([-0.5, 0]) })
  })

  it('leave nothing of what is the same at another level, and all of what is not', () => {
    const left = new Float32Array([0.1, -0.2, 0.3, 0.05])
    expect(
      Math.max(
        ...difference(
          left,
          left.map((value) => 3 * value),
        ).map(Math.abs),
      ),
    ).toBeLessThan(1e-6)
    expect(difference(new Float32Array([0, 0]), new Float32Array([0.5, -0.5]))).toEqual(new Float32Array([-0.5, 0.5]))
  })
})
