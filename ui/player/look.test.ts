import { describe, expect, it } from 'vitest'
import { fromSimple, isPlain, saturationMatrix, toSimple } from './look'

describe('a look', () => {
  it('without colour turns every channel into the luma', () => {
    const rows = saturationMatrix(0).split(' ').map(Number)
    for (const row of [0, 1, 2]) expect(rows.slice(row * 5, row * 5 + 3)).toEqual([0.2126, 0.7152, 0.0722])
  })

  it('with all its colour changes nothing', () => {
    expect(saturationMatrix(1)).toBe('1 0 0 0 0 0 1 0 0 0 0 0 1 0 0 0 0 0 1 0')
  })

  it('is found again from the simple controls that made it', () => {
    const simple = { light: 0.5, shadows: -0.4, middle: 0.25, warmth: 0.6, colour: 1.2 }
    const again = toSimple(fromSimple(simple))
    for (const key of Object.keys(simple) as (keyof typeof simple)[]) expect(again[key]).toBeCloseTo(simple[key], 2)
  })

  it('is plain only when every number is', () => {
    expect(isPlain(fromSimple({ light: 0, shadows: 0, middle: 0, warmth: 0, colour: 1 }))).toBe(true)
    expect(isPlain(fromSimple({ light: 0, shadows: 0, middle: 0, warmth: 0.1, colour: 1 }))).toBe(false)
  })
})
