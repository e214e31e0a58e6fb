import { describe, expect, it } from 'vitest'
import { along, holeAt, joined, movedAlong, rolled, splits, trimmed, type Place } from './along'
import { endOf, type CutItem, type CutTrack } from './value'

const piece = (take: string, at: number, length: number, source = `${take} picture`): CutItem => ({
  name: take,
  source: { id: source, name: source, start_ticks: 0, duration_ticks: 1000, rate: '25' },
  source_start_ticks: 100,
  duration_ticks: length,
  record_start_ticks: at,
  enabled: true,
  metadata: { take },
})
const sound = (take: string, at: number, length: number) => piece(take, at, length, `${take} sound`)
const track = (kind: 'picture' | 'sound', items: CutItem[], locked = false): CutTrack => ({
  kind,
  name: kind,
  locked,
  enabled: true,
  items,
})
const three = (): CutTrack[] => [
  track('picture', [piece('1', 0, 10), piece('2', 10, 20), piece('3', 30, 10)]),
  track('sound', [sound('1', 0, 10), sound('2', 10, 20), sound('3', 30, 10)]),
]
const place = (tracks: CutTrack[], on: number, index: number): Place => ({
  track: on,
  index,
  item: tracks[on]!.items[index]!,
})

/** Trims and moves as docs/architecture.md has them, on pieces that nothing spans. */
function after(tracks: CutTrack[], operations: { op: string; [name: string]: unknown }[]): string[] {
  const all = tracks.map((one) => one.items.map((item) => ({ ...item })))
  for (const { op, track, index, edge, by_ticks, ripple, at_ticks } of operations) {
    const item = all[Number(track)]![Number(index)]!
    const end = endOf(item)
    const by = Number(by_ticks)
    if (op === 'move') item.record_start_ticks = Number(at_ticks)
    else if (edge === 'tail') item.duration_ticks += by
    else {
      item.duration_ticks -= by
      item.source_start_ticks += by
      if (ripple !== true) item.record_start_ticks += by
    }
    if (op === 'trim' && ripple === true)
      for (const other of all.flat())
        if (other !== item && other.record_start_ticks >= end) other.record_start_ticks += edge === 'tail' ? by : -by
    for (const own of all)
      own.forEach((one, at) => {
        const next = own[at + 1]
        if (next !== undefined && endOf(one) > next.record_start_ticks) throw new Error('overlap')
      })
  }
  return all.map((items) =>
    items
      .map((one) => `${one.name}@${one.record_start_ticks}+${one.duration_ticks}/${one.source_start_ticks}`)
      .join(' '),
  )
}

describe("a take's picture and its sound", () => {
  it.each([
    ['tail', -5, '1@0+10/100 2@10+15/100 3@25+10/100'],
    ['tail', 5, '1@0+10/100 2@10+25/100 3@35+10/100'],
    ['head', 5, '1@0+10/100 2@10+15/105 3@25+10/100'],
    ['head', -5, '1@0+10/100 2@10+25/95 3@35+10/100'],
  ] as const)('stay together when the %s moves by %i and the rest follows', (edge, by, wanted) => {
    const tracks = three()
    expect(after(tracks, trimmed(tracks, [place(tracks, 0, 1)], edge, by, true, false))).toEqual([wanted, wanted])
  })
  it('are each by themselves when somebody says so', () => {
    const tracks = three()
    expect(after(tracks, trimmed(tracks, [place(tracks, 0, 1)], 'tail', -5, false, true))).toEqual([
      '1@0+10/100 2@10+15/100 3@30+10/100',
      '1@0+10/100 2@10+20/100 3@30+10/100',
    ])
  })
  it.each([true, false])('are trimmed once when both are chosen, by themselves or not', (alone) => {
    const tracks = three()
    const both = [place(tracks, 0, 1), place(tracks, 1, 1)]
    const wanted = '1@0+10/100 2@10+15/100 3@25+10/100'
    expect(after(tracks, trimmed(tracks, both, 'tail', -5, true, alone))).toEqual([wanted, wanted])
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

describe('a hole', () => {
  it('closes as far as nothing plays in it on the other tracks', () => {
    const tracks = (from: number, length: number) => [
      track('picture', [piece('1', 0, 10), piece('2', 40, 10)]),
      track('sound', length === 0 ? [] : [sound('1', from, length)]),
    ]
    expect(holeAt(tracks(0, 0), 0, 20)).toEqual({ from: 10, to: 40 })
    expect(holeAt(tracks(0, 15), 0, 20)).toEqual({ from: 15, to: 40 })
    expect(holeAt(tracks(30, 20), 0, 20)).toEqual({ from: 10, to: 30 })
    expect(holeAt(tracks(0, 60), 0, 20)).toBeNull()
    expect(holeAt(tracks(0, 0), 0, 5)).toBeNull()
    expect(holeAt(tracks(0, 0), 0, 60)).toBeNull()
  })
})
