import { endOf, itemAt, type CutItem, type CutTrack } from './value'

/** What belongs together on several tracks, a take's picture and its sound, and what an act does to all of it. */
export interface Place {
  track: number
  index: number
  item: CutItem
}
type Operation = { op: string } & Record<string, unknown>

const isOf = (one: CutItem, other: CutItem): boolean =>
  one.source.id === other.source.id ||
  (one.metadata.take !== undefined && one.metadata.take !== '' && one.metadata.take === other.metadata.take)

/** Which of another's ends has to lie where its own does. */
type Ends = 'both' | 'head' | 'tail'

/**
 * What goes along with a piece: pieces of the same take or clip on other tracks that begin and end where it does.
 * Locked tracks are left alone.
 */
export function along(tracks: CutTrack[], place: Place, ends: Ends = 'both'): Place[] {
  const [from, to] = [place.item.record_start_ticks, endOf(place.item)]
  return tracks.flatMap((track, index) => {
    if (index === place.track || track.locked) return []
    // At its end nothing may lie any more, so the last tick of it is asked about.
    const found = itemAt(track.items, ends === 'tail' ? to - 1 : from)
    const item = found === null ? undefined : track.items[found]
    return item !== undefined &&
      isOf(place.item, item) &&
      (ends === 'tail' || item.record_start_ticks === from) &&
      (ends === 'head' || endOf(item) === to)
      ? [{ track: index, index: found!, item }]
      : []
  })
}

/** Those pieces and what goes along with them, each once. */
export function together(tracks: CutTrack[], places: Place[], ends: Ends = 'both'): Place[] {
  const all = new Map(places.map((one) => [one.item, one]))
  for (const place of places)
    for (const one of along(tracks, place, ends)) if (!all.has(one.item)) all.set(one.item, one)
  return [...all.values()]
}

/**
 * An edge of pieces, each with what goes along with it. From the end on: what a ripple moves is done already, so places
 * are as they were.
 */
export function trimmed(
  tracks: CutTrack[],
  places: Place[],
  edge: 'head' | 'tail',
  by: number,
  ripple: boolean,
  alone: boolean,
): Operation[] {
  const own = new Set(places.map((one) => one.item))
  const done = new Set<CutItem>()
  return [...places]
    .sort((a, b) => b.item.record_start_ticks - a.item.record_start_ticks)
    .flatMap((place) => {
      if (done.has(place.item)) return []
      // What is behind follows the end, so of a head both have to be at one place.
      const others = along(tracks, place, edge === 'head' && ripple ? 'both' : edge).filter(
        (one) => !alone || own.has(one.item),
      )
      for (const one of others) done.add(one.item)
      return [
        {
          op: 'trim',
          track: place.track,
          index: place.index,
          edge,
          by_ticks: by,
          ripple,
          with: others.map(({ track, index }) => ({ track, index })),
        },
      ]
    })
}

/** A cut between two pieces, and the edges of what goes along with either of them. */
export function rolled(tracks: CutTrack[], track: number, index: number, by: number, alone: boolean): Operation[] {
  const [left, right] = [tracks[track]!.items[index]!, tracks[track]!.items[index + 1]!]
  const first: Operation = { op: 'roll', track, index, by_ticks: by }
  if (alone) return [first]
  const ends = along(tracks, { track, index, item: left }, 'tail')
  const heads = along(tracks, { track, index: index + 1, item: right }, 'head')
  const both = new Set(ends.filter((one) => heads.some((other) => other.track === one.track)).map((one) => one.track))
  const trim = (one: Place, edge: 'head' | 'tail'): Operation[] =>
    both.has(one.track) ? [] : [{ op: 'trim', track: one.track, index: one.index, edge, by_ticks: by, ripple: false }]
  return [
    first,
    ...ends.filter((one) => both.has(one.track)).map((one) => ({ ...first, track: one.track, index: one.index })),
    ...ends.flatMap((one) => trim(one, 'tail')),
    ...heads.flatMap((one) => trim(one, 'head')),
  ]
}

/** Splits at an instant: on those tracks, and what goes along with the pieces there. */
export function splits(tracks: CutTrack[], chosen: number[], ticks: number, alone: boolean): Operation[] {
  const cut = new Set<number>()
  for (const track of new Set(chosen)) {
    const index = itemAt(tracks[track]!.items, ticks)
    const item = index === null ? undefined : tracks[track]!.items[index]!
    if (item === undefined || item.record_start_ticks === ticks) continue
    cut.add(track)
    if (alone) continue
    for (const one of along(tracks, { track, index: index!, item })) cut.add(one.track)
  }
  return [...cut].sort((a, b) => a - b).map((track) => ({ op: 'split', track, at_ticks: ticks }))
}

/** Joins two pieces that play on, and what goes along with them and plays on, too. */
export function joined(tracks: CutTrack[], track: number, index: number, alone: boolean): Operation[] {
  const first: Operation = { op: 'join', track, index }
  if (alone) return [first]
  const left = tracks[track]!.items[index]!
  return [
    first,
    ...along(tracks, { track, index, item: left }, 'tail').flatMap((one) => {
      const next = tracks[one.track]!.items[one.index + 1]
      return next !== undefined &&
        next.record_start_ticks === endOf(one.item) &&
        next.source.id === one.item.source.id &&
        next.source_start_ticks === one.item.source_start_ticks + one.item.duration_ticks
        ? [{ ...first, track: one.track, index: one.index }]
        : []
    }),
  ]
}

/** A piece goes elsewhere, and what goes along with it by as much on its own tracks. */
export function movedAlong(tracks: CutTrack[], place: Place, to: number, ticks: number, alone: boolean): Operation[] {
  const by = ticks - place.item.record_start_ticks
  const others = alone || by === 0 ? [] : along(tracks, place)
  return [
    { op: 'move', track: place.track, index: place.index, to_track: to, at_ticks: ticks },
    ...others
      // Who goes along does not go where the piece itself went.
      .filter((one) => one.track !== to)
      .map((one) => ({
        op: 'move',
        track: one.track,
        index: one.index,
        to_track: one.track,
        at_ticks: one.item.record_start_ticks + by,
      })),
  ]
}
