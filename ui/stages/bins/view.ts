import { t } from '@/words'
import type { BinRow, BinArrangement, TakeField } from '@/api/types'
import type { GridColumn } from '@/grid/columns'
import { labelAt, length } from '@/player/time'

/** A column of a bin's rows; those with an order sort by a click on their head. */
export interface BinColumn extends GridColumn {
  order: string | null
}

export const PLAIN: BinArrangement = {
  show: 'rows',
  order: 'slate',
  down: false,
  takes: false,
  days: [],
  devices: [],
  columns: [],
}

/** A bin of a scene holds takes, of which each has its angles inside; any other shows what lies in it. */
export const plainOf = (key: string): BinArrangement => (key.startsWith('scene:') ? { ...PLAIN, takes: true } : PLAIN)

const FIXED: BinColumn[] = [
  { key: 'slate', title: t('bins.view.slate'), width: 78, shown: true, frozen: true, order: 'slate' },
  { key: 'device', title: t('bins.view.device'), width: 62, shown: true, order: 'device' },
  { key: 'name', title: t('bins.view.name'), width: 108, shown: true, order: 'name' },
  { key: 'description', title: t('bins.view.whatHappens'), width: 120, shown: true, order: 'description' },
  { key: 'size', title: t('bins.view.size'), width: 70, shown: false, order: 'size' },
  { key: 'start', title: t('bins.view.starts'), width: 86, shown: true, order: 'timecode' },
  { key: 'length', title: t('bins.view.length'), width: 46, shown: true, order: 'length' },
  { key: 'used', title: t('bins.view.usedIn'), width: 120, shown: false, order: null },
  { key: 'day', title: t('bins.view.day'), width: 44, shown: false, order: 'day' },
  { key: 'made', title: t('bins.view.timeMade'), width: 130, shown: false, order: 'made' },
  { key: 'file', title: t('bins.view.itsFile'), width: 130, shown: false, order: null },
  { key: 'kind', title: t('bins.view.kind'), width: 90, shown: false, order: 'what' },
  { key: 'channels', title: t('bins.view.channels'), width: 62, shown: false, order: null },
  { key: 'screening', title: t('bins.view.screeningNotes'), width: 180, shown: false, order: null },
]
/** Fields of takes that have a place among the columns above, or are no text. */
const ELSEWHERE = new Set(['scene', 'setup', 'take', 'part', 'description', 'size', 'absent_devices'])

/** Every column that rows can have, in the order and widths that a person keeps for a bin. */
export function columnsOf(view: BinArrangement, fields: TakeField[]): BinColumn[] {
  const all = [
    ...FIXED,
    ...fields
      .filter((field) => !ELSEWHERE.has(field.key))
      .map((field): BinColumn => ({
        key: field.key,
        title: field.label,
        width: field.type === 'yes_no' ? 70 : 110,
        shown: false,
        order: field.key,
      })),
  ]
  const byKey = new Map(all.map((column) => [column.key, column]))
  const ordered = view.columns.flatMap(({ key, width, shown }) => {
    const column = byKey.get(key)
    if (column === undefined) return []
    byKey.delete(key)
    return [{ ...column, width, shown: shown || column.frozen === true }]
  })
  const list = [...ordered, ...byKey.values()]
  return [...list.filter((one) => one.frozen), ...list.filter((one) => !one.frozen)]
}

export const ORDERS: Record<string, string> = {
  slate: t('bins.view.slate2'),
  name: t('bins.view.name2'),
  made: t('bins.view.timeMade2'),
  timecode: t('bins.view.timecode'),
  size: t('bins.view.widestFirst'),
  length: t('bins.view.length2'),
  device: t('bins.view.device2'),
  day: t('bins.view.day2'),
  what: t('bins.view.whatItIs'),
}

export const SIGNS = { clip: '', take: '◫', subclip: '⌐', sequence: '▤' } as const
/** What a row is, told by a sign and a few words: a stretch of a clip and a channel are more than a clip or a piece. */
export function signOf(row: BinRow): { sign: string; says: string } {
  if (row.what === 'clip' && row.ref.includes('#')) return { sign: '⚑', says: t('bins.view.aMarkedStretchOfA') }
  if (row.what === 'subclip' && row.in_ticks === null) return { sign: '∿', says: t('bins.view.channelsOfAClip') }
  return { sign: SIGNS[row.what], says: SAYS[row.what] }
}
export const SAYS = {
  clip: t('bins.view.aClip'),
  take: t('bins.view.aTakeAllItsAngles'),
  subclip: t('bins.view.aSubclip'),
  sequence: t('bins.view.aReelOrCut'),
} as const

/** The text of a cell. */
export function cellText(row: BinRow, key: string, rate: Parameters<typeof labelAt>[1]): string {
  switch (key) {
    case 'name':
      return row.name
    case 'description':
      return row.take?.description ?? ''
    case 'size':
      return row.take?.size ?? ''
    case 'start':
      return row.start_ticks === null ? '' : labelAt(row.start_ticks + (row.in_ticks ?? 0), rate)
    case 'length':
      return length(row.duration_ticks)
    case 'used':
      return row.used.map((use) => (use.times > 1 ? `${use.name} ${use.times}×` : use.name)).join(', ')
    case 'day':
      return row.day === null ? '' : String(row.day)
    case 'made':
      return (row.recorded_at ?? '').replace('T', ' ').slice(0, 19)
    case 'file':
      return row.file ?? ''
    case 'kind':
      return (
        row.import_kind ?? (row.what === 'clip' ? (row.kind ?? '') : SAYS[row.what].split(',')[0]!.replace('a ', ''))
      )
    case 'channels':
      return row.channels === 0 ? '' : String(row.channels)
    default:
      return row.take?.fields[key] ?? ''
  }
}
