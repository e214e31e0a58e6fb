import { describe, expect, it } from 'vitest'
import type { ReelAngle, ReelItem } from '@/api/types'
import { EMPTY, type Picture, type Playlist } from '@/player/engine/playlist'
import { actionOf, besidePictures, called, FIRST_VIEW, mainPictures, otherSetup, partners } from './view'
import { scriptPieces } from './script'

const S = 705_600_000
const RATE = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }

function angle(clip: string, at: number, from: number, to: number): ReelAngle {
  return {
    clip,
    name: clip,
    device: clip[0]!,
    device_note: '',
    start_ticks: null,
    at_ticks: at * S,
    in_ticks: from * S,
    out_ticks: to * S,
    duration_ticks: 100 * S,
    frames: 2500,
    media_version: '1',
    rate: RATE,
    look: null,
  }
}
/** Takes of ten seconds one after the other, each read from second 2 of its own clip, with its action at second 5. */
function reel(slates: [string, number, string?][], angles: (n: number) => ReelAngle[] = () => []) {
  const items = slates.map(([setup, take, part], n): ReelItem => ({
    position: n,
    clip: `A${n}`,
    at_ticks: 10 * n * S,
    in_ticks: 2 * S,
    out_ticks: 12 * S,
    slate_ticks: 3 * S,
    action_ticks: 5 * S,
    take: {
      ulid: `T${setup}${take}${part ?? ''}`,
      setup,
      take,
      part: part ?? '',
      scene: /^\d+/.exec(setup)![0],
      status: 'none',
      description: '',
      size: '',
      log_note: null,
      said: [],
      ratings: [],
    },
    angles: [angle(`A${n}`, 0, 2, 12), ...angles(n)],
    notes: [],
    markers: [],
  }))
  const pictures = items.map((one): Picture => ({
    ...{ clip: one.clip, at: one.at_ticks, length: 10 * S, from: 2 * S, rate: RATE, frames: 2500 },
    ...{ start: null, version: '1', look: null, name: '', take: one.take.ulid },
  }))
  const list: Playlist = { ...EMPTY, rate: RATE, length: 10 * items.length * S, pictures }
  return { items, list }
}
const told = (pictures: Picture[]) => pictures.map((one) => [one.clip, one.at / S, one.length / S, one.from / S])

describe('called', () => {
  const { items } = reel([
    ['1', 1],
    ['1C', 1],
    ['12', 1],
    ['12A', 2],
    ['12A', 3],
    ['12A', 4, 'b'],
  ])
  const slate = (words: string, at = 0) => {
    const index = called(items, at, words)
    return index === null ? null : `${items[index]!.take.setup}/${items[index]!.take.take}`
  }
  it('knows a setup, a take of it, a take of the setup that plays, and a scene', () => {
    expect(slate('1c')).toBe('1C/1')
    expect(slate('12a/3')).toBe('12A/3')
    expect(slate(' 12a 3 ')).toBe('12A/3')
    expect(slate('/3', 3)).toBe('12A/3')
    expect(slate('12')).toBe('12/1')
    expect(slate('12a/4')).toBe('12A/4')
    expect(slate('12a/')).toBe('12A/2')
  })
  it('goes nowhere for what is not there', () => {
    for (const words of ['', '/', '99', '12a/9', '/9', '1c/2']) expect(slate(words, 3)).toBeNull()
  })
})

describe('angles', () => {
  it('puts an angle in the place of the take, and leaves the own picture where it did not run', () => {
    const { items, list } = reel(
      [
        ['3', 1],
        ['3', 2],
      ],
      () => [angle('B', 3, 40, 44)],
    )
    const view = { ...FIRST_VIEW, turned: { item: 1, angle: 1 } }
    expect(told(mainPictures(list, items, view))).toEqual([
      ['A0', 0, 10, 2],
      ['A1', 10, 3, 2],
      ['B', 13, 4, 40],
      ['A1', 17, 3, 9],
    ])
  })
  it('shows all angles in step, the own one first', () => {
    const { items, list } = reel(
      [
        ['3', 1],
        ['3', 2],
      ],
      (n) => (n === 0 ? [angle('B', 0, 7, 17), angle('C', 6, 0, 30)] : []),
    )
    const places = besidePictures(list, items, { ...FIRST_VIEW, mode: 'all' })
    expect(places.map(told)).toEqual([[['B', 0, 10, 7]], [['C', 6, 4, 0]]])
  })
  it('lays two takes of a setup beside each other so that both come to their action at once', () => {
    const { items, list } = reel([
      ['3', 1],
      ['3', 2],
      ['4', 1],
    ])
    items[1]!.action_ticks = 9 * S
    const [places] = besidePictures(list, items, { ...FIRST_VIEW, mode: 'pair', beside: 1 })
    // 3/2 comes to its action four seconds later than 3/1, so it begins four seconds into itself.
    expect(told(places!)).toEqual([['A1', 0, 6, 6]])
    expect(actionOf(items[0]!) / S).toBe(3)
    expect(partners(items, 0)).toEqual([1])
    expect(partners(items, 2)).toEqual([])
  })
})

describe('setups', () => {
  const { items } = reel([
    ['3', 1],
    ['3', 2],
    ['3A', 1],
    ['3A', 2],
    ['4', 1],
  ])
  it('goes from setup to setup, and back to the first take of one', () => {
    expect(otherSetup(items, 0, 1)).toBe(2)
    expect(otherSetup(items, 3, 1)).toBe(4)
    expect(otherSetup(items, 4, 1)).toBeNull()
    expect(otherSetup(items, 3, -1)).toBe(0)
    expect(otherSetup(items, 4, -1)).toBe(2)
    expect(otherSetup(items, 1, -1)).toBe(0)
    expect(otherSetup(items, 0, -1)).toBeNull()
  })
})

describe('script', () => {
  it('tells who speaks from what happens', () => {
    expect(scriptPieces('Mara turns.\n\nMARA (low)\nNot tonight.\n\nA GULL')).toEqual([
      { kind: 'action', text: 'Mara turns.' },
      { kind: 'speaker', text: 'MARA (low)' },
      { kind: 'speech', text: 'Not tonight.' },
      { kind: 'action', text: 'A GULL' },
    ])
  })
})
