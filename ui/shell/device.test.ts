import { expect, test } from 'vitest'
import { chooseTones, toneOf, waveColour } from './device'

test('twelve cameras and recorders of a day are told apart by their colour', () => {
  const letters = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'I', 'J', 'K', 'S']
  expect(new Set(letters.map(waveColour)).size).toBe(letters.length)
})

test('a device with a word for a name has one tone, the same each time, and never that of the first cameras', () => {
  expect(toneOf('DRONE')).toBe(toneOf('DRONE'))
  for (const word of ['DRONE', 'PLAYBACK', 'M', 'Ö', 'constructor'])
    expect(['A', 'B', 'C', 'D', 'S']).not.toContain(toneOf(word))
})

test('a colour that somebody chose goes before the one of the letter, until it is taken back', () => {
  chooseTones([
    { letter: 'A', colour: 2 },
    { letter: 'B', colour: null },
  ])
  expect([toneOf('A'), toneOf('B')]).toEqual(['C', 'B'])
  chooseTones([{ letter: 'A', colour: null }])
  expect(toneOf('A')).toBe('A')
})
