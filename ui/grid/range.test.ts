import { describe, expect, it } from 'vitest'
import { ref, shallowRef } from 'vue'
import { useRange } from './range'

function grid(keys: string[], passes?: (row: number) => boolean) {
  const rows = shallowRef(keys.map((key) => ({ key })))
  const cursor = ref<string | null>(keys[0] ?? null)
  const range = useRange({ rows, columns: ref(['a', 'b', 'c']), home: 'b', cursor, ...(passes ? { passes } : {}) })
  return { rows, cursor, ...range }
}

describe('a cursor on rows', () => {
  it('passes over headings and stays at the ends', () => {
    const one = grid(['1', '2', '3'], (row) => row === 1)
    expect([one.move(1), one.cursor.value, one.move(1), one.cursor.value]).toEqual([true, '3', false, '3'])
  })

  it('holds a range from where it began, upwards and to either side', () => {
    const one = grid(['1', '2', '3', '4'])
    one.select('3')
    one.move(-1, true)
    one.sideways(-1, true)
    expect(one.range.value).toEqual({ top: 1, bottom: 2, left: 0, right: 1 })
    expect([one.has(1, 0), one.has(2, 1), one.has(0, 0), one.has(1, 2)]).toEqual([true, true, false, false])
    one.move(1)
    expect(one.anchor.value).toBeNull()
  })

  it('stays on its row when rows come in before it', () => {
    const one = grid(['1', '2'])
    one.select('2')
    one.rows.value = ['0', '1', '2'].map((key) => ({ key }))
    expect(one.at.value).toBe(2)
  })

  it('falls back to its home when its column is hidden', () => {
    const columns = ref(['a', 'b', 'c'])
    const one = useRange({ rows: ref([{ key: '1' }]), columns, home: 'b', cursor: ref('1') })
    one.column.value = 'c'
    columns.value = ['a', 'b']
    expect(one.columnAt.value).toBe(1)
  })

  it('takes everything, and whole rows where there are no columns', () => {
    const rows = shallowRef(['1', '2', '3'].map((key) => ({ key })))
    const cursor = ref<string | null>('2')
    const one = useRange({ rows, cursor })
    one.all()
    expect([one.range.value.top, one.range.value.bottom, cursor.value]).toEqual([0, 2, '3'])
  })
})
