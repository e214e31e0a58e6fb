import type { Transport } from './transport'

/**
 * Where the leading window is, as the others are told. `epoch` is its own clock, milliseconds, at which it was at `at`.
 */
interface Word {
  kind: 'at'
  /** Another one after the window was loaded again; its clock is another, too. */
  who: number
  at: number
  speed: number
  epoch: number
  /** Between which instants it goes round and round; null where it does not. */
  loop: { low: number; high: number } | null
  /** What it shows, in words of the pages on both sides. */
  about: string
  /** The leader's clock as it says so, and the question that it answers, if any. */
  now: number
  asked: number | null
}
/** A follower asks where the leader is; `asked` is the follower's clock. */
interface Question {
  kind: 'ask'
  asked: number
}
/** A follower says what it shows, in words of the pages on both sides. */
interface Report {
  kind: 'seen'
  what: string
}

const epoch = (): number => performance.timeOrigin + performance.now()

/** How often a follower asks again, milliseconds: clocks of two windows can be set apart while both are open. */
const ASK_EVERY = 5000
/** Of so many answers the quickest says how far the clocks are apart. */
const ANSWERS = 6

/** Tells other windows of this browser how a transport moves: on each command, and to those that ask. */
export class Leader {
  private readonly who = Math.random()
  private readonly channel: BroadcastChannel
  private readonly leave: () => void

  /**
   * @param heard called with what a follower says that it shows
   * @param clock milliseconds, of this window
   */
  constructor(
    name: string,
    private readonly transport: Transport,
    private readonly about: () => string,
    heard: (what: string) => void = () => {},
    private readonly clock: () => number = epoch,
  ) {
    this.channel = new BroadcastChannel(name)
    this.channel.onmessage = (event: MessageEvent<Question | Report | Word>) => {
      if (event.data.kind === 'ask') this.tell(event.data.asked)
      else if (event.data.kind === 'seen') heard(event.data.what)
    }
    this.leave = transport.onChange(() => this.tell())
    this.tell()
  }

  /** Says where it is; by itself on each command, by the page when what it is about is another. */
  tell(asked: number | null = null): void {
    const now = this.clock()
    const { state } = this.transport
    this.channel.postMessage({
      kind: 'at',
      who: this.who,
      at: this.transport.position(),
      speed: this.transport.speed,
      epoch: now,
      loop: state.kind === 'playing' && state.loops ? { low: state.low, high: state.high } : null,
      about: this.about(),
      now,
      asked,
    } satisfies Word)
  }

  close(): void {
    this.leave()
    this.channel.close()
  }
}

/**
 * Moves a transport as another window's does. Each window counts from a second of its own, which a clock that is set
 * may put apart; so the follower asks what the leader's clock says, and takes half of the way there and back.
 */
export class Follower {
  /** By which it runs before the leader, seconds: a projector shows late what it is given. */
  lead = 0
  private readonly channel: BroadcastChannel
  private readonly timer: ReturnType<typeof setInterval>
  /** Milliseconds by which the leader's clock is before this one, with how long its answer took. */
  private answers: { apart: number; took: number }[] = []
  private last: Word | null = null

  /**
   * @param about called with what the leader shows, before its transport is followed
   * @param clock milliseconds, of this window
   */
  constructor(
    name: string,
    private readonly transport: Transport,
    about: (what: string) => void = () => {},
    private readonly clock: () => number = epoch,
  ) {
    this.channel = new BroadcastChannel(name)
    this.channel.onmessage = (event: MessageEvent<Question | Report | Word>) => {
      const word = event.data
      if (word.kind !== 'at') return
      if (this.last?.who !== word.who) this.answers = []
      this.learn(word)
      this.last = word
      if (this.answers.length === 0) this.ask()
      about(word.about)
      this.follow()
    }
    this.timer = setInterval(() => this.ask(), ASK_EVERY)
    this.ask()
  }

  /** Moves as the leader was heard last; again when the lead is another. */
  follow(): void {
    const word = this.last
    if (word === null) return
    if (word.speed === 0) {
      if (this.transport.speed !== 0 || this.transport.position() !== word.at) this.transport.goExactly(word.at)
      return
    }
    const ago = (this.clock() + this.apart - word.epoch) / 1000 + this.lead
    this.transport.follow(word.at, word.speed, ago, word.loop)
  }

  /** Tells the leader what is shown. */
  seen(what: string): void {
    this.channel.postMessage({ kind: 'seen', what } satisfies Report)
  }

  private ask(): void {
    this.channel.postMessage({ kind: 'ask', asked: this.clock() } satisfies Question)
  }

  private learn(word: Word): void {
    if (word.asked === null) return
    const now = this.clock()
    // Another follower's question is answered to all; it is none of this one's clock.
    if (word.asked > now || now - word.asked > ASK_EVERY) return
    this.answers.push({ apart: word.now - (word.asked + now) / 2, took: now - word.asked })
    if (this.answers.length > ANSWERS) this.answers.shift()
  }

  /** The leader's clock less this one, milliseconds. */
  get apart(): number {
    return this.answers.reduce((best, one) => (one.took < best.took ? one : best), { apart: 0, took: Infinity }).apart
  }

  close(): void {
    clearInterval(this.timer)
    this.channel.close()
  }
}
