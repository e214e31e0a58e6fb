import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useRested } from './useRested'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

describe('the panel beside a list', () => {
  it('shows the first at once, follows the cursor where it rests, and waits while a cell is written', async () => {
    const cursor = ref<string | null>(null)
    const writes = ref(false)
    const scope = effectScope()
    const shown = scope.run(() => useRested(cursor, () => writes.value))!
    const go = async (to: string) => {
      cursor.value = to
      await nextTick()
    }
    await go('A')
    expect(shown.value).toBe('A')
    await go('B')
    await go('C')
    expect(shown.value).toBe('A')
    vi.runAllTimers()
    expect(shown.value).toBe('C')
    writes.value = true
    await go('D')
    vi.runAllTimers()
    expect(shown.value).toBe('C')
    writes.value = false
    await nextTick()
    vi.runAllTimers()
    expect(shown.value).toBe('D')
    scope.stop()
  })
})
