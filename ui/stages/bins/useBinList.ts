import { computed, type Ref, shallowRef, watch } from 'vue'
import type { BinPage, BinRow } from '@/api/types'
import { attempt } from '@/shell/say'

/** Rows that are asked for at once. */
export const PAGE = 200

/** A row of a bin; one that has not come yet has its place only. */
export type ListRow = { key: string; row: BinRow | null }

/**
 * What lies in a bin, as long as it is: rows that have come, and places for the others, which come when they are looked
 * at. A list of 20 000 is scrolled to any place at once.
 */
export function useBinList(options: {
  first: Ref<BinPage | undefined>
  /** Tells one list from another; rows of one never stand in the other. */
  of: Ref<string>
  ask: (from: number, limit: number) => Promise<BinPage>
}) {
  const rows = shallowRef<ListRow[]>([])
  const page = options.first
  const total = computed(() => page.value?.total ?? 0)
  let listed = ''
  const asked = new Set<number>()

  function lay(into: ListRow[], from: number, come: BinRow[]): ListRow[] {
    const next = [...into]
    come.forEach((row, at) => (next[from + at] = { key: row.ref, row }))
    return next
  }
  watch(
    page,
    (now) => {
      if (now === undefined) {
        rows.value = []
        return
      }
      // What has come stays until it comes again, so that a colleague's change makes nothing flicker.
      const kept = listed === options.of.value ? rows.value : []
      listed = options.of.value
      asked.clear()
      const places = Array.from({ length: now.total }, (_, at) => kept[at] ?? { key: `place:${at}`, row: null })
      rows.value = lay(places, 0, now.rows)
    },
    { immediate: true },
  )

  /** Asks for rows that are looked at and have not come since the list was last made. */
  function need(from: number, to: number): void {
    for (let at = Math.floor(Math.max(0, from) / PAGE); at <= Math.floor(Math.min(to, total.value - 1) / PAGE); at++) {
      if (at === 0 || asked.has(at)) continue
      asked.add(at)
      const of = listed
      const made = page.value
      void attempt(() => options.ask(at * PAGE, PAGE)).then((come) => {
        if (of !== options.of.value || made !== page.value) return
        if (come === undefined) asked.delete(at)
        else rows.value = lay(rows.value, at * PAGE, come.rows)
      })
    }
  }
  /** Brings all rows of a stretch; false where some could not be had. */
  async function come(from: number, to: number): Promise<boolean> {
    const of = listed
    for (let at = Math.floor(Math.max(0, from) / PAGE); at <= Math.floor(Math.min(to, total.value - 1) / PAGE); at++) {
      if (rows.value.slice(at * PAGE, (at + 1) * PAGE).every((one) => one.row !== null)) continue
      const page = await attempt(() => options.ask(at * PAGE, PAGE))
      if (page === undefined || of !== options.of.value) return false
      rows.value = lay(rows.value, at * PAGE, page.rows)
    }
    return true
  }
  /**
   * Rows as they were written and are not said by the server yet, by their keys. Beside the list: of 20 000 rows none
   * but those is drawn anew.
   */
  const written = shallowRef(new Map<string, BinRow>())
  watch(rows, () => (written.value = new Map()))
  const shownRow = (one: ListRow): BinRow | null => written.value.get(one.key) ?? one.row
  function show(change: (row: BinRow) => BinRow): void {
    const next = new Map(written.value)
    for (const one of rows.value) {
      const row = shownRow(one)
      const now = row === null ? null : change(row)
      if (now !== null && now !== row) next.set(one.key, now)
    }
    written.value = next
  }
  return { rows, total, need, come, written, shownRow, show }
}
