import { describe, expect, it } from 'vitest'
import { EMPTY, frameAt, pieceAt, stepFrames, type Picture, type Playlist } from './playlist'
import { Transport } from './transport'
import { TICKS } from '../time'

const RATE25 = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
const RATE24 = { num: 24_000, den: 1001, nominal: 24, drop: false, name: '23.976' }
const FRAME = TICKS / 25
const FRAME24 = (TICKS * 1001) / 24_000

const picture = (clip: string, at: number, length: number, from = 0, rate = RATE25): Picture => ({
  clip,
  at,
  length,
  from,
  rate,
  frames: 1000,
  start: null,
  version: '',
  look: null,
  name: clip,
  take: null,
})
const cut = (...pictures: Picture[]): Playlist => ({
  ...EMPTY,
  pictures,
  length: Math.max(...pictures.map((one) => one.at + one.length)),
})

describe('steps', () => {
  const list = cut(
    picture('a', 0, 10 * FRAME, 100 * FRAME),
    picture('b', 10 * FRAME, 5 * FRAME24, 7 * FRAME24, RATE24),
    picture('c', 10 * FRAME + 5 * FRAME24, 10 * FRAME, 0),
  )
  const seen = (ticks: number) => {
    const piece = pieceAt(list.pictures, ticks)!
    return `${piece.clip}${frameAt(piece, ticks)}`
  }

  it('show every frame once over cuts between rates, and the same ones backwards', () => {
    const forward: string[] = []
    let at = 0
    for (let n = 0; n < 25; n++, at = stepFrames(list, at, 1)) forward.push(seen(at))
    expect(forward).toEqual([
      ...Array.from({ length: 10 }, (_, n) => `a${100 + n}`),
      ...Array.from({ length: 5 }, (_, n) => `b${7 + n}`),
      ...Array.from({ length: 10 }, (_, n) => `c${n}`),
    ])
    expect(stepFrames(list, at, 1)).toBe(at)
    const backward: string[] = []
    for (let n = 0; n < 25; n++, at = stepFrames(list, at, -1)) backward.push(seen(at))
    expect(backward).toEqual(forward.reverse())
  })

  it('of many frames at once lead where as many single ones do', () => {
    for (const count of [5, 9, 12, 17]) {
      let one = 0
      for (let n = 0; n < count; n++) one = stepFrames(list, one, 1)
      expect(stepFrames(list, 0, count)).toBe(one)
      expect(stepFrames(list, one, -count)).toBe(0)
    }
  })

  it('cross a gap to the next picture and back', () => {
    const holes = cut(picture('a', 0, 2 * FRAME), picture('b', 10 * FRAME, 2 * FRAME))
    expect(stepFrames(holes, 5 * FRAME, 1)).toBe(10 * FRAME)
    expect(stepFrames(holes, 5 * FRAME, -1)).toBe(FRAME)
  })
})

describe('transport', () => {
  const made = (list = cut(picture('a', 0, 100 * FRAME))) => {
    let now = 0
    const transport = new Transport(() => now, list)
    return { transport, later: (seconds: number) => (now += seconds) }
  }

  it('goes by the clock and stands on the frame that it was stopped at', () => {
    const { transport, later } = made()
    transport.run(1)
    later(1.019)
    expect(transport.position()).toBeCloseTo(1.019 * TICKS, -3)
    transport.stop()
    expect(transport.position()).toBe(25 * FRAME)
  })

  it('doubles with each press up to eight times, and turns round at normal speed', () => {
    const { transport, later } = made()
    const speeds = [1, 1, 1, 1, 1].map(() => {
      transport.faster(1)
      return transport.speed
    })
    expect(speeds).toEqual([1, 2, 4, 8, 8])
    later(0.1)
    transport.faster(-1)
    expect(transport.speed).toBe(-1)
    transport.faster(-1)
    expect(transport.speed).toBe(-2)
  })

  it('keeps every step of a hundred presses in a row, whatever is shown meanwhile', () => {
    const { transport } = made(cut(picture('a', 0, 1000 * FRAME)))
    for (let n = 0; n < 100; n++) transport.step(1)
    for (let n = 0; n < 30; n++) transport.step(-1)
    expect(transport.position()).toBe(70 * FRAME)
  })

  it('stops at the end on the last frame, and plays from the start again', () => {
    const { transport, later } = made()
    transport.run(1)
    later(60)
    expect(transport.position()).toBe(99 * FRAME)
    expect(transport.state.kind).toBe('standing')
    transport.run(1)
    expect(transport.position()).toBe(0)
    transport.goTo(3 * FRAME)
    transport.run(-1)
    later(60)
    expect(transport.position()).toBe(0)
  })

  it('plays from in to out, and round and round when it shall', () => {
    const { transport, later } = made()
    transport.range = { from: 10 * FRAME, to: 20 * FRAME }
    transport.run(1, transport.range)
    later(1)
    expect(transport.position()).toBe(19 * FRAME)
    transport.setLoop(true)
    transport.run(1)
    later(1)
    const at = transport.position()
    expect(at).toBeGreaterThanOrEqual(10 * FRAME)
    expect(at).toBeLessThan(20 * FRAME)
    expect(transport.speed).toBe(1)
  })

  it('goes on where it is when more becomes known of what plays', () => {
    const { transport, later } = made()
    transport.run(1)
    later(1)
    transport.replace(cut(picture('a', 0, 100 * FRAME)))
    later(0.5)
    expect(transport.position()).toBeCloseTo(1.5 * TICKS, -3)
  })
})
