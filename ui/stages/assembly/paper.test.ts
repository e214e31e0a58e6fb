import { expect, it } from 'vitest'
import { TICKS } from '@/player/time'
import { following, ruled, snapped, toTicks, toX, within, zoomed } from './paper'

const FRAME = TICKS / 25

it('keeps what lies under the pointer there while it comes closer', () => {
  const view = { left: 3 * TICKS, perPixel: TICKS / 50 }
  const at = toTicks(view, 240)
  expect(toX(zoomed(view, 0.5, 240), at)).toBeCloseTo(240)
})

it('comes no closer than frames can be told, and goes no farther than the whole', () => {
  expect(within({ left: 0, perPixel: 1 }, 100 * TICKS, 1000, FRAME).perPixel).toBe(FRAME / 40)
  expect(within({ left: 0, perPixel: 1e12 }, 100 * TICKS, 1000, FRAME).perPixel).toBeCloseTo((115 * TICKS) / 1000)
  expect(within({ left: 1e15, perPixel: TICKS / 100 }, 100 * TICKS, 1000, FRAME).left).toBe(95 * TICKS)
})

it('follows an instant only when it leaves the paper', () => {
  const view = { left: 0, perPixel: TICKS / 100 }
  expect(following(view, 5 * TICKS, 1000)).toBe(view)
  expect(following(view, 12 * TICKS, 1000).left).toBe(11 * TICKS)
})

it('rules the paper in steps that can be read', () => {
  expect(ruled({ left: 0, perPixel: TICKS / 100 }, FRAME).step).toBe(2 * TICKS)
  expect(ruled({ left: 7 * TICKS, perPixel: FRAME / 40 }, FRAME)).toEqual({ step: 5 * FRAME, from: 7 * TICKS })
})

it('leads to the nearest place that is near, and says why', () => {
  const places = [
    { ticks: 100, why: 'cut' },
    { ticks: 108, why: 'playhead' },
  ]
  expect(snapped(105, places, 6)).toEqual({ ticks: 108, why: 'playhead' })
  expect(snapped(120, places, 6)).toEqual({ ticks: 120, why: null })
})
