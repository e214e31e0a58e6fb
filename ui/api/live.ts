import { onScopeDispose, watch, type MaybeRefOrGetter, toValue } from 'vue'
import { api, PAGE } from './client'
import type { Cause } from './ask'
import { justMadeStale, makeStale } from './queries'
import { lookForIt } from './reach'
import type { Topic } from './types'

interface Event {
  id: number
  topic: Topic
  facts: Record<string, unknown>
  origin?: string | null
}

const listeners = new Map<Topic, Set<(facts: Record<string, unknown>) => void>>()

/** Hears one topic as it comes, for as long as its owner is on screen. */
export function onLive(topic: Topic, hear: (facts: Record<string, unknown>) => void): void {
  const all = listeners.get(topic) ?? new Set()
  listeners.set(topic, all.add(hear))
  onScopeDispose(() => all.delete(hear))
}

/** Tells the parts of this page what it did itself, before the server's word of it comes. */
export function tellHere(topic: Topic, facts: Record<string, unknown>): void {
  listeners.get(topic)?.forEach((listener) => listener(facts))
}

/**
 * Hears what changes in a production, by server-sent events and, where those do not come through, by asking every 2 s.
 */
export function useLive(production: MaybeRefOrGetter<string>): void {
  let stop = () => {}
  watch(
    () => toValue(production),
    (ulid) => {
      stop()
      stop = listen(ulid)
    },
    { immediate: true },
  )
  onScopeDispose(() => stop())
}

/** A page that nobody sees gives its connection back after so long: a browser keeps only six to one server. */
const HIDDEN_FOR = 20_000
/**
 * A stream says every 8 s that it is there. One that is silent for so long is dead: the machine slept, or a cable is
 * out.
 */
const DEAF_FOR = 25_000
const LISTEN_EVERY = 5000

function listen(production: string): () => void {
  let source: EventSource | null = null
  let last = -1
  let timer: number | undefined
  let rest: number | undefined
  let failures = 0
  let heard = Date.now()
  const pending = new Map<string, [Cause, Record<string, unknown>]>()
  let flush: number | undefined
  const hear = (event: Event) => {
    last = Math.max(last, event.id)
    listeners.get(event.topic)?.forEach((listener) => listener(event.facts))
    // Who is where is heard, not asked for.
    if (event.topic === 'here') return
    // Words and marks of one take: the sheet asks for that row itself.
    const topic = event.topic === 'takes' && event.facts.words === true ? 'words' : event.topic
    // What this page did itself it has asked for already.
    if (event.origin === PAGE && justMadeStale(topic)) return
    pending.set(topic + JSON.stringify(event.facts), [topic, event.facts])
    // Progress comes in bursts; one fetch answers them all.
    flush ??= window.setTimeout(() => {
      flush = undefined
      for (const [topic, facts] of pending.values()) makeStale(topic, facts)
      pending.clear()
    }, 120)
  }
  const stopPolling = () => {
    window.clearInterval(timer)
    timer = undefined
  }
  const open = () => {
    window.clearTimeout(rest)
    if (source !== null) return
    // What happened meanwhile comes first.
    source = new EventSource(`/api/productions/${production}/live${last < 0 ? '' : `?after=${last}`}`)
    heard = Date.now()
    source.addEventListener('still', () => (heard = Date.now()))
    source.addEventListener('hello', (message) => {
      failures = 0
      heard = Date.now()
      last = Math.max(last, Number((message as MessageEvent).lastEventId))
      stopPolling()
    })
    source.addEventListener('change', (message) => hear(JSON.parse((message as MessageEvent<string>).data) as Event))
    source.onerror = () => {
      failures += 1
      // A stream ends every minute and another one begins; a second failure is none of that.
      if (failures === 2) void lookForIt()
      if (failures < 3 || timer !== undefined) return
      timer = window.setInterval(async () => {
        const answer = await api
          .get<{ last: number; events: Event[] }>(`productions/${production}/changes?after=${last}`)
          .catch(() => null)
        if (answer === null) return
        last = answer.last
        answer.events.forEach(hear)
      }, 2000)
    }
  }
  const close = () => {
    source?.close()
    source = null
    stopPolling()
  }
  const ear = window.setInterval(() => {
    if (source === null || Date.now() - heard < DEAF_FOR) return
    void lookForIt()
    source.close()
    source = null
    open()
  }, LISTEN_EVERY)
  const look = () => {
    window.clearTimeout(rest)
    if (document.visibilityState === 'visible') open()
    else rest = window.setTimeout(close, HIDDEN_FOR)
  }
  open()
  document.addEventListener('visibilitychange', look)
  window.addEventListener('pagehide', close)
  window.addEventListener('pageshow', look)
  return () => {
    document.removeEventListener('visibilitychange', look)
    window.removeEventListener('pagehide', close)
    window.removeEventListener('pageshow', look)
    window.clearTimeout(rest)
    window.clearTimeout(flush)
    window.clearInterval(ear)
    close()
  }
}
