import stacksOf from '../../../core/tests/Cutting/stacks.json'
import { expect, it } from 'vitest'
import type { CutClip } from '@/api/types'
import { playedOf, shownOf } from './played'
import type { CutItem } from './value'

const item = (name: string, at: number, length: number, from = 0, enabled = true): CutItem => ({
  name,
  source: { id: name, name, start_ticks: 0, duration_ticks: 1000, rate: '25' },
  source_start_ticks: from,
  duration_ticks: length,
  record_start_ticks: at,
  enabled,
  metadata: {},
})
type Row = [string, number, number, number, boolean?]
const stacks = stacksOf as unknown as Record<string, [Row[][], string]>

it.each(Object.entries(stacks))('shows what the core shows: %s', (_, [tracks, seen]) => {
  const shown = shownOf(tracks.map((rows) => rows.map((row) => item(...row)).filter((one) => one.enabled)))
  expect(shown.map((one) => `${one.item.name} ${one.at}-${one.at + one.length} @${one.from}`).join(', ')).toBe(seen)
})

it('plays items of tracks that are on, as loud as they say, and nothing of a clip that is gone', () => {
  const clip = (ulid: string): CutClip => ({
    ulid,
    name: ulid,
    kind: 'sound',
    device: 'S',
    day: '',
    duration_ticks: 1000,
    ready: true,
    has_sound: true,
    media_version: '1',
    start_ticks: 0,
    frames: null,
    rate: { num: 25, den: 1, nominal: 25, drop: false, name: '25' },
    look: null,
    heard: [{ index: 3, gain_db: -3 }],
  })
  const track = (items: CutItem[], enabled = true) => ({
    kind: 'sound' as const,
    name: '',
    locked: false,
    enabled,
    items,
  })
  const loud: CutItem = { ...item('A', 5, 5), metadata: { channels: { '2': 0 }, gain_millibels: 450 } }
  const { sounds } = playedOf(
    {
      title: '',
      rate: '25',
      start_ticks: 0,
      tracks: [track([item('A', 0, 5), loud, item('gone', 20, 5)]), track([item('A', 0, 5)], false)],
    },
    new Map([['A', clip('A')]]),
  )
  expect(sounds.map((one) => [one.at, one.channels, one.gainDb, one.track])).toEqual([
    [0, [{ index: 3, gainDb: -3 }], 0, 0],
    [5, [{ index: 2, gainDb: 0 }], 4.5, 0],
  ])
})
