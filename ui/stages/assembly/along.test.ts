import { describe, expect, it } from 'vitest'
import { along, joined, movedAlong, rolled, splits, trimmed, type Place } from './along'
import { piece, sound, track } from './testCut'
import type { CutTrack } from './value'

const three = (): CutTrack[] => [
  track('picture', [piece('1', 0, 10), piece('2', 10, 20), piece('3', 30, 10)]),
  track('sound', [sound('1', 0, 10), sound('2', 10, 20), sound('3', 30, 10)]),
]
const place = (tracks: CutTrack[], on: number, index: number): Place => ({
  track: on,
  index,
  item: tracks[on]!.items[index]!,
})

describe("a take's picture and its sound", () => {
  const told = (operations: { op: string; [name: string]: unknown }[]) =>
    operations.map((one) => [one.track, one.index, one.with])

  it('are trimmed as one, from the end on', () => {
    const tracks = three()
    const places = [place(tracks, 0, 0), place(tracks, 0, 2)]
    expect(told(trimmed(tracks, places, 'tail', -5, true, false))).toEqual([
      [0, 2, [{ track: 1, index: 2 }]],
      [0, 0, [{ track: 1, index: 0 }]],
    ])
  })
  it('are each by themselves when somebody says so', () => {
    const tracks = three()
    expect(told(trimmed(tracks, [place(tracks, 0, 1)], 'tail', -5, true, true))).toEqual([[0, 1, []]])
  })
  it.each([true, false])('are trimmed once when both are chosen, by themselves or not', (alone) => {
    const tracks = three()
    const both = [place(tracks, 0, 1), place(tracks, 1, 1)]
    expect(told(trimmed(tracks, both, 'tail', -5, true, alone))).toEqual([[0, 1, [{ track: 1, index: 1 }]]])
  })
  it('share an edge: for a head that moves what is behind, both of them', () => {
    const tracks = [track('picture', [piece('1', 0, 10)]), track('sound', [sound('1', 0, 14)])]
    const only = [place(tracks, 0, 0)]
    expect(told(trimmed(tracks, only, 'head', 2, false, false))).toEqual([[0, 0, [{ track: 1, index: 0 }]]])
    expect(told(trimmed(tracks, only, 'head', 2, true, false))).toEqual([[0, 0, []]])
  })
  it('are rolled, split and moved together', () => {
    const tracks = three()
    expect(rolled(tracks, 0, 0, 2, false)).toEqual([
      { op: 'roll', track: 0, index: 0, by_ticks: 2 },
      { op: 'roll', track: 1, index: 0, by_ticks: 2 },
    ])
    expect(splits(tracks, [0], 14, false).map((one) => one.track)).toEqual([0, 1])
    expect(movedAlong(tracks, place(tracks, 0, 2), 0, 50, false).map((one) => [one.track, one.at_ticks])).toEqual([
      [0, 50],
      [1, 50],
    ])
  })
})

describe('what does not go along', () => {
  it('is sound of another take, of the whole event, or on a locked track', () => {
    const other = [track('picture', [piece('1', 0, 10)]), track('sound', [sound('2', 0, 10)])]
    const event = [track('picture', [piece('1', 0, 10), piece('1', 10, 10)]), track('sound', [sound('1', 0, 20)])]
    const locked = [track('picture', [piece('1', 0, 10)]), track('sound', [sound('1', 0, 10)], true)]
    for (const tracks of [other, event, locked]) expect(along(tracks, place(tracks, 0, 0))).toEqual([])
    expect(splits(event, [0], 5, false).map((one) => one.track)).toEqual([0])
  })
  it('is a cut that only one of them has: its edge moves where the other ends or begins', () => {
    const tracks = [
      track('picture', [piece('1', 0, 10), piece('2', 10, 10)]),
      track('sound', [sound('1', 0, 10)]),
      track('sound', [sound('2', 10, 10)]),
    ]
    expect(rolled(tracks, 0, 0, 3, false).slice(1)).toEqual([
      { op: 'trim', track: 1, index: 0, edge: 'tail', by_ticks: 3, ripple: false },
      { op: 'trim', track: 2, index: 0, edge: 'head', by_ticks: 3, ripple: false },
    ])
  })
  it('is sound that does not play on where its picture does', () => {
    const tracks = [
      track('picture', [piece('1', 0, 10), { ...piece('1', 10, 10), source_start_ticks: 110 }]),
      track('sound', [sound('1', 0, 10), { ...sound('1', 10, 10), source_start_ticks: 300 }]),
    ]
    expect(joined(tracks, 0, 0, false)).toEqual([{ op: 'join', track: 0, index: 0 }])
  })
})
