/**
 * Shapes that the server answers with; those in answers.ts are written from the server's own classes. All `…_ticks`
 * count 705 600 000 to the second.
 */

import type { ClipLook, Rate, TakeRow } from './answers'

export type * from './answers'

/** A take as the sheet shows it. */
export type Take = TakeRow

export type Role = 'assistant' | 'editor' | 'reviewer' | 'admin'
export type DeviceKind = 'camera' | 'recorder' | 'phone' | 'other'
export type MarkWords = Record<string, [field: string, value: string | boolean]>

export type TakeStatus = 'none' | 'circled' | 'hold' | 'ng'
export type Said = string | boolean
export interface Column {
  key: string
  width: number
  shown: boolean
}
export type Verdict = 'new' | 'same' | 'different' | 'unmatched'
export type StrayStep = 'back' | 'lineup' | 'clap' | 'hand' | 'false_start' | 'out' | 'wild'
/** What of a recording is heard under a take; gains in dB. */
export interface TakeChannel {
  index: number
  name: string
  on: boolean
  gain_db: number
}
export interface TakeSound {
  clip: string
  name: string
  is_default: boolean
  channels: TakeChannel[]
}
export interface LookValues {
  slope: [number, number, number]
  offset: [number, number, number]
  power: [number, number, number]
  saturation: number
}
/** What a player needs to know of a clip. */
export interface PlayableClip {
  look?: ClipLook | null
  sound?: TakeSound | null
  head_frames?: number | null
  ulid: string
  kind: string
  rate: Rate
  frames: number | null
  start_ticks: number | null
  duration_ticks: number | null
  synced: boolean
  media_version: string
  has_sound: boolean
}
