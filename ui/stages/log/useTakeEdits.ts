import { shallowRef } from 'vue'
import { api, ApiError } from '@/api/client'
import { makeStale, queryClient } from '@/api/queries'
import type { SlateSheet, Take } from '@/api/types'
import { complain } from '@/shell/say'

export interface Conflict { take: Take; field: string; yours: unknown; theirs: unknown }

/** Sends changes of takes, shows them at once, and keeps a field that two people changed until one value is chosen. */
export function useTakeEdits(production: () => string, day: () => string) {
  const conflict = shallowRef<Conflict | null>(null)

  function show(ulid: string, values: Partial<Take>): void {
    queryClient.setQueryData<SlateSheet>([production(), `days/${day()}/log`], (sheet) =>
      sheet === undefined ? undefined : { ...sheet, takes: sheet.takes.map((take) => (take.ulid === ulid ? { ...take, ...values } : take)) },
    )
  }

  async function change(take: Take, values: Partial<Take>): Promise<boolean> {
    const changes: Record<string, { was: unknown; now: unknown }> = {}
    for (const [field, now] of Object.entries(values)) {
      const was = take[field as keyof Take]
      if (JSON.stringify(was) !== JSON.stringify(now)) changes[field] = { was, now }
    }
    if (Object.keys(changes).length === 0) return true
    show(take.ulid, values)
    try {
      await api.patch(`productions/${production()}/takes/${take.ulid}`, { changes })
      return true
    } catch (trouble) {
      const fields = trouble instanceof ApiError && trouble.status === 409 ? (trouble.context.fields as { field: string; yours: unknown; theirs: unknown }[]) : []
      const first = fields[0]
      if (first !== undefined) conflict.value = { take, ...first }
      else complain(trouble)
      return false
    } finally {
      makeStale('takes')
    }
  }

  async function settle(keepMine: boolean): Promise<void> {
    const open = conflict.value
    conflict.value = null
    if (open === null || !keepMine) return
    await change({ ...open.take, [open.field]: open.theirs } as Take, { [open.field]: open.yours })
  }

  return { conflict, change, settle }
}
