import { describe, expect, it } from 'vitest'
import type { Rate } from '@/api/types'
import { label, length, ofFrames, TICKS, toFrames } from './time'
import { bytes, left } from '@/words/amounts'

const rates: Record<string, Rate> = {
  '23.976': { num: 24000, den: 1001, nominal: 24, drop: false, name: '23.976' },
  '25': { num: 25, den: 1, nominal: 25, drop: false, name: '25' },
  '29.97': { num: 30000, den: 1001, nominal: 30, drop: false, name: '29.97' },
  '29.97df': { num: 30000, den: 1001, nominal: 30, drop: true, name: '29.97df' },
  '59.94df': { num: 60000, den: 1001, nominal: 60, drop: true, name: '59.94df' },
  '120': { num: 120, den: 1, nominal: 120, drop: false, name: '120' },
}

describe('labels', () => {
  // The same table as core/tests/Time/TimecodeTest.php.
  it.each([
    ['25', 0, '00:00:00:00'],
    ['29.97df', 1799, '00:00:59;29'],
    ['29.97df', 1800, '00:01:00;02'],
    ['29.97df', 17982, '00:10:00;00'],
    ['29.97df', 17981, '00:09:59;29'],
    ['29.97df', 107892, '01:00:00;00'],
    ['29.97df', 2589407, '23:59:59;29'],
    ['59.94df', 3600, '00:01:00;04'],
    ['29.97', 1800, '00:01:00:00'],
    ['120', 119, '00:00:00:119'],
    ['23.976', 86399, '00:59:59:23'],
  ])('at %s frame %i is %s', (rate, frames, expected) => {
    expect(label(frames, rates[rate]!)).toBe(expected)
  })

  it('wraps at midnight and before it', () => {
    expect(label(25 * 86400, rates['25']!)).toBe('00:00:00:00')
    expect(label(-1, rates['25']!)).toBe('23:59:59:24')
  })

  it.each(Object.keys(rates))('a frame at %s begins where its ticks say, for a whole day', (name) => {
    const rate = rates[name]!
    for (const frame of [0, 1, 1001, 2_000_003]) {
      expect(toFrames(ofFrames(frame, rate), rate)).toBe(frame)
      expect(toFrames(ofFrames(frame, rate) - 1, rate)).toBe(frame - 1)
    }
  })
})

describe('words for people', () => {
  it('says lengths, sizes and what is left', () => {
    expect(length(14.4 * TICKS)).toBe('0:14')
    expect(length(3850 * TICKS)).toBe('1:04:10')
    expect(length(null)).toBe('')
    expect(bytes(212_400_000_000)).toBe('212.4 GB')
    expect(bytes(12_100_000)).toBe('12.1 MB')
    expect(bytes(1)).toBe('1 kB')
    expect(left(138)).toBe('2:18')
    expect(left(Infinity)).toBe('')
  })
})
