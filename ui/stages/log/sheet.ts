import { t } from '@/words'
import type { GridColumn } from '@/grid/columns'
import { valueOf } from '@/grid/fieldValue'
import type { Column, Device, LogClip, MarkWords, Take, TakeField, TakeStatus } from '@/api/types'
import { length } from '@/player/time'

/** A column of the slate sheet: what it shows, and what typed or pasted text changes. */
export interface SheetColumn extends GridColumn {
  /** Letters typed on it begin to edit; on the others they are marks. */
  words?: boolean
  limit?: number
}

const OWN: SheetColumn[] = [
  { key: 'setup', title: t('log.sheet.setup'), width: 50, frozen: true, shown: true },
  { key: 'take', title: t('log.sheet.take'), width: 40, frozen: true, shown: true },
  { key: 'description', title: t('log.sheet.whatHappens'), width: 136, shown: true, words: true, limit: 300 },
  { key: 'size', title: t('log.sheet.size'), width: 60, shown: true, words: true, limit: 30 },
  { key: 'status', title: t('log.sheet.status'), width: 70, shown: false, words: true, limit: 30 },
  { key: 'marks', title: t('log.sheet.marks'), width: 110, shown: false },
  { key: 'notes', title: t('log.sheet.notes'), width: 180, shown: false, words: true, limit: 4000 },
  { key: 'keywords', title: t('log.sheet.keywords'), width: 130, shown: false, words: true, limit: 300 },
  { key: 'screening', title: t('log.sheet.screeningNotes'), width: 180, shown: false },
  { key: 'name', title: t('log.sheet.name'), width: 120, shown: false },
  { key: 'length', title: t('log.sheet.length'), width: 54, shown: false },
]
/** Running numbers say no scene, so it has a column where they are used. */
const SCENE: SheetColumn = {
  key: 'scene',
  title: t('log.sheet.scene'),
  width: 52,
  frozen: true,
  shown: true,
  words: true,
  limit: 20,
}
const SYNC: SheetColumn = { key: 'sync', title: t('log.sheet.synced'), width: 76, shown: true }

type OwnKey = `own:${string}`
const isOwn = (field: TakeField): field is TakeField & { key: OwnKey } => field.key.startsWith('own:')
const columnOf = (field: TakeField): SheetColumn => ({
  key: field.key,
  title: field.label,
  width: field.type === 'yes_no' ? 60 : 96,
  shown: true,
  words: true,
  limit: field.limit,
})

/** All columns of a day, those of its devices among them, in the order and widths that a person keeps. */
export function columnsOf(
  devices: Device[],
  kept: Column[] | null,
  style: 'letter' | 'number' = 'letter',
  fields: TakeField[] = [],
): SheetColumn[] {
  const all = [
    ...(style === 'number' ? [SCENE] : []),
    ...OWN,
    ...fields.filter(isOwn).map(columnOf),
    ...devices.map((device): SheetColumn => ({
      key: `device:${device.letter}`,
      title: device.note || device.letter,
      width: 122,
      shown: true,
    })),
    SYNC,
  ]
  if (kept === null) return all
  const byKey = new Map(all.map((column) => [column.key, column]))
  const ordered: SheetColumn[] = []
  for (const { key, width, shown } of kept) {
    const column = byKey.get(key)
    if (column === undefined) continue
    ordered.push({ ...column, width, shown: shown || column.frozen === true })
    byKey.delete(key)
  }
  // What came later, such as a new device, stands before the last column.
  const late = [...byKey.values()]
  const frozen = [...ordered, ...late].filter((column) => column.frozen)
  const rest = ordered.filter((column) => !column.frozen)
  const lateRest = late.filter((column) => !column.frozen)
  const place = (column: SheetColumn) => [SCENE, ...OWN].findIndex((one) => one.key === column.key)
  return [...frozen.sort((x, y) => place(x) - place(y)), ...rest.slice(0, -1), ...lateRest, ...rest.slice(-1)]
}

export const kept = (columns: SheetColumn[]): Column[] =>
  columns.map(({ key, width, shown }) => ({ key, width, shown }))

export type Flag = 'is_mos' | 'is_tail_slate' | 'is_wild' | 'is_pickup' | 'is_false_start' | 'is_guide_only'
export const FLAGS: { field: Flag; word: string }[] = [
  { field: 'is_mos', word: 'MOS' },
  { field: 'is_tail_slate', word: 'tail slate' },
  { field: 'is_false_start', word: 'false start' },
  { field: 'is_wild', word: 'wild' },
  { field: 'is_pickup', word: 'pick-up' },
  { field: 'is_guide_only', word: 'guide only' },
]
export const marksOf = (take: Take): string =>
  FLAGS.filter((flag) => take[flag.field])
    .map((flag) => flag.word)
    .join(', ')
/** A field in a sentence. */
export const fieldName = (fields: TakeField[], key: string): string =>
  key.startsWith('own:')
    ? (fields.find((field) => field.key === key)?.label ?? key.slice(4))
    : key.replace('is_', '').replaceAll('_', ' ')
export const slateOf = (take: { setup: string; take: number; part?: string }): string =>
  `${take.setup}/${take.take}${take.part ?? ''}`
export const runningOf = (take: Take): number =>
  Math.max(0, ...take.clips.filter((clip) => clip.kind === 'picture').map((clip) => clip.duration_ticks ?? 0))

/** The text of a cell, as it is shown and copied. */
export function cellText(take: Take, key: string): string {
  if (key.startsWith('device:'))
    return take.clips
      .filter((clip) => clip.device === key.slice(7))
      .map((clip) => clip.name)
      .join(', ')
  if (key.startsWith('own:')) {
    const value = take[key as OwnKey] ?? ''
    return typeof value === 'boolean' ? (value ? 'yes' : '') : value
  }
  switch (key) {
    case 'take':
      return `${take.take}${take.part}`
    case 'status':
      return take.status === 'none' ? '' : take.status === 'ng' ? 'NG' : take.status
    case 'marks':
      return marksOf(take)
    case 'length':
      return length(runningOf(take) || null)
    case 'scene':
    case 'setup':
    case 'description':
    case 'size':
    case 'notes':
    case 'keywords':
    case 'screening':
    case 'name':
    case 'sync':
      return take[key]
    default:
      return ''
  }
}

/**
 * What text typed or pasted into a cell makes of its take: the changed fields; null for a column that nobody types in;
 * a sentence where the text cannot be.
 */
export function valuesFor(
  key: string,
  text: string,
  words: MarkWords,
  fields: TakeField[] = [],
): Partial<Take> | string | null {
  const plain = text.replaceAll(/\s+/g, ' ').trim()
  const own = fields.find((field) => field.key === key)
  if (own !== undefined && isOwn(own)) {
    const made = valueOf(own, plain)
    return typeof made === 'string' ? made : { [own.key]: made.value }
  }
  switch (key) {
    case 'description':
    case 'size':
    case 'keywords':
      return { [key]: plain.slice(0, OWN.find((column) => column.key === key)?.limit) }
    case 'notes':
      return { notes: text.trim().slice(0, 4000) }
    case 'status': {
      const mark = plain === '' ? ['status', 'none'] : words[plain.toLowerCase()]
      return mark?.[0] === 'status' ? { status: mark[1] as TakeStatus } : t('log.sheet.isNoMarkCircledHold', [plain])
    }
    case 'marks': {
      const values: Partial<Take> = Object.fromEntries(FLAGS.map((flag) => [flag.field, false]))
      for (const word of plain.split(/\s*[,;]\s*/).filter(Boolean)) {
        const flag = FLAGS.find((one) => one.field === words[word.toLowerCase()]?.[0])
        if (flag === undefined) return t('log.sheet.isNoMark', [word])
        values[flag.field] = true
      }
      return values
    }
    case 'scene':
      return plain === '' ? t('log.sheet.aTakeHasAScene') : { scene: plain.replaceAll(' ', '').slice(0, 20) }
    case 'setup':
      return plain === '' ? t('log.sheet.aTakeHasASetup') : { setup: plain.replaceAll(' ', '').toUpperCase() }
    case 'take': {
      const part = /^(\d{1,3})([a-hj-np-z]?)$/.exec(plain)
      return part === null || Number(part[1]) < 1
        ? t('log.sheet.isNoTakeNumber', [plain])
        : { take: Number(part[1]), part: part[2] ?? '' }
    }
    default:
      return null
  }
}

export interface Edit {
  take: Take
  /** New values by field; `slate` is setup and take as they were typed, which the server reads. */
  values: Partial<Take> & { slate?: string }
}

/** A clip of the sheet, with the take of its row. */
export interface SlatedClip {
  clip: LogClip
  take: Take | null
}

/**
 * The slates of a pasted block, one a row: setup and take may stand in two columns. One cell is the slate of all that
 * are chosen.
 */
export function pastedSlates(
  block: string[][],
  clips: SlatedClip[],
  chosen: number,
): { clips: SlatedClip[]; slates: string | (string | null)[]; left: number } {
  const lines = block.map((cells) => cells.map((cell) => cell.trim()).filter((cell) => cell !== ''))
  const slates = lines.map(([first = '', second = '']) =>
    first === '' ? null : /^[\w-]+$/.test(first) && /^\d{1,3}[a-z]?$/.test(second) ? `${first}/${second}` : first,
  )
  if (slates.length === 1) return { clips: clips.slice(0, chosen), slates: slates[0] ?? '', left: 0 }
  return {
    clips: clips.slice(0, slates.length),
    slates: slates.slice(0, clips.length),
    left: Math.max(0, slates.length - clips.length),
  }
}

/**
 * What a pasted block changes: laid over takes and columns from the cursor on; one cell fills the whole selection.
 * Columns that nobody types in are left out. Sentences tell what could not be.
 */
export function pasted(
  block: string[][],
  takes: Take[],
  columns: string[],
  from: { row: number; column: number },
  selection: { rows: number; columns: number },
  words: MarkWords,
  fields: TakeField[] = [],
): { edits: Edit[]; problems: string[] } {
  const single = block.length === 1 && block[0]!.length === 1
  const rows = single ? selection.rows : block.length
  const edits: Edit[] = []
  const problems: string[] = []
  for (let row = 0; row < rows; row++) {
    const take = takes[from.row + row]
    if (take === undefined) {
      const left = rows - row
      problems.push(
        t('log.sheet.belowTheLastTakeLeft', [
          left,
          left === 1 ? t('log.sheet.row') : t('log.sheet.rows'),
          left === 1 ? t('log.sheet.was') : t('log.sheet.were'),
        ]),
      )
      break
    }
    const cells = single ? Array.from({ length: selection.columns }, () => block[0]![0]!) : block[row]!
    let values: Partial<Take> = {}
    cells.forEach((cell, at) => {
      const key = columns[from.column + at]
      const change = key === undefined ? null : valuesFor(key, cell, words, fields)
      if (typeof change === 'string') problems.push(`${slateOf(take)}: ${change}`)
      else if (change !== null) values = { ...values, ...change }
    })
    if (Object.keys(values).length > 0) edits.push({ take, values })
  }
  return { edits, problems }
}
