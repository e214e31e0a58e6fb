import { expect, it } from 'vitest'
import { backIn, pieceOn, piecesOf, reach, withPending } from './score'
import type { CutItem } from './value'

const item = (letter: string, at: number, length: number, plain = false): CutItem => ({
  name: letter,
  source: { id: `clip ${letter}`, name: letter, start_ticks: 0, duration_ticks: 1000, rate: '25' },
  source_start_ticks: 0,
  duration_ticks: length,
  record_start_ticks: at,
  enabled: true,
  metadata: {},
  ...(plain ? {} : { angles: { current: letter, list: [{ angle: letter }] } }),
})
const devices = new Map([['clip B', 'B']])
const items = [item('A', 0, 10), item('B', 10, 5), item('B', 15, 5, true), item('A', 30, 10)]

it('shows one piece where one camera stays on air over two clips', () => {
  expect(piecesOf(items, devices)).toEqual([
    { from: 0, to: 10, letter: 'A' },
    { from: 10, to: 20, letter: 'B' },
    { from: 30, to: 40, letter: 'A' },
  ])
})

it('shows a cut before the server has it', () => {
  const now = withPending(piecesOf(items, devices), [{ from: 5, to: 12, letter: 'C' }])
  expect(now.map((one) => `${one.letter} ${one.from}-${one.to}`)).toEqual(['A 0-5', 'C 5-12', 'B 12-20', 'A 30-40'])
  expect(pieceOn(now, 11)?.letter).toBe('C')
  expect(pieceOn(now, 25)).toBeNull()
})

it('lets a cut go to the end of what is on air, or of the hole', () => {
  expect([reach(items, 3, 60), reach(items, 22, 60), reach(items, 45, 60)]).toEqual([10, 30, 60])
})

it('knows when a camera rolls again', () => {
  const pictures = [
    { at: 0, length: 10 },
    { at: 30, length: 5 },
  ]
  expect([backIn(pictures, 12), backIn(pictures, 40)]).toEqual([18, null])
})
