/** A column as its reader keeps it: how wide, shown or not, in which place. */
export interface GridColumn {
  key: string
  title: string
  /** Pixels; a person can set another. */
  width: number
  /** Stays at the left while the rest is scrolled. */
  frozen?: boolean
  shown: boolean
}

const NARROWEST = 30
const WIDEST = 900

export function resized<C extends GridColumn>(columns: C[], key: string, width: number): C[] {
  const kept = Math.round(Math.min(WIDEST, Math.max(NARROWEST, width)))
  return columns.map((one) => (one.key === key ? { ...one, width: kept } : one))
}

/** With one column in the place before another; frozen ones stay where they are. */
export function reordered<C extends GridColumn>(columns: C[], key: string, before: string): C[] {
  const moved = columns.find((one) => one.key === key)
  const target = columns.find((one) => one.key === before)
  if (moved === undefined || target === undefined || moved === target || moved.frozen || target.frozen) return columns
  const rest = columns.filter((one) => one !== moved)
  rest.splice(rest.indexOf(target), 0, moved)
  return rest
}

/** Where each frozen column sticks, pixels from the left edge. */
export function stuckAt(columns: GridColumn[], edge: number, gap: number): Record<string, number> {
  const at: Record<string, number> = {}
  let left = edge
  for (const one of columns) {
    if (!one.frozen) continue
    at[one.key] = left
    left += one.width + gap
  }
  return at
}
