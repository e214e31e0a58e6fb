import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { useLive } from './live'
import { reach } from './reach'

vi.mock('./queries', () => ({ justMadeStale: () => false, makeStale: () => {} }))

class Stream {
  static all: Stream[] = []
  private readonly hears = new Map<string, (message: unknown) => void>()
  onerror: (() => void) | null = null
  isOpen = true
  constructor(readonly address: string) {
    Stream.all.push(this)
  }
  addEventListener(name: string, hear: (message: unknown) => void): void {
    this.hears.set(name, hear)
  }
  say(name: string, id = 0): void {
    this.hears.get(name)?.({ lastEventId: String(id), data: JSON.stringify({ id, topic: 'bins', facts: {} }) })
  }
  close(): void {
    this.isOpen = false
  }
}

let isAway = false
let scope: EffectScope
beforeEach(() => {
  vi.useFakeTimers()
  Stream.all = []
  isAway = false
  vi.stubGlobal('EventSource', Stream)
  vi.stubGlobal('window', {
    addEventListener() {},
    removeEventListener() {},
    setTimeout: (run: () => void, after: number) => setTimeout(run, after),
    clearTimeout: (timer: number) => clearTimeout(timer),
    setInterval: (run: () => void, every: number) => setInterval(run, every),
    clearInterval: (timer: number) => clearInterval(timer),
  })
  vi.stubGlobal('document', {
    visibilityState: 'visible',
    cookie: '',
    addEventListener() {},
    removeEventListener() {},
  })
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => {
      if (isAway) throw new TypeError('Failed to fetch')
      return new Response('{}')
    }),
  )
  scope = effectScope()
  scope.run(() => useLive('P'))
})
afterEach(async () => {
  isAway = false
  scope.stop()
  await vi.advanceTimersByTimeAsync(4000)
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('goes on with another stream from what was heard last, where one says nothing any more', async () => {
  Stream.all[0]!.say('hello', 3)
  Stream.all[0]!.say('change', 7)
  for (let n = 0; n < 10; n++) {
    await vi.advanceTimersByTimeAsync(8000)
    Stream.all[0]!.say('still')
  }
  expect(Stream.all).toHaveLength(1)
  await vi.advanceTimersByTimeAsync(31_000)
  expect(Stream.all.map((one) => one.isOpen)).toEqual([false, true])
  expect(Stream.all[1]!.address).toMatch(/after=7$/)
  expect(reach.isLost).toBe(false)
})

it('says that the desk is away where nothing is asked for, and not where a stream only ends', async () => {
  Stream.all[0]!.onerror!()
  await vi.advanceTimersByTimeAsync(1000)
  Stream.all[0]!.say('hello', 3)
  expect(reach.isLost).toBe(false)
  isAway = true
  Stream.all[0]!.onerror!()
  Stream.all[0]!.onerror!()
  await vi.advanceTimersByTimeAsync(100)
  expect(reach.isLost).toBe(true)
  isAway = false
  await vi.advanceTimersByTimeAsync(3000)
  expect(reach.isLost).toBe(false)
})
