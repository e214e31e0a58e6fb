import { expect, test } from 'vitest'
import { countUp } from './split'

test('stretches keep the slates that are known of them until a person writes the first', () => {
  expect(countUp(['12A/1', null, '12A/3'], '')).toEqual(['12A/1', '', '12A/3'])
})

test('a first slate counts up over all of them, whatever its setup ends with', () => {
  expect(countUp([null, '7/9', null], '12A/1')).toEqual(['12A/1', '12A/2', '12A/3'])
  expect(countUp([null, null], '121-9')).toEqual(['121-9', '121-10'])
  expect(countUp([null, null], '3/4b')).toEqual(['3/4b', '3/5b'])
})

test('what counts nothing names nothing, instead of the same take twice', () => {
  expect(countUp([null, null], 'song')).toEqual(['', ''])
})
