/**
 * Changes how long sound lasts and keeps its pitch: overlapping windows are laid nearer together or farther apart,
 * each moved a little
 * to where it fits best on what lies there already (waveform similarity overlap-add). Streams of any length go through
 * it in pieces;
 * both ears take the same windows, so that they stay together.
 */
export class Stretcher {
  /** Samples of a window (30 ms), of half of one, and by how many a window is moved at most. */
  private static readonly WINDOW = 1440
  private static readonly HALF = 720
  private static readonly REACH = 480
  private static readonly EVERY = 8

  private left = new Float32Array(0)
  private right = new Float32Array(0)
  /** Where the next window would begin in what is kept, before it is moved. */
  private at = 0
  private tailLeft = new Float32Array(Stretcher.HALF)
  private tailRight = new Float32Array(Stretcher.HALF)
  private isFirst = true

  /** @param speed times normal, above zero: 2 gives half as many samples */
  constructor(private readonly speed: number) {}

  /** @returns what is ready now; the rest comes with the next piece */
  push(left: Float32Array, right: Float32Array): { left: Float32Array; right: Float32Array } {
    this.left = joined(this.left, left)
    this.right = joined(this.right, right)
    const { WINDOW, HALF, REACH } = Stretcher
    const outLeft: Float32Array[] = []
    const outRight: Float32Array[] = []
    while (this.at + REACH + WINDOW <= this.left.length) {
      const from = this.isFirst ? Math.round(this.at) : this.best(Math.round(this.at))
      this.isFirst = false
      outLeft.push(lay(this.tailLeft, this.left, from))
      outRight.push(lay(this.tailRight, this.right, from))
      this.tailLeft = this.left.slice(from + HALF, from + WINDOW)
      this.tailRight = this.right.slice(from + HALF, from + WINDOW)
      this.at += HALF * this.speed
    }
    const gone = Math.max(0, Math.min(this.left.length, Math.floor(this.at) - REACH))
    this.left = this.left.slice(gone)
    this.right = this.right.slice(gone)
    this.at -= gone
    return { left: all(outLeft), right: all(outRight) }
  }

  /** The place near the one asked for whose window goes on best with the tail of the one before. */
  private best(near: number): number {
    const { REACH, HALF, EVERY } = Stretcher
    let most = -Infinity
    let found = near
    for (let from = Math.max(0, near - REACH); from <= near + REACH; from += EVERY) {
      let alike = 0
      let power = 1e-9
      for (let n = 0; n < HALF; n += EVERY) {
        const a = this.left[from + n]! + this.right[from + n]!
        alike += a * (this.tailLeft[n]! + this.tailRight[n]!)
        power += a * a
      }
      const score = alike / Math.sqrt(power)
      if (score > most) {
        most = score
        found = from
      }
    }
    return found
  }
}

/** Half a window: the tail before goes out while the new one comes in. */
function lay(tail: Float32Array, samples: Float32Array, from: number): Float32Array {
  const out = new Float32Array(tail.length)
  for (let n = 0; n < tail.length; n++) {
    const part = (n + 0.5) / tail.length
    out[n] = tail[n]! * (1 - part) + samples[from + n]! * part
  }
  return out
}

function joined(first: Float32Array, second: Float32Array): Float32Array<ArrayBuffer> {
  const out = new Float32Array(first.length + second.length)
  out.set(first)
  out.set(second, first.length)
  return out
}

function all(parts: Float32Array[]): Float32Array {
  const out = new Float32Array(parts.reduce((sum, part) => sum + part.length, 0))
  let at = 0
  for (const part of parts) {
    out.set(part, at)
    at += part.length
  }
  return out
}
