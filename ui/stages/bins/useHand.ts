import { computed, type Ref, ref, watch } from 'vue'
import { bins, type Looked } from '@/api/endpoints/bins'
import type { BinRow } from '@/api/types'
import { useRange } from '@/grid/range'
import { attempt } from '@/shell/say'
import type { ListRow } from './useBinList'

/** What of a bin is chosen: the row under the cursor, a range over any distance, or rows picked one by one. */
export function useHand(options: {
  production: () => string
  binKey: Ref<string | null>
  arrangement: Ref<Looked>
  rows: Ref<ListRow[]>
  shownRow: (one: ListRow) => BinRow | null
  /** Brings rows that have not come yet. */
  come: (from: number, to: number) => Promise<boolean>
}) {
  const { rows } = options
  const cursor = ref<string | null>(null)
  const range = useRange({ rows, cursor })
  /** Rows that were chosen one by one. */
  const picked = ref(new Set<string>())
  const isChosen = (row: string, at: number) =>
    range.anchor.value === null ? picked.value.has(row) : at >= range.range.value.top && at <= range.range.value.bottom
  const chosenCount = computed(() =>
    range.anchor.value === null ? picked.value.size : range.range.value.bottom - range.range.value.top + 1,
  )
  const current = computed(() => rows.value[range.at.value]?.row ?? null)
  const inHand = computed(() =>
    chosenCount.value === 0
      ? rows.value.slice(range.at.value, range.at.value + 1)
      : range.anchor.value !== null
        ? rows.value.slice(range.range.value.top, range.range.value.bottom + 1)
        : rows.value.filter((one) => picked.value.has(one.key)),
  )
  const hand = computed(() => inHand.value.flatMap((one) => options.shownRow(one) ?? []))
  /** A range can reach over rows that have not come; their references are asked for. */
  async function refs(): Promise<string[]> {
    if (inHand.value.every((one) => one.row !== null)) return inHand.value.map((one) => one.key)
    const { top, bottom } = range.range.value
    const of = options.binKey.value
    if (of === null) return (await ready()) ? inHand.value.map((one) => one.key) : []
    const all = await attempt(() => bins.refs(options.production(), of, options.arrangement.value))
    return all?.refs.slice(top, bottom + 1) ?? []
  }
  /** Brings the rows in hand that have not come; what needs more than their references waits for them. */
  async function ready(): Promise<boolean> {
    const { top, bottom } = range.range.value
    return inHand.value.every((one) => one.row !== null) || (await options.come(top, bottom))
  }
  function letGo(): void {
    picked.value = new Set()
    range.anchor.value = null
  }
  watch(options.binKey, letGo)
  function select(row: string, event: MouseEvent): void {
    if (event.ctrlKey || event.metaKey) {
      const set = new Set(range.anchor.value === null ? picked.value : inHand.value.map((one) => one.key))
      if (!set.delete(row)) set.add(row)
      letGo()
      picked.value = set
      cursor.value = row
    } else {
      if (!event.shiftKey) letGo()
      range.select(row, event.shiftKey)
    }
  }
  /** The row at a place, or the last one before it; false where there is none. */
  function goTo(at: number, extend: boolean): boolean {
    const target = rows.value[Math.min(Math.max(0, at), rows.value.length - 1)]
    if (target === undefined) return false
    if (!extend) letGo()
    range.select(target.key, extend)
    return true
  }
  return { cursor, range, isChosen, chosenCount, current, inHand, hand, refs, ready, letGo, select, goTo }
}
