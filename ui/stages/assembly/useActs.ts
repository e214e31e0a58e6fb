import { t } from '@/words'
import { computed, type ComputedRef, type Ref } from 'vue'
import { refuse } from '@/shell/say'
import { joined, movedAlong, rolled, splits, trimmed } from './along'
import type { Chosen } from './useChosen'
import type { Operation } from './useCut'
import { endOf, indexAt, itemAt, type CutItem } from './value'

/** What is done to the pieces of a cut: each act is one step, and says why where nothing is done. Ticks. */
export function useActs(options: {
  chosen: Chosen
  at: ComputedRef<number>
  frame: ComputedRef<number>
  /** Whether what is behind moves along. */
  rippling: Ref<boolean>
  alone: ComputedRef<boolean>
  edit: (operations: Operation[], label: string) => Promise<boolean>
  nothing: () => void
  goTo: (ticks: number) => void
}) {
  const { at, frame, rippling, alone, edit, nothing } = options
  const { track, tracks, here, currentItem, chosenPlaces, placed, meant, withAlong, range, clearRange } = options.chosen

  function split(): void {
    const places = chosenPlaces.value.length > 0 ? chosenPlaces.value.map((one) => one.track) : [track.value]
    const operations = splits(tracks.value, places, at.value, alone.value)
    if (operations.length === 0) refuse(t('assembly.useActs.thereIsNothingToSplit'))
    else void edit(operations, 'Split')
  }
  /** Ends or begins at the playhead. */
  function trimTo(edge: 'head' | 'tail'): void {
    const index = itemAt(here.value?.items ?? [], at.value)
    const item = index === null ? undefined : here.value!.items[index]
    if (item === undefined) return nothing()
    // The frame that is seen stays: a tail ends behind it.
    const by = edge === 'head' ? at.value - item.record_start_ticks : at.value + frame.value - endOf(item)
    if (by !== 0)
      void edit(
        trimmed(tracks.value, [{ track: track.value, index: index!, item }], edge, by, rippling.value, alone.value),
        edge === 'head' ? 'Begin here' : 'End here',
      ).then((done) => done && edge === 'head' && rippling.value && options.goTo(item.record_start_ticks))
  }
  /** The cut of the chosen track that is nearest to the playhead. */
  const nearestCut = computed(() => {
    const items = here.value?.items ?? []
    let best: { index: number; far: number } | null = null
    for (
      let index = Math.max(0, indexAt(items, at.value) - 1);
      index < Math.min(items.length, indexAt(items, at.value) + 2);
      index++
    ) {
      const next = items[index + 1]
      if (next === undefined || next.record_start_ticks !== endOf(items[index]!)) continue
      const far = Math.abs(endOf(items[index]!) - at.value)
      if (best === null || far < best.far) best = { index, far }
    }
    return best
  })
  function roll(by: number): void {
    if (nearestCut.value === null) refuse(t('assembly.useActs.noTwoPiecesMeetNear'))
    else
      void edit(
        rolled(tracks.value, track.value, nearestCut.value.index, by * frame.value, alone.value),
        'Move the cut',
      )
  }
  function slip(by: number): void {
    if (meant.value.length === 0) return nothing()
    void edit(
      withAlong(meant.value).map((one) => ({
        op: 'slip',
        track: one.track,
        index: one.index,
        by_ticks: by * frame.value,
      })),
      'Show other material',
    )
  }
  function lift(): void {
    if (range.value !== null)
      void edit(
        [{ op: 'lift', track: track.value, from_ticks: range.value.from, to_ticks: range.value.to }],
        'Leave a gap',
      )
    else if (meant.value.length === 0) nothing()
    else
      void edit(
        withAlong(meant.value).map(({ track: on, item }) => ({
          op: 'lift',
          track: on,
          from_ticks: item.record_start_ticks,
          to_ticks: endOf(item),
        })),
        'Leave a gap',
      )
  }
  function extract(): void {
    const spans =
      range.value !== null
        ? [range.value]
        : meant.value.map(({ item }) => ({ from: item.record_start_ticks, to: endOf(item) }))
    if (spans.length === 0) return nothing()
    // From the end on, so that what is taken out moves nothing that is still to be taken out; what overlaps goes once.
    const one: { from: number; to: number }[] = []
    for (const span of spans.sort((a, b) => a.from - b.from)) {
      const last = one.at(-1)
      if (last !== undefined && span.from <= last.to) last.to = Math.max(last.to, span.to)
      else one.push({ ...span })
    }
    void edit(
      one.reverse().map(({ from, to }) => ({ op: 'extract', from_ticks: from, to_ticks: to })),
      'Take out and close up',
    ).then((done) => {
      if (!done) return
      clearRange()
      options.goTo(one.at(-1)!.from)
    })
  }
  function closeHole(): void {
    void edit([{ op: 'close_gap', track: track.value, at_ticks: at.value, everywhere: !alone.value }], 'Close the hole')
  }
  function join(): void {
    const index = nearestCut.value?.index
    if (index === undefined) refuse(t('assembly.useActs.noTwoPiecesMeetNear'))
    else void edit(joined(tracks.value, track.value, index, alone.value), 'Join')
  }
  function enable(): void {
    if (meant.value.length === 0) return nothing()
    const on = !meant.value[0]!.item.enabled
    void edit(
      withAlong(meant.value).map((one) => ({ op: 'enable', track: one.track, index: one.index, on })),
      on ? 'On' : 'Off',
    )
  }
  function turnTo(angle: string): void {
    const item = currentItem.value
    if (item === null) return nothing()
    const [from, to] = [item.record_start_ticks, endOf(item)]
    void edit([{ op: 'angle', from_ticks: from, to_ticks: to, takes: 'picture', angle }], `${angle} instead`)
  }
  const angles = computed(() => currentItem.value?.angles?.list.map((one) => one.angle) ?? [])
  function plain(back: boolean): void {
    const spans =
      range.value !== null
        ? [range.value]
        : meant.value.map(({ item }) => ({ from: item.record_start_ticks, to: endOf(item) }))
    if (spans.length === 0) return nothing()
    void edit(
      spans.map(({ from, to }) => ({ op: back ? 'angled' : 'plain', from_ticks: from, to_ticks: to })),
      back ? 'Angles again' : 'Plain clips',
    )
  }
  function setLevel(gain: number, fadeIn: number, fadeOut: number): void {
    const one = meant.value[0]
    if (one === undefined) return
    void edit(
      [
        {
          op: 'level',
          track: one.track,
          index: one.index,
          gain_millibels: Math.round(100 * gain),
          fade_in_ticks: Math.max(0, Math.round(fadeIn)) * frame.value,
          fade_out_ticks: Math.max(0, Math.round(fadeOut)) * frame.value,
        },
      ],
      'Level',
    )
  }
  function dragged(item: CutItem, from: number, to: number, ticks: number): void {
    const found = placed(item)
    if (found !== null)
      void edit(movedAlong(tracks.value, { track: from, index: found.index, item }, to, ticks, alone.value), 'Move')
  }
  function edged(item: CutItem, on: number, which: 'head' | 'tail' | 'cut', by: number): void {
    const found = placed(item)
    if (found === null) return
    void edit(
      which === 'cut'
        ? rolled(tracks.value, on, found.index, by, alone.value)
        : trimmed(tracks.value, [{ track: on, index: found.index, item }], which, by, rippling.value, alone.value),
      which === 'cut' ? 'Move the cut' : 'Trim',
    )
  }

  return {
    split,
    trimTo,
    roll,
    slip,
    lift,
    extract,
    closeHole,
    join,
    enable,
    turnTo,
    angles,
    plain,
    setLevel,
    dragged,
    edged,
  }
}
