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

/** A field's value as it is written, or a sentence that says why it cannot be. */
export function valueOf(field: TakeField, text: string): { value: string | boolean } | string {
  const plain = field.type === 'lines' ? text.trim() : text.replaceAll(/\s+/g, ' ').trim()
  switch (field.type) {
    case 'yes_no':
      if (['', 'no', 'n', '0', '-'].includes(plain.toLowerCase())) return { value: false }
      return ['yes', 'y', 'x', '1', '*', field.label.toLowerCase()].includes(plain.toLowerCase())
        ? { value: true }
        : `“${plain}” is neither yes nor no.`
    case 'number':
      return /^$|^[+-]?\d{1,12}([.,]\d{1,6})?$/.test(plain)
        ? { value: plain.replace(',', '.') }
        : `“${plain}” is no number.`
    case 'choice': {
      const choice = ['', ...field.choices].find((one) => one.toLowerCase() === plain.toLowerCase())
      return choice === undefined ? `“${plain}” is none of ${field.choices.join(', ')}.` : { value: choice }
    }
    default:
      return { value: field.limit > 0 ? plain.slice(0, field.limit) : plain }
  }
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
