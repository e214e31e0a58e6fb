import { describe, expect, it } from 'vitest'
import { amountTyped, applied, cutsOf, itemAt, paperOrder, type CutItem, type CutTrack, type CutValue } from './value'

const item = (name: string, at: number, length: number): CutItem => ({
  name,
  source: { id: name, name, start_ticks: 0, duration_ticks: 1000, rate: '25' },
  source_start_ticks: 0,
  duration_ticks: length,
  record_start_ticks: at,
  enabled: true,
  metadata: {},
})
const track = (kind: 'picture' | 'sound', name: string, items: CutItem[]): CutTrack => ({
  kind,
  name,
  locked: false,
  enabled: true,
  items,
})
const cut = (): CutValue => ({
  title: 'x',
  rate: '25',
  start_ticks: 0,
  tracks: [
    track('picture', 'V', [item('A', 0, 10), item('B', 10, 10), item('C', 30, 10)]),
    track('sound', 'S', [item('T', 0, 40)]),
  ],
})

describe('a step of a cut', () => {
  it('puts items in the place of others and moves what stands behind them', () => {
    const value = cut()
    const change = { tracks: [{ track: 0, index: 1, count: 1, items: [item('N', 10, 4)], shift_ticks: -6 }] }
    const { value: now, moved } = applied(value, change)
    expect(now.tracks[0]!.items.map((one) => [one.name, one.record_start_ticks])).toEqual([
      ['A', 0],
      ['N', 10],
      ['C', 24],
    ])
    expect(now.tracks[1]).toBe(value.tracks[1])
    expect(moved.get(value.tracks[0]!.items[2]!)).toBe(now.tracks[0]!.items[2])
    expect(value.tracks[0]!.items[1]!.name).toBe('B')
  })
  it('lets tracks come, go and be called otherwise', () => {
    const head = { kind: 'sound' as const, name: 'Music', locked: false, enabled: true }
    const more = applied(cut(), {
      tracks: [{ track: 2, index: 0, count: 0, items: [item('M', 0, 5)], shift_ticks: 0 }],
      heads: [
        { track: 2, head },
        { track: 1, head: { ...head, name: 'Mara', locked: true } },
      ],
    }).value
    expect(more.tracks.map((one) => [one.name, one.locked, one.items.length])).toEqual([
      ['V', false, 3],
      ['Mara', true, 1],
      ['Music', false, 1],
    ])
    const less = applied(more, {
      tracks: [{ track: 2, index: 0, count: 1, items: [], shift_ticks: 0 }],
      heads: [{ track: 2, head: null }],
    }).value
    expect(less.tracks.map((one) => one.name)).toEqual(['V', 'Mara'])
  })
})

it('finds what plays at an instant, and nothing in a gap', () => {
  const { items } = cut().tracks[0]!
  expect([0, 9, 10, 25, 30, 39, 40].map((at) => itemAt(items, at))).toEqual([0, 0, 1, null, 2, 2, null])
})

it('knows every place at which something begins or ends', () => {
  expect(cutsOf(cut())).toEqual([0, 10, 20, 30, 40])
  expect(cutsOf(cut(), [1])).toEqual([0, 40])
})

it('lays the uppermost picture first and sound below', () => {
  const tracks = [
    track('picture', 'a', []),
    track('sound', 'b', []),
    track('picture', 'c', []),
    track('sound', 'd', []),
  ]
  expect(paperOrder(tracks)).toEqual([2, 0, 1, 3])
})

it.each([
  ['12', 12],
  ['+12', 12],
  ['-1.', -25],
  ['2.5', 55],
  ['2,5', 55],
  ['', null],
  ['1:00', null],
  ['+-3', null],
])('reads the amount %s', (text, frames) => {
  expect(amountTyped(text, 25)).toBe(frames)
})
