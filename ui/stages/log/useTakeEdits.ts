import { log as logApi } from '@/api/endpoints/log'
import { computed, shallowRef } from 'vue'
import { ApiError } from '@/api/client'
import { onLive } from '@/api/live'
import { makeStale, setAnswer } from '@/api/queries'
import type { Take } from '@/api/types'
import { complain } from '@/shell/say'
import type { Edit } from './sheet'

/** More rows than this are asked for by asking for the whole sheet. */
const FEW = 40

export interface Conflict {
  take: string
  label: string
  field: string
  yours: unknown
  theirs: unknown
}

/** What a field is now; of a slate its three parts, which only the server reads from what is typed. */
const valueOf = (take: Take, field: string) =>
  field === 'slate' ? { setup: take.setup, take: take.take, part: take.part } : take[field as keyof Take]

/**
 * Sends changes of takes, shows them at once, and keeps fields that two people changed until one value of each is
 * chosen.
 */
export function useTakeEdits(production: () => string, day: () => string) {
  const open = shallowRef<{ edits: Edit[]; conflicts: Conflict[]; at: number } | null>(null)
  const conflict = computed(() => open.value?.conflicts[open.value.at] ?? null)
  const left = computed(() => (open.value === null ? 0 : open.value.conflicts.length - open.value.at))

  function show(edits: Edit[]): void {
    const byTake = new Map(edits.map((edit) => [edit.take.ulid, edit.values]))
    setAnswer(logApi.sheet(production(), day()), (sheet) =>
      sheet === undefined
        ? undefined
        : {
            ...sheet,
            takes: sheet.takes.map((take) => (byTake.has(take.ulid) ? { ...take, ...byTake.get(take.ulid) } : take)),
          },
    )
  }

  /** One undoable step, however many takes it is about. */
  async function changeAll(edits: Edit[]): Promise<boolean> {
    const sent = edits
      .map(({ take, values }) => ({
        take: take.ulid,
        changes: Object.fromEntries(
          Object.entries(values)
            .filter(([field, now]) => JSON.stringify(valueOf(take, field)) !== JSON.stringify(now))
            .map(([field, now]) => [field, { was: valueOf(take, field), now }]),
        ),
      }))
      .filter((edit) => Object.keys(edit.changes).length > 0)
    if (sent.length === 0) return true
    show(edits)
    try {
      await logApi.edit(production(), day(), { edits: sent })
      return true
    } catch (trouble) {
      const conflicts =
        trouble instanceof ApiError && trouble.status === 409 ? (trouble.context.fields as Conflict[]) : []
      if (conflicts.length > 0) open.value = { edits, conflicts, at: 0 }
      else complain(trouble)
      return false
    } finally {
      const isWords = edits.every(
        ({ values }) => !['slate', 'scene', 'setup', 'take', 'part'].some((field) => field in values),
      )
      if (isWords && edits.length <= FEW) void refresh(edits.map(({ take }) => take.ulid))
      else makeStale('takes')
    }
  }

  /** Asks for some rows again and lays them into the sheet that is there: words and marks change no other row. */
  async function refresh(ulids: string[]): Promise<void> {
    const answer = await logApi.someTakes(production(), day(), ulids.join(',')).catch(() => null)
    if (answer === null) return makeStale('takes')
    const byTake = new Map(answer.takes.map((take) => [take.ulid, take]))
    setAnswer(logApi.sheet(production(), day()), (sheet) =>
      sheet === undefined ? undefined : { ...sheet, takes: sheet.takes.map((take) => byTake.get(take.ulid) ?? take) },
    )
    makeStale('words')
  }
  onLive('takes', (facts) => {
    if (facts.words === true && typeof facts.take === 'string') void refresh([facts.take])
  })

  /** One answer for the conflict on show, or for all that are left; when all are answered, the rest is sent again. */
  async function settle(keepMine: boolean, forAll = false): Promise<void> {
    const now = open.value
    if (now === null) return
    const answered = forAll ? now.conflicts.slice(now.at) : [now.conflicts[now.at]!]
    const edits = now.edits.map((edit) => {
      let { take, values } = edit
      for (const one of answered.filter((other) => other.take === take.ulid)) {
        if (keepMine) take = { ...take, [one.field]: one.theirs } as Take
        else
          values = Object.fromEntries(Object.entries(values).filter(([field]) => field !== one.field)) as Partial<Take>
      }
      return { take, values }
    })
    const at = now.at + answered.length
    open.value = at < now.conflicts.length ? { ...now, edits, at } : null
    if (open.value === null) await changeAll(edits)
  }

  return {
    conflict,
    left,
    change: (take: Take, values: Partial<Take>) => changeAll([{ take, values }]),
    changeAll,
    settle,
  }
}
