import { TICKS } from '../time'
import { clamp, stepFrames, toFrameStart, type Playlist } from './playlist'

export type TransportState =
  | { kind: 'standing'; at: number }
  /**
   * `since` is the clock's time, seconds, at which it was at `from`, ticks; `speed` is times normal, below zero
   * backwards.
   */
  | { kind: 'playing'; from: number; since: number; speed: number; low: number; high: number; loops: boolean }

/** The fastest speed of a press. */
const FASTEST = 8

/**
 * Where the playhead is, and how it moves. It never waits for pictures or sound: each command takes effect where it is
 * called,
 * so that none is lost and they are answered in their order. Ticks of the playlist's clock.
 */
export class Transport {
  state: TransportState = { kind: 'standing', at: 0 }
  loops = false
  /** Beyond these nothing is gone to or played, ticks; null is the whole. */
  bounds: { from: number; to: number } | null = null
  /** What `play in to out` and the loop go by; null is the whole. */
  range: { from: number; to: number } | null = null
  private playlist: Playlist
  private readonly listeners = new Set<() => void>()

  /** @param clock seconds, never backwards */
  constructor(
    private readonly clock: () => number,
    playlist: Playlist,
  ) {
    this.playlist = playlist
  }

  /** Calls back whenever a command changed how it moves, or it stopped by itself. */
  onChange(listener: () => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  get speed(): number {
    return this.state.kind === 'playing' ? this.state.speed : 0
  }

  /** The last instant at which something is shown. */
  get last(): number {
    return Math.max(0, this.playlist.length - 1)
  }

  private get first(): number {
    return clamp(this.bounds?.from ?? 0, 0, this.last)
  }

  private get end(): number {
    return this.bounds === null ? this.last : clamp(this.bounds.to - 1, this.first, this.last)
  }

  /** Sets how far it may go; what stands or plays outside is brought inside. */
  setBounds(bounds: { from: number; to: number } | null): void {
    this.bounds = bounds
    const at = this.position()
    const inside = clamp(at, this.first, this.end)
    if (this.state.kind === 'playing') this.run(this.speed)
    else if (inside !== at) this.set({ kind: 'standing', at: this.frame(inside) })
  }

  /** Another playlist, from an instant; it stands unless it is to go on as it did. */
  load(playlist: Playlist, at: number, goesOn = false): void {
    this.playlist = playlist
    const speed = this.speed
    this.set({ kind: 'standing', at: clamp(at, 0, this.last) })
    if (goesOn && speed !== 0) this.run(speed)
  }

  /** What is heard or known of the same pictures is otherwise; it goes on where it is. */
  replace(playlist: Playlist): void {
    const at = this.position()
    this.playlist = playlist
    if (this.state.kind === 'standing') this.state = { kind: 'standing', at: clamp(at, 0, this.last) }
    else this.state = { ...this.state, high: Math.min(this.state.high, this.last) }
    this.tell()
  }

  /** Where it is now. Ends and loops are looked at here, so whoever draws asks each time. */
  position(): number {
    const state = this.state
    if (state.kind === 'standing') return state.at
    const at = state.from + (this.clock() - state.since) * TICKS * state.speed
    if (at >= state.low && at <= state.high) return at
    if (state.loops) {
      const length = Math.max(1, state.high - state.low)
      const over = state.speed > 0 ? (at - state.low) % length : length - ((state.high - at) % length)
      // Nobody is told: sound goes round by itself.
      this.state = { ...state, from: state.low + over, since: this.clock() }
      return state.low + over
    }
    this.set({ kind: 'standing', at: this.frame(clamp(at, state.low, state.high)) })
    return (this.state as { at: number }).at
  }

  run(speed: number, over: { from: number; to: number } | null = this.loops ? this.range : null): void {
    const low = over === null ? this.first : over.from
    const high = over === null ? this.end : Math.max(low, over.to - 1)
    let from = clamp(this.position(), low, high)
    // From its end it plays from its start, and the other way round.
    if (speed > 0 && this.frame(from) >= this.frame(high)) from = low
    if (speed < 0 && from <= low) from = high
    this.set({ kind: 'playing', from, since: this.clock(), speed, low, high, loops: this.loops })
  }

  /** Changes how fast it goes without leaving where it is. */
  private turn(speed: number): void {
    const state = this.state
    if (state.kind === 'standing') this.run(speed)
    else {
      const from = this.position()
      if (this.state.kind === 'playing') this.set({ ...state, from, since: this.clock(), speed })
      else this.run(speed)
    }
  }

  toggle(): void {
    if (this.state.kind === 'playing') this.stop()
    else this.run(1)
  }

  /** @param seen the instant of the picture that was seen last; it stands on that one */
  stop(seen: number | null = null): void {
    const at = seen ?? this.position()
    this.set({ kind: 'standing', at: this.frame(clamp(at, 0, this.last)) })
  }

  /** A press forward or back: 1, 2, 4, 8 times; the other way round it begins at 1 again. */
  faster(direction: 1 | -1): void {
    const speed = this.speed
    this.turn(speed * direction >= 1 ? clamp(speed * 2, -FASTEST, FASTEST) : direction)
  }

  /** A part of normal speed, as long as a key is held. */
  creep(speed: number): void {
    this.turn(speed)
  }

  goTo(ticks: number): void {
    this.set({ kind: 'standing', at: this.frame(clamp(ticks, this.first, this.end)) })
  }

  /** To an instant and not to the frame that holds it: sound is stepped finer than pictures. */
  goExactly(ticks: number): void {
    this.set({ kind: 'standing', at: clamp(ticks, this.first, this.end) })
  }

  step(count: number): void {
    const at = stepFrames(this.playlist, this.position(), count)
    const inside = clamp(at, this.first, this.end)
    this.set({ kind: 'standing', at: inside === at ? at : this.frame(inside) })
  }

  /** Moves as another one does that was at `at` so many seconds ago, round and round where that one does. */
  follow(at: number, speed: number, secondsAgo: number, loop: { low: number; high: number } | null = null): void {
    this.set({
      kind: 'playing',
      from: at,
      since: this.clock() - secondsAgo,
      speed,
      low: loop?.low ?? 0,
      high: loop?.high ?? this.last,
      loops: loop !== null,
    })
  }

  setLoop(on: boolean): void {
    this.loops = on
    const state = this.state
    if (state.kind !== 'playing') return
    const from = this.position()
    if (this.state.kind === 'playing') {
      const low = on && this.range !== null ? this.range.from : state.low
      const high = on && this.range !== null ? this.range.to - 1 : state.high
      this.set({ ...state, from: clamp(from, low, high), since: this.clock(), low, high, loops: on })
    }
  }

  private frame(ticks: number): number {
    return toFrameStart(this.playlist, ticks)
  }

  private set(state: TransportState): void {
    this.state = state
    this.tell()
  }

  private tell(): void {
    for (const listener of this.listeners) listener()
  }
}
