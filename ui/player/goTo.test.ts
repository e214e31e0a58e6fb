import { describe, expect, it } from 'vitest'
import { beginsPlace, placeTyped } from './goTo'
import { label, ofFrames, toFrames } from './time'

const PAL = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
const DROP = { num: 30_000, den: 1001, nominal: 30, drop: true, name: '29.97df' }

describe('a typed place', () => {
  it('is read from the right, two by two', () => {
    const at = (text: string) => placeTyped(text, PAL, 0, 0)
    expect(at('91210')).toBe((9 * 60 + 12) * 25 + 10)
    expect(at('10')).toBe(10)
    expect(at('1.')).toBe(25)
    expect(at('2.5')).toBe(55)
    expect(at('01:00:00:00')).toBe(90_000)
  })

  it('with a sign is so much later or earlier than where it stands', () => {
    expect(placeTyped('+24', PAL, 0, 100)).toBe(124)
    expect(placeTyped('-1.', PAL, 0, 100)).toBe(75)
    expect(placeTyped('-1.5', PAL, 0, 100)).toBe(70)
  })

  it('counts from the timecode that the clip begins with', () => {
    const start = ofFrames(10 * 3600 * 25, PAL)
    expect(placeTyped('10:00:02:05', PAL, start, 0)).toBe(55)
    expect(placeTyped('09:59:59:24', PAL, start, 0)).toBe(-1)
  })

  it('leads to the frame whose label it is, where labels are dropped, too', () => {
    const start = ofFrames(toFrames(ofFrames(53_946, DROP), DROP), DROP)
    for (const frame of [0, 1, 1799, 1800, 1801, 17_981, 17_982, 40_000]) {
      const text = label(53_946 + frame, DROP)
      expect(placeTyped(text.replaceAll(/[:;]/g, ''), DROP, start, 0), text).toBe(frame)
    }
  })

  it('is none where it is no number, and begins with a digit or a sign', () => {
    expect(['', '+', 'abc', '1:2:3:4:5', '123456789', '1..x'].map((text) => placeTyped(text, PAL, 0, 0))).toEqual(
      Array(6).fill(null),
    )
    expect(['1', '+', '-', 'a', '.', ' '].filter(beginsPlace)).toEqual(['1', '+', '-'])
  })
})
