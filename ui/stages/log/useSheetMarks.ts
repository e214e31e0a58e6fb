import { t } from '@/words'
import { ApiError } from '@/api/client'
import type { LogClip, Production, Take, TakeStatus } from '@/api/types'
import { complain } from '@/shell/say'
import {
  cellText,
  type Edit,
  type Flag,
  pasted,
  pastedSlates,
  type SheetColumn,
  type SlatedClip,
  slateOf,
  valuesFor,
} from './sheet'

/** What is done to the chosen takes of the slate sheet at once: marks, filling down, emptying, pasting. */
export function useSheetMarks(options: {
  takes: () => Take[]
  /** All takes before the chosen ones, and all from the first of them on. */
  above: () => Take[]
  onwards: () => Take[]
  keys: () => string[]
  left: () => number
  shown: () => SheetColumn[]
  /** Chosen rows of clips, where no take is chosen with them. */
  clips: () => SlatedClip[]
  clipsOnwards: () => SlatedClip[]
  clipAbove: () => SlatedClip | undefined
  isTake: () => boolean
  mayLog: () => boolean
  production: () => Production
  edit: (edits: Edit[]) => void
  circle: (take: Take, now: TakeStatus) => void
  slates: (clips: SlatedClip[], slates: string | (string | null)[]) => void
  markClips: (clips: LogClip[], as: { wild: boolean } | { false_start: boolean }) => void
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
    const clips = options.clips().map(({ clip }) => clip)
    if (clips.length > 0) {
      if (!options.mayLog()) return
      if (field === 'is_false_start')
        options.markClips(clips, { false_start: !clips.every((clip) => clip.is_false_start) })
      if (field === 'is_wild') options.markClips(clips, { wild: !clips.every((clip) => clip.is_wild) })
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
  /** The slate of one clip for others. */
  function slateFrom(one: SlatedClip | undefined, clips: SlatedClip[]): void {
    if (!options.mayLog() || clips.length === 0) return
    if (one === undefined || one.take === null)
      refuse(t('log.useSheetMarks.thereIsNoSlateTo'), t('log.useSheetMarks.typeItEnterThen3b'))
    else options.slates(clips, slateOf(one.take))
  }
  const refuse = (message: string, fix: string) => complain(new ApiError(422, 'sheet', message, fix, {}))
  function sameAsAbove(): void {
    if (options.clips().length > 0) {
      slateFrom(options.clipAbove(), options.clips())
      return
    }
    const above = options.above().at(-1)
    if (!options.mayLog() || above === undefined) return
    options.edit(options.takes().map((take) => ({ take, values: alike(above) })))
  }
  function fillDown(): void {
    const clips = options.clips()
    if (clips.length > 0) {
      if (clips.length === 1) slateFrom(options.clipAbove(), clips)
      else slateFrom(clips[0], clips.slice(1))
      return
    }
    const [first, ...rest] = options.takes()
    if (!options.mayLog() || first === undefined) return
    if (rest.length === 0) sameAsAbove()
    else options.edit(rest.map((take) => ({ take, values: alike(first) })))
  }
  function clear(): void {
    if (!options.mayLog()) return
    const slated = options.clips().filter(({ take }) => take !== null)
    if (slated.length > 0)
      options.slates(
        slated,
        slated.map(() => null),
      )
    if (options.clips().length > 0) return
    const keys = options.keys().filter((key) => !['scene', 'setup', 'take'].includes(key))
    const edits = options.takes().map((take) => ({ take, values: merged(keys.map((key) => values(key, ''))) }))
    options.edit(edits.filter((one) => Object.keys(one.values).length > 0))
  }
  /** Cells of the clipboard into the sheet; false where there is nothing to paste into. */
  function paste(cells: string[][]): boolean {
    if (!options.mayLog()) return false
    if (!options.isTake()) return pasteSlates(cells)
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
      const more = problems.length > 2 ? t('log.useSheetMarks.andMore', [problems.length - 2]) : ''
      const rest = edits.length > 0 ? t('log.useSheetMarks.theRestIsPasted') : t('log.useSheetMarks.nothingWasChanged')
      complain(new ApiError(422, 'paste', problems.slice(0, 2).join(' ') + more, rest, {}))
    }
    if (edits.length > 0) options.edit(edits)
    return true
  }
  function pasteSlates(cells: string[][]): boolean {
    const chosen = options.clips().length
    if (chosen === 0) return false
    const { clips, slates, left } = pastedSlates(cells, options.clipsOnwards(), chosen)
    if (left > 0)
      refuse(
        t('log.useSheetMarks.belowTheLastClipLeft', [
          left,
          left === 1 ? t('log.useSheetMarks.line') : t('log.useSheetMarks.lines'),
          left === 1 ? t('log.useSheetMarks.was') : t('log.useSheetMarks.were'),
        ]),
        '',
      )
    if (slates !== '') options.slates(clips, slates)
    return true
  }
  const copied = (): string[][] | null =>
    options.takes().length === 0
      ? options.clips().length === 0
        ? null
        : options.clips().map(({ clip, take }) => [take === null ? '' : slateOf(take), clip.name])
      : options.takes().map((take) => options.keys().map((key) => cellText(take, key)))

  return { mark, flag, sameAsAbove, fillDown, clear, paste, copied }
}
