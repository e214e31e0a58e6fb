import type {
  BinCounts,
  BinMade,
  BinPage,
  BinRefs,
  BinTree,
  Changed,
  BinArrangement,
  ClipSheet,
  ClipUses,
  Done,
  Made,
  Marker,
  Marks,
  Moved,
  RuleSubjects,
  Split,
  Subclip,
} from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** What of a bin is asked for and in which order; a query below its address. */
export type Looked = Pick<BinArrangement, 'order' | 'down' | 'takes' | 'days' | 'devices'>

/** A rule as the server reads it. */
export interface RuleCondition {
  about: string
  test: string
  values: string[]
}
export interface RuleGroup {
  join: 'all' | 'any' | 'none'
  parts: (RuleCondition | RuleGroup)[]
}

export const asQuery = ({ order, down, takes, days, devices }: Looked): string =>
  new URLSearchParams([
    ['order', order],
    ['down', down ? '1' : '0'],
    ['takes', takes ? '1' : '0'],
    ...days.map((one) => ['days[]', one]),
    ...devices.map((one) => ['devices[]', one]),
  ]).toString()

/** Bins, and what stands on a clip. */
const treeOf = question<BinTree>('bins', () => 'bins')
const countsOf = question<BinCounts>('bin-counts', () => 'bins/counts')
const subjectsOf = question<RuleSubjects>('subjects', () => 'bins/subjects')
const at = (bin: string, looked: string, from: number, limit: number) =>
  `bins/${encodeURIComponent(bin)}/items?${looked}&from=${from}&limit=${limit}`
const pageOf = question<BinPage, { bin: string; looked: string; limit: number }>(
  'bin',
  ({ bin, looked, limit }) => at(bin, looked, 0, limit),
  ['looked', 'limit'],
)
/** How long all of it is, where that is not said with its first page. */
const sumOf = question<BinPage, { bin: string; looked: string }>(
  'bin-sum',
  ({ bin, looked }) => `bins/${encodeURIComponent(bin)}/items?${looked}&sum=1`,
  ['looked'],
)
const usesOf = question<ClipUses, { clip: string }>('uses', ({ clip }) => `clips/${clip}/uses`)
const clipOf = question<ClipSheet, { clip: string }>('clip', ({ clip }) => `clips/${clip}`)

export const bins = {
  tree: (production: string) => treeOf(production, {}),
  counts: (production: string) => countsOf(production, {}),
  subjects: (production: string) => subjectsOf(production, {}),
  page: (production: string, bin: string, looked: Looked, limit: number) =>
    pageOf(production, { bin, looked: asQuery(looked), limit }),
  sum: (production: string, bin: string, looked: Looked) => sumOf(production, { bin, looked: asQuery(looked) }),
  clip: (production: string, clip: string) => clipOf(production, { clip }),
  setMarks: (production: string, clip: string, body: unknown) =>
    api.put<Marks>(below(production, `clips/${clip}/marks`), body),
  keepSubclip: (production: string, clip: string, body: unknown) =>
    api.post<Subclip>(below(production, `clips/${clip}/subclips`), body),
  changeSubclip: (
    production: string,
    clip: string,
    subclip: string,
    body: { name: string; in_ticks: number | null; out_ticks: number | null; handle_ticks?: number },
  ) => api.patch<Subclip>(below(production, `clips/${clip}/subclips/${subclip}`), body),
  splitChannels: (production: string, clips: string[]) => api.post<Split>(below(production, 'channels'), { clips }),
  colourClips: (production: string, clips: string[], colour: string | null) =>
    api.put<Changed>(below(production, 'colours'), { clips, colour }),
  fromLibrary: (production: string, clip: string) => api.post<Made>(below(production, `library/${clip}`)),
  uses: (production: string, clip: string) => usesOf(production, { clip }),
  removeSubclip: (production: string, clip: string, subclip: string) =>
    api.delete<Done>(below(production, `clips/${clip}/subclips/${subclip}`)),
  addMarker: (production: string, clip: string, body: unknown) =>
    api.post<Marker>(below(production, `clips/${clip}/markers`), body),
  changeMarker: (
    production: string,
    clip: string,
    marker: string,
    body: { name: string; note: string; about: string | null },
  ) => api.patch<Marker>(below(production, `clips/${clip}/markers/${marker}`), body),
  removeMarker: (production: string, clip: string, marker: string) =>
    api.delete<Done>(below(production, `clips/${clip}/markers/${marker}`)),
  make: (production: string, name: string, parent: string | null, rule: RuleGroup | null) =>
    api.post<BinMade>(below(production, 'bins'), { name, parent, rule }),
  change: (
    production: string,
    bin: string,
    body: { name?: string; colour?: string | null; rule?: RuleGroup; was?: RuleGroup },
  ) => api.patch<BinMade>(below(production, `bins/${bin}`), body),
  place: (production: string, bin: string, parent: string | null, before: string | null) =>
    api.put<Done>(below(production, `bins/${bin}/place`), { parent, before }),
  freeze: (production: string, bin: string) => api.post<BinMade>(below(production, `bins/${bin}/freeze`), {}),
  remove: (production: string, bin: string) => api.delete<Done>(below(production, `bins/${bin}`)),
  setGroups: (production: string, groups: string[]) => api.put<Done>(below(production, 'bins/groups'), { groups }),
  keepArrangement: (production: string, bin: string, arranged: BinArrangement) =>
    api.put<Done>(below(production, `bins/${encodeURIComponent(bin)}/arrangement`), arranged),
  put: (production: string, bin: string, refs: string[], from: string | null) =>
    api.post<Moved>(below(production, `bins/${bin}/items`), { refs, from }),
  takeOut: (production: string, bin: string, refs: string[]) =>
    api.delete<Done>(below(production, `bins/${bin}/items`), { refs }),
  /** Rows of a bin that is being scrolled. */
  more: (production: string, bin: string, looked: Looked, from: number, limit: number) =>
    api.get<BinPage>(below(production, at(bin, asQuery(looked), from, limit))),
  /** References of all that lies in it, in the order that is asked for. */
  refs: (production: string, bin: string, looked: Looked) =>
    api.get<BinRefs>(below(production, `bins/${encodeURIComponent(bin)}/refs?${asQuery(looked)}`)),
  /** What a rule lets through that is being written. */
  look: (production: string, rule: RuleGroup, view: Looked, from: number, limit: number) =>
    api.post<BinPage>(below(production, 'bins/look'), { rule, ...view, from, limit }),
  lookSum: (production: string, rule: RuleGroup, view: Looked) =>
    api.post<BinPage>(below(production, 'bins/look'), { rule, ...view, sum: true }),
}
