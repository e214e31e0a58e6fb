import { describe, expect, it } from 'vitest'
import { TICKS } from '@/player/time'
import { clusters, offsetText, ruler } from './geometry'

const rate = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
const span = (from: number, to: number) => ({ from: from * TICKS, to: to * TICKS })

describe('the folded map', () => {
  it('folds hours of nothing away and keeps what ran together to scale', () => {
    const map = clusters([span(0, 10), span(2, 12), span(3600, 3610)])
    expect(map.spans).toEqual([span(0, 12), span(3600, 3610)])
    const twelve = map.at(12 * TICKS) - map.at(0)
    const ten = map.at(3610 * TICKS) - map.at(3600 * TICKS)
    expect(twelve / ten).toBeCloseTo(1.2, 9)
    expect(map.at(3600 * TICKS)).toBeLessThan(0.6)
  })

  it('is in the order of time everywhere', () => {
    const map = clusters([span(100, 130), span(500, 520), span(9000, 9001)])
    const moments = [90, 100, 115, 130, 300, 500, 520, 9000, 9001].map((second) => map.at(second * TICKS))
    expect([...moments].sort((a, b) => a - b)).toEqual(moments)
    expect(Math.min(...moments)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...moments)).toBeLessThanOrEqual(1)
  })

  it('never lets two labels of the ruler touch', () => {
    const map = clusters([span(0, 240), span(1000, 1004), span(2000, 2004)])
    const marks = ruler(map, 900)
    expect(marks.length).toBeGreaterThan(3)
    marks.slice(1).forEach((mark, n) => expect(mark.x - marks[n]!.x).toBeGreaterThanOrEqual(64))
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
