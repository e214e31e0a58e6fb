import { TICKS } from '../time'
import { DeviceClock } from './clock'
import { mix, reversed, squeezed, type ReadChannel } from './mix'
import { toSamples, type Sound } from './playlist'
import { Stretcher } from './stretch'
import { SAMPLE_RATE, type Tape } from './tape'

/**
 * Seconds of one piece of sound, and how far ahead pieces are laid; farther where the page is hidden and timers are
 * slow.
 */
const PIECE = 0.1
const AHEAD = 0.45
const AHEAD_HIDDEN = 2.5
/** Seconds from when a piece is given to the device until it is to be heard, beyond the device's own. */
const LEAD = 0.03
/** The device is farther on than it says by up to its block: a piece that begins sooner may be begun late. */
const SOON = 0.005
/** Seconds by which sound may be beside its place and is led back; farther it is put back at once. */
const ASTRAY = 0.012
/** Farther than that, what is laid already is laid anew: it would be heard beside its picture to its end. */
const ANEW = 0.022
/** By so much of itself a piece is played faster or slower to come back, less than a twelfth of a semitone. */
const LED = 0.0045
/** Faster than this nothing is understood, and nothing is heard. */
const SILENT_ABOVE = 4
const PITCH_KEPT_UP_TO = 2
/** Seconds of sound under one step. */
const SCRUB = 0.07

/** How loud, as it is heard: 0 to 1, the newest. */
export interface Level {
  left: number
  right: number
  channels: Map<string, number>
}

/** What plays, as the transport says it. */
export interface Moving {
  /** Ticks at the wall's time `since`, seconds. */
  from: number
  since: number
  speed: number
  low: number
  high: number
  loops: boolean
}

/**
 * Sound of a playlist on a sound device: any channels of any recording, mixed here, so that nothing is made for it.
 * Pitch is kept up
 * to 2x, above 4x it is silent, backwards it runs backwards, and a step is heard.
 */
export class Mixer {
  private sounds: Sound[] = []
  private readonly out: GainNode
  private readonly device: DeviceClock
  private moving: Moving | null = null
  private run = 0
  private laid: { node: AudioBufferSourceNode; from: number; to: number; level: Level }[] = []
  private readonly read: ReadChannel
  private muted = false
  private volume = 1
  /** Whether pieces are being laid; there is one run at a time. */
  private timer: ReturnType<typeof setTimeout> | undefined

  /** @param address of a channel's file */
  constructor(
    private readonly context: AudioContext,
    tape: Tape,
    address: (sound: Sound, channel: number) => string,
    private readonly wall: () => number = () => performance.now() / 1000,
  ) {
    this.out = context.createGain()
    this.out.connect(context.destination)
    this.device = new DeviceClock(context, wall)
    this.read = (sound, channel, from, count) => tape.read(address(sound, channel), from, count)
  }

  /** Another choice of channels or gains is heard at once. */
  setSounds(sounds: Sound[]): void {
    this.sounds = sounds
    if (this.moving !== null) this.start(this.moving)
  }

  setVolume(volume: number, muted: boolean): void {
    this.volume = volume
    this.muted = muted
    this.out.gain.setTargetAtTime(muted ? 0 : volume, this.context.currentTime, 0.008)
  }

  /** Follows the transport from a moment on. */
  start(moving: Moving): void {
    this.silence()
    this.moving = moving
    if (this.context.state !== 'running') void this.context.resume().catch(() => {})
    void this.lay(++this.run, moving)
  }

  /** Ends what runs; a piece under a step plays on. */
  stop(): void {
    if (this.moving === null) return
    this.end()
  }

  private end(): void {
    this.moving = null
    this.run++
    clearTimeout(this.timer)
    this.silence()
  }

  /** A short piece at a place, under a step. */
  async scrub(ticks: number, backwards: boolean): Promise<void> {
    const run = ++this.run
    this.silence()
    if (this.context.state !== 'running') void this.context.resume().catch(() => {})
    const count = Math.round(SCRUB * SAMPLE_RATE)
    const piece = await mix(this.sounds, toSamples(ticks), count, this.read)
    if (run !== this.run) return
    const [left, right] = backwards ? [reversed(piece.left), reversed(piece.right)] : [piece.left, piece.right]
    edge(left)
    edge(right)
    this.play(left, right, this.context.currentTime + 0.005, 1, piece.peaks)
  }

  /** What is heard now. */
  level(): Level {
    const now = this.context.currentTime
    const heard = this.laid.find((one) => one.from <= now && one.to > now)
    return heard?.level ?? { left: 0, right: 0, channels: new Map() }
  }

  /**
   * Lays piece after piece until something else is asked for. Where the device was asleep, or sound came too late, it
   * begins again at
   * where the playhead is.
   */
  private async lay(run: number, moving: Moving): Promise<void> {
    const speed = Math.abs(moving.speed)
    if (speed > SILENT_ABOVE || speed === 0) return
    const keepsPitch = speed !== 1 && speed <= PITCH_KEPT_UP_TO
    const count = Math.round(PIECE * SAMPLE_RATE)
    let stretcher = new Stretcher(speed)
    /**
     * Wall's time at which the next sample is to be heard, and the place in the playlist from which the next piece is
     * read.
     */
    let next: number | null = null
    let at = 0
    /** Device's time at which the last piece ends. */
    let end = 0
    let fades = false
    let pending: [Float32Array, Float32Array] = [new Float32Array(0), new Float32Array(0)]
    while (run === this.run) {
      const awake = this.device.look()
      const now = this.wall()
      if (!awake) {
        next = null
        await this.wait(0.05, run)
        continue
      }
      if (next === null) {
        // What is given to the device now is heard when it has come through it.
        next = now + Math.max(0, this.context.currentTime - (this.device.at(now) ?? 0)) + LEAD
        at = this.place(moving, next)
        end = 0
        stretcher = new Stretcher(speed)
        pending = [new Float32Array(0), new Float32Array(0)]
      }
      const due = this.device.at(next)
      if (end !== 0 && due !== null && Math.abs(end - due) > ANEW) {
        this.silence()
        next = null
        continue
      }
      if (next - now > (document.hidden ? AHEAD_HIDDEN : AHEAD)) {
        await this.wait(0.04, run)
        continue
      }
      const step = Math.sign(moving.speed) * count * speed
      const from = toSamples(at)
      const bound = moving.speed > 0 ? toSamples(moving.high + 1) - from : from - toSamples(moving.low)
      if (bound <= 0) {
        if (!moving.loops) return
        at = moving.speed > 0 ? moving.low : moving.high
        continue
      }
      const length = Math.max(1, Math.min(Math.round(Math.abs(step)), bound))
      const piece = await mix(this.sounds, moving.speed > 0 ? from : from - length, length, this.read)
      if (run !== this.run) return
      at += (Math.sign(moving.speed) * length * TICKS) / SAMPLE_RATE
      let left = moving.speed > 0 ? piece.left : reversed(piece.left)
      let right = moving.speed > 0 ? piece.right : reversed(piece.right)
      if (keepsPitch) {
        const ready = stretcher.push(left, right)
        pending = [joined(pending[0], ready.left), joined(pending[1], ready.right)]
        if (pending[0].length < count / 2) continue
        ;[left, right] = pending
        pending = [new Float32Array(0), new Float32Array(0)]
      } else if (speed !== 1) {
        left = squeezed(left, Math.max(1, Math.round(length / speed)))
        right = squeezed(right, left.length)
      }
      const ideal = this.device.at(next)
      if (ideal === null) continue
      const begin = end === 0 ? ideal : end
      if (begin < this.context.currentTime + SOON) {
        // Too late: it was still being read. By now it is there. What was laid before is not heard beside it, nor would
        // be what comes after: a piece that the device begins late lies over the next one, and both are heard.
        if (end > this.context.currentTime) this.silence()
        next = null
        await this.wait(0.005, run)
        continue
      }
      if (end !== 0 && Math.abs(end - ideal) > ASTRAY) {
        // The device stood still for a moment: what comes next is what is to be heard when it comes.
        next = this.device.wallAt(end)
        at = this.place(moving, next)
        stretcher = new Stretcher(speed)
        pending = [new Float32Array(0), new Float32Array(0)]
        fades = true
        continue
      }
      const seconds = left.length / SAMPLE_RATE
      // The device's clock is led after gently: a piece runs a few thousandths faster or slower.
      const rate = end === 0 ? 1 : 1 + Math.max(-LED, Math.min(LED, (begin - ideal) / seconds))
      if (end === 0 || fades) fadeIn(left, right)
      fades = false
      end = this.play(left, right, begin, rate, piece.peaks)
      next += seconds
    }
  }

  /** The place in the playlist at a moment. */
  private place(moving: Moving, wall: number): number {
    const at = moving.from + (wall - moving.since) * TICKS * moving.speed
    if (!moving.loops || (at >= moving.low && at <= moving.high)) return at
    const length = Math.max(1, moving.high - moving.low)
    return moving.low + ((((at - moving.low) % length) + length) % length)
  }

  /** @returns the device's time at which it ends */
  private play(left: Float32Array, right: Float32Array, at: number, rate: number, peaks: Map<string, number>): number {
    const buffer = this.context.createBuffer(2, left.length, SAMPLE_RATE)
    buffer.getChannelData(0).set(left)
    buffer.getChannelData(1).set(right)
    const node = this.context.createBufferSource()
    node.buffer = buffer
    node.playbackRate.value = rate
    node.connect(this.out)
    const to = at + left.length / SAMPLE_RATE / rate
    node.start(at)
    // A device that stood still goes on with a leap and may begin it late: then it is cut off, and not heard over the
    // next.
    node.stop(to)
    const shown = this.muted ? 0 : this.volume
    const { currentTime: now } = this.context
    this.laid = this.laid.filter((one) => one.to > now - 0.3)
    this.laid.push({
      node,
      from: at,
      to,
      level: { left: most(left) * shown, right: most(right) * shown, channels: peaks },
    })
    return to
  }

  private silence(): void {
    const now = this.context.currentTime
    for (const one of this.laid) {
      if (one.to <= now) continue
      // A sample cut off in its middle clicks; the gain of all goes down and up instead of each piece's own.
      one.node.stop(Math.min(one.to, now + 0.004))
    }
    if (this.laid.some((one) => one.to > now) && !this.muted) {
      this.out.gain.cancelScheduledValues(now)
      this.out.gain.setValueAtTime(this.volume, now)
      this.out.gain.linearRampToValueAtTime(0, now + 0.004)
      this.out.gain.linearRampToValueAtTime(this.volume, now + 0.008)
    }
    this.laid = this.laid.filter((one) => one.from <= now)
    for (const one of this.laid) one.to = Math.min(one.to, now + 0.004)
  }

  private wait(seconds: number, run: number): Promise<void> {
    return new Promise((resolve) => {
      this.timer = setTimeout(resolve, seconds * 1000)
      if (run !== this.run) resolve()
    })
  }

  close(): void {
    this.end()
    this.out.disconnect()
  }
}

function most(samples: Float32Array): number {
  let found = 0
  for (const value of samples) if (Math.abs(value) > found) found = Math.abs(value)
  return Math.min(1, found)
}

function joined(first: Float32Array, second: Float32Array): Float32Array {
  if (first.length === 0) return second
  const out = new Float32Array(first.length + second.length)
  out.set(first)
  out.set(second, first.length)
  return out
}

function edge(samples: Float32Array): void {
  const length = Math.min(192, samples.length >> 1)
  for (let n = 0; n < length; n++) {
    samples[n]! *= n / length
    samples[samples.length - 1 - n]! *= n / length
  }
}

function fadeIn(left: Float32Array, right: Float32Array): void {
  const length = Math.min(192, left.length)
  for (let n = 0; n < length; n++) {
    left[n]! *= n / length
    right[n]! *= n / length
  }
}
