import { t } from '@/words'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { words as wordsApi } from '@/api/endpoints/words'
import { makeStale, useAnswer } from '@/api/queries'
import type { Cut } from '@/api/types'
import { TICKS } from '@/player/time'
import { attempt, say } from './say'

/** A stretch of a clip for a cut; ticks of the clip, the end exclusive. */
export interface CutPiece {
  clip: string
  in_ticks: number
  out_ticks: number
  take?: string | null
}

/** Ticks that a still is shown for when nobody said how long. */
export const STILL_SHOWN = 5 * TICKS

/** What is said of pictures that have another rate than the cut that they came into. */
export function ratesTold(added: { rate: string; other_rates: string[] }): string {
  const rates = added.other_rates
  return rates.length === 0
    ? ''
    : t('shell.useLastCut.picturesAtFramesASecond', [rates.join(t('shell.useLastCut.and')), added.rate])
}

/** Which cut a person on this machine added to last, by production, and where in each they stand. */
const lastCut = useLocalStorage<Record<string, string>>('cartella.cut.last', {})
const places = useLocalStorage<Record<string, number>>('cartella.cut.at', {})

/** The cut that things are added to from wherever they are seen: the last one, or a first one that is made for it. */
export function useLastCut(production: () => string, isAsked: () => boolean = () => true) {
  const { data: cuts } = useAnswer(() => (isAsked() ? wordsApi.cuts(production()) : null))
  const all = computed(() => (cuts.value?.cuts ?? []).filter((one) => one.kind !== 'angle_cut'))
  const cut = computed(() => all.value.find((one) => one.ulid === lastCut.value[production()]) ?? all.value[0] ?? null)
  function choose(ulid: string): void {
    lastCut.value = { ...lastCut.value, [production()]: ulid }
  }
  /** @param what how it is called in the step and in what is said */
  async function add(pieces: CutPiece[], what: string, atEnd = true): Promise<boolean> {
    let into = cut.value
    if (into === null) {
      into = (await attempt(() => wordsApi.makeCut(production(), t('shell.useLastCut.firstCut')))) ?? null
      if (into === null) return false
    }
    choose(into.ulid)
    const added = await attempt(() =>
      wordsApi.addPieces(production(), into.ulid, {
        pieces,
        at_ticks: atEnd ? null : (places.value[into.ulid] ?? into.duration_ticks),
        label: `${atEnd ? 'Add' : 'Put in'} ${what}`.slice(0, 120),
      }),
    )
    if (added === undefined) return false
    places.value = { ...places.value, [into.ulid]: added.end_ticks }
    const where = atEnd ? t('shell.useLastCut.standsAtTheEndOf') : t('shell.useLastCut.isPutInto')
    const how = pieces.length > 1 ? t('shell.useLastCut.inPieces', [pieces.length]) : ''
    say(t('shell.useLastCut.ctrlZTakesItBack', [what, where, into.name, how, ratesTold(added)]))
    makeStale('sequences')
    return true
  }
  const placeOf = (one: Cut): number => places.value[one.ulid] ?? one.duration_ticks
  return { cuts: all, cut, choose, add, placeOf }
}
