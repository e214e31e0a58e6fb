import type {
  Beneath,
  Compared,
  CutSources,
  Done,
  Events,
  Made,
  PiecesAdded,
  Playlist,
  Sequence,
  SequenceEdited,
  SequenceHistory,
  SequenceSteps,
  SequenceVersion,
  StringOut,
  TrackPlan,
  Wall,
} from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** Cuts: read, followed and changed; string-outs; events and the cuts between their cameras. */
const sourcesOf = question<CutSources, { sequence: string }>(
  'cut-sources',
  ({ sequence }) => `sequences/${sequence}/sources`,
)
const historyOf = question<SequenceHistory, { sequence: string }>(
  'cut-history',
  ({ sequence }) => `sequences/${sequence}/history`,
)
const wallOf = question<Wall, { sequence: string }>('wall', ({ sequence }) => `sequences/${sequence}/wall`)
const eventsOf = question<Events, { day: string }>('events', ({ day }) => `days/${day}/events`)
const planOf = question<TrackPlan>('track-plan', () => 'track-plan')
const sinceOf = question<Compared, { sequence: string; version: string }>(
  'cut-since',
  ({ sequence, version }) => `sequences/${sequence}/versions/${version}/since`,
)
const versionOf = question<Playlist, { sequence: string; version: string }>(
  'cut-version',
  ({ sequence, version }) => `sequences/${sequence}/versions/${version}/playlist`,
)
const cut = (production: string, sequence: string, path = '') => below(production, `sequences/${sequence}${path}`)

export const assembly = {
  sources: (production: string, sequence: string) => sourcesOf(production, { sequence }),
  history: (production: string, sequence: string) => historyOf(production, { sequence }),
  wall: (production: string, sequence: string) => wallOf(production, { sequence }),
  events: (production: string, day: string) => eventsOf(production, { day }),
  plan: (production: string) => planOf(production, {}),
  since: (production: string, sequence: string, version: string) => sinceOf(production, { sequence, version }),
  version: (production: string, sequence: string, version: string) => versionOf(production, { sequence, version }),
  cut: (production: string, sequence: string) => api.get<Sequence>(cut(production, sequence)),
  steps: (production: string, sequence: string, after: number) =>
    api.get<SequenceSteps>(cut(production, sequence, `/steps?after=${after}`)),
  beneath: (production: string, sequence: string, track: number, index: number) =>
    api.get<Beneath>(cut(production, sequence, `/beneath?track=${track}&index=${index}`)),
  edit: (production: string, sequence: string, step: number, operations: unknown[], label: string) =>
    api.post<SequenceEdited>(cut(production, sequence, '/edit'), { step, operations, label }),
  put: (production: string, sequence: string, body: unknown) =>
    api.post<PiecesAdded>(below(production, `cuts/${sequence}/pieces`), body),
  rename: (production: string, sequence: string, name: string) =>
    api.patch<Done>(below(production, `cuts/${sequence}`), { name }),
  remove: (production: string, sequence: string) => api.delete<Done>(cut(production, sequence)),
  keep: (production: string, sequence: string, name: string) =>
    api.post<SequenceVersion>(cut(production, sequence, '/versions'), { name }),
  goBack: (production: string, sequence: string, version: string) =>
    api.post<SequenceEdited>(cut(production, sequence, `/versions/${version}`)),
  stringOut: (production: string, body: unknown) => api.post<StringOut>(below(production, 'string-outs'), body),
  setPlan: (production: string, tracks: unknown[]) => api.put<Done>(below(production, 'track-plan'), { tracks }),
  begin: (production: string, day: string, event: string) =>
    api.post<Made>(below(production, `days/${day}/angle-cuts`), { event }),
  turn: (production: string, sequence: string, body: unknown) =>
    api.post<SequenceEdited>(cut(production, sequence, '/turn'), body),
  lay: (production: string, sequence: string, into: string, at: number | null) =>
    api.post<PiecesAdded>(cut(production, sequence, '/lay'), { into, at_ticks: at }),
}
