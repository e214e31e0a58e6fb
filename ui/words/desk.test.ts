import { describe, expect, it } from 'vitest'
import italian from './it/desk.json'
import { patternsOf, saidBy } from './desk'

const table = italian as Record<string, string>
const list = patternsOf(table)
const said = (text: string): string => saidBy(table, list, text)

describe('what the desk says', () => {
  it('is said anew with what stands in its places', () => {
    expect(said('Nothing was changed.')).toBe('Niente è stato cambiato.')
    expect(said('There is a bin named Gulls (late) already.')).toBe("C'è già una raccolta di nome Gulls (late).")
    expect(said('A001 is not safe to wipe: 3 of 12 files are verified twice.')).toBe(
      'A001 non si può cancellare senza rischio: 3 di 12 file sono verificati due volte.',
    )
  })
  it('is known in a place of another sentence, and one after the other', () => {
    expect(said('That clip is not here.')).toBe('Quel clip non è qui.')
    expect(said('That day is not here. Load the page again.')).toBe('Quel giorno non è qui. Ricarica la pagina.')
  })
  it('leaves the names that people gave as they are, also where they are words of the desk', () => {
    expect(said('There is a bin named Circled takes already.')).toBe("C'è già una raccolta di nome Circled takes.")
    expect(said('Remove the bin Notes')).toBe('Togli la raccolta Notes')
    expect(said('constructor')).toBe('constructor')
  })
  it('stays as it came where nobody knows it, whatever it holds', () => {
    expect(said('Gulls over the sluice')).toBe('Gulls over the sluice')
    expect(said('$& {0} {1} ('.repeat(40))).toBe('$& {0} {1} ('.repeat(40))
  })
  it('has its places in both languages', () => {
    const places = (text: string) =>
      [...text.matchAll(/\{(\d)!?\}/g)]
        .map(([, place]) => place)
        .sort()
        .join()
    expect(Object.entries(table).filter(([english, other]) => places(english) !== places(other))).toEqual([])
  })
})
