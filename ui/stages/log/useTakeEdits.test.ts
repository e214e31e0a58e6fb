import { effectScope } from 'vue'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { log as logApi } from '@/api/endpoints/log'
import { setAnswer } from '@/api/queries'
import type { SlateSheet, Take } from '@/api/types'
import { useTakeEdits } from './useTakeEdits'

// As much of a browser as keeps entries over a reload.
vi.hoisted(() => {
  const kept = new Map<string, string>()
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    clear: () => kept.clear(),
  }
  const events = new EventTarget()
  Object.assign(globalThis, {
    window: Object.assign(events, { localStorage: storage, location: { href: '' } }),
    document: Object.assign(new EventTarget(), { cookie: '', createElement: () => ({}) }),
    localStorage: storage,
    Storage: class {},
  })
})

vi.mock('@/shell/say', () => ({ complain: vi.fn(), say: vi.fn() }))

const take = { ulid: 't1', setup: '3A', take: 1, part: '', description: '', size: '' } as Take
const sheet = { takes: [take], unslated: [] } as unknown as SlateSheet
const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status })
let desk: ReturnType<typeof vi.fn>
let scope = effectScope()

/** The log page as it is opened: again after a reload, too. */
function open() {
  scope.stop()
  scope = effectScope()
  return scope.run(() =>
    useTakeEdits(
      () => 'P',
      () => 'D',
      () => 'rosa',
    ),
  )!
}
beforeEach(() => {
  localStorage.clear()
  desk = vi.fn()
  vi.stubGlobal('fetch', desk)
  setAnswer(logApi.sheet('P', 'D'), sheet)
})
afterEach(() => scope.stop())

it('keeps what was typed when the desk cannot be reached, over a reload, and sends it when it answers', async () => {
  desk.mockRejectedValue(new TypeError('Failed to fetch'))
  await open().change(take, { description: 'Mara turns' })
  const again = open()
  expect(again.waiting.value).toBe(1)
  expect(again.over(sheet).takes[0]!.description).toBe('Mara turns')
  // By the same name, so that one whose answer was lost counts once.
  const tried = JSON.parse(desk.mock.calls.find(([, init]) => init.method === 'PATCH')![1].body)
  desk.mockImplementation(async () => answer(200, { takes: [] }))
  desk.mockClear()
  await again.sendAgain()
  expect(again.waiting.value).toBe(0)
  const sent = desk.mock.calls.find(([, init]) => init.method === 'PATCH')!
  const body = JSON.parse(sent[1].body)
  expect(body.edits).toEqual([{ take: 't1', changes: { description: { was: '', now: 'Mara turns' } } }])
  expect(body.entry).toBe(tried.entry)
})

it('sends in the order in which it was typed, and stops at the first that cannot go', async () => {
  desk.mockRejectedValue(new TypeError('Failed to fetch'))
  const edits = open()
  await edits.change(take, { size: 'Wide' })
  await edits.keep({ clips: ['c1'], slate: '3A/2' })
  expect(edits.waiting.value).toBe(2)
  desk.mockImplementation(async (path: string) =>
    path.includes('log/slate') ? Promise.reject(new TypeError('Failed to fetch')) : answer(200, { takes: [] }),
  )
  await edits.sendAgain()
  expect(edits.waiting.value).toBe(1)
})

it('asks when a colleague has changed the same field meanwhile', async () => {
  desk.mockRejectedValue(new TypeError('Failed to fetch'))
  const edits = open()
  await edits.change(take, { description: 'Mara turns' })
  const field = { take: 't1', label: '3A/1', field: 'description', yours: 'Mara turns', theirs: 'Quill enters' }
  desk.mockImplementation(async (_, init) =>
    init.method === 'PATCH' ? answer(409, { code: 'conflict', context: { fields: [field] } }) : answer(200, {}),
  )
  await edits.sendAgain()
  expect([edits.waiting.value, edits.conflict.value?.theirs]).toEqual([0, 'Quill enters'])
})

it('tells at once what the desk refuses, and keeps nothing of it', async () => {
  desk.mockImplementation(async () => answer(422, { code: 'x', message: 'No.', fix: '' }))
  const edits = open()
  expect(await edits.change(take, { description: 'x' })).toBe(false)
  expect(edits.waiting.value).toBe(0)
})

it.each([401, 419, 429, 500, 503])(
  'keeps what a desk that answers %i has not judged, and shows why',
  async (status) => {
    desk.mockImplementation(async () => answer(status, { code: 'x', message: 'Sign in again.', fix: '' }))
    const edits = open()
    await edits.change(take, { description: 'Mara turns' })
    await edits.keep({ clips: ['c1', 'c2'], slates: ['3A/2', '3A/3'], were: [null, null] })
    await edits.sendAgain()
    expect([edits.waiting.value, edits.why.value]).toEqual([2, 'Sign in again.'])
    expect([...edits.slates.value]).toEqual([
      ['c1', '3A/2'],
      ['c2', '3A/3'],
    ])
  },
)
