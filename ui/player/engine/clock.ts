/** What of an AudioContext the clock looks at. */
export interface AudioTime {
  readonly state: string
  readonly currentTime: number
  readonly outputLatency?: number
  getOutputTimestamp?(): { contextTime?: number; performanceTime?: number }
}

/** Seconds without an advance after which a sound device is taken to be asleep. */
const ASLEEP = 0.25
/** Seconds for which a look at the device counts. */
const LOOKS = 0.4
/** So many looks that agree with each other, and not with those before, say that the device stood still; seconds. */
const AGREE = 3
const AGREED_WITHIN = 0.005
const STOOD_STILL = 0.01

/**
 * Says which moment of the sound device is heard at a moment of the wall's clock, seconds both. The playhead goes by
 * the wall, so
 * that a device that falls asleep, is pulled out or changes stops nothing; sound is laid where it belongs on that
 * clock, and led
 * back to it gently where the device's own clock runs otherwise.
 */
export class DeviceClock {
  private offset: number | null = null
  private looks: { wall: number; heard: number }[] = []
  private lastTime = -1
  private lastAdvance = 0

  constructor(
    private readonly audio: AudioTime,
    private readonly wall: () => number,
  ) {}

  /** Looks at the device; false while it is asleep. */
  look(): boolean {
    const now = this.wall()
    const time = this.audio.currentTime
    if (time > this.lastTime) {
      this.lastTime = time
      this.lastAdvance = now
    }
    if (this.audio.state !== 'running' || now - this.lastAdvance > ASLEEP || time === 0) {
      this.offset = null
      this.looks = []
      return false
    }
    const stamp = this.audio.getOutputTimestamp?.()
    const isStamped = stamp?.contextTime !== undefined && stamp.performanceTime !== undefined && stamp.contextTime > 0
    const heard = isStamped
      ? stamp.contextTime! - stamp.performanceTime! / 1000
      : time - (this.audio.outputLatency ?? 0) - now
    // One look is a few milliseconds off, by how the device takes its sound in blocks; the middle one of many is not,
    // and where the device stood still for a moment it is known after a few, not by and by.
    this.looks = [...this.looks.filter((one) => now - one.wall < LOOKS), { wall: now, heard }]
    const newest = this.looks.slice(-AGREE).map((one) => one.heard)
    const isNew =
      newest.length === AGREE &&
      Math.max(...newest) - Math.min(...newest) < AGREED_WITHIN &&
      Math.abs(middle(newest) - middle(this.looks.map((one) => one.heard))) > STOOD_STILL
    if (isNew) this.looks = this.looks.slice(-AGREE)
    this.offset = middle(this.looks.map((one) => one.heard))
    return true
  }

  /** The device's time of the sound that is to be heard at a moment; null while it is asleep. */
  at(wall: number): number | null {
    return this.offset === null ? null : wall + this.offset
  }

  /** The moment at which what the device has at a time is heard. */
  wallAt(time: number): number {
    return time - (this.offset ?? 0)
  }
}

const middle = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!
