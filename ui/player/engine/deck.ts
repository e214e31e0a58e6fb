import { EncodedPacketSink, Input, MP4, UrlSource, type EncodedPacket, type InputVideoTrack } from 'mediabunny'
import type { Rate } from '@/api/answers'

/** A picture whose memory is given back by `close`. */
export interface Shown {
  close(): void
}

/** Where a deck gets its pictures from: groups that begin with a key frame, decoded whole. */
export interface GroupSource {
  /**
   * Decodes the group that holds a frame; gives each picture as it comes, so that the wanted one is not kept waiting
   * for the rest.
   *
   * @param hasTime whether what is seen now does not wait for it; asked before each picture
   * @returns the first frame behind the group; null behind the last
   */
  group(frame: number, give: (frame: number, picture: Shown) => void, hasTime: () => boolean): Promise<number | null>
  close(): void
}

export type DeckTrouble = 'missing' | 'decode' | 'server'

export class MediaTrouble extends Error {
  constructor(
    readonly trouble: DeckTrouble,
    cause?: unknown,
  ) {
    super(trouble, { cause })
  }
}

/** Frames that are kept ready before the playhead, and behind it in the other direction. */
const AHEAD = 30
const BEHIND = 14
/** So many frames ready before the playhead, and what comes next has time. */
const CALM = 8
/**
 * Milliseconds between pictures that have time. As fast as it goes a group takes all processors for some fifty, and
 * the display misses pictures of what plays meanwhile.
 */
const PACE = 8

/**
 * Pictures of one medium around the playhead, by frame number. What is wanted is decoded first, then what comes next
 * in the
 * direction of play; the rest is given back.
 */
export class Deck {
  readonly frames = new Map<number, Shown>()
  trouble: DeckTrouble | null = null
  private wanted = 0
  private direction: 1 | -1 = 1
  private also: number | null = null
  private isNext = false
  private busy = false
  private closed = false
  private end = Infinity
  private source: Promise<GroupSource> | null = null

  /** @param open called once, when the first picture is asked for */
  constructor(
    private readonly open: () => Promise<GroupSource>,
    private readonly onFrame: () => void,
  ) {}

  frame(number: number): Shown | null {
    return this.frames.get(number) ?? null
  }

  /**
   * @param also a frame elsewhere in the medium that will be wanted soon, at the other side of a cut; null for none
   * @param isNext whether something else is seen yet, and this one comes after it
   */
  want(frame: number, direction: 1 | -1, also: number | null = null, isNext = false): void {
    this.isNext = isNext
    this.wanted = frame
    this.direction = direction
    this.also = also
    if (!this.busy && !this.closed && this.trouble === null) void this.work()
  }

  /** The frame that is to be decoded next; null when all is ready. */
  private next(): number | null {
    if (!this.frames.has(this.wanted)) return this.wanted
    if (this.also !== null && !this.frames.has(this.also)) return this.also
    for (let n = 1; n <= AHEAD; n++) {
      const frame = this.wanted + n * this.direction
      if (frame < 0 || frame >= this.end) return null
      if (!this.frames.has(frame)) return frame
    }
    return null
  }

  private async work(): Promise<void> {
    this.busy = true
    try {
      this.source ??= this.open()
      const source = await this.source
      for (let frame = this.next(); frame !== null && !this.closed; frame = this.next()) {
        const asked = frame
        const end = await source.group(
          frame,
          (number, picture) => this.take(number, picture),
          () => this.hasTime(),
        )
        if (end === null) this.end = Math.max(...this.frames.keys(), asked) + 1
        // A medium that is shorter than it was said to be shows its last picture. What was given back since it was
        // asked for, as somebody went elsewhere meanwhile, is not what is missing.
        if (this.next() === asked && !this.lend(asked)) break
      }
    } catch (trouble) {
      this.trouble = trouble instanceof MediaTrouble ? trouble.trouble : 'decode'
      this.onFrame()
    }
    this.busy = false
  }

  private hasTime(): boolean {
    const ready = (ahead: number): boolean => {
      const frame = this.wanted + ahead * this.direction
      return frame < 0 || frame >= this.end || this.frames.has(frame)
    }
    return this.isNext || (ready(0) && ready(CALM))
  }

  /** The last picture stands for one behind it. */
  private lend(frame: number): boolean {
    const last = Math.max(-1, ...[...this.frames.keys()].filter((one) => one < frame))
    const picture = this.frames.get(last)
    if (picture === undefined || !('clone' in picture)) return false
    this.frames.set(frame, (picture as unknown as { clone(): Shown }).clone())
    this.onFrame()
    return true
  }

  private take(frame: number, picture: Shown): void {
    if (this.closed || this.frames.has(frame)) {
      picture.close()
      return
    }
    this.frames.set(frame, picture)
    this.giveBack()
    this.onFrame()
  }

  private giveBack(): void {
    const near = (frame: number, centre: number): boolean => {
      const ahead = (frame - centre) * this.direction
      return ahead <= AHEAD + 12 && ahead >= -BEHIND
    }
    for (const [frame, picture] of this.frames) {
      if (!near(frame, this.wanted) && !(this.also !== null && Math.abs(frame - this.also) <= 12)) {
        this.frames.delete(frame)
        picture.close()
      }
    }
  }

  /** Gives back all pictures but the one that is wanted. */
  shrink(): void {
    for (const [frame, picture] of this.frames)
      if (frame !== this.wanted) {
        this.frames.delete(frame)
        picture.close()
      }
  }

  close(): void {
    this.closed = true
    for (const picture of this.frames.values()) picture.close()
    this.frames.clear()
    void this.source?.then((source) => source.close()).catch(() => {})
  }
}

/** A file on the server, by its address; frames are counted at the rate given. */
export async function openVideo(address: string, rate: Rate): Promise<GroupSource> {
  const input = openInput(address)
  let track: InputVideoTrack | null
  try {
    track = await input.getPrimaryVideoTrack()
  } catch (cause) {
    input.dispose()
    throw asTrouble(cause)
  }
  const config = await track?.getDecoderConfig()
  if (track === null || !config) {
    input.dispose()
    throw new MediaTrouble('decode')
  }
  const sink = new EncodedPacketSink(track)
  const frameOf = (seconds: number): number => Math.round((seconds * rate.num) / rate.den)
  let give: (frame: number, picture: Shown) => void = (_frame, picture) => picture.close()
  let failed: unknown = null
  const decoder = new VideoDecoder({
    output: (picture) => give(frameOf(picture.timestamp / 1e6), picture),
    error: (cause) => (failed = cause),
  })
  // Hardware decoders lend out a handful of pictures and stop until they have them back; proxies are small.
  decoder.configure({ ...config, hardwareAcceleration: 'prefer-software', optimizeForLatency: true })

  return {
    async group(frame, to, hasTime) {
      give = to
      try {
        const middle = ((frame + 0.5) * rate.den) / rate.num
        let packet: EncodedPacket | null = await sink.getKeyPacket(middle)
        packet ??= await sink.getFirstPacket()
        let next: number | null = null
        for (let first = true; packet !== null; packet = await sink.getNextPacket(packet)) {
          if (!first && packet.type === 'key') {
            next = frameOf(packet.timestamp)
            break
          }
          first = false
          decoder.decode(packet.toEncodedVideoChunk())
          // Of a page that is not seen the browser holds timers back.
          if (!document.hidden && hasTime()) await new Promise((resolve) => setTimeout(resolve, PACE))
        }
        await decoder.flush()
        if (failed !== null) throw new MediaTrouble('decode', failed)
        return next
      } catch (cause) {
        throw asTrouble(cause)
      }
    },
    close() {
      if (decoder.state !== 'closed') decoder.close()
      input.dispose()
    },
  }
}

/** A file is asked for in ranges; what was read of it is kept within bounds. */
export function openInput(address: string): Input {
  return new Input({
    formats: [MP4],
    source: new UrlSource(address, {
      maxCacheSize: 8 << 20,
      getRetryDelay: (attempts) => (attempts < 2 ? 0.3 * (attempts + 1) : null),
    }),
  })
}

export function asTrouble(cause: unknown): MediaTrouble {
  if (cause instanceof MediaTrouble) return cause
  const text = String(cause)
  // `Error fetching ADDRESS: 404 Not Found`; what gets no answer at all says no number.
  const status = / (\d{3})(?: [A-Za-z]|$)/.exec(text)?.[1]
  if (status === '404' || status === '403') return new MediaTrouble('missing', cause)
  return new MediaTrouble(status !== undefined || /fetch|network/i.test(text) ? 'server' : 'decode', cause)
}
