import type {
  Changed,
  Circled,
  Columns,
  Done,
  Edited,
  Names,
  NoteFaults,
  NoteFile,
  Patterns,
  Scenes,
  ScriptReport,
  Settled,
  SlatePreview,
  SlateSet,
  SlateSheet,
  SlatesRead,
  TakeHistory,
  TakeMarkers,
  Takes,
  Typed,
  Understood,
} from '../answers'
import { below, question } from '../ask'
import { api, once } from '../client'

/** The slate sheet, its sources and its names. */
const sheetOf = question<SlateSheet, { day: string }>('log', ({ day }) => `days/${day}/log`)
const scenesOf = question<Scenes, { day: string }>('scenes', ({ day }) => `days/${day}/scenes`)
const historyOf = question<TakeHistory, { take: string }>('history', ({ take }) => `takes/${take}/history`)
const markersOf = question<TakeMarkers, { take: string }>('marked', ({ take }) => `takes/${take}/markers`)
const columnsOf = question<Columns>('columns', () => 'log-columns')

export const log = {
  sheet: (production: string, day: string) => sheetOf(production, { day }),
  scenes: (production: string, day: string) => scenesOf(production, { day }),
  history: (production: string, take: string) => historyOf(production, { take }),
  markers: (production: string, take: string) => markersOf(production, { take }),
  columns: (production: string) => columnsOf(production, {}),
  previewSlates: (production: string, day: string) => api.get<SlatePreview>(below(production, `days/${day}/log/read`)),
  tryPatterns: (production: string, day: string, body: unknown) =>
    api.post<SlatePreview>(below(production, `days/${day}/log/read/try`), body),
  setSlatePatterns: (production: string, body: unknown) => api.put<Done>(below(production, 'patterns/slate'), body),
  readSlates: (production: string, day: string) => api.post<SlatesRead>(below(production, `days/${day}/log/read`)),
  understand: (production: string, day: string, query: string) =>
    api.get<Understood>(below(production, `days/${day}/log/line?${query}`)),
  type: (production: string, day: string, body: unknown) =>
    api.post<Typed>(below(production, `days/${day}/log/line`), body),
  settle: (production: string, take: string, body: unknown) =>
    api.post<Settled>(below(production, `takes/${take}/settle`), body),
  script: (production: string, file: File, more: Record<string, string> = {}) =>
    api.send<ScriptReport>(below(production, 'script'), file, more),
  here: (production: string, day: string, body: unknown) =>
    once.post<Done>(below(production, `days/${day}/log/here`), body),
  namePatterns: (production: string) => api.get<Patterns>(below(production, 'patterns/name')),
  setNamePatterns: (production: string, body: unknown) => api.put<Done>(below(production, 'patterns/name'), body),
  previewNames: (production: string, body: unknown) => api.post<Names>(below(production, 'names/preview'), body),
  giveNames: (production: string, body: unknown) => api.post<Changed>(below(production, 'names'), body),
  edit: (production: string, day: string, body: unknown) =>
    once.patch<Edited>(below(production, `days/${day}/takes`), body),
  someTakes: (production: string, day: string, ulids: string) =>
    api.get<Takes>(below(production, `days/${day}/takes?ulids=${ulids}`)),
  setColumns: (production: string, body: unknown) => api.put<Done>(below(production, 'log-columns'), body),
  setSlate: (production: string, day: string, body: unknown) =>
    once.post<SlateSet>(below(production, `days/${day}/log/slate`), body),
  circle: (production: string, take: string, body: unknown) =>
    api.put<Circled>(below(production, `takes/${take}/circle`), body),
  bringNotes: (production: string, day: string, file: File, more: Record<string, string> = {}) =>
    api.send<NoteFile>(below(production, `days/${day}/notes`), file, more),
  previewNotes: (production: string, file: string, body: unknown) =>
    api.post<NoteFile>(below(production, `notes/${file}/preview`), body),
  noteSheet: (production: string, file: string, sheet: number) =>
    api.post<NoteFile>(below(production, `notes/${file}/sheet`), { sheet }),
  noteFaults: (production: string, file: string, from: number) =>
    api.get<NoteFaults>(below(production, `notes/${file}/faults?from=${from}`)),
  noteFaultsFile: (production: string, file: string) => `/api/${below(production, `notes/${file}/faults.csv`)}`,
  applyNotes: (production: string, file: string) => api.post<NoteFile>(below(production, `notes/${file}/apply`)),
  noteFile: (production: string, file: string) => api.get<NoteFile>(below(production, `notes/${file}`)),
}
