import { t } from '@/words'
import { locale } from '@/words/language'
import type { Handoff } from '@/api/types'

/** How a package stands, in a word and a colour. */
export const STATES: Record<Handoff['state'], { text: string; look: string }> = {
  packing: { text: t('handoff.words.beingPacked'), look: '' },
  delivered: { text: t('handoff.words.deliveredNotAnswered'), look: 'warn' },
  accepted: { text: t('handoff.words.accepted'), look: 'good' },
  queried: { text: t('handoff.words.askedAbout'), look: 'fault' },
  failed: { text: t('handoff.words.failed'), look: 'fault' },
  stopped: { text: t('handoff.words.stopped'), look: 'soft' },
}

export const when = (iso: string | null): string =>
  iso === null
    ? ''
    : new Date(iso).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

/** How an event of a list found its clip. */
export const WAYS: Record<string, string> = {
  own: t('handoff.words.ourMark'),
  hash: t('handoff.words.hash'),
  timecode: t('handoff.words.reelAndTimecode'),
  name: t('handoff.words.name'),
  hand: t('handoff.words.byHand'),
  none: t('handoff.words.notLinked'),
}
