import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { TICKS } from '../time'
import { DeviceClock } from './clock'
import { Mixer } from './mixer'
import { mix, type ReadChannel } from './mix'
import type { Sound } from './playlist'
import { Stretcher } from './stretch'
import { MediaTrouble } from './deck'
import { Tape } from './tape'

const RATE = 48_000
const piece = (more: Partial<Sound> = {}): Sound => ({
  clip: 'S',
  at: 0,
  length: 10 * TICKS,
  from: 0,
  channels: [{ index: 1, gainDb: 0 }],
  driftPpm: 0,
  version: '',
  ...more,
})
/** Each channel holds its own number times the sample's, so that what was read says where it came from. */
const numbered: ReadChannel = async (_sound, channel, from, count) =>
  Float32Array.from({ length: count }, (_, n) => channel * (from + n))

describe('mix', () => {
  it('reads each piece from where it lies, exactly to the sample', async () => {
    const { left } = await mix([piece({ at: TICKS, from: 3 * TICKS })], RATE + 1000, 100, numbered)
    expect(left[0]).toBe(3 * RATE + 1000)
    expect(left[99]).toBe(3 * RATE + 1099)
  })

  it('sums the channels that are heard at their gains and no others', async () => {
    const loud: ReadChannel = async (_sound, channel, _from, count) =>
      new Float32Array(count).fill(channel === 3 ? 1 : 0.1)
    const sounds = [
      piece({
        channels: [
          { index: 1, gainDb: 20 },
          { index: 2, gainDb: 0 },
          { index: 5, gainDb: 0 },
        ],
      }),
    ]
    const { left, right, peaks } = await mix(sounds, 1000, 10, loud)
    expect(left[5]).toBeCloseTo(1.2, 5)
    expect(right[5]).toBeCloseTo(1.2, 5)
    expect(peaks.has('S/3')).toBe(false)
  })

  it('leaves a pair that nobody changed left and right', async () => {
    const { left, right } = await mix(
      [piece({ channels: [1, 2].map((index) => ({ index, gainDb: 0 })) })],
      500,
      1,
      numbered,
    )
    expect([left[0], right[0]]).toEqual([500, 1000])
  })

  it('fades at a cut, and not where a piece goes on with the same sound', async () => {
    const ones: ReadChannel = async (_sound, _channel, _from, count) => new Float32Array(count).fill(1)
    const first = piece({ length: TICKS })
    const after = async (second: Sound) => (await mix([first, second], RATE - 2, 4, ones)).left
    const cut = await after(piece({ at: TICKS, from: 5 * TICKS }))
    expect(Math.max(...cut)).toBeLessThan(0.1)
    expect([...(await after(piece({ at: TICKS, from: TICKS })))]).toEqual([1, 1, 1, 1])
  })

  it('stretches by the drift: after an hour at 120 ppm it is 432 ms behind', async () => {
    const sound = piece({ length: 2 * 3600 * TICKS, driftPpm: 120 })
    const { left } = await mix([sound], 3600 * RATE, 10, numbered)
    expect((3600 * RATE - left[0]!) / RATE).toBeCloseTo(0.432, 3)
  })
})

describe('stretcher', () => {
  /** Rising through nought, counted: twice as fast and the same pitch is half as many in half the time. */
  const pitch = (samples: Float32Array) => {
    let rises = 0
    for (let n = 1; n < samples.length; n++) if (samples[n - 1]! < 0 && samples[n]! >= 0) rises++
    return (rises * RATE) / samples.length
  }

  it.each([2, 1.5, 0.5, 0.25])('keeps the pitch at %s times, and lasts as long as it should', (speed) => {
    const stretcher = new Stretcher(speed)
    let length = 0
    const out: number[] = []
    for (let at = 0; at < 10 * RATE; at += 4800) {
      const tone = Float32Array.from({ length: 4800 }, (_, n) => Math.sin((2 * Math.PI * 220 * (at + n)) / RATE))
      const ready = stretcher.push(tone, tone)
      length += ready.left.length
      out.push(...ready.left)
    }
    expect(Math.abs(length / RATE - 10 / speed)).toBeLessThan(0.1 / speed + 0.05)
    expect(Math.abs(pitch(Float32Array.from(out.slice(RATE / 10))) - 220)).toBeLessThan(4)
  })
})

describe('tape', () => {
  it('reads over blocks, keeps what it read, and is silent before the start and behind the end', async () => {
    const asked: number[] = []
    const tape = new Tape(async () => ({
      block: async (block) => {
        asked.push(block)
        return block > 2 ? new Float32Array(0) : Float32Array.from({ length: RATE }, (_, n) => block * RATE + n + 1)
      },
      close() {},
    }))
    const over = await tape.read('x', RATE - 2, 4)
    expect([...over]).toEqual([RATE - 1, RATE, RATE + 1, RATE + 2])
    await tape.read('x', RATE - 2, 4)
    expect(asked).toEqual([0, 1])
    expect([...(await tape.read('x', -2, 3))]).toEqual([0, 0, 1])
    expect([...(await tape.read('x', 3 * RATE - 1, 2))]).toEqual([3 * RATE, 0])
  })

  it('is silent where a channel cannot be read, says so, and tries again when it is told to', async () => {
    let works = false
    const tape = new Tape(async () => {
      if (!works) throw new MediaTrouble('missing')
      return { block: async () => new Float32Array(RATE).fill(1), close() {} }
    })
    expect([...(await tape.read('x', 0, 2))]).toEqual([0, 0])
    expect(tape.failed.get('x')?.trouble).toBe('missing')
    works = true
    tape.forget()
    expect([...(await tape.read('x', 0, 2))]).toEqual([1, 1])
  })
})

describe('mixer', () => {
  beforeEach(() => {
    vi.useFakeTimers({ now: 1_000_000 })
    vi.stubGlobal('document', { hidden: false })
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })

  /** A sound device that jumps ahead of the wall by 10 ms after a second; each piece, with the moment it was given. */
  function device() {
    const begun: { at: number; now: number; until: number | null }[] = []
    const gain = { setTargetAtTime() {}, cancelScheduledValues() {}, setValueAtTime() {}, linearRampToValueAtTime() {} }
    const since = Date.now()
    const context = {
      state: 'running',
      get currentTime() {
        const seconds = (Date.now() - since) / 1000 + 1
        return seconds > 2 ? seconds + 0.01 : seconds
      },
      createGain: () => ({ gain, connect() {}, disconnect() {} }),
      createBuffer: (_channels: number, length: number) => ({ length, getChannelData: () => new Float32Array(length) }),
      createBufferSource: () => {
        const piece = { at: 0, now: 0, until: null as number | null }
        return {
          playbackRate: { value: 1 },
          connect() {},
          start: (at: number) => begun.push(Object.assign(piece, { at, now: context.currentTime })),
          stop: (at: number) => (piece.until = at),
        }
      },
    }
    return { context: context as unknown as AudioContext, begun }
  }

  it('begins no piece late: it would be heard over the one after it', async () => {
    const late = []
    const over = []
    let pieces = 0
    // A block that is read just as its sound is due: by the wall in time still, for what is laid already too late.
    for (let wait = 380; wait < 500; wait += 2) {
      const { context, begun } = device()
      const tape = new Tape(async () => ({
        block: async (block) => {
          if (block === 2) await new Promise((resolve) => setTimeout(resolve, wait))
          return new Float32Array(RATE).fill(0.1)
        },
        close() {},
      }))
      const mixer = new Mixer(
        context,
        tape,
        () => 'x',
        () => Date.now() / 1000,
      )
      mixer.setSounds([piece()])
      mixer.start({ from: 0, since: Date.now() / 1000, speed: 1, low: 0, high: 10 * TICKS, loops: false })
      await vi.advanceTimersByTimeAsync(3500)
      mixer.close()
      late.push(...begun.filter(({ at, now }) => at < now))
      // A device with a leap in its time begins later than it was told: its end must have been told it as well.
      over.push(...begun.filter(({ until }, n) => n + 1 < begun.length && (until === null || until > begun[n + 1]!.at)))
      pieces += begun.length
    }
    expect(pieces).toBeGreaterThan(1500)
    expect([late, over]).toEqual([[], []])
  })
})

describe('device clock', () => {
  it('says nothing while the device is asleep, and finds its time again when it wakes', () => {
    let now = 10
    const audio = { state: 'running', currentTime: 5 }
    const clock = new DeviceClock(audio, () => now)
    const run = (seconds: number, advances = true) => {
      now += seconds
      if (advances) audio.currentTime += seconds
      return clock.look()
    }
    expect(run(0.1)).toBe(true)
    expect(clock.at(now + 1)).toBeCloseTo(audio.currentTime + 1, 3)
    expect([run(0.2, false), run(0.2, false)]).toEqual([true, false])
    expect(clock.at(now)).toBeNull()
    expect(run(0.1)).toBe(true)
    expect(clock.at(now)).toBeCloseTo(audio.currentTime, 3)
  })

  it('is not moved by one look that is off, and knows soon that the device stood still', () => {
    let now = 10
    const audio = { state: 'running', currentTime: 5 }
    const clock = new DeviceClock(audio, () => now)
    const run = (seconds: number, advance = seconds) => {
      now += seconds
      audio.currentTime += advance
      clock.look()
      return clock.at(now)! - audio.currentTime
    }
    for (let n = 0; n < 10; n++) run(0.04)
    expect(Math.abs(run(0.04, 0.03))).toBeCloseTo(0.01, 6)
    expect(run(0.04, 0.05)).toBeCloseTo(0, 6)
    // It stands still for 35 ms; three looks say the same, and that is it.
    run(0.04, 0.005)
    run(0.04)
    expect(run(0.04)).toBeCloseTo(0, 6)
  })

  it('goes by no look from before a pause', () => {
    let now = 10
    const audio = { state: 'running', currentTime: 5 }
    const clock = new DeviceClock(audio, () => now)
    for (let n = 0; n < 10; n++) {
      now += 0.04
      audio.currentTime += 0.04
      clock.look()
    }
    // It is not looked at while nothing plays; meanwhile the device stood still for a moment.
    now += 0.6
    audio.currentTime += 0.54
    clock.look()
    expect(clock.at(now)).toBeCloseTo(audio.currentTime, 6)
  })
})
