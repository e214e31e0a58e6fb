import { AudioSampleSink } from 'mediabunny'
import { asTrouble, MediaTrouble, openInput } from './deck'

export const SAMPLE_RATE = 48_000

/** Seconds of one block, and how many are kept: 25 MB. */
const BLOCK_SECONDS = 1
const MOST_BLOCKS = 128
const BLOCK = BLOCK_SECONDS * SAMPLE_RATE

/** Channels that are open at once; an open one keeps its table of samples. */
const MOST_OPEN = 24

/** Samples of one channel from anywhere, 48 kHz; silence before its start and behind its end. */
export interface ChannelReader {
  /** @param block whole seconds from the start */
  block(block: number): Promise<Float32Array>
  close(): void
}

/** All channels that are heard, by their address: what was decoded is kept for a while, what was not is read once. */
export class Tape {
  private readonly readers = new Map<string, Promise<ChannelReader>>()
  private readonly blocks = new Map<string, Promise<Float32Array> | Float32Array>()
  readonly failed = new Map<string, MediaTrouble>()

  constructor(private readonly open: (address: string) => Promise<ChannelReader> = openChannel) {}

  /**
   * @param from sample from the channel's start; may lie before it
   * @param count of samples
   */
  async read(address: string, from: number, count: number): Promise<Float32Array> {
    const out = new Float32Array(count)
    const first = Math.floor(from / BLOCK)
    const last = Math.floor((from + count - 1) / BLOCK)
    const parts = []
    for (let block = Math.max(0, first); block <= last; block++)
      parts.push([block, this.block(address, block)] as const)
    for (const [block, promise] of parts) {
      const samples = promise instanceof Float32Array ? promise : await promise
      const at = block * BLOCK - from
      const begin = Math.max(0, -at)
      const end = Math.min(samples.length, count - at)
      if (end > begin) out.set(samples.subarray(begin, end), at + begin)
    }
    return out
  }

  /** Reads ahead without waiting. */
  warm(address: string, from: number, count: number): void {
    for (let block = Math.max(0, Math.floor(from / BLOCK)); block <= Math.floor((from + count) / BLOCK); block++)
      void this.block(address, block)
  }

  private block(address: string, block: number): Promise<Float32Array> | Float32Array {
    const key = `${block} ${address}`
    const kept = this.blocks.get(key)
    if (kept !== undefined) {
      this.blocks.delete(key)
      this.blocks.set(key, kept)
      return kept
    }
    const asked = this.reader(address)
      .then((reader) => reader.block(block))
      .then((samples) => {
        if (this.blocks.has(key)) this.blocks.set(key, samples)
        return samples
      })
      .catch((cause: unknown) => {
        // A channel that cannot be read is silent; the others are heard.
        this.failed.set(address, asTrouble(cause))
        return new Float32Array(0)
      })
    this.blocks.set(key, asked)
    for (const old of this.blocks.keys()) {
      if (this.blocks.size <= MOST_BLOCKS) break
      this.blocks.delete(old)
    }
    return asked
  }

  private reader(address: string): Promise<ChannelReader> {
    let reader = this.readers.get(address)
    if (reader === undefined) reader = this.open(address)
    else this.readers.delete(address)
    this.readers.set(address, reader)
    for (const [old, opened] of this.readers) {
      if (this.readers.size <= MOST_OPEN) break
      this.readers.delete(old)
      void opened.then((one) => one.close()).catch(() => {})
    }
    return reader
  }

  /** Tries again what could not be read. */
  forget(): void {
    for (const address of this.failed.keys()) {
      this.readers.delete(address)
      for (const key of this.blocks.keys()) if (key.endsWith(` ${address}`)) this.blocks.delete(key)
    }
    this.failed.clear()
  }

  close(): void {
    for (const reader of this.readers.values()) void reader.then((one) => one.close()).catch(() => {})
    this.readers.clear()
    this.blocks.clear()
  }
}

/** The file of one channel on the server. Its first sample is that of the recording. */
export async function openChannel(address: string): Promise<ChannelReader> {
  const input = openInput(address)
  try {
    const track = await input.getPrimaryAudioTrack()
    if (track === null) throw new MediaTrouble('decode')
    const sink = new AudioSampleSink(track)
    // One decoder at a time: blocks that are asked for together are read one after the other.
    let last: Promise<unknown> = Promise.resolve()
    const read = async (block: number): Promise<Float32Array> => {
      const out = new Float32Array(BLOCK)
      const from = block * BLOCK
      let filled = 0
      for await (const sample of sink.samples(block * BLOCK_SECONDS, (block + 1) * BLOCK_SECONDS)) {
        const at = Math.round(sample.timestamp * SAMPLE_RATE) - from
        const data = new Float32Array(sample.numberOfFrames)
        sample.copyTo(data, { planeIndex: 0, format: 'f32-planar' })
        sample.close()
        const begin = Math.max(0, -at)
        const end = Math.min(data.length, BLOCK - at)
        if (end > begin) {
          out.set(data.subarray(begin, end), at + begin)
          filled = Math.max(filled, at + end)
        }
      }
      return filled === BLOCK ? out : out.subarray(0, filled)
    }
    return {
      block(block) {
        const done = last.then(() => read(block))
        last = done.catch(() => {})
        return done
      },
      close: () => input.dispose(),
    }
  } catch (cause) {
    input.dispose()
    throw asTrouble(cause)
  }
}
