import type { Rate } from '@/api/types'
import { toFrames } from './time'

/** Whether a key begins a place to go to: a digit, or a sign for so much later or earlier. */
export const beginsPlace = (key: string): boolean => /^[0-9+-]$/.test(key)

/**
 * A typed place as a frame counted from the clip's first one. Digits are read from the right, two by two: `91210` is
 * 00:09:12:10; a
 * point stands for a pair of noughts, so that `1.` is a second. With a sign it is so much later or earlier than where
 * it stands.
 *
 * @param start the clip's own timecode at its first frame, ticks since midnight
 * @returns null where it is no place
 */
export function placeTyped(text: string, rate: Rate, start: number | null, frame: number): number | null {
  const typed = text.trim()
  const match = /^([+-]?)([\d.:;]+)$/.exec(typed)
  if (match === null) return null
  const pairs = pairsOf(match[2]!)
  if (pairs === null) return null
  const [hours, minutes, seconds, frames] = pairs
  const count = ((hours * 60 + minutes) * 60 + seconds) * rate.nominal + frames
  if (match[1] === '+') return frame + count
  if (match[1] === '-') return frame - count
  return count - dropped(count, rate) - toFrames(start ?? 0, rate)
}

function pairsOf(text: string): [number, number, number, number] | null {
  const groups = /[:;]/.test(text) ? text.split(/[:;]/) : pointed(text)
  if (groups === null || groups.length > 4 || groups.some((one) => !/^\d{1,4}$/.test(one))) return null
  const numbers = groups.map(Number)
  while (numbers.length < 4) numbers.unshift(0)
  return numbers as [number, number, number, number]
}

/** Without colons: pairs from the right, each point a pair of noughts behind what stands before it. */
function pointed(text: string): string[] | null {
  const parts = text.split('.')
  // A plain number of up to four digits with a sign is frames, as is the last part behind a point.
  const digits = parts.length === 1 ? text : parts.map((part, n) => (n === 0 ? part : part.padStart(2, '0'))).join('')
  if (!/^\d{1,8}$/.test(digits)) return null
  const even = digits.length % 2 === 0 ? digits : `0${digits}`
  return even.match(/../g)
}

/** Labels that a drop-frame count leaves out up to a label: two or four a minute, but for each tenth. */
function dropped(label: number, rate: Rate): number {
  if (!rate.drop) return 0
  const each = Math.round(rate.nominal / 15)
  const minutes = Math.floor(label / (60 * rate.nominal))
  return each * (minutes - Math.floor(minutes / 10))
}
