import type { Handoff } from '@/api/types'

/** How a package stands, in a word and a colour. */
export const STATES: Record<Handoff['state'], { text: string; look: string }> = {
  packing: { text: 'being packed', look: '' },
  delivered: { text: 'delivered, not answered', look: 'warn' },
  accepted: { text: 'accepted', look: 'good' },
  queried: { text: 'asked about', look: 'fault' },
  failed: { text: 'failed', look: 'fault' },
  stopped: { text: 'stopped', look: 'soft' },
}

export const when = (iso: string | null): string =>
  iso === null
    ? ''
    : new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

export const count = (number: number, one: string, many = `${one}s`): string => `${number} ${number === 1 ? one : many}`

/** How an event of a list found its clip. */
export const WAYS: Record<string, string> = {
  own: 'our mark',
  hash: 'hash',
  timecode: 'reel and timecode',
  name: 'name',
  hand: 'by hand',
  none: 'not linked',
}
