import { shallowRef, type ShallowRef } from 'vue'
import { fetchRange } from '@/api/client'

/** Bytes that are asked for and kept together, and how many are kept for all clips. */
const TILE = 1 << 14
const MOST_BYTES = 40 << 20
/** Tiles of one request at most. */
const AT_ONCE = 64
/** The first request brings the head, and the whole of a short clip. */
const HEAD = 24
const VALUE = 6

/** Where the bytes of a peak file come from, and where those that came are kept. */
class Tiles {
  private readonly kept = new Map<string, DataView>()
  private readonly asked = new Set<string>()
  private bytes = 0

  /** @returns null while it is on its way, or was never asked for */
  get(address: string, tile: number): DataView | null {
    const key = `${tile} ${address}`
    const view = this.kept.get(key)
    if (view === undefined) return null
    this.kept.delete(key)
    this.kept.set(key, view)
    return view
  }

  /**
   * Asks for some tiles that are not there, neighbours together; what is on its way, or was not to be had, is not
   * asked for again.
   *
   * @returns whether any has come
   */
  async ask(address: string, first: number, last: number): Promise<boolean> {
    const runs: [number, number][] = []
    let hasCome = false
    for (let tile = first; tile <= last; tile++) {
      const key = `${tile} ${address}`
      if (this.kept.has(key) || this.asked.has(key)) continue
      this.asked.add(key)
      const run = runs.at(-1)
      if (run !== undefined && run[1] === tile - 1 && tile - run[0] < AT_ONCE) run[1] = tile
      else runs.push([tile, tile])
    }
    await Promise.all(
      runs.map(async ([from, to]) => {
        const bytes = await fetchRange(address, from * TILE, (to + 1) * TILE).catch(() => null)
        for (let tile = from; tile <= to; tile++) {
          const begin = (tile - from) * TILE
          if (bytes === null || begin >= bytes.byteLength) continue
          this.asked.delete(`${tile} ${address}`)
          // A copy, so that what goes gives its memory back whatever it came with.
          const view = new DataView(bytes.slice(begin, begin + TILE))
          this.kept.set(`${tile} ${address}`, view)
          this.bytes += view.byteLength
          hasCome = true
        }
        for (const [old, view] of this.kept) {
          if (this.bytes <= MOST_BYTES) break
          this.kept.delete(old)
          this.bytes -= view.byteLength
        }
      }),
    )
    return hasCome
  }

  /** Lets what was not to be had be asked for once more. */
  forget(address: string): void {
    for (const key of this.asked) if (key.endsWith(` ${address}`)) this.asked.delete(key)
  }
}
const tiles = new Tiles()

/**
 * Peaks of one clip, of which only what is drawn is fetched: the file that the core writes has levels, each half as
 * fine as the one
 * before (`CPK1`, see docs/formats.md).
 */
export class PeakFile {
  /** Counts up when more of it has come. */
  readonly version: ShallowRef<number> = shallowRef(0)
  channels = 0
  private bucketSamples = 0
  private sampleRate = 0
  private levels: { count: number; offset: number }[] = []
  /** Whether there is such a file; null until that is known. */
  isThere: boolean | null = null

  constructor(private readonly address: string) {
    void this.bring(0, 0).then(() => this.readHead())
  }

  private async bring(first: number, last: number): Promise<void> {
    if (await tiles.ask(this.address, first, last)) this.version.value++
  }

  private readHead(): void {
    const head = tiles.get(this.address, 0)
    this.isThere = head !== null && head.byteLength >= HEAD && head.getUint32(0, false) === 0x43504b31
    if (head === null || !this.isThere) return
    const count = head.getUint16(6, true)
    // More levels than a day of sound has, or none of the head behind them, is no file of ours.
    if (count > 40 || head.byteLength < HEAD + 4 * count) {
      this.isThere = false
      return
    }
    this.channels = head.getUint16(4, true)
    this.bucketSamples = head.getUint32(8, true)
    this.sampleRate = head.getUint32(12, true)
    let offset = HEAD + 4 * count
    for (let level = 0; level < count; level++) {
      const buckets = head.getUint32(HEAD + 4 * level, true)
      this.levels.push({ count: buckets, offset })
      offset += buckets * this.channels * VALUE
    }
    this.version.value++
  }

  /**
   * Loudness for drawing: the greatest peak over all channels, or of one, 0 to 1, one a column. What is not there yet
   * is asked for, and
   * drawn coarser meanwhile.
   *
   * @param from seconds from the clip's start
   * @param to seconds, exclusive
   * @param channel from 1; null for all
   * @returns null while nothing of it is there
   */
  columns(from: number, to: number, count: number, channel: number | null = null): Float32Array | null {
    if (this.levels.length === 0) return null
    if (to <= from) return new Float32Array(count)
    const perColumn = ((to - from) * this.sampleRate) / count
    let level = 0
    while (level + 1 < this.levels.length && this.bucketSamples * 2 ** (level + 1) <= perColumn) level++
    for (let coarse = level; coarse < this.levels.length; coarse++) {
      const [first, last] = this.tilesOf(coarse, from, to)
      let isWhole = true
      for (let tile = first; tile <= last; tile++) isWhole &&= tiles.get(this.address, tile) !== null
      if (isWhole) return this.drawn(coarse, from, perColumn, count, channel)
      if (coarse === level) void this.bring(first, last)
    }
    return null
  }

  private tilesOf(level: number, from: number, to: number): [number, number] {
    const { count, offset } = this.levels[level]!
    const size = this.bucketSamples * 2 ** level
    const bytes = this.channels * VALUE
    const first = Math.min(count - 1, Math.max(0, Math.floor((from * this.sampleRate) / size)))
    const last = Math.min(count - 1, Math.max(first, Math.ceil((to * this.sampleRate) / size)))
    return [Math.floor((offset + first * bytes) / TILE), Math.floor((offset + (last + 1) * bytes - 1) / TILE)]
  }

  private drawn(level: number, from: number, perColumn: number, count: number, channel: number | null): Float32Array {
    const out = new Float32Array(count)
    const { count: buckets, offset } = this.levels[level]!
    const size = this.bucketSamples * 2 ** level
    const [low, high] = channel === null ? [0, this.channels] : [channel - 1, Math.min(channel, this.channels)]
    let tile = -1
    let view: DataView | null = null
    // Values are two bytes at even places, so that none lies on the edge of a tile.
    const value = (at: number): number => {
      const wanted = Math.floor(at / TILE)
      if (wanted !== tile) {
        tile = wanted
        view = tiles.get(this.address, tile)
      }
      const inside = at - tile * TILE
      return view === null || inside + 2 > view.byteLength ? 0 : view.getInt16(inside, true)
    }
    for (let column = 0; column < count; column++) {
      const first = Math.floor((from * this.sampleRate + column * perColumn) / size)
      const end = Math.max(first + 1, Math.floor((from * this.sampleRate + (column + 1) * perColumn) / size))
      let most = 0
      for (let bucket = Math.max(0, first); bucket < Math.min(buckets, end); bucket++)
        for (let one = low; one < high; one++) {
          const at = offset + (bucket * this.channels + one) * VALUE
          most = Math.max(most, -value(at), value(at + 2))
        }
      out[column] = most / 32768
    }
    return out
  }
}

const files = new Map<string, PeakFile>()

/** The peaks of a clip, by their address; what was fetched of them is shared by all that draw them. */
export function peaksAt(address: string): PeakFile {
  let file = files.get(address)
  if (file === undefined) file = new PeakFile(address)
  else files.delete(address)
  files.set(address, file)
  if (files.size > 2000) files.delete(files.keys().next().value as string)
  // One that was not there may have been made since.
  if (file.isThere === false) {
    files.delete(address)
    tiles.forget(address)
  }
  return file
}
