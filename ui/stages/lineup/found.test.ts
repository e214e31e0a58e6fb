import { expect, it } from 'vitest'
import type { Lineup, Placed, Stray } from '@/api/types'
import { withFound } from './found'

const stray = { clip: 's', name: 'A001C002', device: 'A', reason: 'not yet', steps: [], is_false_start: false }
const lineup = {
  placements: [
    { clip: 'p', device: 'A', start_ticks: 5, sure: false, locked: false },
    { clip: 'held', device: 'B', start_ticks: 7, locked: true },
  ] as unknown as Placed[],
  strays: [stray as unknown as Stray, { ...stray, clip: 'nobody', device: null } as unknown as Stray],
} as Lineup

it('brings strays onto the map and moves what lay elsewhere, but nothing that a person holds', () => {
  const place = { start_ticks: 40, confidence: 0.9 }
  const now = withFound(lineup, { s: place, p: place, held: place, nobody: place })
  expect(now.placements.map((one) => [one.clip, one.start_ticks, one.sure])).toEqual([
    ['p', 40, true],
    ['held', 7, undefined],
    ['s', 40, true],
  ])
  expect(now.strays.map((one) => one.clip)).toEqual(['nobody'])
  expect(lineup.strays).toHaveLength(2)
})
