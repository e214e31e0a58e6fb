import type {
  AlsoLinkables,
  Compared,
  Done,
  HandoffState,
  Handoffs,
  Linked,
  Made,
  OpenedList,
  Package,
  PackingPlan,
  CameBack,
  ReceivedLists,
} from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** Packages for the editing team, and the lists that come back. */
const listOf = question<Handoffs>('handoffs', () => 'handoffs')
const packageOf = question<Package, { handoff: string }>('handoff', ({ handoff }) => `handoffs/${handoff}`)
const listsOf = question<ReceivedLists>('received', () => 'received')
const receivedOf = question<CameBack, { sequence: string }>('list', ({ sequence }) => `received/${sequence}`)
const openedOf = question<OpenedList, { handoff: string; file: string }>(
  'opened',
  ({ handoff, file }) => `handoffs/${handoff}/list?path=${encodeURIComponent(file)}`,
)
const comparedOf = question<Compared, { sequence: string; with: string }>(
  'compared',
  (ids) => `sequences/${ids.sequence}/compare?with=${ids.with}`,
)

/** What goes, and how; as the server takes it. */
export interface Choice {
  days: string[]
  bins: string[]
  sequences: string[]
  takes: string[]
  since: boolean
  picture: 'proxies' | 'originals' | 'both' | 'none'
  sound: 'recorded' | 'split' | 'mix' | 'none'
  mixes: boolean
  lists: string[]
  columns: string[] | null
  folders: 'flat' | 'day' | 'scene' | 'device'
  pattern: string
}
export interface Waiver {
  day: string
  point: string
  reason: string
}
export interface EventLink {
  track: number
  index: number
  clip: string
  /** The clip that the page saw there. */
  was: string | null
}

export const handoff = {
  list: (production: string) => listOf(production, {}),
  plan: (production: string, choice: Choice) => api.post<PackingPlan>(below(production, 'handoffs/plan'), choice),
  make: (production: string, choice: Choice, waived: Waiver[]) =>
    api.post<Made>(below(production, 'handoffs'), { ...choice, waived }),
  package: (production: string, one: string) => packageOf(production, { handoff: one }),
  opened: (production: string, one: string, file: string) => openedOf(production, { handoff: one, file }),
  fileUrl: (production: string, one: string, path: string) =>
    `/api/${below(production, `handoffs/${one}/file`)}?path=${encodeURIComponent(path)}`,
  accept: (production: string, one: string) => api.post<HandoffState>(below(production, `handoffs/${one}/accept`)),
  takeBack: (production: string, one: string) => api.delete<Done>(below(production, `handoffs/${one}/accept`)),
  ask: (production: string, one: string, words: string, path: string | null) =>
    api.post<Made>(below(production, `handoffs/${one}/questions`), { question: words, path }),
  answer: (production: string, one: string, asked: string, answer: string | null) =>
    api.put<Done>(below(production, `handoffs/${one}/questions/${asked}`), { answer }),
  lists: (production: string) => listsOf(production, {}),
  received: (production: string, sequence: string) => receivedOf(production, { sequence }),
  bring: (production: string, file: File, facts: Record<string, string>) =>
    api.send<Made>(below(production, 'received'), file, facts),
  link: (production: string, sequence: string, links: EventLink[]) =>
    api.post<Done>(below(production, `received/${sequence}/links`), { links }),
  others: (production: string, sequence: string, link: EventLink) =>
    api.post<AlsoLinkables>(below(production, `received/${sequence}/links/others`), { links: [link] }),
  linkAgain: (production: string, sequence: string) =>
    api.post<Linked>(below(production, `received/${sequence}/again`)),
  compared: (production: string, sequence: string, other: string) => comparedOf(production, { sequence, with: other }),
  pull: (production: string, sequence: string, handles: number, trimmed: boolean) =>
    api.post<Made>(below(production, `sequences/${sequence}/pull`), { handles, trimmed }),
}
