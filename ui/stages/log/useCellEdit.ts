import { nextTick, ref, type Ref, shallowRef } from 'vue'
import { ApiError } from '@/api/client'
import type { Production, Take } from '@/api/types'
import { complain } from '@/shell/say'
import type { Row } from './rows'
import { cellText, type Edit, type SheetColumn, type SlatedClip, slateOf, valuesFor } from './sheet'

/** Where the cursor goes when a cell is done. */
export type Then = 'down' | 'next' | 'back' | 'stay'

/** Typing in a cell of the slate sheet: of a take any column of words, of a clip without a take its slate. */
export function useCellEdit(options: {
  box: Ref<HTMLElement | null>
  row: () => Row | undefined
  rowOf: (key: string) => Row | undefined
  shown: () => SheetColumn[]
  column: Ref<string>
  columnAt: () => number
  mayLog: () => boolean
  production: () => Production
  begin: () => void
  moveDown: () => void
  edit: (edits: Edit[]) => void
  /** Several clips that are chosen, whose slate is typed into one of them. */
  chosen: () => SlatedClip[]
  slates: (clips: SlatedClip[], text: string) => void
}) {
  /** With the take as it was when typing began: what a colleague changes meanwhile is a conflict. */
  const editing = shallowRef<{ key: string; column: string; take: Take | null; clips: SlatedClip[] } | null>(null)
  const draft = ref('')

  function open(wanted?: string, begin?: string): void {
    const current = options.row()
    if (!options.mayLog() || current === undefined || (current.kind !== 'take' && current.kind !== 'clip')) return
    const clips = current.kind === 'clip' ? options.chosen() : []
    if (clips.length === 0) options.begin()
    if (current.kind === 'clip') {
      draft.value = begin ?? (current.take === null ? '' : slateOf(current.take))
      editing.value = { key: current.key, column: 'slate', take: null, clips: clips.length > 0 ? clips : [current] }
    } else {
      const { column } = options
      const key =
        wanted ??
        (options.shown()[options.columnAt()]?.words || column.value === 'marks' ? column.value : 'description')
      if (key !== 'slate') column.value = key
      draft.value = begin ?? (key === 'slate' ? slateOf(current.take) : cellText(current.take, key))
      editing.value = { key: current.key, column: key, take: current.take, clips: [] }
    }
    void nextTick(() => {
      const input = options.box.value?.querySelector<HTMLInputElement>('input.edit')
      input?.focus()
      if (begin === undefined) input?.select()
    })
  }
  function leave(): void {
    editing.value = null
    options.box.value?.focus()
  }
  function commit(then: Then): void {
    const now = editing.value
    const current = now === null ? undefined : options.rowOf(now.key)
    if (now === null || current === undefined) return
    leave()
    const text = draft.value
    if (
      current.kind === 'clip' &&
      text.trim() !== '' &&
      (now.clips.length > 1 || current.take === null || text.trim() !== slateOf(current.take))
    )
      options.slates(now.clips, text.trim())
    if (now.take !== null) {
      const { marks, fields } = options.production()
      const values =
        now.column === 'slate'
          ? text.trim() === '' || text.trim() === slateOf(now.take)
            ? null
            : { slate: text.trim() }
          : valuesFor(now.column, text, marks, fields)
      if (typeof values === 'string') complain(new ApiError(422, 'cell', values, 'Nothing was changed.', {}))
      else if (values !== null) options.edit([{ take: now.take, values }])
    }
    if (then === 'down' && now.clips.length < 2) options.moveDown()
    else if (then !== 'stay' && current.kind === 'take') {
      const typed = options.shown().filter((one) => one.words)
      const from = typed.findIndex((one) => one.key === now.column)
      const next = typed[(from + (then === 'next' ? 1 : typed.length - 1)) % typed.length]
      if (next !== undefined) open(next.key)
    }
  }
  return { editing, draft, open, leave, commit }
}
