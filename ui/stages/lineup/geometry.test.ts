import { describe, expect, it } from 'vitest'
import { TICKS } from '@/player/time'
import { clusters, fitted, offsetText, ruler, within, xOf, zoomed } from './geometry'

const rate = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
const span = (from: number, to: number) => ({ from: from * TICKS, to: to * TICKS })

describe('the folded map', () => {
  it('folds hours of nothing away and keeps what ran together to scale', () => {
    const map = clusters([span(0, 10), span(2, 12), span(3600, 3610)])
    expect(map.spans).toEqual([span(0, 12), span(3600, 3610)])
    expect(map.pos(12 * TICKS) - map.pos(0)).toBe(12 * TICKS)
    expect(map.pos(3600 * TICKS) - map.pos(12 * TICKS)).toBe(3 * TICKS)
  })

  it('is in the order of time everywhere, and an instant is found again where it lies', () => {
    const map = clusters([span(100, 130), span(500, 520), span(9000, 9001)])
    const moments = [90, 100, 115, 130, 300, 500, 520, 9000, 9001].map((second) => map.pos(second * TICKS))
    expect([...moments].sort((a, b) => a - b)).toEqual(moments)
    for (const second of [100, 115, 130, 500, 519, 9001])
      expect(map.ticksAt(map.pos(second * TICKS))).toBe(second * TICKS)
    expect(map.ticksAt(-TICKS)).toBe(100 * TICKS)
  })

  it('never lets two labels of the ruler touch, from the whole day to single samples', () => {
    const map = clusters([span(0, 240), span(1000, 1004), span(2000, 2004)])
    for (const perPixel of [map.length / 900, TICKS / 100, TICKS / 48_000]) {
      const marks = ruler(map, within(map, { left: map.pos(60 * TICKS), perPixel, width: 900 }))
      expect(marks.length).toBeGreaterThan(2)
      marks.slice(1).forEach((mark, n) => expect(mark.x - marks[n]!.x).toBeGreaterThanOrEqual(78))
    }
  })
})

describe('the view', () => {
  const map = clusters([span(0, 100)])

  it('shows the whole map at the furthest and a sample at the closest, and never what is beside the map', () => {
    const far = within(map, { left: -5, perPixel: 1e12, width: 1000 })
    expect([far.left, far.perPixel * 1000]).toEqual([0, map.length])
    expect(within(map, { left: 9e15, perPixel: 0, width: 1000 }).perPixel).toBeLessThan(TICKS / 48_000)
    const end = within(map, { left: 9e15, perPixel: TICKS / 100, width: 1000 })
    expect(end.left + 1000 * end.perPixel).toBe(map.length)
  })

  it('keeps what is under the pointer there when it goes closer', () => {
    const before = within(map, { left: 20 * TICKS, perPixel: TICKS / 50, width: 1000 })
    const under = map.ticksAt(before.left + 300 * before.perPixel)
    expect(xOf(map, zoomed(map, before, 3, 300), under)).toBeCloseTo(300, 6)
  })

  it('fits a take with a little room beside it', () => {
    const view = fitted(map, 500, span(40, 50))
    expect(xOf(map, view, 40 * TICKS)).toBeGreaterThan(5)
    expect(xOf(map, view, 50 * TICKS)).toBeLessThan(495)
  })
})

describe('how far a clock is off', () => {
  it('is said in seconds and frames', () => {
    expect(offsetText((32 / 25) * TICKS, rate)).toBe('1 s 7 f late')
    expect(offsetText((-3 / 25) * TICKS, rate)).toBe('3 f early')
    expect(offsetText(TICKS / 60, rate)).toBe('')
    expect(offsetText(36_000 * TICKS, rate)).toBe('clock not set')
    expect(offsetText(null, rate)).toBe('')
  })
})
