import type {
  Done,
  Link,
  Links,
  Made,
  Rebuilt,
  Reel,
  ReelExports,
  ReelLook,
  Reels,
  ReelSummaryOfNotes,
  Room,
  SceneText,
} from '../answers'
import { below, question } from '../ask'
import { api, once } from '../client'

/** Reels, who may watch them from afar, and what is said while they are watched. */
const reelsOf = question<Reels, { day: string }>('reels', ({ day }) => `days/${day}/reels`)
const reelOf = question<Reel, { sequence: string }>('reel', ({ sequence }) => `reels/${sequence}`)
const linksOf = question<Links, { sequence: string }>('links', ({ sequence }) => `reels/${sequence}/links`)
const exportsOf = question<ReelExports, { sequence: string }>(
  'exports',
  ({ sequence }) => `sequences/${sequence}/exports`,
)
const summaryOf = question<ReelSummaryOfNotes, { sequence: string }>(
  'said',
  ({ sequence }) => `reels/${sequence}/summary`,
)
const sceneOf = question<SceneText, { scene: string }>('scene', ({ scene }) => `scenes/${encodeURIComponent(scene)}`)

export const screening = {
  reels: (production: string, day: string) => reelsOf(production, { day }),
  reel: (production: string, sequence: string) => reelOf(production, { sequence }),
  links: (production: string, sequence: string) => linksOf(production, { sequence }),
  exports: (production: string, sequence: string) => exportsOf(production, { sequence }),
  summary: (production: string, sequence: string) => summaryOf(production, { sequence }),
  scene: (production: string, scene: string) => sceneOf(production, { scene }),
  bringUpToDate: (production: string, reel: string) => api.post<Rebuilt>(below(production, `reels/${reel}/build`)),
  look: (production: string, day: string, body: unknown) =>
    api.post<ReelLook>(below(production, `days/${day}/reels/look`), body),
  build: (production: string, day: string, body: unknown) =>
    api.post<Made>(below(production, `days/${day}/reels`), body),
  arrange: (production: string, reel: string, was: string[], now: string[]) =>
    api.put<Done>(below(production, `reels/${reel}/takes`), { was, now }),
  rename: (production: string, reel: string, name: string) =>
    api.patch<Done>(below(production, `reels/${reel}`), { name }),
  remove: (production: string, reel: string) => api.delete<Done>(below(production, `reels/${reel}`)),
  note: (production: string, take: string, body: unknown) =>
    api.post<Made>(below(production, `takes/${take}/notes`), body),
  changeNote: (production: string, take: string, note: string, text: string) =>
    api.patch<Done>(below(production, `takes/${take}/notes/${note}`), { text }),
  removeNote: (production: string, take: string, note: string) =>
    api.delete<Done>(below(production, `takes/${take}/notes/${note}`)),
  rate: (production: string, take: string, stars: number | null) =>
    api.put<Done>(below(production, `takes/${take}/stars`), { stars }),
  makeLink: (production: string, reel: string, body: unknown) =>
    api.post<Link>(below(production, `reels/${reel}/links`), body),
  endLink: (production: string, reel: string, link: string) =>
    api.delete<Done>(below(production, `reels/${reel}/links/${link}`)),
  tellRoom: (production: string, reel: string, body: unknown) =>
    once.put<Room>(below(production, `reels/${reel}/room`), body),
  closeRoom: (production: string, reel: string) => api.delete<Done>(below(production, `reels/${reel}/room`)),
  export: (production: string, reel: string, body: unknown) =>
    api.post<Made>(below(production, `sequences/${reel}/exports`), body),
  cancelExport: (production: string, reel: string, task: string) =>
    api.delete<Done>(below(production, `sequences/${reel}/exports/${task}`)),
  exportUrl: (production: string, reel: string, task: string, what: string) =>
    `/api/${below(production, `sequences/${reel}/exports/${task}/${what}`)}`,
  notesUrl: (production: string, reel: string, format: 'pdf' | 'csv') =>
    `/api/${below(production, `reels/${reel}/notes.${format}`)}`,
}
