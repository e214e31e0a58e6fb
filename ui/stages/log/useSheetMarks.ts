import { ApiError } from '@/api/client'
import type { LogClip, Production, Take, TakeStatus } from '@/api/types'
import { complain } from '@/shell/say'
import { cellText, type Edit, type Flag, pasted, type SheetColumn, valuesFor } from './sheet'

/** What is done to the chosen takes of the slate sheet at once: marks, filling down, emptying, pasting. */
export function useSheetMarks(options: {
  takes: () => Take[]
  /** All takes before the chosen ones, and all from the first of them on. */
  above: () => Take[]
  onwards: () => Take[]
  keys: () => string[]
  left: () => number
  shown: () => SheetColumn[]
  clip: () => LogClip | undefined
  isTake: () => boolean
  mayLog: () => boolean
  production: () => Production
  edit: (edits: Edit[]) => void
  circle: (take: Take, now: TakeStatus) => void
  falseStart: (clip: LogClip) => void
}) {
  const values = (key: string, text: string) =>
    valuesFor(key, text, options.production().marks, options.production().fields)
  const merged = (some: ReturnType<typeof values>[]): Partial<Take> =>
    Object.assign({}, ...some.filter((one) => one !== null && typeof one !== 'string')) as Partial<Take>

  function mark(status: TakeStatus): void {
    const takes = options.takes()
    if (takes.length === 0) return
    const now = takes.every((take) => take.status === status) ? 'none' : status
    if (options.mayLog()) options.edit(takes.map((take) => ({ take, values: { status: now } })))
    else if (status === 'circled' && takes.length === 1) options.circle(takes[0]!, now)
  }
  function flag(field: Flag): void {
    const clip = options.clip()
    if (clip !== undefined) {
      if (field === 'is_false_start' && options.mayLog()) options.falseStart(clip)
      return
    }
    const takes = options.takes()
    if (takes.length === 0 || !options.mayLog()) return
    const now = !takes.every((take) => take[field])
    options.edit(takes.map((take) => ({ take, values: { [field]: now } })))
  }
  /** The values of one take for others: of the chosen columns, or what happens and the size where none is typed in. */
  function alike(from: Take): Partial<Take> {
    const typed = options
      .keys()
      .filter((key) => options.shown().find((one) => one.key === key)?.words || key === 'marks')
    return merged((typed.length > 0 ? typed : ['description', 'size']).map((key) => values(key, cellText(from, key))))
  }
  function sameAsAbove(): void {
    const above = options.above().at(-1)
    if (!options.mayLog() || above === undefined) return
    options.edit(options.takes().map((take) => ({ take, values: alike(above) })))
  }
  function fillDown(): void {
    const [first, ...rest] = options.takes()
    if (!options.mayLog() || first === undefined) return
    if (rest.length === 0) sameAsAbove()
    else options.edit(rest.map((take) => ({ take, values: alike(first) })))
  }
  function clear(): void {
    if (!options.mayLog()) return
    const keys = options.keys().filter((key) => !['scene', 'setup', 'take'].includes(key))
    const edits = options.takes().map((take) => ({ take, values: merged(keys.map((key) => values(key, ''))) }))
    options.edit(edits.filter((one) => Object.keys(one.values).length > 0))
  }
  /** Cells of the clipboard into the sheet; false where there is nothing to paste into. */
  function paste(cells: string[][]): boolean {
    if (!options.mayLog() || !options.isTake()) return false
    const { marks, fields } = options.production()
    const { edits, problems } = pasted(
      cells,
      options.onwards(),
      options.shown().map((one) => one.key),
      { row: 0, column: options.left() },
      { rows: options.takes().length, columns: options.keys().length },
      marks,
      fields,
    )
    if (problems.length > 0) {
      const more = problems.length > 2 ? ` And ${problems.length - 2} more.` : ''
      const rest = edits.length > 0 ? 'The rest is pasted.' : 'Nothing was changed.'
      complain(new ApiError(422, 'paste', problems.slice(0, 2).join(' ') + more, rest, {}))
    }
    if (edits.length > 0) options.edit(edits)
    return true
  }
  const copied = (): string[][] | null =>
    options.takes().length === 0
      ? null
      : options.takes().map((take) => options.keys().map((key) => cellText(take, key)))

  return { mark, flag, sameAsAbove, fillDown, clear, paste, copied }
}
