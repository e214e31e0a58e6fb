import type {
  Changed,
  ClipWords,
  Cut,
  Cuts,
  Done,
  LineSums,
  Made,
  Pauses,
  PiecesAdded,
  SceneReads,
  SpokenFound,
  Stretch,
  WordsHistory,
  WordsStarted,
} from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** What is said: in a clip, anywhere, and beside the script; and the cuts that grow by it. */
const wordsOf = question<ClipWords, { clip: string }>('words', ({ clip }) => `clips/${clip}/words`)
const historyOf = question<WordsHistory, { clip: string }>('words-history', ({ clip }) => `clips/${clip}/words/history`)
const foundOf = question<SpokenFound, { asked: string }>('spoken', ({ asked }) => `spoken?${asked}`, ['asked'])
const scriptOf = question<SceneReads, { scene: string; take: string | null }>(
  'reads',
  ({ scene, take }) => `script-reads?${take === null ? `scene=${encodeURIComponent(scene)}` : `take=${take}`}`,
)
const sumsOf = question<LineSums, { day: string }>('line-sums', ({ day }) => `days/${day}/line-sums`)
const cutsOf = question<Cuts>('cuts', () => 'cuts')
const pausesOf = question<Pauses, { clip: string; how: string }>(
  'pauses',
  ({ clip, how }) => `clips/${clip}/pauses?${how}`,
  ['how'],
)
const passage = (production: string, clip: string, ulid: string) => below(production, `clips/${clip}/passages/${ulid}`)

export const words = {
  clip: (production: string, clip: string) => wordsOf(production, { clip }),
  history: (production: string, clip: string) => historyOf(production, { clip }),
  found: (production: string, asked: string) => foundOf(production, { asked }),
  script: (production: string, scene: string, take: string | null) => scriptOf(production, { scene, take }),
  sums: (production: string, day: string) => sumsOf(production, { day }),
  cuts: (production: string) => cutsOf(production, {}),
  pauses: (production: string, clip: string, how: string) => pausesOf(production, { clip, how }),
  pausesNow: (production: string, clip: string, how: string) =>
    api.get<Pauses>(below(production, `clips/${clip}/pauses?${how}`)),
  find: (production: string, day: string, body: unknown) =>
    api.post<WordsStarted>(below(production, `days/${day}/words`), body),
  bring: (production: string, clip: string, text: string, language: string, again: boolean) =>
    api.post<WordsStarted>(below(production, `clips/${clip}/words`), { text, language, again }),
  bringFile: (production: string, clip: string, file: File, language: string, again: boolean) =>
    api.send<WordsStarted>(below(production, `clips/${clip}/words`), file, { language, again: again ? '1' : '0' }),
  correct: (production: string, clip: string, ulid: string, body: unknown) =>
    api.patch<Done>(passage(production, clip, ulid), body),
  split: (production: string, clip: string, ulid: string, body: unknown) =>
    api.post<Made>(`${passage(production, clip, ulid)}/split`, body),
  merge: (production: string, clip: string, ulid: string) =>
    api.post<Done>(`${passage(production, clip, ulid)}/merge`, {}),
  speaker: (production: string, clip: string, ulid: string, body: unknown) =>
    api.put<Changed>(`${passage(production, clip, ulid)}/speaker`, body),
  around: (production: string, clip: string, query: string) =>
    api.get<Stretch>(below(production, `clips/${clip}/words/around?${query}`)),
  makeCut: (production: string, name: string) => api.post<Cut>(below(production, 'cuts'), { name }),
  addPieces: (production: string, cut: string, body: unknown) =>
    api.post<PiecesAdded>(below(production, `cuts/${cut}/pieces`), body),
  file: (production: string, of: string, cues: string) => below(production, `${of}/words.${cues}`),
}
