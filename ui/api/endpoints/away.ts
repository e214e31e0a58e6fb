import type { Changed, Dependents } from '../answers'
import { below } from '../ask'
import { api } from '../client'

/** Cards and clips that are taken out of the footage; `seen` is how much depended on them when the person looked. */
export const away = {
  ofCard: (production: string, card: string) => api.get<Dependents>(below(production, `cards/${card}/dependents`)),
  ofClips: (production: string, clips: string[]) => api.post<Dependents>(below(production, 'dependents'), { clips }),
  card: (production: string, card: string, seen: number) =>
    api.post<Changed>(below(production, `cards/${card}/away`), { seen }),
  clips: (production: string, clips: string[], seen: number) =>
    api.post<Changed>(below(production, 'away'), { clips, seen }),
  back: (production: string, card: string) => api.post<Changed>(below(production, `cards/${card}/back`)),
}
