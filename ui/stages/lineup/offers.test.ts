import { describe, expect, it } from 'vitest'
import { TICKS } from '@/player/time'
import { offered } from './offers'

const clap = (seconds: number) => ({ ticks: seconds * TICKS })
const seconds = (list: { ticks: number }[]) => list.map((one) => one.ticks / TICKS)

describe('claps to choose from', () => {
  it('are those near where the clip should be first, by how near, then the strongest of the file', () => {
    const list = offered([clap(3000), clap(120), clap(40), clap(10), clap(3500)], 50 * TICKS, String)
    expect(seconds(list)).toEqual([40, 10, 120, 3000, 3500])
    expect(list.map((one) => one.isNear)).toEqual([true, true, true, false, false])
  })

  it('stand by their strength where nothing says where the clip should be', () => {
    expect(seconds(offered([clap(3000), clap(120), clap(40)], null, String))).toEqual([3000, 120, 40])
  })

  it('leave no near one out for stronger ones elsewhere', () => {
    const many = Array.from({ length: 20 }, (_, n) => clap(1000 + n))
    expect(seconds(offered([...many, clap(61)], 60 * TICKS, String))[0]).toBe(61)
  })
})
