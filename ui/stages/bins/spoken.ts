import type { ClipWords } from '@/api/types'

/** A word of a clip on its own time, and where the server keeps it. */
export interface Spoken {
  text: string
  start: number
  end: number
  sure: number | null
  /** What a machine had heard, where a person wrote something else. */
  heard: string | null
  /** In its passage. */
  index: number
}
export interface Paragraph {
  ulid: string
  /** The recording in which it is heard. */
  clip: string
  speaker: string | null
  draft: boolean
  by: string | null
  editedAt: string | null
  words: Spoken[]
  /** The number of its first word among all. */
  first: number
}

/** Confidence under which a word is pale. */
export const UNSURE = 0.6

/** Passages of all recordings of a clip on the clip's own time, as far as they lie within it. */
export function paragraphsOf(answer: ClipWords | undefined): Paragraph[] {
  const all: Paragraph[] = []
  for (const source of answer?.sources ?? [])
    for (const passage of source.passages) {
      const words: Spoken[] = []
      passage.words.forEach((one, index) => {
        const [text, start, end, sure, heard] = one as [string, number, number, number | null, string | undefined]
        const spoken = {
          text,
          start: start + source.offset_ticks,
          end: end + source.offset_ticks,
          sure,
          heard: heard ?? null,
          index,
        }
        if (spoken.end > source.from_ticks && spoken.start < source.to_ticks) words.push(spoken)
      })
      if (words.length > 0)
        all.push({
          ulid: passage.ulid,
          clip: source.clip,
          speaker: passage.speaker,
          draft: passage.draft,
          by: passage.by,
          editedAt: passage.edited_at,
          words,
          first: 0,
        })
    }
  all.sort((x, y) => x.words[0]!.start - y.words[0]!.start)
  let first = 0
  for (const one of all) {
    one.first = first
    first += one.words.length
  }
  return all
}

/** The paragraph that holds a word by its number. */
export function holding(paragraphs: Paragraph[], at: number): Paragraph | undefined {
  let [low, high] = [0, paragraphs.length - 1]
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (paragraphs[middle]!.first <= at) low = middle
    else high = middle - 1
  }
  const found = paragraphs[low]
  return found !== undefined && at >= 0 && at < found.first + found.words.length ? found : undefined
}

/** The last word that has begun at a moment; −1 before the first. */
export function wordAt(words: Spoken[], ticks: number): number {
  let [low, high] = [0, words.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (words[middle]!.start <= ticks) low = middle + 1
    else high = middle
  }
  return low - 1
}

/** What a subclip of words is called: its first words, without signs at the end. */
export function nameOf(words: Spoken[]): string {
  let name = ''
  for (const word of words) {
    if (name !== '' && name.length + word.text.length > 38) {
      name += '…'
      break
    }
    name += (name === '' ? '' : ' ') + word.text
  }
  return name.replace(/[,;:.]+$/u, '')
}
