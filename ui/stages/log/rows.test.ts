import { describe, expect, it } from 'vitest'
import type { Device, DeviceKind, LogClip, Take } from '@/api/types'
import { holeOf, rowsOf, type Order } from './rows'

const device = (letter: string, kind: DeviceKind, note: string): Device => ({
  ulid: letter,
  letter,
  kind,
  note,
  lane: 0,
  colour: null,
  is_retired: false,
})

const clip = (device: string): LogClip => ({
  ulid: device,
  kind: device === 'S' ? 'sound' : 'picture',
  name: device,
  file: device,
  device,
  slate_from: null,
  in_ticks: null,
  duration_ticks: 1,
  start_ticks: 0,
  placed_ticks: null,
  clock: null,
  way: null,
  sure: false,
  stray: null,
  is_wild: false,
  is_false_start: false,
  problems: [],
  ready: true,
})
const take = (setup: string, number: number, devices: string, more: Partial<Take> = {}): Take => ({
  ulid: `${setup}/${number}`,
  scene: setup.replace(/[A-Z]+$/, ''),
  setup,
  take: number,
  part: '',
  name: '',
  description: '',
  size: '',
  width: 0,
  is_pickup: false,
  is_false_start: false,
  disputes: [],
  said_by: null,
  screening: '',
  status: 'none',
  notes: '',
  keywords: '',
  is_mos: false,
  is_tail_slate: false,
  is_wild: false,
  is_guide_only: false,
  absent_devices: [],
  missed: [],
  claims: [],
  clips: devices.split('').map(clip),
  sync: 'sound',
  ...more,
})

describe('the rows of the sheet', () => {
  it('groups takes under their scenes and puts what has no slate last', () => {
    const rows = rowsOf(
      { takes: [take('3', 1, 'AS'), take('3A', 1, 'AS'), take('7', 1, 'AS')], unslated: [clip('B')] },
      'slate',
      [],
      {
        '3': {
          heading: 'INT. WHEEL ROOM',
          characters: [],
          pages: null,
          in_script: false,
          setups: 2,
          takes: 2,
          circled: 0,
          running_ticks: 0,
          days: 1,
        },
      },
    )
    expect(rows.map((row) => row.kind)).toEqual(['scene', 'take', 'take', 'scene', 'take', 'rest', 'clip'])
    expect(rows[0]).toMatchObject({ facts: { heading: 'INT. WHEEL ROOM' }, setups: 2, takes: 2 })
  })

  it('writes the setup once and dims it where it repeats', () => {
    const rows = rowsOf({ takes: [take('3', 1, 'A'), take('3', 2, 'A'), take('3A', 1, 'A')], unslated: [] })
    expect(rows.filter((row) => row.kind === 'take').map((row) => row.repeats)).toEqual([false, true, false])
  })
})

describe('holes', () => {
  it('are where the server misses a device, and nowhere else', () => {
    const one = take('7A', 1, 'AS', { missed: ['B'] })
    expect(holeOf(one, 'B', 'camera')).toEqual({ text: 'nothing here', hole: true })
    expect(holeOf(one, 'C', 'camera')).toEqual({ text: '—', hole: false })
  })

  it('say why they are none', () => {
    expect(holeOf(take('3', 1, 'A', { is_mos: true }), 'S', 'recorder')).toEqual({ text: 'MOS', hole: false })
    expect(holeOf(take('3', 1, 'A', { is_guide_only: true }), 'S', 'recorder')).toEqual({
      text: 'guide only',
      hole: false,
    })
    expect(holeOf(take('3', 1, 'A', { absent_devices: ['B'] }), 'B', 'camera')).toEqual({
      text: 'not rolling',
      hole: false,
    })
    expect(holeOf(take('3', 1, 'A'), 'S', 'recorder').hole).toBe(true)
  })
})

describe('orders', () => {
  const at = (one: Take, ticks: number): Take => ({
    ...one,
    clips: one.clips.map((other) => ({ ...other, placed_ticks: ticks })),
  })
  const sheet = {
    takes: [
      at(take('3', 1, 'AS'), 300),
      at(take('3A', 1, 'A', { width: 5 }), 100),
      at(take('3A', 2, 'A', { width: 1 }), 200),
    ],
    unslated: [{ ...clip('B'), start_ticks: 50 }],
  }
  const keys = (order: Order) =>
    rowsOf(sheet, order, [device('A', 'camera', ''), device('B', 'camera', ''), device('S', 'recorder', '')])
      .filter((row) => row.kind === 'take' || row.kind === 'clip')
      .map((row) => (row.kind === 'clip' ? row.clip.device : row.key))

  it('follows the slates, the day, the devices or the size', () => {
    expect(keys('slate')).toEqual(['3/1', '3A/1', '3A/2', 'B'])
    expect(keys('shot')).toEqual(['3A/1', '3A/2', '3/1', 'B'])
    expect(keys('size')).toEqual(['3/1', '3A/2', '3A/1', 'B'])
    expect(keys('device')).toEqual(['A', 'A', 'A', 'B', 'S'])
  })
})
