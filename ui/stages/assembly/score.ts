import type { CutItem } from './value'
import { endOf, indexAt, itemAt } from './value'

/** A stretch in which one camera is on air; ticks. */
export interface Piece {
  from: number
  to: number
  letter: string
}

/** The camera that an item shows: an angle item says so, a plain clip has its own. */
export const letterOf = (item: CutItem, devices: Map<string, string>): string =>
  item.angles?.current ?? devices.get(item.source.id) ?? ''

/** What is on air when: pieces of one camera that meet are one, however many clips they are of. */
export function piecesOf(items: CutItem[], devices: Map<string, string>): Piece[] {
  const pieces: Piece[] = []
  for (const item of items) {
    const letter = letterOf(item, devices)
    const last = pieces.at(-1)
    if (last !== undefined && last.letter === letter && last.to === item.record_start_ticks) last.to = endOf(item)
    else pieces.push({ from: item.record_start_ticks, to: endOf(item), letter })
  }
  return pieces
}

/** With cuts that are on their way to the server laid over. */
export function withPending(pieces: Piece[], pending: Piece[]): Piece[] {
  let all = pieces
  for (const one of pending) {
    const kept = all.flatMap((piece) => {
      if (piece.to <= one.from || piece.from >= one.to) return [piece]
      return [
        ...(piece.from < one.from ? [{ ...piece, to: one.from }] : []),
        ...(piece.to > one.to ? [{ ...piece, from: one.to }] : []),
      ]
    })
    all = [...kept, one].sort((a, b) => a.from - b.from)
  }
  return all
}

export const pieceOn = (pieces: Piece[], ticks: number): Piece | null =>
  pieces.find((piece) => ticks >= piece.from && ticks < piece.to) ?? null

/**
 * How far a cut at an instant goes: to the end of what is on air there, or of the hole; the event's end at the last.
 */
export function reach(items: CutItem[], ticks: number, length: number): number {
  const index = itemAt(items, ticks)
  if (index !== null) return endOf(items[index]!)
  return items[indexAt(items, ticks)]?.record_start_ticks ?? length
}

/** How long until a camera rolls again, ticks; null where it does not. */
export function backIn(pictures: { at: number; length: number }[], ticks: number): number | null {
  const next = pictures.find((one) => one.at > ticks)
  return next === undefined ? null : next.at - ticks
}
