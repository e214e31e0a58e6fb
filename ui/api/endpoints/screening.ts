import type { Done, Made, Rebuilt, Reel, Reels } from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** Reels and what is said while they are watched. */
const reelsOf = question<Reels, { day: string }>('reels', ({ day }) => `days/${day}/reels`)
const reelOf = question<Reel, { sequence: string }>('reel', ({ sequence }) => `reels/${sequence}`)

export const screening = {
  reels: (production: string, day: string) => reelsOf(production, { day }),
  reel: (production: string, sequence: string) => reelOf(production, { sequence }),
  bringUpToDate: (production: string, reel: string) => api.post<Rebuilt>(below(production, `reels/${reel}/build`)),
  note: (production: string, take: string, body: unknown) =>
    api.post<Made>(below(production, `takes/${take}/notes`), body),
  build: (production: string, day: string, body: unknown) =>
    api.post<Made>(below(production, `days/${day}/reels`), body),
  remove: (production: string, reel: string) => api.delete<Done>(below(production, `reels/${reel}`)),
}
