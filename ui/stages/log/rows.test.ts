import { describe, expect, it } from 'vitest'
import type { LogClip, Take } from '@/api/types'
import { holeOf, rowsOf } from './rows'

const clip = (device: string): LogClip => ({ ulid: device, kind: device === 'S' ? 'sound' : 'picture', name: device, device, slate_from: null, duration_ticks: 1, start_ticks: 0, placed_ticks: null, way: null, sure: false, stray: null, is_wild: false, is_false_start: false, problems: [], ready: true })
const take = (setup: string, number: number, devices: string, more: Partial<Take> = {}): Take => ({
  ulid: `${setup}/${number}`, scene: setup.replace(/[A-Z]+$/, ''), setup, take: number, description: '', size: '', status: 'none', notes: '', keywords: '', is_mos: false, is_tail_slate: false, is_wild: false,
  is_guide_only: false, absent_devices: [], missed: [], claims: [], clips: devices.split('').map(clip), sync: 'sound', ...more,
})

describe('the rows of the sheet', () => {
  it('groups takes under their scenes and puts what has no slate last', () => {
    const rows = rowsOf({ takes: [take('3', 1, 'AS'), take('3A', 1, 'AS'), take('7', 1, 'AS')], unslated: [clip('B')], scenes: { '3': 'INT. WHEEL ROOM' } })
    expect(rows.map((row) => row.kind)).toEqual(['scene', 'take', 'take', 'scene', 'take', 'rest', 'clip'])
    expect(rows[0]).toMatchObject({ heading: 'INT. WHEEL ROOM', setups: 2, takes: 2 })
  })

  it('writes the setup once and dims it where it repeats', () => {
    const rows = rowsOf({ takes: [take('3', 1, 'A'), take('3', 2, 'A'), take('3A', 1, 'A')], unslated: [], scenes: {} })
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
    expect(holeOf(take('3', 1, 'A', { is_guide_only: true }), 'S', 'recorder')).toEqual({ text: 'guide only', hole: false })
    expect(holeOf(take('3', 1, 'A', { absent_devices: ['B'] }), 'B', 'camera')).toEqual({ text: 'not rolling', hole: false })
    expect(holeOf(take('3', 1, 'A'), 'S', 'recorder').hole).toBe(true)
  })
})
