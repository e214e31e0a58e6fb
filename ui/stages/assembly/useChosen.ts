import { computed, ref, shallowRef, watch, type ComputedRef } from 'vue'
import { along, together, type Place } from './along'
import type { ActiveCut } from './useCut'
import { indexAt, itemAt, lengthOf, type CutItem } from './value'

export interface Range {
  from: number
  to: number
}

/** What is chosen in a cut: a track, pieces on any of them, a range; and what an act is about. Ticks of the cut. */
export function useChosen(options: {
  cut: ActiveCut
  /** The playhead, on a frame. */
  at: ComputedRef<number>
  /** How long a frame is. */
  frame: ComputedRef<number>
  /** Whether a piece goes without what belongs together with it. */
  alone: ComputedRef<boolean>
  /** Hears of another range. */
  ranged: (range: Range | null) => void
}) {
  const { cut, at, frame, alone } = options
  const value = computed(() => cut.value.value)
  const track = ref(0)
  const chosen = shallowRef(new Set<CutItem>())
  const range = shallowRef<Range | null>(null)
  let isPlaced = false
  watch(value, (now) => {
    if (now === null || isPlaced) return
    isPlaced = true
    track.value = Math.max(
      0,
      now.tracks.findIndex((one) => one.role === 'picture' || one.kind === 'picture'),
    )
  })
  cut.onStep((moved) => {
    const there = new Set((value.value?.tracks ?? []).flatMap((one) => one.items))
    const next = new Set<CutItem>()
    for (const item of chosen.value) {
      const now = moved.get(item) ?? item
      if (there.has(now)) next.add(now)
    }
    chosen.value = next
  })
  const tracks = computed(() => value.value?.tracks ?? [])
  const here = computed(() => tracks.value[track.value])
  /** The index on the chosen track of what is chosen there, or plays at the playhead. */
  const current = computed<number | null>(() => {
    const items = here.value?.items ?? []
    const only = [...chosen.value].filter((item) => items.includes(item))
    if (only.length === 1) return items.indexOf(only[0]!)
    return itemAt(items, at.value)
  })
  const currentItem = computed(() => (current.value === null ? null : (here.value?.items[current.value] ?? null)))
  function choose(index: number, item: CutItem | null, more: boolean): void {
    track.value = index
    const next = new Set(more ? chosen.value : [])
    if (item !== null) {
      if (more && next.has(item)) next.delete(item)
      else next.add(item)
    }
    chosen.value = next
  }
  function placed(item: CutItem): { track: number; index: number } | null {
    for (const [number, one] of tracks.value.entries()) {
      const index = indexAt(one.items, item.record_start_ticks)
      if (one.items[index] === item) return { track: number, index }
    }
    return null
  }
  const chosenPlaces = computed<Place[]>(() =>
    [...chosen.value].flatMap((item) => {
      const found = placed(item)
      return found === null ? [] : [{ ...found, item }]
    }),
  )
  /** What an act is about: what is chosen; else what plays at the playhead. */
  const meant = computed<Place[]>(() =>
    chosenPlaces.value.length > 0
      ? chosenPlaces.value
      : currentItem.value === null
        ? []
        : [{ track: track.value, index: current.value!, item: currentItem.value }],
  )
  /** Pieces with what goes along with them. */
  const withAlong = (places: Place[]): Place[] => (alone.value ? places : together(tracks.value, places))
  const goesAlong = computed(
    () =>
      new Set(alone.value ? [] : chosenPlaces.value.flatMap((one) => along(tracks.value, one)).map((one) => one.item)),
  )

  function setRange(now: Range | null): void {
    range.value = now
    options.ranged(now)
  }
  /** The playhead's frame is in it, at either edge. */
  function mark(edge: 'from' | 'to'): void {
    const place = edge === 'from' ? at.value : at.value + frame.value
    const other = edge === 'from' ? (range.value?.to ?? 0) : (range.value?.from ?? 0)
    setRange(
      edge === 'from'
        ? { from: place, to: other > place ? other : lengthOf(value.value!) }
        : { from: other < place ? other : 0, to: place },
    )
  }

  return {
    ...{ track, tracks, here, current, currentItem, chosen, chosenPlaces, choose, placed, meant, withAlong, goesAlong },
    ...{ range, mark, clearRange: () => setRange(null) },
  }
}

export type Chosen = ReturnType<typeof useChosen>
