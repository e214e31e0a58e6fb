import { expect, it } from 'vitest'
import type { Instead } from '@/api/types'
import { EMPTY, type Picture, type Playlist, type Sound } from '@/player/engine/playlist'
import { ticksPerFrame } from '@/player/time'
import { movesBy, tried, type Trial } from './tried'

const rate = EMPTY.rate
const frame = ticksPerFrame(rate)
const picture = (clip: string, at: number, length: number, from = 0): Picture => ({
  ...{ clip, at, length, from, rate, frames: 1000, start: 0, version: '', look: null, name: clip, take: null },
})
const sound = (clip: string, at: number, length: number, from = 0): Sound => ({
  ...{ clip, at, length, from, channels: [], driftPpm: 0, version: '' },
})
const other = (withSound: boolean): Instead => ({
  ...{ kind: 'take', label: '3A/2', take: null, device: null, clip: 'N', in_ticks: 70, out_ticks: 90, how: 'words' },
  picture: {
    ...{ clip: 'N', take: null, name: 'N', at_ticks: 0, duration_ticks: 20, in_ticks: 70, start_ticks: 0 },
    ...{ clip_ticks: 500, frames: 500, rate, media_version: '', look: null },
  },
  sounds: withSound
    ? [
        {
          clip: 'NS',
          at_ticks: 0,
          duration_ticks: 20,
          in_ticks: 7,
          channels: [],
          drift_ppm: 0,
          media_version: '',
        } as never,
      ]
    : [],
})
const told = (list: { clip: string; at: number; length: number; from: number }[]): string =>
  list.map((one) => `${one.clip} ${one.at}-${one.at + one.length} @${one.from}`).join(', ')
const list: Playlist = {
  ...EMPTY,
  length: 300,
  pictures: [picture('A', 0, 100), picture('B', 100, 100, 50)],
  sounds: [sound('S', 0, 200, 1000)],
}

it('shows and plays another take in the place of a piece, and all around it as it was', () => {
  const now = tried(list, { index: 0, one: other(true), from: 110, to: 130 }, rate)
  expect(told(now.pictures)).toBe('A 0-100 @0, B 100-110 @50, N 110-130 @70, B 130-200 @80')
  expect(told(now.sounds)).toBe('S 0-110 @1000, NS 110-130 @7, S 130-200 @1130')
})

it('keeps the sound where only another picture is tried, and the list where nothing is', () => {
  const now = tried(list, { index: 0, one: other(false), from: 100, to: 120 }, rate)
  expect(told(now.pictures)).toBe('A 0-100 @0, N 100-120 @70, B 120-200 @70')
  expect(now.sounds).toEqual(list.sounds)
  expect(tried(list, null, rate)).toBe(list)
})

it('moves what follows where a whole take is longer or shorter than the one before', () => {
  const whole = (to: number): Trial => ({
    ...{ index: 0, from: 100 * frame, to: to * frame },
    one: { ...other(true), how: 'whole', in_ticks: 0, out_ticks: 20 * frame },
  })
  const long: Playlist = {
    ...EMPTY,
    length: 300 * frame,
    pictures: [
      picture('A', 0, 100 * frame),
      picture('B', 100 * frame, 10 * frame),
      picture('C', 110 * frame, 30 * frame),
    ],
    sounds: [sound('S', 110 * frame, 30 * frame, 5)],
  }
  const starts = (list: { clip: string; at: number }[]): string =>
    list.map((one) => `${one.clip} ${one.at / frame}`).join(', ')
  const now = tried(long, whole(110), rate)
  expect(now.length).toBe(310 * frame)
  expect(starts(now.pictures)).toBe('A 0, N 100, C 120')
  expect(starts(now.sounds)).toBe('NS 100, S 120')
  expect(movesBy(whole(140), rate)).toBe(-20 * frame)
})
