import { describe, expect, it } from 'vitest'
import { TICKS } from '../time'
import { couple } from './couple'
import { EMPTY, type Playlist } from './playlist'
import { Transport } from './transport'

const RATE = { num: 25, den: 1, nominal: 25, drop: false, name: '25' }
const of = (seconds: number): Playlist => ({ ...EMPTY, rate: RATE, length: seconds * TICKS })

describe('two transports in step', () => {
  let now = 0
  const made = (seconds: number) => {
    const one = new Transport(() => now, EMPTY)
    one.load(of(seconds), 0)
    return one
  }
  const at = (one: Transport) => Math.round((one.position() / TICKS) * 1000) / 1000

  it('do the same, as far from each other as they stood', () => {
    const [a, b] = [made(60), made(60)]
    const end = couple(a, b, 2 * TICKS)
    a.goTo(10 * TICKS)
    expect(at(b)).toBe(12)
    b.step(1)
    expect(at(a)).toBe(10.04)
    a.run(2)
    now += 3
    expect([at(a), at(b)]).toEqual([16.04, 18.04])
    b.stop()
    expect([a.speed, at(a)]).toEqual([0, 16.04])
    end()
    a.goTo(0)
    expect(at(b)).toBe(18.04)
  })
  it('wait at their ends without holding each other up', () => {
    const [a, b] = [made(60), made(5)]
    couple(a, b, 0)
    a.goTo(30 * TICKS)
    expect(at(b)).toBeCloseTo(5, 1)
    a.run(1)
    now += 1
    expect([at(a), b.speed]).toEqual([31, 0])
  })
})
