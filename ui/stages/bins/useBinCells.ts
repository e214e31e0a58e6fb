import { t } from '@/words'
import { useDebounceFn } from '@vueuse/core'
import { type Ref, shallowRef } from 'vue'
import { bins } from '@/api/endpoints/bins'
import { log as logApi } from '@/api/endpoints/log'
import { makeStale, willMakeStale } from '@/api/queries'
import type { BinRow, Production } from '@/api/types'
import { attempt, refuse } from '@/shell/say'
import { valueOf } from '@/grid/fieldValue'
import { cellOf, openText, withValue } from './cells'
import type { BinColumn } from './view'

/**
 * A cell that is being written, with the row as it was when that began: what a colleague changes meanwhile is asked
 * about.
 */
export interface OpenCell {
  key: string
  column: string
  row: BinRow
  text: string
}

/** Cells of a bin that are written where they stand. */
export function useBinCells(options: {
  production: Ref<Production>
  day: () => string
  columns: Ref<BinColumn[]>
  rowAt: (key: string) => BinRow | null
  /** Rows as they were written, by their keys, until they come again. */
  written: Ref<Map<string, BinRow>>
  /** Shows a row anew before the server has said so. */
  show: (rows: (row: BinRow) => BinRow) => void
  /** Gives the keys back to the list. */
  leave: () => void
}) {
  const open = shallowRef<OpenCell | null>(null)
  /** Thousands of rows are read anew when a run of cells pauses; until then they show what was written. */
  const readSoon = useDebounceFn((take: string) => makeStale('words', { take }), 700)
  const mayWrite = (row: BinRow, column: string) => {
    const cell = cellOf(row, column, options.production.value.fields)
    const { work, organise } = options.production.value.may
    return cell !== null && (cell.field === null ? organise : work) ? cell : null
  }
  /** The columns of a row that can be written, in their order. */
  const written = (row: BinRow) =>
    options.columns.value.filter((one) => one.shown && mayWrite(row, one.key) !== null).map((one) => one.key)

  function start(key: string, wanted?: string): void {
    const row = options.rowAt(key)
    if (row === null) return
    const all = written(row)
    const column = wanted ?? (all.includes('description') ? 'description' : all[0])
    const cell = column === undefined ? null : mayWrite(row, column)
    if (column === undefined || cell === null) {
      if (wanted === undefined) refuse(t('bins.useBinCells.nothingOfThisRowIs'))
      return
    }
    open.value = { key, column, row, text: openText(row, column, cell) }
  }
  function cancel(): void {
    open.value = null
    options.leave()
  }
  /** Keeps what was written; the next cell of the row opens where one is asked for. */
  async function keep(text: string, step: 0 | 1 | -1): Promise<void> {
    const now = open.value
    if (now === null) return
    open.value = null
    options.leave()
    const stored = store(now, text)
    const all = written(now.row)
    const next = all[(all.indexOf(now.column) + step + all.length) % all.length]
    if (step !== 0 && next !== undefined) start(now.key, next)
    await stored
  }
  async function store({ row, column, text: was }: OpenCell, text: string): Promise<void> {
    const cell = cellOf(row, column, options.production.value.fields)
    if (cell === null || text.trim() === was.trim()) return
    const id = options.production.value.ulid
    if (cell.field === null) {
      const name = text.trim()
      if (name === '' || row.clip === null) return
      options.show((one) => (one.ref === row.ref ? { ...one, name } : one))
      const subclip = row.ref.split(':')[1]!
      const span = {
        in_ticks: row.in_ticks,
        out_ticks: row.in_ticks === null ? null : row.in_ticks + row.duration_ticks!,
      }
      await attempt(() => bins.changeSubclip(id, row.clip!, subclip, { name, ...span }))
      return makeStale('bins')
    }
    const { field } = cell
    const [before, after] = [valueOf(field, was), valueOf(field, text)]
    if (typeof after === 'string') return refuse(after)
    const take = row.take!.ulid
    // A take can stand in several rows: with its angles, and each of its clips by itself.
    options.show((one) => (one.take?.ulid === take ? withValue(one, field, after.value) : one))
    const change = { was: typeof before === 'string' ? was : before.value, now: after.value }
    const body = { edits: [{ take, changes: { [field.key]: change } }] }
    willMakeStale('words')
    // What could not be kept is shown as it is at once.
    if ((await attempt(() => logApi.edit(id, options.day(), body))) === undefined) makeStale('words', { take })
    else void readSoon(take)
  }
  return { open, written: options.written, start, keep, cancel, mayWrite }
}

export type BinCells = ReturnType<typeof useBinCells>
