import { describe, expect, it } from 'vitest'
import { Deck, MediaTrouble, type GroupSource, type Shown } from './deck'

/** Groups of twelve frames of a medium; counts what is lent out and given back. */
function medium(frames: number) {
  const out = new Set<Picture>()
  const asked: number[] = []
  class Picture implements Shown {
    constructor(readonly number: number) {
      out.add(this)
    }
    close() {
      out.delete(this)
    }
    clone() {
      return new Picture(this.number)
    }
  }
  const source: GroupSource = {
    async group(frame, give) {
      const first = Math.floor(Math.min(frame, frames - 1) / 12) * 12
      asked.push(first)
      for (let n = first; n < Math.min(frames, first + 12); n++) {
        await Promise.resolve()
        give(n, new Picture(n))
      }
      return first + 12 < frames ? first + 12 : null
    },
    close() {},
  }
  return { source, out, asked }
}
const settled = async () => {
  for (let n = 0; n < 2000; n++) await Promise.resolve()
}

describe('deck', () => {
  it('decodes what is wanted first and then what comes next, in the direction of play', async () => {
    const { source, asked } = medium(500)
    const deck = new Deck(
      () => Promise.resolve(source),
      () => {},
    )
    deck.want(100, 1)
    await settled()
    expect(asked[0]).toBe(96)
    expect(asked.slice(1)).toEqual([108, 120])
    asked.length = 0
    deck.want(240, -1)
    await settled()
    expect(asked).toEqual([240, 228, 216, 204])
  })

  it('gives pictures back as it goes on, and all of them at its end', async () => {
    const { source, out } = medium(5000)
    const deck = new Deck(
      () => Promise.resolve(source),
      () => {},
    )
    let most = 0
    for (let frame = 0; frame < 1000; frame += 3) {
      deck.want(frame, 1)
      await settled()
      most = Math.max(most, out.size)
    }
    expect(most).toBeLessThan(72)
    deck.shrink()
    expect(out.size).toBe(1)
    deck.close()
    expect(out.size).toBe(0)
  })

  it('gets the other side of a cut in the same medium ready and keeps both', async () => {
    const { source } = medium(5000)
    const deck = new Deck(
      () => Promise.resolve(source),
      () => {},
    )
    deck.want(100, 1, 4000)
    await settled()
    expect([deck.frame(100) !== null, deck.frame(4000) !== null]).toEqual([true, true])
  })

  it('shows the last picture for what a medium that is shorter than said lacks', async () => {
    const { source } = medium(20)
    const deck = new Deck(
      () => Promise.resolve(source),
      () => {},
    )
    deck.want(24, 1)
    await settled()
    expect((deck.frame(24) as unknown as { number: number }).number).toBe(19)
  })

  it('comes to the frame that was asked for last, whenever in the work on another one that was', async () => {
    for (let later = 0; later < 40; later++) {
      const { source } = medium(5000)
      const deck = new Deck(
        () => Promise.resolve(source),
        () => {},
      )
      deck.want(100, 1)
      for (let n = 0; n < later; n++) await Promise.resolve()
      deck.want(3000, 1)
      await settled()
      expect(deck.frame(3000), `asked ${later} moments later`).not.toBeNull()
      deck.close()
    }
  })

  it('says once what hinders it, and asks no more', async () => {
    let opened = 0
    const deck = new Deck(
      () => {
        opened++
        return Promise.reject(new MediaTrouble('missing'))
      },
      () => {},
    )
    deck.want(0, 1)
    await settled()
    deck.want(1, 1)
    await settled()
    expect([deck.trouble, opened]).toEqual(['missing', 1])
  })
})
