import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, nextTick, ref, shallowRef } from 'vue'
import { refuse } from '@/shell/say'
import { piece, sound, track } from './testCut'
import { useActs } from './useActs'
import { useChosen } from './useChosen'
import type { ActiveCut, Operation } from './useCut'
import type { CutItem } from './value'

vi.mock('@/shell/say', () => ({ refuse: vi.fn() }))

const FRAME = 10
/** A cut of three takes with a hole before the last; what is asked of it, and where the playhead went. */
function desk() {
  const tracks = [
    track('picture', [piece('1', 0, 100), piece('2', 100, 200), piece('3', 400, 100)]),
    track('sound', [sound('1', 0, 100), sound('2', 100, 200), sound('3', 400, 100)]),
  ]
  const value = shallowRef({ tracks, duration_ticks: 500, start_ticks: 0 })
  let step: (moved: Map<CutItem, CutItem>) => void = () => undefined
  const cut = { value, onStep: (listener: typeof step) => (step = listener) } as unknown as ActiveCut
  const playhead = ref(0)
  const at = computed(() => playhead.value)
  const frame = computed(() => FRAME)
  const isAlone = ref(false)
  const alone = computed(() => isAlone.value)
  const ranges: unknown[] = []
  const chosen = useChosen({ ...{ cut, at, frame, alone }, ranged: (range) => ranges.push(range) })
  const asked: { operations: Operation[]; label: string }[] = []
  const went: number[] = []
  const nothing = vi.fn()
  const acts = useActs({
    ...{ chosen, at, frame, rippling: ref(true), alone, nothing },
    edit: (operations, label) => {
      asked.push({ operations, label })
      return Promise.resolve(true)
    },
    goTo: (ticks) => went.push(ticks),
  })

  const items = (on: number) => value.value.tracks[on]!.items
  return { ...{ value, chosen, acts, asked, went, nothing, playhead, isAlone, ranges, items }, step: () => step }
}

describe('what is chosen in a cut', () => {
  it('is what plays at the playhead until somebody chooses', () => {
    const one = desk()
    one.playhead.value = 150
    expect(one.chosen.meant.value.map((place) => place.item.name)).toEqual(['2'])
    one.playhead.value = 350
    expect(one.chosen.meant.value).toEqual([])
    one.chosen.choose(1, one.items(1)[0]!, false)
    one.chosen.choose(1, one.items(1)[2]!, true)
    expect(one.chosen.meant.value.map((place) => [place.track, place.index])).toEqual([
      [1, 0],
      [1, 2],
    ])
    one.chosen.choose(1, one.items(1)[0]!, true)
    expect(one.chosen.meant.value.map((place) => place.index)).toEqual([2])
  })
  it('stays chosen through a step that replaces it, and is let go where a colleague took it out', async () => {
    const one = desk()
    const [first, , last] = one.items(0)
    one.chosen.choose(0, first!, false)
    one.chosen.choose(0, last!, true)
    const moved = { ...first!, duration_ticks: 50 }
    one.value.value = { ...one.value.value, tracks: [track('picture', [moved]), one.value.value.tracks[1]!] }
    await nextTick()
    one.step()(new Map([[first!, moved]]))
    expect(one.chosen.meant.value.map((place) => place.item.duration_ticks)).toEqual([50])
  })
  it('says what goes along, unless pieces go by themselves', () => {
    const one = desk()
    one.chosen.choose(0, one.items(0)[1]!, false)
    expect([...one.chosen.goesAlong.value].map((item) => item.source.name)).toEqual(['2 sound'])
    one.isAlone.value = true
    expect(one.chosen.goesAlong.value.size).toBe(0)
  })
  it('has a range with the frame under the playhead in it, whichever end is set first', () => {
    const one = desk()
    one.playhead.value = 100
    one.chosen.mark('to')
    expect(one.chosen.range.value).toEqual({ from: 0, to: 110 })
    one.playhead.value = 200
    one.chosen.mark('from')
    expect(one.chosen.range.value).toEqual({ from: 200, to: 500 })
    one.chosen.clearRange()
    expect(one.ranges.at(-1)).toBeNull()
  })
})

describe('what is done to a cut', () => {
  beforeEach(() => vi.mocked(refuse).mockClear())

  it('takes out what overlaps once, from the end on, and goes to where the first of it was', async () => {
    const one = desk()
    one.chosen.choose(0, one.items(0)[0]!, false)
    one.chosen.choose(1, one.items(1)[0]!, true)
    one.chosen.choose(0, one.items(0)[2]!, true)
    one.acts.extract()
    expect(one.asked[0]!.operations.map((each) => [each.from_ticks, each.to_ticks])).toEqual([
      [400, 500],
      [0, 100],
    ])
    await nextTick()
    expect(one.went).toEqual([0])
  })
  it('takes out the range that was set, which is none afterwards and plays round no more', async () => {
    const one = desk()
    one.playhead.value = 100
    one.chosen.mark('from')
    one.playhead.value = 190
    one.chosen.mark('to')
    one.acts.extract()
    await nextTick()
    expect(one.asked[0]!.operations).toEqual([{ op: 'extract', from_ticks: 100, to_ticks: 200 }])
    expect([one.chosen.range.value, one.ranges.at(-1)]).toEqual([null, null])
  })
  it("leaves a gap on the range's own track, and with the sound where a piece is meant", () => {
    const one = desk()
    one.playhead.value = 150
    one.acts.lift()
    expect(one.asked[0]!.operations.map((each) => each.track)).toEqual([0, 1])
    one.chosen.mark('to')
    one.acts.lift()
    expect(one.asked[1]!.operations.map((each) => each.track)).toEqual([0])
  })
  it('ends a piece behind the frame that is seen, and begins it with that frame', () => {
    const one = desk()
    one.playhead.value = 150
    one.acts.trimTo('tail')
    one.acts.trimTo('head')
    expect(one.asked.map((each) => [each.label, each.operations[0]!.by_ticks])).toEqual([
      ['End here', -140],
      ['Begin here', 50],
    ])
  })
  it('moves the cut that is nearest, and none over a hole', () => {
    const one = desk()
    one.playhead.value = 90
    one.acts.roll(2)
    expect(one.asked[0]!.operations[0]).toMatchObject({ op: 'roll', index: 0, by_ticks: 20 })
    one.playhead.value = 420
    one.acts.roll(2)
    one.acts.join()
    expect(one.asked).toHaveLength(1)
    expect(refuse).toHaveBeenCalledTimes(2)
  })
  it('says so where there is nothing to do it to', () => {
    const one = desk()
    one.playhead.value = 350
    for (const act of [
      one.acts.lift,
      one.acts.extract,
      one.acts.enable,
      () => one.acts.slip(1),
      () => one.acts.plain(false),
    ])
      act()
    expect([one.asked.length, one.nothing.mock.calls.length]).toEqual([0, 5])
    one.acts.split()
    expect(refuse).toHaveBeenCalledTimes(1)
  })
  it('turns all that is chosen off, or all of it on, by the first', () => {
    const one = desk()
    one.items(0)[0]!.enabled = false
    one.chosen.choose(0, one.items(0)[1]!, false)
    one.chosen.choose(0, one.items(0)[0]!, true)
    one.acts.enable()
    expect(one.asked[0]!.label).toBe('Off')
    expect(one.asked[0]!.operations.every((each) => each.on === false)).toBe(true)
  })
})
