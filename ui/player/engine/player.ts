import { openVideo, type DeckTrouble, type GroupSource } from './deck'
import { Mixer, type Level } from './mixer'
import { mix, type ReadChannel } from './mix'
import { TICKS } from '../time'
import { clamp, EMPTY, toSamples, type Picture, type Playlist, type Sound } from './playlist'
import { Screen, type Rendition } from './screen'
import { openChannel, SAMPLE_RATE, Tape, type ChannelReader } from './tape'
import { Transport } from './transport'

export type Trouble = DeckTrouble | 'browser' | 'device' | 'silent'

/** Where a player finds media, and what it plays on; tests bring their own. */
export interface Surroundings {
  picture: (piece: Picture, rendition: Rendition) => string
  channel: (sound: Sound, channel: number) => string
  openVideo?: (address: string, rate: Picture['rate']) => Promise<GroupSource>
  openChannel?: (address: string) => Promise<ChannelReader>
  /** Seconds, never backwards. */
  wall?: () => number
  context?: () => AudioContext
}

let shared: AudioContext | null = null
/** One sound device for all players of a page. */
function sharedContext(): AudioContext {
  shared ??= new AudioContext({ sampleRate: SAMPLE_RATE, latencyHint: 'interactive' })
  return shared
}

/**
 * Opening the device can take a moment, in which nothing moves: it is done before the first press, while nothing else
 * is.
 */
function warm(): void {
  if (shared !== null || typeof AudioContext === 'undefined') return
  const open = (): void => {
    try {
      sharedContext()
    } catch {
      // The first press tries again, and says so.
    }
  }
  if (typeof requestIdleCallback === 'undefined') setTimeout(open, 200)
  else requestIdleCallback(open, { timeout: 1500 })
}

/** Whether this page may decode: browsers give the decoders to pages of localhost and of https only. */
export const canDecode = (): boolean => typeof VideoDecoder !== 'undefined' && typeof AudioDecoder !== 'undefined'

/**
 * Everything that plays: one transport, screens that follow it, and the sound under them. Another look at the same
 * instant is another
 * screen; nothing of it knows the page.
 */
export class Player {
  readonly transport: Transport
  readonly screens: Screen[] = []
  playlist: Playlist = EMPTY
  private mixer: Mixer | null = null
  private sounds: Sound[] = []
  private volume = 1
  private muted = false
  private request = 0
  private readonly listeners = new Set<() => void>()
  private readonly wall: () => number
  private lastScrub = 0
  /** When it was drawn last, and how long the display shows a picture; seconds. */
  private drawnAt = 0
  private interval = 1 / 60

  constructor(private readonly around: Surroundings) {
    this.wall = around.wall ?? (() => performance.now() / 1000)
    this.transport = new Transport(this.wall, EMPTY)
    this.transport.onChange(() => this.moved())
    if (around.context === undefined) warm()
    if (typeof document !== 'undefined') document.addEventListener('visibilitychange', this.hidden)
  }

  /**
   * A page that nobody sees and that stands keeps no pictures but the one it shows: its memory is somebody else's
   * then.
   */
  private readonly hidden = (): void => {
    if (document.hidden && this.transport.state.kind === 'standing') for (const screen of this.screens) screen.shrink()
    else this.draw()
  }

  /**
   * Calls back when what is seen, where it is or how it moves may be otherwise; at most once a picture of the
   * display.
   */
  onChange(listener: () => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** A further view of the same clock: its own pictures, or those of the playlist. */
  addScreen(pictures: Picture[] = this.playlist.pictures, rendition: Rendition = 'proxy'): Screen {
    const screen = new Screen(
      pictures,
      this.around.picture,
      this.around.openVideo ?? openVideo,
      () => this.draw(),
      rendition,
    )
    this.screens.push(screen)
    this.draw()
    return screen
  }

  removeScreen(screen: Screen): void {
    const index = this.screens.indexOf(screen)
    if (index >= 0) this.screens.splice(index, 1)
    screen.close()
  }

  /**
   * Another playlist on the first screen.
   *
   * @param at where it stands, ticks
   * @param goesOn whether it plays on as it did
   */
  load(playlist: Playlist, at = 0, goesOn = false): void {
    this.playlist = playlist
    this.sounds = playlist.sounds
    this.screens[0]?.load(playlist.pictures)
    this.mixer?.setSounds(this.sounds)
    this.transport.load(playlist, at, goesOn)
    this.draw()
  }

  /** The same pictures with more known of them, such as what is heard under them: it goes on where it is. */
  replace(playlist: Playlist): void {
    this.playlist = playlist
    this.screens[0]?.load(playlist.pictures)
    this.transport.replace(playlist)
    this.draw()
  }

  /** What of the playlist's recordings is heard. */
  setSounds(sounds: Sound[]): void {
    this.sounds = sounds
    // It may play already when it is told what is heard: whoever pressed play was faster than the answer.
    if (this.mixer === null && this.transport.state.kind === 'playing') this.moved()
    else this.mixer?.setSounds(sounds)
  }

  setVolume(volume: number, muted: boolean): void {
    this.volume = volume
    this.muted = muted
    this.mixer?.setVolume(volume, muted)
  }

  /** When the frame begins that is seen of some pictures, ticks; null where none is. Late media are seen late. */
  seenTicks(pictures: Picture[]): number | null {
    return this.screens.find((screen) => screen.plays(pictures))?.seenTicks() ?? null
  }

  /** Stops on the picture that was seen last. */
  stop(): void {
    this.transport.stop(this.screens[0]?.seenTicks() ?? null)
  }

  toggle(): void {
    if (this.transport.state.kind === 'playing') this.stop()
    else this.transport.run(1)
  }

  step(count: number): void {
    this.transport.step(count)
    this.scrub(count < 0)
  }

  /** To an instant that need not be a frame's start: sound alone is stepped by milliseconds. */
  nudge(ticks: number): void {
    this.goExactly(this.transport.position() + ticks)
  }

  /** To an instant as it is, between frames: sound is marked finer than pictures. */
  goExactly(ticks: number): void {
    const isBack = ticks < this.transport.position()
    this.transport.goExactly(ticks)
    this.scrub(isBack)
  }

  goTo(ticks: number): void {
    this.transport.goTo(ticks)
    this.scrub(false)
  }

  level(): Level {
    return this.mixer?.level() ?? { left: 0, right: 0, channels: new Map() }
  }

  /** What hinders what is to be seen or heard now. */
  get trouble(): Trouble | null {
    if (!canDecode() && this.around.openVideo === undefined) return 'browser'
    const at = this.transport.position()
    for (const screen of this.screens) {
      const found = screen.trouble(at)
      if (found !== null) return found
    }
    const failed = this.tape?.failed.values().next().value
    if (failed !== undefined) return failed.trouble === 'server' ? 'server' : 'silent'
    return this.withoutDevice ? 'device' : null
  }

  /** Tries again what failed. */
  again(): void {
    for (const screen of this.screens) screen.again()
    this.tape?.forget()
    this.withoutDevice = false
    if (this.transport.state.kind === 'playing') this.moved()
    this.draw()
  }

  private tape: Tape | null = null
  private withoutDevice = false

  private tapeOf(): Tape {
    return (this.tape ??= new Tape(this.around.openChannel ?? openChannel))
  }

  /** What some sounds hold of a stretch, one ear, to be drawn; 48 kHz. */
  async samples(sounds: Sound[], fromTicks: number, count: number): Promise<Float32Array> {
    const tape = this.tapeOf()
    const read: ReadChannel = (sound, channel, from, many) => tape.read(this.around.channel(sound, channel), from, many)
    const { left, right } = await mix(sounds, toSamples(fromTicks), count, read)
    return left.map((value, n) => (value + right[n]!) / 2)
  }

  /** The mixer comes with the first sound: browsers open the device when a person did something. */
  private sound(): Mixer | null {
    if (this.mixer !== null || this.withoutDevice) return this.mixer
    if (this.sounds.length === 0) return null
    try {
      const context = (this.around.context ?? sharedContext)()
      this.mixer = new Mixer(context, this.tapeOf(), this.around.channel, this.wall)
      this.mixer.setVolume(this.volume, this.muted)
      this.mixer.setSounds(this.sounds)
    } catch {
      // Pictures play without a sound device, and the page says so.
      this.withoutDevice = true
    }
    return this.mixer
  }

  private scrub(backwards: boolean): void {
    // A held key steps faster than a piece lasts; every second one is heard.
    if (this.wall() - this.lastScrub < 0.035) return
    this.lastScrub = this.wall()
    void this.sound()?.scrub(this.transport.position(), backwards)
  }

  private moved(): void {
    const state = this.transport.state
    if (state.kind === 'playing')
      this.sound()?.start({
        from: state.from,
        since: state.since,
        speed: state.speed,
        low: state.low,
        high: state.high,
        loops: state.loops,
      })
    else this.mixer?.stop()
    this.draw()
  }

  /**
   * What is copied to a canvas now is seen with the display's next picture: while it plays, the frame of the middle of
   * that picture is wanted, so that frames come as often a little early as a little late.
   */
  private dueNext(at: number): number {
    const now = this.wall()
    const since = now - this.drawnAt
    this.drawnAt = now
    if (since > 0.003 && since < 0.04) this.interval += (since - this.interval) * 0.1
    const state = this.transport.state
    return state.kind === 'playing' ? clamp(at + 1.5 * this.interval * TICKS * state.speed, state.low, state.high) : at
  }

  /** At the display's next picture. */
  private draw(): void {
    if (this.request !== 0) return
    this.request = requestAnimationFrame(() => {
      this.request = 0
      const at = this.dueNext(this.transport.position())
      for (const screen of this.screens) screen.render(at, this.transport.speed)
      for (const listener of this.listeners) listener()
      if (this.transport.state.kind === 'playing') this.draw()
    })
  }

  close(): void {
    if (typeof document !== 'undefined') document.removeEventListener('visibilitychange', this.hidden)
    cancelAnimationFrame(this.request)
    this.request = -1
    for (const screen of this.screens) screen.close()
    this.screens.length = 0
    this.mixer?.close()
    this.tape?.close()
    this.listeners.clear()
  }
}
