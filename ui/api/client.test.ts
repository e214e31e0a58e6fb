import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, ApiError, mediaUrl } from './client'

function answer(status: number, body: unknown): void {
  vi.stubGlobal('document', { cookie: 'theme=paper; XSRF-TOKEN=abc%3D' })
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => ({
      ok: status < 400,
      status,
      json: async () => {
        if (body === undefined) throw new SyntaxError('no JSON')
        return body
      },
    })),
  )
}

async function troubleOf(work: Promise<unknown>): Promise<ApiError> {
  const trouble = await work.then(
    () => null,
    (error: unknown) => error,
  )
  expect(trouble).toBeInstanceOf(ApiError)
  return trouble as ApiError
}

describe('the typed client', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('sends JSON with the token of the session', async () => {
    answer(200, { ok: true })
    await expect(api.patch('takes/1', { size: 'Wide' })).resolves.toEqual({ ok: true })
    const [path, options] = vi.mocked(fetch).mock.calls[0] as [string, RequestInit]
    expect(path).toBe('/api/takes/1')
    expect(options).toMatchObject({ method: 'PATCH', body: '{"size":"Wide"}', headers: { 'X-XSRF-TOKEN': 'abc=' } })
  })

  it('sends no body and no type of one when there is nothing to send', async () => {
    answer(200, {})
    await api.get('session')
    const [, options] = vi.mocked(fetch).mock.calls[0] as [string, RequestInit]
    expect(options.body).toBeUndefined()
    expect(options.headers).not.toHaveProperty('Content-Type')
  })

  it('keeps the code, the sentence, the next step and the facts of a refusal', async () => {
    answer(409, {
      code: 'edit.conflict',
      message: 'Somebody else changed it.',
      fix: 'Choose one.',
      context: { fields: [1] },
    })
    expect(await troubleOf(api.post('x'))).toMatchObject({
      status: 409,
      code: 'edit.conflict',
      message: 'Somebody else changed it.',
      fix: 'Choose one.',
      context: { fields: [1] },
    })
  })

  it('has a sentence of its own for an answer that is no JSON', async () => {
    answer(500, undefined)
    const trouble = await troubleOf(api.get('x'))
    expect(trouble.status).toBe(500)
    expect(trouble.message).not.toBe('')
    expect(trouble.fix).not.toBe('')
  })

  it('says that the desk cannot be reached, and that nothing is lost', async () => {
    answer(200, {})
    vi.stubGlobal(
      'fetch',
      vi.fn(async () => {
        throw new TypeError('failed')
      }),
    )
    expect(await troubleOf(api.get('x'))).toMatchObject({
      status: 0,
      code: 'network',
      fix: expect.stringContaining('Nothing is lost'),
    })
  })

  it('lets a question go that nobody waits for any more', async () => {
    vi.stubGlobal('document', { cookie: '' })
    vi.stubGlobal(
      'fetch',
      vi.fn(async () => {
        throw new DOMException('gone', 'AbortError')
      }),
    )
    await expect(api.get('x', AbortSignal.abort())).rejects.toBeInstanceOf(DOMException)
  })

  it('puts the version of the media into its address, so that a new one is not taken from the cache', () => {
    expect(mediaUrl('P', 'C', 'proxy', '17')).toBe('/api/productions/P/clips/C/media/proxy?v=17')
    expect(mediaUrl('P', 'C', 'thumb-1')).toBe('/api/productions/P/clips/C/media/thumb-1')
  })
})
