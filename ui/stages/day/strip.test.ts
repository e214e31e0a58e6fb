import { describe, expect, it } from 'vitest'
import { TICKS } from '@/player/time'
import { hours } from './strip'

describe('who rolled when', () => {
  it('labels round moments, about ten of them', () => {
    const marks = hours(8.9 * 3600 * TICKS, 17.1 * 3600 * TICKS)
    expect(marks.length).toBeGreaterThan(4)
    expect(marks.length).toBeLessThanOrEqual(10)
    marks.forEach((mark) => expect(mark % (1800 * TICKS)).toBe(0))
  })
})
