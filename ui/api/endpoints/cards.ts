import type {
  Card,
  CardDetail,
  CardsStage,
  Changed,
  Clock,
  Done,
  OffloadAll,
  Place,
  Task,
  Template,
  VolumeDetail,
} from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** Cards, readers and devices of clips. */
const stageOf = question<CardsStage, { day: string }>('cards', ({ day }) => `days/${day}/cards`)
const cardOf = question<CardDetail, { card: string }>('card', ({ card }) => `cards/${card}`)
const volumeOf = question<VolumeDetail, { day: string; volume: string }>(
  'volume',
  ({ day, volume }) => `days/${day}/volumes/${encodeURIComponent(volume)}`,
)
const placeOf = question<Place, { day: string; query: string }>(
  'place',
  ({ day, query }) => `days/${day}/place?${query}`,
  ['query'],
)

export const cards = {
  stage: (production: string, day: string) => stageOf(production, { day }),
  card: (production: string, card: string) => cardOf(production, { card }),
  volume: (production: string, day: string, volume: string) => volumeOf(production, { day, volume }),
  place: (production: string, day: string, query: string) => placeOf(production, { day, query }),
  offload: (production: string, day: string, volume: string, body: unknown) =>
    api.post<Task>(below(production, `days/${day}/volumes/${encodeURIComponent(volume)}/offload`), body),
  offloadAll: (production: string, day: string, body: unknown) =>
    api.post<OffloadAll>(below(production, `days/${day}/offload-all`), body),
  release: (production: string, card: string, body: unknown) =>
    api.post<Card>(below(production, `cards/${card}/release`), body),
  verify: (production: string, card: string) => api.post<Task>(below(production, `cards/${card}/verify`)),
  claim: (production: string, volume: string) =>
    api.post<Done>(below(production, `volumes/${encodeURIComponent(volume)}/claim`)),
  giveBack: (production: string, volume: string) =>
    api.delete<Done>(below(production, `volumes/${encodeURIComponent(volume)}/claim`)),
  setDevice: (production: string, card: string, body: unknown) =>
    api.put<Changed>(below(production, `cards/${card}/device`), body),
  wouldLand: (production: string, day: string, query: string) =>
    api.get<Place>(below(production, `days/${day}/place?${query}`)),
  setTemplate: (production: string, body: unknown) => api.put<Template>(below(production, 'card-template'), body),
  remake: (production: string, clip: string) => api.post<Task>(below(production, `clips/${clip}/media`)),
  stateClock: (production: string, clip: string, body: unknown) =>
    api.post<Clock>(below(production, `clips/${clip}/clock`), body),
  sayDevice: (production: string, clips: string[], what: Record<string, string>) =>
    api.post<Changed>(below(production, 'device'), { clips, ...what }),
}
