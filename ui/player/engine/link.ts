import type { Transport } from './transport'

/** Where the leading window is, as the others are told. `epoch` is milliseconds since 1970 at which it was at `at`. */
interface Word {
  kind: 'at' | 'ask'
  at: number
  speed: number
  epoch: number
  /** Which playlist it is about, so that a follower that shows another one asks its page for it. */
  about: string
}

const epoch = (): number => performance.timeOrigin + performance.now()

/** Tells other windows of this browser how a transport moves: on each command, and to those that ask. */
export class Leader {
  private readonly channel: BroadcastChannel
  private readonly leave: () => void

  constructor(
    name: string,
    private readonly transport: Transport,
    private readonly about: () => string,
  ) {
    this.channel = new BroadcastChannel(name)
    this.channel.onmessage = (event: MessageEvent<Word>) => event.data.kind === 'ask' && this.tell()
    this.leave = transport.onChange(() => this.tell())
    this.tell()
  }

  private tell(): void {
    const word: Word = {
      kind: 'at',
      at: this.transport.position(),
      speed: this.transport.speed,
      epoch: epoch(),
      about: this.about(),
    }
    this.channel.postMessage(word)
  }

  close(): void {
    this.leave()
    this.channel.close()
  }
}

/** Moves a transport as another window's does; both clocks count from the same second, so that they are in step. */
export class Follower {
  private readonly channel: BroadcastChannel

  /** @param about called with what the leader shows, before its transport is followed */
  constructor(name: string, transport: Transport, about: (what: string) => void = () => {}) {
    this.channel = new BroadcastChannel(name)
    this.channel.onmessage = (event: MessageEvent<Word>) => {
      const word = event.data
      if (word.kind !== 'at') return
      about(word.about)
      if (word.speed === 0) transport.goExactly(word.at)
      else transport.follow(word.at, word.speed, (epoch() - word.epoch) / 1000)
    }
    this.channel.postMessage({ kind: 'ask', at: 0, speed: 0, epoch: epoch(), about: '' } satisfies Word)
  }

  close(): void {
    this.channel.close()
  }
}
