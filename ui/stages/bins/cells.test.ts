import { describe, expect, it } from 'vitest'
import type { BinRow, TakeField } from '@/api/types'
import { valueOf } from '@/grid/fieldValue'
import { cellOf, openText, withValue } from './cells'

const field = (key: string, type: TakeField['type'], choices: string[] = []): TakeField => ({
  key,
  name: key,
  type,
  label: key === 'is_mos' ? 'MOS' : key,
  limit: type === 'text' ? 10 : 0,
  choices,
})
const FIELDS = [
  field('description', 'text'),
  field('notes', 'lines'),
  field('own:lens', 'number'),
  field('own:stock', 'choice', ['Day', 'Night']),
  field('is_mos', 'yes_no'),
  field('setup', 'slate'),
]
const row = (more: Partial<BinRow> = {}): BinRow =>
  ({
    ref: 'take:1',
    what: 'take',
    name: '3/1',
    take: { ulid: 'T', description: 'at the door', size: '', fields: { description: 'at the door', is_mos: 'MOS' } },
    ...more,
  }) as BinRow

describe('cells of a bin', () => {
  it('writes fields of takes and names of subclips, and nothing else', () => {
    expect(cellOf(row(), 'own:lens', FIELDS)).toEqual({ field: FIELDS[2] })
    expect(cellOf(row({ what: 'subclip' }), 'name', FIELDS)).toEqual({ field: null })
    for (const column of ['name', 'setup', 'start', 'length']) expect(cellOf(row(), column, FIELDS), column).toBeNull()
    expect(cellOf(row({ take: null }), 'description', FIELDS)).toBeNull()
  })
  it('reads numbers, choices and yes as people write them, and says what cannot be', () => {
    expect(valueOf(FIELDS[2]!, ' 35,5 ')).toEqual({ value: '35.5' })
    expect(valueOf(FIELDS[2]!, 'wide')).toContain('no number')
    expect(valueOf(FIELDS[3]!, 'NIGHT')).toEqual({ value: 'Night' })
    expect(valueOf(FIELDS[3]!, 'dusk')).toContain('Day, Night')
    expect(valueOf(FIELDS[4]!, 'mos')).toEqual({ value: true })
    expect(valueOf(FIELDS[4]!, '')).toEqual({ value: false })
    expect(valueOf(FIELDS[1]!, ' one\n two ')).toEqual({ value: 'one\n two' })
    expect(valueOf(FIELDS[0]!, 'longer than ten')).toEqual({ value: 'longer tha' })
  })
  it('shows what was written until the server says it', () => {
    const then = withValue(row(), FIELDS[0]!, 'inside')
    expect([then.take?.description, then.take?.fields.description]).toEqual(['inside', 'inside'])
    expect(withValue(row(), FIELDS[4]!, false).take?.fields.is_mos).toBe('')
    expect(openText(row(), 'is_mos', { field: FIELDS[4]! })).toBe('yes')
  })
})
