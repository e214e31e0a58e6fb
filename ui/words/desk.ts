import { language } from './language'

/**
 * What the desk itself says, a refusal or an open point, is English: programs read it, too. In another language a page
 * knows its sentences by their patterns, with `{0}` where something stands, and says them anew; what it does not know
 * it says as it came. What stands in a place is most often somebody's name for something and stays as it is: only
 * where the other language says `{0!}` it is the desk's own word, and said anew, too.
 */
const patterns: Record<string, string> =
  language === 'it' ? ((await import('./it/desk.json')).default as Record<string, string>) : {}

interface Pattern {
  english: RegExp
  /** The place of each group, as it is counted in the pattern. */
  places: number[]
  other: string
}
const PLACE = /\{(\d)(!?)\}/g

/** Those that say most first, so that no vague one takes what belongs to a plain one. */
export function patternsOf(table: Record<string, string>): Pattern[] {
  return Object.entries(table)
    .filter(([english]) => /\{\d\}/.test(english))
    .sort(([a], [b]) => b.replaceAll(PLACE, '').length - a.replaceAll(PLACE, '').length)
    .map(([english, other]) => ({
      english: new RegExp(
        `^${english
          .split(/\{\d\}/)
          .map((text) => text.replaceAll(/[.*+?^$()|[\]{}\\]/g, '\\$&'))
          .join('(.+?)')}$`,
        's',
      ),
      places: [...english.matchAll(PLACE)].map(([, place]) => Number(place)),
      other,
    }))
}

/** A sentence of the desk by a table of patterns. */
export function saidBy(table: Record<string, string>, list: Pattern[], text: string, depth = 0): string {
  if (Object.hasOwn(table, text)) return table[text]!
  if (depth > 2 || text.length > 600) return text
  for (const { english, places, other } of list) {
    const found = english.exec(text)
    if (found === null) continue
    const values = new Map(places.map((place, n) => [place, found[n + 1]!]))
    return other.replaceAll(PLACE, (_, place: string, isWord: string) => {
      const value = values.get(Number(place)) ?? ''
      return isWord === '' ? value : saidBy(table, list, value, depth + 1)
    })
  }
  // Two sentences one after the other.
  const cut = text.search(/[.!?] (?=[A-Z0-9"“])/)
  if (cut < 0) return text
  const [first, rest] = [text.slice(0, cut + 1), text.slice(cut + 2)]
  return `${saidBy(table, list, first, depth + 1)} ${saidBy(table, list, rest, depth)}`
}

const list = patternsOf(patterns)
const known = new Map<string, string>()

/** What the desk said, in the language of this page. */
export function deskSays(text: string): string {
  if (language === 'en' || text === '') return text
  const before = known.get(text)
  if (before !== undefined) return before
  const now = saidBy(patterns, list, text)
  if (known.size > 2000) known.clear()
  known.set(text, now)
  return now
}
