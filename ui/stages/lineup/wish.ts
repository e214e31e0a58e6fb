import { t } from '@/words'
import { useStorage } from '@vueuse/core'
import { computed, type ComputedRef } from 'vue'

export type Way = 'sound' | 'timecode' | 'clock' | 'mark' | 'clap' | 'in' | 'out' | 'start'

export const WAYS: { key: Way; what: string }[] = [
  { key: 'sound', what: t('lineup.wish.clipsThatHeardTheSame') },
  { key: 'timecode', what: t('lineup.wish.byTheClockThatSound') },
  { key: 'clock', what: t('lineup.wish.recordedDateAndTimeTo') },
  { key: 'mark', what: t('lineup.wish.markersOfOneName') },
  { key: 'clap', what: t('lineup.wish.clapsOfOneTakeHeard') },
  { key: 'in', what: t('lineup.wish.yourInPointsOfOne') },
  { key: 'out', what: t('lineup.wish.yourOutPointsOfOne') },
  { key: 'start', what: t('lineup.wish.clipsOfOneTakeStart') },
]

/** What the next run of line-up is to do. */
export interface LineupWish {
  scope: 'day' | 'card' | 'scene' | 'clips'
  key: string
  ways: Way[]
  anchor: string | null
  cut: boolean
}

/** The ways are kept for a production on this computer; what a run is about is the day's, and asked for anew. */
export function useKeptWays(production: ComputedRef<string>) {
  const kept = useStorage<Record<string, { ways: Way[]; cut: boolean }>>('cartella.ways', {})
  return computed({
    get: () => {
      const own = kept.value[production.value]
      const ways = own?.ways.filter((way) => WAYS.some((one) => one.key === way)) ?? []
      return { ways: ways.length > 0 ? ways : (['sound', 'timecode'] as Way[]), cut: own?.cut ?? true }
    },
    set: (value) => {
      kept.value = { ...kept.value, [production.value]: value }
    },
  })
}
