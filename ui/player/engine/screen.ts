import { Deck, type DeckTrouble, type GroupSource, type Shown } from './deck'
import { frameAt, indexAt, pieceAt, ticksOfFrame, type Picture } from './playlist'

export type Rendition = 'proxy' | 'small'

/** Media whose pictures are ready at once on one screen: of the one that plays, the next, and the one before. */
const READY_DECKS = 3
/** Media that stay open beyond that, without pictures: a cut between angles comes back to them soon. */
const MOST_DECKS = 7
/** Ticks before a cut at which the next piece is got ready. */
const READ_AHEAD = 2 * 705_600_000

/** What a screen shows: a frame of a piece; nothing in a gap. */
export interface Seen {
  piece: Picture
  frame: number
}

/**
 * Pictures of a playlist on one canvas: it asks for the frame that an instant wants, reads ahead over cuts, and shows
 * a frame when it
 * is there. What it says it shows, it shows.
 */
export class Screen {
  seen: Seen | null = null
  /** Frames that were shown and that were passed by while it played at normal speed. */
  counts = { shown: 0, dropped: 0 }
  private readonly decks = new Map<string, Deck>()
  private pen: CanvasRenderingContext2D | null = null
  private drawn: Shown | null = null
  private isClear = true
  private isCopying = false
  private pixels: ImageData | null = null
  /** Whether this browser copies pixels out of a frame as a canvas takes them. */
  private static copies = true

  constructor(
    private pictures: Picture[],
    private readonly address: (piece: Picture, rendition: Rendition) => string,
    private readonly open: (address: string, rate: Picture['rate']) => Promise<GroupSource>,
    private readonly onFrame: () => void,
    public rendition: Rendition = 'proxy',
  ) {}

  attach(canvas: HTMLCanvasElement | null): void {
    this.pen = canvas?.getContext('2d', { alpha: false }) ?? null
    this.drawn = null
    this.isClear = false
    // What came before there was anything to draw on is drawn now.
    this.onFrame()
  }

  get canvas(): HTMLCanvasElement | null {
    return this.pen?.canvas ?? null
  }

  load(pictures: Picture[], rendition: Rendition = this.rendition): void {
    this.pictures = pictures
    this.rendition = rendition
    this.seen = null
    const kept = new Set(pictures.map((piece) => this.key(piece)))
    for (const [key, deck] of this.decks)
      if (!kept.has(key)) {
        deck.close()
        this.decks.delete(key)
      }
  }

  /** What hinders the piece at an instant; null when nothing does. */
  trouble(ticks: number): DeckTrouble | null {
    const piece = pieceAt(this.pictures, ticks)
    return piece === null ? null : (this.decks.get(this.key(piece))?.trouble ?? null)
  }

  /** Gives back all pictures but those that are wanted now. */
  shrink(): void {
    for (const deck of this.decks.values()) deck.shrink()
  }

  /** Opens again what failed. */
  again(): void {
    for (const [key, deck] of this.decks)
      if (deck.trouble !== null) {
        deck.close()
        this.decks.delete(key)
      }
  }

  /**
   * @param speed times normal, 0 when it stands
   * @returns whether the wanted frame is seen
   */
  render(ticks: number, speed: number): boolean {
    const piece = pieceAt(this.pictures, ticks)
    if (piece === null) {
      this.clear()
      this.ahead(ticks, speed)
      return true
    }
    const frame = frameAt(piece, ticks)
    const deck = this.deck(piece)
    deck.want(frame, speed < 0 ? -1 : 1, this.alsoIn(piece, ticks, speed))
    this.ahead(ticks, speed)
    const picture = deck.frame(frame)
    if (picture === null) {
      if (deck.trouble !== null) this.clear()
      return false
    }
    if (picture !== this.drawn) this.show(piece, frame, picture, speed)
    else if (this.seen?.piece !== piece || this.seen.frame !== frame) this.seen = { piece, frame }
    return true
  }

  /** Whether these are its pictures. */
  plays(pictures: Picture[]): boolean {
    return this.pictures === pictures
  }

  /** When the frame that is seen begins; null when none is. */
  seenTicks(): number | null {
    return this.seen === null ? null : ticksOfFrame(this.seen.piece, this.seen.frame)
  }

  private show(piece: Picture, frame: number, picture: Shown, speed: number): void {
    const pen = this.pen
    const image = picture as unknown as VideoFrame
    if (pen === null || image.visibleRect === undefined) {
      this.isShown(piece, frame, picture, speed)
      return
    }
    const isSquare = image.displayWidth === image.visibleRect?.width && image.displayHeight === image.visibleRect.height
    if (pen.canvas.width !== image.displayWidth || pen.canvas.height !== image.displayHeight) {
      pen.canvas.width = image.displayWidth
      pen.canvas.height = image.displayHeight
    }
    if (Screen.copies && isSquare) void this.copy(pen, piece, frame, picture, speed)
    else {
      pen.drawImage(image, 0, 0)
      this.isClear = false
      this.isShown(piece, frame, picture, speed)
    }
  }

  /**
   * Its pixels, copied: drawn as a picture, the browser would keep each of them in a store of its own, half a gigabyte
   * after a minute.
   */
  private async copy(
    pen: CanvasRenderingContext2D,
    piece: Picture,
    frame: number,
    picture: Shown,
    speed: number,
  ): Promise<void> {
    // One at a time; what is wanted by then is looked at again when it is done.
    if (this.isCopying) return
    this.isCopying = true
    const image = picture as unknown as VideoFrame
    const { displayWidth: width, displayHeight: height } = image
    try {
      if (this.pixels?.width !== width || this.pixels.height !== height) this.pixels = new ImageData(width, height)
      await image.copyTo(this.pixels.data, { format: 'RGBA', colorSpace: 'srgb' })
      if (pen === this.pen && this.pictures.includes(piece)) {
        pen.putImageData(this.pixels, 0, 0)
        this.isClear = false
        this.isShown(piece, frame, picture, speed)
      }
    } catch (trouble) {
      // Given back meanwhile, it is wanted no more; a browser that does not copy so draws.
      if (trouble instanceof DOMException && trouble.name === 'NotSupportedError') Screen.copies = false
    }
    this.isCopying = false
    this.onFrame()
  }

  private isShown(piece: Picture, frame: number, picture: Shown, speed: number): void {
    if (speed === 1 && this.seen !== null && this.seen.piece === piece)
      this.counts.dropped += Math.max(0, frame - this.seen.frame - 1)
    this.counts.shown++
    this.drawn = picture
    this.seen = { piece, frame }
  }

  private clear(): void {
    if (this.isClear) return
    const canvas = this.pen?.canvas
    if (canvas !== undefined) this.pen!.clearRect(0, 0, canvas.width, canvas.height)
    this.isClear = true
    this.drawn = null
    this.seen = null
  }

  private next(piece: Picture | undefined, speed: number): Picture | undefined {
    const index = piece === undefined ? -1 : this.pictures.indexOf(piece)
    return this.pictures[index + (speed < 0 ? -1 : 1)]
  }

  /** The first frame of the next piece where that lies in the same medium. */
  private alsoIn(piece: Picture, ticks: number, speed: number): number | null {
    const next = this.next(piece, speed)
    if (next === undefined || this.key(next) !== this.key(piece) || !this.isNear(piece, ticks, speed)) return null
    return frameAt(next, speed < 0 ? next.at + next.length - 1 : next.at)
  }

  private isNear(piece: Picture, ticks: number, speed: number): boolean {
    return (speed < 0 ? ticks - piece.at : piece.at + piece.length - ticks) < READ_AHEAD * Math.max(1, Math.abs(speed))
  }

  /** Gets the next piece's pictures ready while this one still plays. */
  private ahead(ticks: number, speed: number): void {
    const index = indexAt(this.pictures, ticks)
    const here = this.pictures[index]
    const next = here === undefined ? this.pictures[0] : this.next(here, speed)
    if (next === undefined || (here !== undefined && this.key(here) === this.key(next))) return
    if (here !== undefined && !this.isNear(here, ticks, speed)) return
    const frame = frameAt(next, speed < 0 ? next.at + next.length - 1 : next.at)
    this.deck(next).want(frame, speed < 0 ? -1 : 1, null, true)
  }

  private key(piece: Picture): string {
    return `${piece.clip} ${piece.version}`
  }

  private deck(piece: Picture): Deck {
    const key = this.key(piece)
    let deck = this.decks.get(key)
    if (deck === undefined) {
      const address = this.address(piece, this.rendition)
      deck = new Deck(() => this.open(address, piece.rate), this.onFrame)
    } else this.decks.delete(key)
    this.decks.set(key, deck)
    let older = this.decks.size
    for (const [old, unused] of this.decks) {
      if (older > MOST_DECKS) {
        unused.close()
        this.decks.delete(old)
      } else if (older > READY_DECKS) unused.shrink()
      else break
      older--
    }
    return deck
  }

  close(): void {
    for (const deck of this.decks.values()) deck.close()
    this.decks.clear()
    this.pen = null
    this.seen = null
  }
}
