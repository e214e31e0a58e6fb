import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, shallowRef, type EffectScope } from 'vue'
import { useFrames } from './useFrames'

const rate = { num: 30000, den: 1001, nominal: 30, drop: true, name: '29.97df' }

/** A video element that seeks when told to, and shows the frame that holds its time. */
class FakeVideo extends EventTarget {
  readyState = 4
  paused = true
  ended = false
  muted = false
  playbackRate = 1
  seeking = false
  seeks: number[] = []
  private time = 0
  private callbacks: ((now: number, facts: { mediaTime: number }) => void)[] = []

  get currentTime(): number {
    return this.time
  }
  set currentTime(value: number) {
    this.time = value
    this.seeking = true
    this.seeks.push(value)
  }

  get frame(): number {
    return Math.floor((this.time * rate.num) / rate.den)
  }

  /** The seek under way comes to its end, and its picture is shown. */
  arrive(): void {
    this.seeking = false
    this.present()
    this.dispatchEvent(new Event('seeked'))
  }

  present(): void {
    const waiting = this.callbacks
    this.callbacks = []
    waiting.forEach((one) => one(0, { mediaTime: (this.frame * rate.den) / rate.num }))
  }

  advance(frames: number): void {
    this.time += (frames * rate.den) / rate.num
    this.present()
  }

  async play(): Promise<void> {
    this.paused = false
    this.dispatchEvent(new Event('play'))
  }

  pause(): void {
    this.paused = true
    this.dispatchEvent(new Event('pause'))
  }

  requestVideoFrameCallback(callback: (now: number, facts: { mediaTime: number }) => void): number {
    return this.callbacks.push(callback)
  }

  cancelVideoFrameCallback(): void {
    this.callbacks = []
  }
}

describe('the player by frames', () => {
  let scope: EffectScope
  let video: FakeVideo
  let frames: ReturnType<typeof useFrames>

  beforeEach(() => {
    vi.stubGlobal('window', globalThis)
    video = new FakeVideo()
    scope = effectScope()
    frames = scope.run(() => useFrames(shallowRef(video as unknown as HTMLVideoElement), rate, 300))!
  })
  afterEach(() => {
    scope.stop()
    vi.unstubAllGlobals()
  })

  it('shows exactly the frame that was asked for, wherever it lies', () => {
    for (const frame of [0, 1, 29, 137, 299]) {
      frames.goTo(frame)
      video.arrive()
      expect(frames.shown.value).toBe(frame)
    }
  })

  it('adds up steps that come while a seek is under way, and loses none', () => {
    frames.goTo(10)
    video.arrive()
    for (let n = 0; n < 7; n++) frames.step(1)
    expect(video.seeks.length).toBe(2)
    video.arrive()
    video.arrive()
    expect(frames.shown.value).toBe(17)
  })

  it('stays between the first frame and the last', () => {
    frames.goTo(298)
    video.arrive()
    frames.step(50)
    video.arrive()
    expect(frames.shown.value).toBe(299)
    frames.goTo(-5)
    video.arrive()
    expect(frames.shown.value).toBe(0)
  })

  it('steps on from the frame that was seen when play was stopped', async () => {
    await frames.run(1)
    video.advance(42)
    frames.stand()
    video.arrive()
    expect(frames.shown.value).toBe(42)
    frames.step(1)
    video.arrive()
    expect(frames.shown.value).toBe(43)
  })

  it('goes faster with each press, and is silent where speech is of no use', async () => {
    for (const [speed, muted] of [
      [1, false],
      [2, false],
      [4, true],
      [8, true],
      [8, true],
    ] as const) {
      await frames.faster(1)
      expect([frames.speed.value, video.playbackRate, video.muted]).toEqual([speed, speed, muted])
    }
    frames.stand()
    expect(frames.speed.value).toBe(0)
    expect(video.paused).toBe(true)
  })

  it('keeps a jump that meets the end of the media', () => {
    frames.goTo(299)
    video.arrive()
    frames.goTo(0)
    video.ended = true
    video.dispatchEvent(new Event('ended'))
    video.arrive()
    expect(frames.shown.value).toBe(0)
  })

  it('waits with a frame that is wanted before the media is there', () => {
    video.readyState = 0
    frames.expect(25)
    video.readyState = 1
    video.dispatchEvent(new Event('loadedmetadata'))
    video.arrive()
    expect(frames.shown.value).toBe(25)
  })
})
