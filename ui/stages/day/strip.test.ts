import { describe, expect, it } from 'vitest'
import { TICKS } from '@/player/time'
import { gaps } from '@/shell/gaps'
import { hours } from './strip'

const lane = (device: string, ...spans: [number, number, boolean?][]) => ({
  device,
  kind: 'camera',
  spans: spans.map(
    ([from, to, alone]) =>
      [from * TICKS, to * TICKS, 'clip', null, alone ?? false] as [number, number, string, string | null, boolean],
  ),
})

describe('who rolled when', () => {
  it('boxes a moment that one device missed and the others did not', () => {
    const missed = gaps([lane('A', [0, 10], [60, 70]), lane('S', [1, 11])])
    expect(missed).toEqual({ A: [], S: [[60 * TICKS, 70 * TICKS]] })
  })

  it('boxes nothing where one was meant to be alone, or for a blink', () => {
    expect(gaps([lane('A', [0, 10, true], [60, 61]), lane('S')])).toEqual({ A: [], S: [] })
  })

  it('labels round moments, about ten of them', () => {
    const marks = hours(8.9 * 3600 * TICKS, 17.1 * 3600 * TICKS)
    expect(marks.length).toBeGreaterThan(4)
    expect(marks.length).toBeLessThanOrEqual(10)
    marks.forEach((mark) => expect(mark % (1800 * TICKS)).toBe(0))
  })
})
