import { useStorage } from '@vueuse/core'
import { computed, type ComputedRef } from 'vue'

export type Way = 'sound' | 'timecode' | 'clock' | 'mark' | 'clap' | 'in' | 'out' | 'start'

export const WAYS: { key: Way; what: string }[] = [
  { key: 'sound', what: 'clips that heard the same' },
  { key: 'timecode', what: 'by the clock that sound has taught' },
  { key: 'clock', what: 'recorded date and time, to a second' },
  { key: 'mark', what: 'markers of one name' },
  { key: 'clap', what: 'claps of one take, heard or seen' },
  { key: 'in', what: 'your in-points of one take' },
  { key: 'out', what: 'your out-points of one take' },
  { key: 'start', what: 'clips of one take start together' },
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
