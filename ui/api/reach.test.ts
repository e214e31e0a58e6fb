import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { api, ApiError, once } from './client'
import { forget, reach } from './reach'

/** A desk that is away until it is told to be back; what it was sent, and how often each change was done. */
let isAway = true
let isDeaf = false
const done: string[] = []
const answered = new Map<string, string>()
const says = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status })

beforeEach(() => {
  vi.useFakeTimers()
  isAway = true
  isDeaf = false
  done.length = 0
  answered.clear()
  vi.stubGlobal('document', { cookie: '' })
  vi.stubGlobal(
    'fetch',
    vi.fn(async (address: string, how: RequestInit = {}) => {
      if (isAway) throw new TypeError('Failed to fetch')
      if (address === '/api/session' && how.method === undefined) return says({})
      const headers = how.headers as Record<string, string>
      const key = headers['Idempotency-Key'] ?? ''
      if (headers['X-Again'] !== undefined && answered.has(key)) return says({ is: answered.get(key) })
      done.push(String(how.body))
      answered.set(key, String(how.body))
      if (isDeaf) {
        isAway = true
        throw new TypeError('Failed to fetch')
      }
      return says({ is: String(how.body) })
    }),
  )
})
afterEach(async () => {
  isAway = false
  await vi.advanceTimersByTimeAsync(4000)
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('keeps changes while the desk is away and sends each when it is back', async () => {
  const both = Promise.all([api.post('bins', { name: 'Gulls' }), api.put('bins/1', { name: 'Rain' })])
  await vi.advanceTimersByTimeAsync(30_000)
  expect([reach.isLost, reach.waiting, done]).toEqual([true, 2, []])
  isAway = false
  await vi.advanceTimersByTimeAsync(4000)
  expect(await both).toHaveLength(2)
  expect([reach.isLost, reach.waiting]).toEqual([false, 0])
  expect(done.sort()).toEqual(['{"name":"Gulls"}', '{"name":"Rain"}'])
})

it('does a change once whose answer was lost', async () => {
  isAway = false
  isDeaf = true
  const asked = api.post<{ is: string }>('bins', { name: 'Gulls' })
  await vi.advanceTimersByTimeAsync(3000)
  isDeaf = false
  isAway = false
  await vi.advanceTimersByTimeAsync(4000)
  expect((await asked).is).toBe('{"name":"Gulls"}')
  expect(done).toEqual(['{"name":"Gulls"}'])
})

it('says at once that it is away where nothing is to be sent later, or no more', async () => {
  await expect(once.post('session', {})).rejects.toMatchObject({ status: 0, code: 'network' })
  const asked = api.post('bins', {}).catch((trouble: ApiError) => trouble.code)
  await vi.advanceTimersByTimeAsync(100)
  forget()
  expect(await asked).toBe('network')
  expect(reach.waiting).toBe(0)
})
