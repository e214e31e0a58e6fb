import { t } from '@/words'
import { log as logApi } from '@/api/endpoints/log'
import { useEventListener, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, shallowRef } from 'vue'
import { ApiError, PAGE } from '@/api/client'
import { onLive } from '@/api/live'
import { answerOf, makeStale, setAnswer } from '@/api/queries'
import type { SlateSet, SlateSheet, Take } from '@/api/types'
import { complain, say } from '@/shell/say'
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

/** An entry that could not be sent: changes of takes with what they show, or slates of clips. */
interface Waiting {
  /** By which the desk knows an entry whose answer was lost: it counts once. */
  entry: string
  edits?: { take: string; changes: Record<string, { was: unknown; now: unknown }> }[]
  shown?: { take: string; values: Edit['values'] }[]
  slate?: Record<string, unknown>
}

let entries = 0
const named = () => `${PAGE}.${Date.now()}.${++entries}`

/** What a field is now; of a slate its three parts, which only the server reads from what is typed. */
const valueOf = (take: Take, field: string) =>
  field === 'slate' ? { setup: take.setup, take: take.take, part: take.part } : take[field as keyof Take]

/**
 * Sends changes of takes, shows them at once, and keeps fields that two people changed until one value of each is
 * chosen.
 */
export function useTakeEdits(production: () => string, day: () => string, who: () => string) {
  // Kept with the browser, so that a page that is loaded again, or a laptop that slept, loses nothing either.
  const queue = useLocalStorage<Waiting[]>(() => `log.waiting.${who()}.${production()}.${day()}`, [])
  const waiting = computed(() => queue.value.length)
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
    const entry = named()
    // On its way before the page draws: both take their time, side by side.
    const stored = logApi.edit(production(), day(), { edits: sent, entry })
    show(edits)
    try {
      await stored
      return true
    } catch (trouble) {
      if (isAway(trouble)) {
        wait({ entry, edits: sent, shown: edits.map(({ take, values }) => ({ take: take.ulid, values })) }, trouble)
        return true
      }
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

  /**
   * Whether an entry was not judged at all: nobody answered, the desk broke, or it asks to be signed in to again. What
   * it refuses itself is said at once.
   */
  const isAway = (trouble: unknown): trouble is ApiError =>
    trouble instanceof ApiError && ([0, 401, 419, 429].includes(trouble.status) || trouble.status >= 500)
  /** What the desk said when the first of those that wait could not be sent. */
  const why = shallowRef('')
  function wait(what: Waiting, trouble: ApiError): void {
    why.value = trouble.message
    queue.value = [...queue.value, what]
  }
  /** Takes those that wait out again, all of them. */
  function forget(): void {
    queue.value = []
    makeStale('takes')
  }
  let sending = false
  /** What could not be sent, in its order; stops at the first that still cannot. */
  async function sendAgain(): Promise<void> {
    if (sending || queue.value.length === 0) return
    sending = true
    let sent = 0
    try {
      for (let first = queue.value[0]; first !== undefined; first = queue.value[0]) {
        try {
          const { entry } = first
          if (first.edits !== undefined) await logApi.edit(production(), day(), { edits: first.edits, entry })
          else await logApi.setSlate(production(), day(), { ...first.slate, entry })
          sent++
        } catch (trouble) {
          if (isAway(trouble)) {
            why.value = trouble.message
            break
          }
          if (!asConflict(trouble, first)) complain(trouble)
        }
        queue.value = queue.value.slice(1)
        if (open.value !== null) break
      }
    } finally {
      sending = false
    }
    if (sent > 0)
      say(
        t('log.useTakeEdits.cartellaAnswersAgainInThe', [
          sent,
          sent === 1 ? t('log.useTakeEdits.entryIs') : t('log.useTakeEdits.entriesAre'),
        ]),
      )
    if (sent > 0 || queue.value.length === 0) makeStale('takes')
  }
  /** A colleague changed the same field while the entry waited: it is asked about, as if it had been typed now. */
  function asConflict(trouble: unknown, { edits, shown }: Waiting): boolean {
    const conflicts =
      trouble instanceof ApiError && trouble.status === 409 ? ((trouble.context.fields ?? []) as Conflict[]) : []
    if (conflicts.length === 0 || edits === undefined || conflicts.some((one) => one.take === undefined)) return false
    const takes = new Map(answerOf(logApi.sheet(production(), day()))?.takes.map((take) => [take.ulid, take]))
    open.value = {
      edits: edits.flatMap(({ take, changes }) => {
        const now = takes.get(take)
        const was = Object.fromEntries(Object.entries(changes).map(([field, change]) => [field, change.was]))
        const values = shown?.find((one) => one.take === take)?.values ?? {}
        return now === undefined ? [] : [{ take: { ...now, ...was } as Take, values }]
      }),
      conflicts,
      at: 0,
    }
    return open.value.edits.length > 0
  }
  /** What was typed as the slate of clips and waits, by clip. */
  const slates = computed(() => {
    const all = new Map<string, string>()
    for (const { slate: body } of queue.value) {
      const each = body?.slates as (string | null)[] | undefined
      for (const [index, clip] of ((body?.clips ?? []) as string[]).entries()) {
        const typed = each?.[index] ?? body?.slate
        if (typeof typed === 'string') all.set(clip, typed)
      }
    }
    return all
  })
  useIntervalFn(() => void sendAgain(), 4000)
  useEventListener(window, 'online', () => void sendAgain())

  /** The sheet under what waits, so that what was typed stays where it was typed. */
  function over(sheet: SlateSheet): SlateSheet {
    if (queue.value.length === 0) return sheet
    const values = new Map<string, Partial<Take>>()
    for (const { shown } of queue.value)
      for (const one of shown ?? []) values.set(one.take, { ...values.get(one.take), ...one.values })
    return {
      ...sheet,
      takes: sheet.takes.map((take) => (values.has(take.ulid) ? { ...take, ...values.get(take.ulid) } : take)),
    }
  }
  /** Slates and marks of clips: one step; kept where the desk cannot be reached. */
  async function keep(body: Record<string, unknown>): Promise<SlateSet | null> {
    const entry = named()
    try {
      const answer = await logApi.setSlate(production(), day(), { ...body, entry })
      makeStale('takes')
      return answer
    } catch (trouble) {
      if (isAway(trouble)) wait({ entry, slate: body }, trouble)
      else {
        complain(trouble)
        makeStale('takes')
      }
      return null
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
    waiting,
    why,
    slates,
    over,
    keep,
    forget,
    sendAgain,
  }
}
