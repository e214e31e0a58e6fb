import { t } from '@/words'
import { reactive, shallowReactive } from 'vue'
import { imports } from '@/api/endpoints/imports'
import { ApiError } from '@/api/client'
import { makeStale } from '@/api/queries'
import type { Import } from '@/api/types'
import type { DroppedFile } from './dropped'

/** How an import stands that this page sends. Bytes and seconds. */
export interface Sending {
  ulid: string
  production: string
  count: number
  bytes: number
  received: number
  /** Bytes a second over the last pieces; 0 while nothing is known. */
  rate: number
  state: 'sending' | 'waiting' | 'stopped' | 'failed'
  /** Why it waits or failed. */
  trouble: string | null
}

/** Where pieces go; tests bring their own. */
export interface Door {
  send: (production: string, ulid: string, number: number, from: number, piece: ArrayBuffer) => Promise<number>
  finish: (production: string, ulid: string) => Promise<unknown>
  /** Seconds. */
  wait: (seconds: number) => Promise<void>
  now: () => number
}

const DOOR: Door = {
  send: async (production, ulid, number, from, piece) =>
    (await imports.send(production, ulid, number, from, piece)).received_bytes,
  finish: (production, ulid) => imports.copy(production, ulid),
  wait: (seconds) => new Promise((resolve) => setTimeout(resolve, seconds * 1000)),
  now: () => performance.now() / 1000,
}

/** Seconds between tries while the server cannot be reached. */
const PAUSES = [1, 2, 5, 10]
/** A piece that arrives damaged so often will not arrive whole, and a server that fails so often will not take it. */
const DAMAGED = 5
const FAILED = 12

/** Imports that this page sends; they go on whatever stage is looked at. */
export const sendings = reactive<Sending[]>([])
// A page that is left while it sends asks first; what has arrived stays in either case.
if (typeof window !== 'undefined')
  window.addEventListener('beforeunload', (event) => {
    if (sendings.some((one) => one.state === 'sending' || one.state === 'waiting')) event.preventDefault()
  })
const stops = new Map<string, () => void>()

export const secondsLeft = (one: Sending): number | null =>
  one.rate > 0 && one.state === 'sending' ? (one.bytes - one.received) / one.rate : null

/** Sends what is missing of an import, piece after piece, and has it copied when all of it has arrived. */
export async function send(
  production: string,
  begun: Import,
  files: DroppedFile[],
  door: Door = DOOR,
): Promise<Sending['state'] | 'done'> {
  stops.get(begun.ulid)?.()
  const old = sendings.findIndex((one) => one.ulid === begun.ulid)
  if (old >= 0) sendings.splice(old, 1)
  const sending = shallowReactive<Sending>({
    ulid: begun.ulid,
    production,
    count: begun.count,
    bytes: begun.size_bytes,
    received: begun.files.reduce((sum, one) => sum + one.received_bytes, 0),
    rate: 0,
    state: 'sending',
    trouble: null,
  })
  sendings.push(sending)
  let isStopped = false
  stops.set(begun.ulid, () => (isStopped = true))
  const recent: { at: number; bytes: number }[] = []
  try {
    for (const { place, number, size_bytes, received_bytes } of begun.files) {
      const file = files[place]?.file
      if (file === undefined) throw new Error('The list of files is another.')
      let at = received_bytes
      let damaged = 0
      for (let tries = 0; at < size_bytes;) {
        if (isStopped) return (sending.state = 'stopped')
        const piece = await file.slice(at, Math.min(size_bytes, at + begun.piece_bytes)).arrayBuffer()
        if (piece.byteLength === 0) throw new Error(`${file.name} is shorter than it was.`)
        try {
          const now = await door.send(production, begun.ulid, number, at, piece)
          sending.received += now - at
          at = now
          tries = damaged = 0
          sending.state = 'sending'
          sending.trouble = null
          recent.push({ at: door.now(), bytes: sending.received })
          if (recent.length > 12) recent.shift()
          const [first, last] = [recent[0]!, recent.at(-1)!]
          sending.rate = last.at > first.at ? (last.bytes - first.bytes) / (last.at - first.at) : 0
        } catch (trouble) {
          const again = retries(trouble)
          const isFailing = again === 'later' && (trouble as ApiError).status >= 500 && tries >= FAILED
          if (again === 'no' || isFailing || (again === 'damaged' && ++damaged >= DAMAGED)) throw trouble
          if (again === 'gap') {
            // It has more or less of the file than this page thought; it says how much.
            const here = (trouble as ApiError).context.received_bytes
            if (typeof here !== 'number' || here === at) throw trouble
            sending.received += here - at
            at = here
          } else if (again === 'later') {
            sending.state = 'waiting'
            sending.trouble = (trouble as ApiError).message
            await door.wait(PAUSES[Math.min(tries++, PAUSES.length - 1)]!)
          }
        }
      }
    }
    if (isStopped) return (sending.state = 'stopped')
    await door.finish(production, begun.ulid)
    sendings.splice(sendings.indexOf(sending), 1)
    return 'done'
  } catch (trouble) {
    sending.state = 'failed'
    sending.trouble =
      trouble instanceof ApiError
        ? `${trouble.message} ${trouble.fix}`
        : t('shell.sending.itStopped', [(trouble as Error).message])
    return sending.state
  } finally {
    stops.delete(begun.ulid)
    makeStale('cards')
  }
}

/** Whether a piece is sent again: at once, after a while, from another place, or not at all. */
function retries(trouble: unknown): 'later' | 'damaged' | 'gap' | 'no' {
  if (!(trouble instanceof ApiError)) return 'no'
  if (trouble.code === 'import.damaged') return 'damaged'
  if (trouble.code === 'import.gap') return 'gap'
  return trouble.status === 0 || trouble.status >= 500 || trouble.status === 429 ? 'later' : 'no'
}

/** Stops after the piece that is on its way; what has arrived stays. */
export function stop(ulid: string): void {
  stops.get(ulid)?.()
}

/** Takes an import that has ended or stopped off the list. */
export function forget(ulid: string): void {
  stop(ulid)
  const at = sendings.findIndex((one) => one.ulid === ulid)
  if (at >= 0) sendings.splice(at, 1)
}
