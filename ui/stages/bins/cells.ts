import type { BinRow, TakeField } from '@/api/types'

/** Fields of takes that a cell of a bin writes; a slate is the log's to change. */
const TYPES = new Set(['text', 'lines', 'choice', 'number', 'yes_no'])

/** What a cell of a row writes: a field of its take, the name of a subclip; null where it only tells. */
export type CellOf = { field: TakeField } | { field: null }

export function cellOf(row: BinRow, column: string, fields: TakeField[]): CellOf | null {
  if (column === 'name') return row.what === 'subclip' ? { field: null } : null
  const field = fields.find((one) => one.key === column)
  return field !== undefined && row.take !== null && TYPES.has(field.type) ? { field } : null
}

/** What stands in a cell when it is opened. */
export function openText(row: BinRow, column: string, cell: CellOf): string {
  const text = cell.field === null ? row.name : (row.take?.fields[column] ?? '')
  return cell.field?.type === 'yes_no' ? (text === '' ? '' : 'yes') : text
}

/** The text that a cell shows once its value is another. */
const shownOf = (field: TakeField, value: string | boolean): string =>
  typeof value === 'string' ? value : value ? (field.key.startsWith('own:') ? 'yes' : field.label) : ''

/** A row with another value in a field of its take, as it is shown until the server says it. */
export function withValue(row: BinRow, field: TakeField, value: string | boolean): BinRow {
  if (row.take === null) return row
  const text = shownOf(field, value)
  const fields = { ...row.take.fields, [field.key]: text }
  return {
    ...row,
    take: {
      ...row.take,
      fields,
      description: field.key === 'description' ? text : row.take.description,
      size: field.key === 'size' ? text : row.take.size,
    },
  }
}
