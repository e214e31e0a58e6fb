import type {
  Changed,
  CheckPair,
  ClipPoints,
  CutPlan,
  Done,
  Head,
  Heads,
  Lineup,
  Looks,
  PlaceMade,
  RunRows,
  Runs,
  SplitPlan,
  SplitTakes,
  Task,
  WentBack,
} from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** The line-up, looks and the sound of takes. */
const dayOf = question<Lineup, { day: string }>('lineup', ({ day }) => `days/${day}/lineup`)
const runsOf = question<Runs, { day: string }>('runs', ({ day }) => `days/${day}/lineup/runs`)
const runOf = question<RunRows, { run: string; other: string | null }>(
  'run',
  ({ run, other }) => `lineup-runs/${run}${other === null ? '' : `?with=${other}`}`,
)
const checkOf = question<CheckPair, { clip: string }>('check', ({ clip }) => `clips/${clip}/check`)
const pointsOf = question<ClipPoints, { clip: string }>('points', ({ clip }) => `clips/${clip}/points`)
const cutPlanOf = question<CutPlan, { day: string }>('cut', ({ day }) => `days/${day}/cut`)
const splitPlanOf = question<SplitPlan, { clip: string; query: string }>(
  'split',
  ({ clip, query }) => `clips/${clip}/split?${query}`,
)
const looksOf = question<Looks>('looks', () => 'looks')

export const lineup = {
  day: (production: string, day: string) => dayOf(production, { day }),
  runs: (production: string, day: string) => runsOf(production, { day }),
  run: (production: string, run: string, other: string | null) => runOf(production, { run, other }),
  check: (production: string, clip: string) => checkOf(production, { clip }),
  points: (production: string, clip: string) => pointsOf(production, { clip }),
  cutPlan: (production: string, day: string) => cutPlanOf(production, { day }),
  splitPlan: (production: string, clip: string, query: string) => splitPlanOf(production, { clip, query }),
  looks: (production: string) => looksOf(production, {}),
  goBack: (production: string, run: string) => api.post<WentBack>(below(production, `lineup-runs/${run}/back`)),
  byHand: (production: string, clip: string, body: unknown) =>
    api.post<PlaceMade>(below(production, `clips/${clip}/place`), body),
  cut: (production: string, day: string, body: unknown) =>
    api.post<Changed>(below(production, `days/${day}/cut`), body),
  head: (production: string, clip: string, body: unknown) =>
    api.put<Head>(below(production, `clips/${clip}/head`), body),
  applyClock: (production: string, day: string, body: unknown) =>
    api.post<Done>(below(production, `days/${day}/clock`), body),
  drift: (production: string, clip: string, body: unknown) =>
    api.post<Changed>(below(production, `clips/${clip}/drift`), body),
  bringLook: (production: string, file: File, more: Record<string, string> = {}) =>
    api.send<Looks>(below(production, 'looks'), file, more),
  changeLook: (production: string, look: string, body: unknown) =>
    api.patch<Done>(below(production, `looks/${look}`), body),
  makeLook: (production: string, body: unknown) => api.post<Looks>(below(production, 'looks'), body),
  setLook: (production: string, body: unknown) => api.put<Done>(below(production, 'looks'), body),
  heads: (production: string, day: string, body: unknown) =>
    api.put<Heads>(below(production, `days/${day}/heads`), body),
  start: (production: string, day: string, body: unknown) =>
    api.post<Task>(below(production, `days/${day}/lineup`), body),
  wild: (production: string, clip: string, body: unknown) =>
    api.post<Done>(below(production, `clips/${clip}/wild`), body),
  leaveOut: (production: string, clip: string, body: unknown) =>
    api.post<Done>(below(production, `clips/${clip}/leave-out`), body),
  lanes: (production: string, body: unknown) => api.put<Done>(below(production, 'lanes'), body),
  split: (production: string, clip: string, body: unknown) =>
    api.post<SplitTakes>(below(production, `clips/${clip}/split`), body),
  sound: (production: string, take: string, body: unknown) =>
    api.put<Done>(below(production, `takes/${take}/sound`), body),
  /** One of the small changes of a place: `nudge`, `lock`, `second`, `leave-out`. */
  change: (production: string, clip: string, what: string, body: unknown) =>
    api.post<Record<string, unknown>>(below(production, `clips/${clip}/${what}`), body),
}
