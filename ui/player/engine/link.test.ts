import { afterEach, describe, expect, it, vi } from 'vitest'
import { TICKS } from '../time'
import { Follower, Leader } from './link'
import { EMPTY } from './playlist'
import { Transport } from './transport'

const open: { close(): void }[] = []
afterEach(() => open.splice(0).forEach((one) => one.close()))
const transport = () => new Transport(() => performance.now() / 1000, { ...EMPTY, length: 100 * TICKS })
const FRAME = TICKS / 25

describe('link', () => {
  it('keeps a second window in step within a frame, and stands where the first one stands', async () => {
    const [first, second] = [transport(), transport()]
    open.push(new Leader('a', first, () => 'reel'), new Follower('a', second))
    first.goTo(10 * TICKS)
    first.run(1)
    await vi.waitFor(() => expect(second.speed).toBe(1))
    expect(Math.abs(first.position() - second.position())).toBeLessThan(FRAME)
    first.faster(1)
    await vi.waitFor(() => expect(second.speed).toBe(2))
    expect(Math.abs(first.position() - second.position())).toBeLessThan(FRAME)
    first.goTo(3 * TICKS)
    await vi.waitFor(() => expect(second.position()).toBe(3 * TICKS))
  })

  it('tells a window that comes later, or was loaded again, where it is and what it shows', async () => {
    const first = transport()
    open.push(new Leader('b', first, () => 'reel 7'))
    first.goTo(20 * TICKS)
    const second = transport()
    const shown: string[] = []
    open.push(new Follower('b', second, (what) => shown.push(what)))
    await vi.waitFor(() => expect(second.position()).toBe(20 * TICKS))
    expect(shown.at(-1)).toBe('reel 7')
  })

  it('stays in step with a window whose clock is set otherwise', async () => {
    const [first, second] = [transport(), transport()]
    const now = () => performance.timeOrigin + performance.now()
    const late = new Follower(
      'c',
      second,
      () => {},
      () => now() - 800,
    )
    open.push(
      new Leader(
        'c',
        first,
        () => '',
        () => {},
        now,
      ),
      late,
    )
    first.run(1)
    await vi.waitFor(() => expect(late.apart).toBeGreaterThan(790))
    first.run(1)
    await vi.waitFor(() => expect(second.speed).toBe(1))
    await vi.waitFor(() => expect(Math.abs(first.position() - second.position())).toBeLessThan(FRAME))
  })

  it('runs before the desk by as much as the projector is late, and stands where the desk stands', async () => {
    const [first, second] = [transport(), transport()]
    const house = new Follower('d', second)
    house.lead = 0.2
    open.push(new Leader('d', first, () => ''), house)
    first.goTo(10 * TICKS)
    first.run(1)
    await vi.waitFor(() => expect(second.speed).toBe(1))
    expect(Math.abs(second.position() - first.position() - 0.2 * TICKS)).toBeLessThan(FRAME)
    first.goTo(20 * TICKS)
    await vi.waitFor(() => expect(second.position()).toBe(20 * TICKS))
  })

  it('goes round with the desk where that goes round', async () => {
    const [first, second] = [transport(), transport()]
    open.push(new Leader('e', first, () => ''), new Follower('e', second))
    first.range = { from: 10 * TICKS, to: 10 * TICKS + 2 * FRAME }
    first.loops = true
    first.run(1)
    await vi.waitFor(() => expect(second.state).toMatchObject({ kind: 'playing', loops: true, low: 10 * TICKS }))
  })

  it('tells the desk what a second window shows', async () => {
    const heard: string[] = []
    const house = new Follower('f', transport())
    open.push(
      new Leader(
        'f',
        transport(),
        () => '',
        (what) => heard.push(what),
      ),
      house,
    )
    house.seen('frame 7')
    await vi.waitFor(() => expect(heard).toEqual(['frame 7']))
  })
})
