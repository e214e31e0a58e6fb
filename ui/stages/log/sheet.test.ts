import { describe, expect, it } from 'vitest'
import type { Device, MarkWords, Take } from '@/api/types'
import { fromTsv, toTsv } from '@/grid/clipboard'
import { columnsOf, kept, marksOf, pasted, pastedSlates, type SlatedClip, valuesFor } from './sheet'

const devices: Device[] = [
  { ulid: 'A', letter: 'A', kind: 'camera', note: 'wide', lane: 0, colour: null, is_retired: false },
  { ulid: 'S', letter: 'S', kind: 'recorder', note: '', lane: 0, colour: null, is_retired: false },
]
const words: MarkWords = {
  ng: ['status', 'ng'],
  circled: ['status', 'circled'],
  mos: ['is_mos', true],
  tail: ['is_tail_slate', true],
}
const take = (number: number, more: Partial<Take> = {}): Take => ({
  ulid: `t${number}`,
  scene: '3',
  setup: '3A',
  take: number,
  part: '',
  name: '',
  description: '',
  size: '',
  width: 0,
  status: 'none',
  notes: '',
  keywords: '',
  is_mos: false,
  is_tail_slate: false,
  is_wild: false,
  is_guide_only: false,
  is_pickup: false,
  is_false_start: false,
  absent_devices: [],
  missed: [],
  claims: [],
  disputes: [],
  said_by: null,
  screening: '',
  clips: [],
  sync: 'sound',
  ...more,
})

describe('columns', () => {
  it('has one for each device, and those that a person keeps stand as they left them', () => {
    const first = columnsOf(devices, null)
    expect(first.map((column) => column.key)).toContain('device:S')
    const own = [...kept(first)]
      .reverse()
      .map((column) => (column.key === 'size' ? { ...column, width: 99, shown: false } : column))
    const again = columnsOf(devices, own)
    expect(again.slice(0, 2).map((column) => column.key)).toEqual(['setup', 'take'])
    expect(again.find((column) => column.key === 'size')).toMatchObject({ width: 99, shown: false })
    expect(again.findIndex((column) => column.key === 'sync')).toBeLessThan(
      again.findIndex((column) => column.key === 'description'),
    )
  })

  it('shows a device that came later, and forgets one that is gone', () => {
    const own = kept(columnsOf([devices[0]!], null))
    const again = columnsOf(devices, own)
    expect(again.at(-1)?.key).toBe('sync')
    expect(again.some((column) => column.key === 'device:S')).toBe(true)
    expect(columnsOf([devices[1]!], own).some((column) => column.key === 'device:A')).toBe(false)
  })
})

describe('cells', () => {
  it('reads marks and takes as people write them, and says what it cannot', () => {
    expect(valuesFor('status', 'NG', words)).toEqual({ status: 'ng' })
    expect(valuesFor('status', '', words)).toEqual({ status: 'none' })
    expect(valuesFor('take', '4b', words)).toEqual({ take: 4, part: 'b' })
    expect(valuesFor('take', '0', words)).toMatch(/no take number/)
    expect(valuesFor('status', 'maybe', words)).toMatch(/no mark/)
    expect(valuesFor('sync', 'x', words)).toBeNull()
    expect(marksOf(take(1, valuesFor('marks', 'MOS, tail', words) as Partial<Take>))).toBe('MOS, tail slate')
  })

  it('survive the clipboard with tabs, quotes and lines in them', () => {
    const cells = [
      ['a\tb', 'say "x"'],
      ['two\nlines', ''],
    ]
    expect(fromTsv(toTsv(cells))).toEqual(cells)
    expect(fromTsv('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ])
  })
})

describe('pasting', () => {
  const takes = [take(1), take(2), take(3)]
  const columns = ['setup', 'take', 'description', 'size', 'device:A']

  it('lays a block over takes and columns, and leaves out what nobody types', () => {
    const { edits, problems } = pasted(
      [
        ['Mara turns', 'Wide', 'A001'],
        ['Quill', 'Close', 'A002'],
      ],
      takes,
      columns,
      { row: 1, column: 2 },
      { rows: 1, columns: 1 },
      words,
    )
    expect(edits.map((edit) => [edit.take.ulid, edit.values])).toEqual([
      ['t2', { description: 'Mara turns', size: 'Wide' }],
      ['t3', { description: 'Quill', size: 'Close' }],
    ])
    expect(problems).toEqual([])
  })

  it('fills the whole selection with one cell', () => {
    const { edits } = pasted([['Wide']], takes, columns, { row: 0, column: 3 }, { rows: 3, columns: 1 }, words)
    expect(edits.map((edit) => edit.values)).toEqual([{ size: 'Wide' }, { size: 'Wide' }, { size: 'Wide' }])
  })

  it('says what was left out below the last take', () => {
    const { edits, problems } = pasted(
      [['a'], ['b'], ['c']],
      takes,
      columns,
      { row: 1, column: 2 },
      { rows: 1, columns: 1 },
      words,
    )
    expect(edits).toHaveLength(2)
    expect(problems).toEqual(['1 row below the last take was left out.'])
  })
})

describe('slates for clips', () => {
  const clips = ['a', 'b', 'c'].map((ulid) => ({ clip: { ulid }, take: null }) as SlatedClip)
  it('takes one a line, also where setup and take stand in two columns, and leaves a clip without words alone', () => {
    expect(pastedSlates([['3A/1'], [''], ['3B', '2a']], clips, 1)).toEqual({
      clips,
      slates: ['3A/1', null, '3B/2a'],
      left: 0,
    })
  })
  it('gives one cell to all that are chosen, and says how many lines have no clip', () => {
    expect(pastedSlates([['3A/1+']], clips, 2)).toEqual({ clips: clips.slice(0, 2), slates: '3A/1+', left: 0 })
    expect(pastedSlates([['1/1'], ['1/2'], ['1/3'], ['1/4'], ['1/5']], clips, 1)).toMatchObject({ left: 2 })
  })
})
