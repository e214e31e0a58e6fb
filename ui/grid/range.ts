import { computed, type Ref, shallowRef } from 'vue'

/**
 * A cursor on rows that have keys, and a range from an anchor to it: of whole rows, or of cells where there are
 * columns. Rows come and go and are sorted anew; cursor and anchor stay on their own.
 */
export function useRange(options: {
  rows: Ref<readonly { key: string }[]>
  /** Keys of the columns that are shown; none for a list of whole rows. */
  columns?: Ref<readonly string[]>
  /** The column that the cursor falls back to when its own is hidden. */
  home?: string
  cursor: Ref<string | null>
  /** Rows that the cursor passes over, such as headings. */
  passes?: (row: number) => boolean
}) {
  const { rows, cursor } = options
  const columns = options.columns ?? shallowRef<readonly string[]>([])
  const column = shallowRef(options.home ?? '')
  const anchor = shallowRef<{ key: string; column: string } | null>(null)
  const index = computed(() => new Map(rows.value.map((row, at) => [row.key, at])))
  const at = computed(() => index.value.get(cursor.value ?? '') ?? -1)
  const columnIndex = (key: string) => Math.max(0, columns.value.indexOf(key))
  const columnAt = computed(() => {
    const own = columns.value.indexOf(column.value)
    return own >= 0 ? own : columnIndex(options.home ?? '')
  })
  const range = computed(() => {
    const other = anchor.value === null ? -1 : (index.value.get(anchor.value.key) ?? -1)
    const from = other < 0 ? at.value : other
    const side = anchor.value === null ? columnAt.value : columnIndex(anchor.value.column)
    return {
      top: Math.min(from, at.value),
      bottom: Math.max(from, at.value),
      left: Math.min(side, columnAt.value),
      right: Math.max(side, columnAt.value),
    }
  })

  function hold(): void {
    anchor.value ??= { key: cursor.value ?? '', column: columns.value[columnAt.value] ?? '' }
  }
  /** Puts the cursor on a row; with `extend` the range reaches from where it began to there. */
  function select(key: string, extend = false): void {
    if (extend) hold()
    else anchor.value = null
    cursor.value = key
  }
  /** Moves the cursor up or down; false at an end. */
  function move(step: number, extend = false): boolean {
    let next = at.value
    do next += step
    while (rows.value[next] !== undefined && options.passes?.(next) === true)
    const target = rows.value[next]
    if (target === undefined) return false
    select(target.key, extend)
    return true
  }
  function sideways(step: number, extend = false): void {
    if (extend) hold()
    else anchor.value = null
    const last = columns.value.length - 1
    column.value = columns.value[Math.min(Math.max(columnAt.value + step, 0), last)] ?? column.value
  }
  /** All rows, from the first to the last. */
  function all(): void {
    const [first, last] = [rows.value[0], rows.value.at(-1)]
    if (first === undefined || last === undefined) return
    anchor.value = { key: first.key, column: columns.value[0] ?? '' }
    cursor.value = last.key
    column.value = columns.value.at(-1) ?? column.value
  }
  const has = (row: number, columnOf: number): boolean =>
    anchor.value !== null &&
    row >= range.value.top &&
    row <= range.value.bottom &&
    columnOf >= range.value.left &&
    columnOf <= range.value.right

  return { at, index, column, columnAt, anchor, range, select, move, sideways, all, has }
}
