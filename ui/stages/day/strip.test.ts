import { describe, expect, it } from 'vitest'
import { TICKS } from '@/player/time'
import { hours } from './strip'

describe('who rolled when', () => {
  it('labels round moments, about ten of them', () => {
    const marks = hours(8.9 * 3600 * TICKS, 17.1 * 3600 * TICKS)
    expect(marks.length).toBeGreaterThan(4)
    expect(marks.length).toBeLessThanOrEqual(10)
    marks.forEach((mark) => expect(mark.at % (1800 * TICKS)).toBe(0))
  })
  it('labels no two moments alike on a day of three minutes', () => {
    const texts = hours(10 * 3600 * TICKS, (10 * 3600 + 180) * TICKS).map((mark) => mark.text)
    expect(texts.slice(0, 3)).toEqual(['10:00:00', '10:00:30', '10:01:00'])
    expect(new Set(texts).size).toBe(texts.length)
  })
})
