import { deskSays } from '@/words/desk'
import { lost, waitForIt } from './reach'

/** A refusal or a failure of the server, with its code, its sentence and the next step. */
export class ApiError extends Error {
  readonly fix: string
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    fix: string,
    readonly context: Record<string, unknown>,
  ) {
    super(deskSays(message))
    this.fix = deskSays(fix)
  }
}

const random = (bytes: number): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(bytes)), (byte) => byte.toString(16).padStart(2, '0')).join('')

/** This open page, so that the server need not tell it of what it did itself. */
export const PAGE = random(12)

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'

function token(): string {
  const cookie = document.cookie.split('; ').find((part) => part.startsWith('XSRF-TOKEN='))
  return cookie === undefined ? '' : decodeURIComponent(cookie.slice('XSRF-TOKEN='.length))
}

/** What stands before the desk says so when nobody is behind it. */
const NOBODY = [502, 503, 504]

const unreachable = (): ApiError =>
  new ApiError(0, 'network', 'Cartella cannot be reached.', 'Check that it runs, then try again. Nothing is lost.', {})

async function send<T>(
  method: Method,
  path: string,
  body?: unknown,
  signal?: AbortSignal,
  more: Record<string, string> = {},
): Promise<T> {
  const isRaw = body instanceof FormData || body instanceof ArrayBuffer
  const headers = {
    Accept: 'application/json',
    'X-XSRF-TOKEN': token(),
    'X-Page': PAGE,
    ...(body === undefined || isRaw ? {} : { 'Content-Type': 'application/json' }),
    ...more,
  }
  const sent = body === undefined ? undefined : isRaw ? body : JSON.stringify(body)
  let response: Response
  try {
    response = await fetch('/api/' + path, { method, signal, headers, body: sent })
  } catch (cause) {
    if (signal?.aborted) throw cause
    void lost()
    throw unreachable()
  }
  const answer = await response.json().catch(() => null)
  if (answer === null && NOBODY.includes(response.status)) {
    void lost()
    throw unreachable()
  }
  if (!response.ok) {
    const { code, message, fix, context } = answer ?? {}
    throw new ApiError(
      response.status,
      code ?? 'http',
      message ?? 'The server could not answer.',
      fix ?? 'Try again.',
      context ?? {},
    )
  }
  return answer as T
}

/**
 * A change: where the desk does not answer it waits and is sent again, under the same name, so that it is done once
 * even where only the answer was lost.
 */
async function change<T>(method: Method, path: string, body?: unknown): Promise<T> {
  const name = { 'Idempotency-Key': random(12) }
  for (let isAgain = false; ; isAgain = true) {
    try {
      return await send<T>(method, path, body, undefined, { ...name, ...(isAgain ? { 'X-Again': '1' } : {}) })
    } catch (trouble) {
      if (!(trouble instanceof ApiError) || trouble.status !== 0 || !(await waitForIt())) throw trouble
    }
  }
}

/** What is asked once and not again: a sign-in, where somebody is right now, what has a queue of its own. */
export const once = {
  post: <T>(path: string, body: unknown = {}) => send<T>('POST', path, body),
  put: <T>(path: string, body: unknown) => send<T>('PUT', path, body),
  patch: <T>(path: string, body: unknown) => send<T>('PATCH', path, body),
}

export const api = {
  get: <T>(path: string, signal?: AbortSignal) => send<T>('GET', path, undefined, signal),
  post: <T>(path: string, body: unknown = {}) => change<T>('POST', path, body),
  put: <T>(path: string, body: unknown) => change<T>('PUT', path, body),
  patch: <T>(path: string, body: unknown) => change<T>('PATCH', path, body),
  /** One file, with what is said of it. */
  send: <T>(path: string, file: File, facts: Record<string, string> = {}) => {
    const form = new FormData()
    form.set('file', file)
    for (const [key, value] of Object.entries(facts)) form.set(key, value)
    return send<T>('POST', path, form)
  },
  /** Bytes with their checksum, as RFC 9530 writes it. */
  piece: async <T>(path: string, bytes: ArrayBuffer) => {
    const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))
    return send<T>('PUT', path, bytes, undefined, {
      'Content-Type': 'application/octet-stream',
      'Content-Digest': `sha-256=:${btoa(String.fromCharCode(...digest))}:`,
    })
  },
  delete: <T>(path: string, body?: unknown) => change<T>('DELETE', path, body),
}

/** Bytes of a file. */
export async function fetchBytes(address: string, signal?: AbortSignal): Promise<ArrayBuffer | null> {
  const response = await fetch(address, { signal })
  return response.ok ? response.arrayBuffer() : null
}

/** A part of a file; shorter where the file ends, null where it is not there or begins later. `to` is exclusive. */
export async function fetchRange(address: string, from: number, to: number): Promise<ArrayBuffer | null> {
  const response = await fetch(address, { headers: { Range: `bytes=${from}-${to - 1}` } })
  if (!response.ok) return null
  const bytes = await response.arrayBuffer()
  // A server that knows no ranges sends all of it.
  return response.status === 206 ? bytes : bytes.slice(from, to)
}

export function mediaUrl(production: string, clip: string, what: string, version = ''): string {
  return `/api/productions/${production}/clips/${clip}/media/${what}${version === '' ? '' : `?v=${version}`}`
}

/** A camera or sound report of a card or a day: `what` is `cards/ULID` or `days/ULID`. */
export function reportUrl(production: string, what: string, kind: 'camera' | 'sound', format: 'pdf' | 'csv'): string {
  return `/api/productions/${production}/${what}/report/${kind}.${format}`
}
