import { beforeEach, describe, expect, it } from 'vitest'
import { ApiError } from '@/api/client'
import type { Import } from '@/api/types'
import { type Door, forget, send, sendings, stop } from './sending'

const PIECE = 4
const file = (text: string) => ({ file: new File([text], 'cue.wav'), path: 'cue.wav' })
const begun = (sizes: number[], received = 0): Import =>
  ({
    ulid: 'U',
    count: sizes.length,
    size_bytes: sizes.reduce((sum, one) => sum + one, 0),
    piece_bytes: PIECE,
    files: sizes.map((size_bytes, number) => ({
      place: number,
      number,
      size_bytes,
      received_bytes: number === 0 ? received : 0,
    })),
  }) as unknown as Import
const trouble = (status: number, code: string, context: Record<string, unknown> = {}) =>
  new ApiError(status, code, code, 'Try again.', context)

/** A server that keeps what it is sent; `faults` are thrown in turn, null takes the piece. */
function server(faults: (ApiError | null)[] = []) {
  const kept: string[] = []
  const log: string[] = []
  const door: Door = {
    send: async (_production, _ulid, number, from, piece) => {
      const fault = faults.shift()
      log.push(`${number}@${from}${fault ? ' ' + fault.code : ''}`)
      if (fault) throw fault
      kept[number] = (kept[number] ?? '').slice(0, from) + new TextDecoder().decode(piece)
      return from + piece.byteLength
    },
    finish: async () => log.push('finish'),
    wait: async (seconds) => void log.push(`wait ${seconds}`),
    now: () => 0,
  }
  return { door, kept, log }
}

describe('files on their way in', () => {
  beforeEach(() => forget('U'))

  it('go piece after piece and are copied when all have arrived', async () => {
    const { door, kept, log } = server()
    expect(await send('P', begun([10, 3]), [file('0123456789'), file('abc')], door)).toBe('done')
    expect(kept).toEqual(['0123456789', 'abc'])
    expect(log).toEqual(['0@0', '0@4', '0@8', '1@0', 'finish'])
    expect(sendings).toHaveLength(0)
  })

  it('begin where they stopped', async () => {
    const { door, log } = server()
    await send('P', begun([10], 8), [file('0123456789')], door)
    expect(log).toEqual(['0@8', 'finish'])
  })

  it('wait while the server cannot be reached, longer each time, and go on', async () => {
    const off = () => trouble(0, 'network')
    const { door, log } = server([null, off(), off(), null])
    expect(await send('P', begun([8]), [file('01234567')], door)).toBe('done')
    expect(log).toEqual(['0@0', '0@4 network', 'wait 1', '0@4 network', 'wait 2', '0@4', 'finish'])
  })

  it('send a damaged piece again, and go on from where the server is', async () => {
    const { door, log } = server([
      trouble(422, 'import.damaged'),
      null,
      trouble(409, 'import.gap', { received_bytes: 8 }),
      null,
    ])
    expect(await send('P', begun([12]), [file('0123456789ab')], door)).toBe('done')
    expect(log).toEqual(['0@0 import.damaged', '0@0', '0@4 import.gap', '0@8', 'finish'])
  })

  it('end with a sentence where the server refuses, or never takes a piece whole', async () => {
    const refused = server([trouble(422, 'import.room')])
    expect(await send('P', begun([8]), [file('01234567')], refused.door)).toBe('failed')
    expect(sendings[0]?.trouble).toContain('import.room')
    forget('U')
    const damaged = server(Array.from({ length: 9 }, () => trouble(422, 'import.damaged')))
    expect(await send('P', begun([8]), [file('01234567')], damaged.door)).toBe('failed')
    expect(damaged.log).toHaveLength(5)
  })

  it('stop when they are told to, and say when a file got shorter meanwhile', async () => {
    const { door, log } = server()
    const slow: Door = {
      ...door,
      send: async (...piece) => {
        stop('U')
        return door.send(...piece)
      },
    }
    expect(await send('P', begun([10]), [file('0123456789')], slow)).toBe('stopped')
    expect(log).toEqual(['0@0'])
    forget('U')
    expect(await send('P', begun([10]), [file('0123')], server().door)).toBe('failed')
    expect(sendings[0]?.trouble).toContain('shorter')
  })
})
