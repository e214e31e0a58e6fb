// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope, nextTick, shallowRef } from 'vue'
import type { ClipSheet } from '@/api/types'
import { useMarks } from './useMarks'

const sent: { body: unknown; answer: (ok: boolean) => void }[] = []
vi.mock('@/api/endpoints/bins', () => ({
  bins: {
    clip: () => ({ key: ['P', 'clip', { clip: 'C' }], path: '', keeps: [] }),
    setMarks: (_: string, __: string, body: unknown) =>
      new Promise((done, fail) => sent.push({ body, answer: (ok) => (ok ? done({}) : fail(new Error('no'))) })),
  },
}))
vi.mock('@/shell/say', () => ({ attempt: (work: () => Promise<unknown>) => work().catch(() => undefined) }))

let scope: EffectScope
beforeEach(() => {
  scope = effectScope()
  sent.length = 0
})
afterEach(() => scope.stop())
const sheetWith = (from: number | null, to: number | null) =>
  ({ ulid: 'C', marks: { in_ticks: from, out_ticks: to } }) as ClipSheet
const later = () => new Promise((done) => setTimeout(done))

it('keeps an out point that was set before the server had answered to the in point', async () => {
  const sheet = shallowRef<ClipSheet | undefined>(sheetWith(null, null))
  const { marks, set } = scope.run(() =>
    useMarks(
      () => 'P',
      () => sheet.value,
    ),
  )!
  void set({ in_ticks: 5, out_ticks: null })
  void set({ in_ticks: 5, out_ticks: 9 })
  await later()
  expect(sent.map((one) => one.body)).toEqual([{ in_ticks: 5, out_ticks: null }])
  sent[0]!.answer(true)
  // Asked for between the two: it knows the first only.
  sheet.value = sheetWith(5, null)
  await later()
  expect(marks.value).toEqual({ in_ticks: 5, out_ticks: 9 })
  sent[1]!.answer(true)
  await later()
  sheet.value = sheetWith(5, 9)
  await nextTick()
  // From here on it is the server's again, such as after an undo.
  sheet.value = sheetWith(null, null)
  await nextTick()
  expect(marks.value).toEqual({ in_ticks: null, out_ticks: null })
})

it('shows what is there when the server refuses', async () => {
  const sheet = shallowRef<ClipSheet | undefined>(sheetWith(1, null))
  const { marks, set } = scope.run(() =>
    useMarks(
      () => 'P',
      () => sheet.value,
    ),
  )!
  void set({ in_ticks: 7, out_ticks: null })
  await later()
  sent[0]!.answer(false)
  await later()
  expect(marks.value.in_ticks).toBe(1)
})
