import { describe, expect, it } from 'vitest'
import type { Card, CardCopy, Volume } from '@/api/types'
import { differenceTree, offloadLabel, span, stampOf, weightOf } from './tile'

const copy = (whole: boolean) => ({ is_whole: whole }) as CardCopy
const card = (more: Partial<Card>): Card =>
  ({ state: 'verified', copies: [copy(true), copy(true)], is_safe: true, released_at: null, ...more }) as Card

describe('the stamp of a card', () => {
  it('says KEEP as long as anything speaks against wiping it, a release included', () => {
    expect(stampOf(card({ state: 'fault' }))?.text).toBe('KEEP')
    expect(stampOf(card({ state: 'stopped' }))?.text).toBe('KEEP')
    expect(stampOf(card({ copies: [copy(true), copy(false)], released_at: '2026-10-05T12:00:00Z' }))?.text).toBe('KEEP')
  })
  it('tells released, verified and copied apart, and nothing while it is copied', () => {
    expect(stampOf(card({ released_at: '2026-10-05T12:00:00Z' }))?.text).toBe('RELEASED')
    expect(stampOf(card({}))?.text).toBe('VERIFIED')
    expect(stampOf(card({ is_safe: false }))?.text).toBe('COPIED')
    expect(stampOf(card({ state: 'copying' }))).toBeNull()
  })
})

it('what needs somebody stands before what is done with', () => {
  const cards = [
    card({ roll: 'released', released_at: '2026-10-05T12:00:00Z' }),
    card({ roll: 'safe' }),
    card({ roll: 'fault', state: 'fault' }),
    card({ roll: 'running', state: 'copying' }),
  ]
  expect(cards.sort((x, y) => weightOf(x) - weightOf(y)).map((one) => one.roll)).toEqual([
    'running',
    'fault',
    'safe',
    'released',
  ])
})

describe('the one button of a volume', () => {
  const volume = (more: Partial<Volume>): Volume =>
    ({ name: 'A001', roll: 'A001', state: 'new', new_files: 3, ...more }) as Volume
  it('names what it does', () => {
    expect(offloadLabel(volume({}))).toBe('Offload A001')
    expect(offloadLabel(volume({ state: 'grown' }))).toBe('Offload 3 new files')
    expect(offloadLabel(volume({ state: 'grown', new_files: 1 }))).toBe('Offload 1 new file')
    expect(offloadLabel(volume({ state: 'reused', roll: 'A001-2' }))).toBe('Offload as A001-2')
    expect(offloadLabel(volume({ state: 'seen' }))).toBe('Compare with the copies')
  })
})

describe('the diff of a check', () => {
  it('stands folder by folder, the manifest first', () => {
    const tree = differenceTree({
      missing: ['ROLL/b.mov'],
      altered: ['a.txt'],
      new: ['ROLL/a.mov'],
      renamed: [{ from: 'ROLL/x.mov', to: 'OTHER/y.mov' }],
      problems: ['0002.mhl is not in the chain.'],
    })
    expect(tree.map((folder) => [folder.path, folder.files.map((file) => file.sign + file.name)])).toEqual([
      ['ascmhl', ['!0002.mhl is not in the chain.']],
      ['', ['≠a.txt']],
      ['OTHER', ['→y.mov']],
      ['ROLL', ['+a.mov', '−b.mov']],
    ])
    expect(tree[2]?.files[0]?.note).toBe('was ROLL/x.mov')
  })
})

it('a span of times is empty where one is not known', () => {
  expect(span('2026-10-05 08:52:00', '2026-10-05 11:40:59')).toBe('08:52 to 11:40')
  expect(span(null, '2026-10-05 11:40:59')).toBe('')
})
