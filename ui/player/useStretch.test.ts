import { afterEach, beforeEach, expect, it } from 'vitest'
import { effectScope, type EffectScope, nextTick, ref } from 'vue'
import { TICKS } from './time'
import { useStretch } from './useStretch'

let scope: EffectScope
beforeEach(() => (scope = effectScope()))
afterEach(() => scope.stop())
function stretch(seconds: number) {
  const position = ref(0)
  let plays = false
  const made = scope.run(() =>
    useStretch({ spans: [null, 60, 10, 1], duration: seconds * TICKS, position, plays: () => plays }),
  )!
  return { ...made, position, play: () => (plays = true) }
}
const seconds = (ticks: number) => ticks / TICKS

it('comes closer around the playhead, never wider than the clip nor closer than the last step', async () => {
  const { position, look, first, span, said, isClosest, isWidest } = stretch(30)
  position.value = 20 * TICKS
  look(1)
  await nextTick()
  expect(seconds(span.value), 'a minute is longer than the clip').toBe(10)
  expect(seconds(first.value)).toBe(15)
  look(1)
  look(1)
  expect([isClosest.value, said.value]).toEqual([true, '0:01'])
  look(-1)
  look(-1)
  look(-1)
  expect([isWidest.value, said.value]).toEqual([true, 'all of it'])
})

it('goes along with the playhead: ahead of it while it plays, around it otherwise, and not past the end', async () => {
  const { position, look, first, play } = stretch(100)
  look(2)
  await nextTick()
  position.value = 40 * TICKS
  await nextTick()
  expect(seconds(first.value)).toBe(35)
  play()
  position.value = 46 * TICKS
  await nextTick()
  expect(seconds(first.value)).toBe(45)
  position.value = 99 * TICKS
  await nextTick()
  expect(seconds(first.value)).toBe(90)
})
