import { describe, expect, it } from 'vitest'
import { type GridColumn, reordered, resized, stuckAt } from './columns'

const columns: GridColumn[] = [
  { key: 'setup', title: 'Setup', width: 50, shown: true, frozen: true },
  { key: 'size', title: 'Size', width: 60, shown: true },
  { key: 'notes', title: 'Notes', width: 180, shown: true },
]
const keys = (some: GridColumn[]) => some.map((one) => one.key)

describe('columns', () => {
  it('are as wide as somebody drags them, within reason', () => {
    expect(resized(columns, 'size', 61.4)[1]?.width).toBe(61)
    expect([resized(columns, 'size', 2)[1]?.width, resized(columns, 'size', 5000)[1]?.width]).toEqual([30, 900])
  })

  it('are put before another, and frozen ones stay', () => {
    expect(keys(reordered(columns, 'notes', 'size'))).toEqual(['setup', 'notes', 'size'])
    expect(reordered(columns, 'notes', 'setup')).toBe(columns)
    expect(reordered(columns, 'setup', 'notes')).toBe(columns)
    expect(reordered(columns, 'gone', 'notes')).toBe(columns)
  })

  it('stick one beside the other', () => {
    const two = [...columns, { key: 'scene', title: 'Scene', width: 40, shown: true, frozen: true }]
    expect(stuckAt(two, 10, 6)).toEqual({ setup: 10, scene: 66 })
  })
})
