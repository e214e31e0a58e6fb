import { expect, it } from 'vitest'
import { soundAround } from './quiet'

const RATE = 8000
/** Hiss all along, and tones from one second to another. */
function sound(seconds: number, ...tones: [from: number, to: number][]): Float32Array {
  let seed = 7
  const noise = () => ((seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5) * 0.004
  return Float32Array.from({ length: seconds * RATE }, (_, n) => {
    const at = n / RATE
    return noise() + (tones.some(([from, to]) => at >= from && at < to) ? 0.2 * Math.sin(2 * Math.PI * 300 * at) : 0)
  })
}
const around = (samples: Float32Array, at: number) => {
  const found = soundAround(samples, RATE, at * RATE)
  return found && [found.from / RATE, found.to / RATE]
}

it('goes from quiet to quiet around the place, a breath left at both ends', () => {
  const [from, to] = around(sound(6, [1, 2], [4, 5]), 4.5)!
  expect(from).toBeGreaterThan(3.95)
  expect(from).toBeLessThan(4)
  expect(to).toBeGreaterThan(5)
  expect(to).toBeLessThan(5.05)
})

it('keeps short pauses within speech and leaves an um before a longer one out', () => {
  const samples = sound(6, [1, 1.3], [2, 2.4], [2.5, 3])
  expect(around(samples, 2.2)![0]).toBeGreaterThan(1.9)
  expect(around(samples, 2.2)![1]).toBeGreaterThan(3)
  expect(around(samples, 1.1)![1]).toBeLessThan(1.4)
})

it('takes what comes next where the place is quiet, and at the end what was before', () => {
  const samples = sound(6, [1, 2], [4, 5])
  expect(around(samples, 3)![0]).toBeGreaterThan(3.9)
  expect(around(samples, 5.8)![0]).toBeGreaterThan(3.9)
})

it('finds nothing in silence', () => {
  expect(soundAround(new Float32Array(RATE), RATE, 100)).toBeNull()
  expect(soundAround(new Float32Array(0), RATE, 0)).toBeNull()
})
