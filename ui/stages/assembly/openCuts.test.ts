import { describe, expect, it } from 'vitest'
import { beside, opened, still, stood } from './openCuts'

describe('cuts that lie open', () => {
  const three = ['A', 'B', 'C'].reduce(
    (open, one) => opened(open, one, 'cut', `cut ${one}`),
    opened([], 'W', 'wall', 'w'),
  )
  it('are gone through in the order in which they were opened, around', () => {
    expect(three.map((one) => beside(three, one.ulid, 1)?.ulid)).toEqual(['A', 'B', 'C', 'W'])
    expect(beside(three, 'W', -1)?.ulid).toBe('C')
    expect(beside(opened([], 'A', 'cut', 'x'), 'A', 1)).toBeNull()
    expect(beside(three, 'gone', 1)).toBeNull()
  })
  it('keep their place and where they stood when they are opened again, with the name they have now', () => {
    const again = opened(stood(three, 'B', 500), 'B', 'cut', 'Second of B')
    expect(again.map((one) => one.ulid)).toEqual(['W', 'A', 'B', 'C'])
    expect(again[2]).toEqual({ ulid: 'B', kind: 'cut', name: 'Second of B', at: 500 })
  })
  it('are no longer open when they were taken off the list', () => {
    expect(still(three, ['A', 'C']).map((one) => one.ulid)).toEqual(['A', 'C'])
  })
  it('are nine at most: the first goes', () => {
    const many = Array.from({ length: 12 }, (_, n) => `${n}`).reduce(
      (open, one) => opened(open, one, 'cut', one),
      three,
    )
    expect(many.map((one) => one.ulid).join(' ')).toBe('3 4 5 6 7 8 9 10 11')
  })
})
