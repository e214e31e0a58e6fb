import type { ReelAngle, ReelItem } from '@/api/types'
import { clamp, indexAt, type Picture, type Playlist } from '@/player/engine/playlist'
import { toFrames } from '@/player/time'

/** What of a reel is on the screen: one picture, all angles of the take, or two takes of a setup beside each other. */
export interface RoomView {
  mode: 'one' | 'all' | 'pair'
  /** The angle that was chosen for a take; the next take begins with its own. */
  turned: { item: number; angle: number } | null
  /** The take beside the one that plays, by its place in the reel. */
  beside: number | null
}

export const FIRST_VIEW: RoomView = { mode: 'one', turned: null, beside: null }

/** More pictures than that at once are too small to be of use. */
const MOST = 9

/** A piece of the reel as another angle shows it; `null` where that one did not run. */
function seenFrom(piece: Picture, item: ReelItem, angle: ReelAngle): Picture | null {
  // Where of the take the piece begins, for a piece that shows a part of it.
  const skipped = piece.from - item.in_ticks
  const from = clamp(angle.at_ticks - skipped, 0, piece.length)
  const to = clamp(angle.at_ticks + angle.out_ticks - angle.in_ticks - skipped, 0, piece.length)
  if (to <= from) return null
  return {
    ...piece,
    at: piece.at + from,
    length: to - from,
    clip: angle.clip,
    from: angle.in_ticks + Math.max(0, skipped - angle.at_ticks),
    rate: angle.rate,
    frames: angle.frames ?? Math.max(1, toFrames(angle.duration_ticks, angle.rate)),
    start: angle.start_ticks,
    version: angle.media_version,
    look: angle.look,
  }
}

/** The reel's piece for an item of it. */
const pieceOf = (list: Playlist, item: ReelItem): Picture | undefined =>
  list.pictures[indexAt(list.pictures, item.at_ticks)]

/**
 * The reel's pictures with the chosen angle in the take's place; where that one did not run yet, or no more, the
 * take's own picture stays.
 */
export function mainPictures(list: Playlist, items: ReelItem[], view: RoomView): Picture[] {
  const chosen = view.turned
  const item = chosen === null ? undefined : items[chosen.item]
  const angle = chosen === null ? undefined : item?.angles[chosen.angle]
  if (item === undefined || angle === undefined || angle.clip === item.clip) return list.pictures
  return list.pictures.flatMap((piece) => {
    const other = piece.at === item.at_ticks ? seenFrom(piece, item, angle) : null
    if (other === null) return [piece]
    const rest = (begin: number, end: number): Picture[] =>
      end > begin ? [{ ...piece, at: begin, length: end - begin, from: piece.from + begin - piece.at }] : []
    return [...rest(piece.at, other.at), other, ...rest(other.at + other.length, piece.at + piece.length)]
  })
}

/** The pictures beside the first one, a list for each further place on the screen. */
export function besidePictures(list: Playlist, items: ReelItem[], view: RoomView): Picture[][] {
  if (view.mode === 'pair') return view.beside === null ? [] : [besideIt(list, items, view.beside)]
  if (view.mode === 'one') return []
  const places: Picture[][] = []
  for (const [number, item] of items.entries()) {
    const piece = pieceOf(list, item)
    if (piece === undefined) continue
    const main = view.turned?.item === number ? item.angles[view.turned.angle]?.clip : item.clip
    item.angles
      .filter((one) => one.clip !== (main ?? item.clip))
      .slice(0, MOST - 1)
      .forEach((one, place) => {
        const picture = seenFrom(piece, item, one)
        if (picture !== null) (places[place] ??= []).push(picture)
      })
  }
  return places
}

/** A take at every take of its setup, both at their action at the same moment. */
function besideIt(list: Playlist, items: ReelItem[], other: number): Picture[] {
  const its = items[other]
  const own = its === undefined ? undefined : pieceOf(list, its)
  if (its === undefined || own === undefined) return []
  return items.flatMap((item, number) => {
    if (number === other || item.take.setup !== its.take.setup) return []
    const length = item.out_ticks - item.in_ticks
    const later = item.action_ticks - item.in_ticks - (its.action_ticks - its.in_ticks)
    const from = Math.max(0, later)
    const to = Math.min(length, later + own.length)
    return to <= from ? [] : [{ ...own, at: item.at_ticks + from, length: to - from, from: own.from + from - later }]
  })
}

/** The takes that may stand beside one: those of its setup, the one before it first. */
export function partners(items: ReelItem[], at: number): number[] {
  const setup = items[at]?.take.setup
  const alike = items.flatMap((one, index) => (one.take.setup === setup && index !== at ? [index] : []))
  const seen = new Set<string>()
  return [...alike.filter((one) => one < at).reverse(), ...alike.filter((one) => one > at)].filter((one) => {
    // Of a take whose angles follow each other the first one stands for all.
    const { ulid } = items[one]!.take
    const isNew = ulid !== items[at]!.take.ulid && !seen.has(ulid)
    seen.add(ulid)
    return isNew
  })
}

export const slateOf = (one: ReelItem): string => `${one.take.setup}/${one.take.take}${one.take.part}`

/**
 * The take that somebody calls: `12a/3`, `12a 3`, `12A` for its first take, `/3` for another take of the setup that
 * plays, `12` for the first of a scene.
 *
 * @returns its place in the reel; null where there is none
 */
export function called(items: ReelItem[], at: number, words: string): number | null {
  // A slash behind which no take is typed yet is still its setup.
  const wanted = words
    .trim()
    .toUpperCase()
    .replace(/(?<=.)\s*\/$/, '')
    .replace(/\s*[/\s]\s*/, '/')
  if (wanted === '' || wanted === '/') return null
  const full = wanted.startsWith('/') ? `${items[at]?.take.setup.toUpperCase() ?? ''}${wanted}` : wanted
  const upper = items.map((one) => ({ slate: slateOf(one).toUpperCase(), setup: one.take.setup.toUpperCase(), one }))
  const looks: ((one: (typeof upper)[number]) => boolean)[] = [
    ({ slate }) => slate === full,
    // A take rolled again without a new slate: 3A/4 is 3A/4a, too.
    ({ slate }) => full.includes('/') && slate.startsWith(full) && /^[A-Z]$/.test(slate.slice(full.length)),
    ({ setup }) => setup === full,
    ({ one }) => one.take.scene.toUpperCase() === full,
    ({ setup }) => !full.includes('/') && setup.startsWith(full),
  ]
  for (const look of looks) {
    const found = upper.findIndex(look)
    if (found >= 0) return found
  }
  return null
}

/** The first take of the setup after or before the one that plays; of the first setup its own first take. */
export function otherSetup(items: ReelItem[], at: number, direction: 1 | -1): number | null {
  const setup = items[at]?.take.setup
  if (direction > 0) {
    const next = items.findIndex((one, index) => index > at && one.take.setup !== setup)
    return next < 0 ? null : next
  }
  let first = at
  while (first > 0 && items[first - 1]!.take.setup === setup) first--
  if (first === 0) return first === at ? null : 0
  let before = first - 1
  while (before > 0 && items[before - 1]!.take.setup === items[first - 1]!.take.setup) before--
  return before
}

/** Where of the reel the action of a take begins. */
export const actionOf = (one: ReelItem): number =>
  one.at_ticks + clamp(one.action_ticks - one.in_ticks, 0, Math.max(0, one.out_ticks - one.in_ticks - 1))
