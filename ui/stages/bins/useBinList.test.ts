// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it } from 'vitest'
import { effectScope, type EffectScope, nextTick, ref, shallowRef } from 'vue'
import type { BinPage, BinRow } from '@/api/types'
import { PAGE, useBinList } from './useBinList'

let scope: EffectScope
beforeEach(() => (scope = effectScope()))
afterEach(() => scope.stop())

const rowAt = (n: number, word = 'row') => ({ ref: `clip:${word}${n}` }) as BinRow
const page = (from: number, total: number, word = 'row') =>
  ({
    total,
    from,
    ticks: 0,
    rule: null,
    sentence: null,
    rows: Array.from({ length: Math.min(PAGE, total - from) }, (_, n) => rowAt(from + n, word)),
  }) as BinPage
function list(total: number) {
  const first = shallowRef<BinPage | undefined>(page(0, total))
  const of = ref('bin')
  const asked: number[] = []
  const answers: (() => void)[] = []
  const made = scope.run(() =>
    useBinList({
      first,
      of,
      ask: (from) => {
        asked.push(from)
        return new Promise((done) => answers.push(() => done(page(from, total))))
      },
    }),
  )!
  const answer = async () => {
    answers.splice(0).forEach((done) => done())
    await new Promise((done) => setTimeout(done))
  }
  return { ...made, first, of, asked, answer }
}

it('is as long as the bin at once, and asks for what is looked at, once', async () => {
  const { rows, need, asked, answer } = list(20_000)
  expect(rows.value).toHaveLength(20_000)
  need(15_000, 15_020)
  need(15_000, 15_020)
  expect(asked).toEqual([15_000])
  await answer()
  expect(rows.value[15_010]!.row?.ref).toBe('clip:row15010')
  expect(rows.value[14_000]!.row).toBeNull()
})

it('keeps what has come while it comes again, and asks anew for what is in sight', async () => {
  const { rows, need, first, asked, answer } = list(1000)
  need(400, 420)
  await answer()
  first.value = page(0, 999)
  await nextTick()
  expect(rows.value).toHaveLength(999)
  expect(rows.value[410]!.row?.ref).toBe('clip:row410')
  need(400, 420)
  expect(asked).toEqual([400, 400])
})

it('shows nothing of another bin, whatever comes late', async () => {
  const { rows, need, first, of, answer } = list(1000)
  need(400, 420)
  of.value = 'other'
  first.value = page(0, 600, 'other')
  await nextTick()
  await answer()
  expect(rows.value[0]!.row?.ref).toBe('clip:other0')
  expect(rows.value[410]!.row).toBeNull()
})

it('brings a whole stretch before something is done to it', async () => {
  const { rows, come, answer } = list(700)
  const all = come(100, 699)
  for (let n = 0; n < 3; n++) await answer()
  expect(await all).toBe(true)
  expect(rows.value.every((one) => one.row !== null)).toBe(true)
})

it('shows what was written until the server says it, and takes its word then', async () => {
  const { rows, first, written, shownRow, show } = list(300)
  show((row) => (row.ref === 'clip:row3' ? { ...row, name: 'mine' } : row))
  expect([shownRow(rows.value[3]!)?.name, written.value.size]).toEqual(['mine', 1])
  show((row) => (row.name === 'mine' ? { ...row, name: 'mine again' } : row))
  expect(shownRow(rows.value[3]!)?.name).toBe('mine again')
  first.value = page(0, 300)
  await nextTick()
  expect(shownRow(rows.value[3]!)?.name).not.toBe('mine again')
})
