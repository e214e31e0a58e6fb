import type { Rate } from '@/api/types'

/** Ticks to the second: whole at every frame rate and sample rate in use, and within 53 bits for a day. */
export const TICKS = 705_600_000

export function ticksPerFrame(rate: Rate): number {
  return (TICKS * rate.den) / rate.num
}

/** The frame whose span holds the instant. */
export function toFrames(ticks: number, rate: Rate): number {
  return Math.floor(ticks / ticksPerFrame(rate))
}

export function ofFrames(frames: number, rate: Rate): number {
  return frames * ticksPerFrame(rate)
}

/** A label of SMPTE ST 12-1 on the 24-hour clock; `;` before the frames where labels are dropped. */
export function label(frames: number, rate: Rate): string {
  const drop = rate.drop ? Math.round(rate.nominal / 15) : 0
  const day = 24 * (3600 * rate.nominal - 54 * drop)
  let count = ((frames % day) + day) % day
  if (drop > 0) {
    const minute = 60 * rate.nominal - drop
    const ten = 10 * minute + drop
    count += drop * (9 * Math.floor(count / ten) + Math.floor(Math.max(0, (count % ten) - drop) / minute))
  }
  const seconds = Math.floor(count / rate.nominal)
  const two = (value: number) => String(value).padStart(2, '0')
  const digits = rate.nominal > 100 ? 3 : 2
  const clock = [seconds / 3600, (seconds / 60) % 60, seconds % 60].map((part) => two(Math.floor(part))).join(':')
  return `${clock}${drop > 0 ? ';' : ':'}${String(count % rate.nominal).padStart(digits, '0')}`
}

/** The label of an instant since midnight. */
export function labelAt(ticks: number, rate: Rate): string {
  return label(toFrames(ticks, rate), rate)
}

/** `0:14`, `1:04:10`: a length as people say it. */
export function length(ticks: number | null): string {
  if (ticks === null) return ''
  const seconds = Math.round(ticks / TICKS)
  const two = (value: number) => String(value).padStart(2, '0')
  const hours = Math.floor(seconds / 3600)
  return hours > 0
    ? `${hours}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`
    : `${Math.floor(seconds / 60)}:${two(seconds % 60)}`
}

/** `09:12` of an instant since midnight. */
export function clock(ticks: number, withSeconds = false): string {
  const seconds = Math.floor(ticks / TICKS)
  const two = (value: number) => String(value).padStart(2, '0')
  const minutes = `${two(Math.floor(seconds / 3600) % 24)}:${two(Math.floor(seconds / 60) % 60)}`
  return withSeconds ? `${minutes}:${two(((seconds % 60) + 60) % 60)}` : minutes
}
