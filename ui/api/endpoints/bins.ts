import type { BinMade, BinPage, BinTree, ClipSheet, Done, Marker, Marks, Moved, Subclip } from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** Bins, and what stands on a clip. */
const treeOf = question<BinTree>('bins', () => 'bins')
const pageOf = question<BinPage, { bin: string; from: number; limit: number }>(
  'bin',
  ({ bin, from, limit }) => `bins/${encodeURIComponent(bin)}/items?from=${from}&limit=${limit}`,
  ['from', 'limit'],
)
const clipOf = question<ClipSheet, { clip: string }>('clip', ({ clip }) => `clips/${clip}`)

export const bins = {
  tree: (production: string) => treeOf(production, {}),
  page: (production: string, bin: string, from: number, limit: number) => pageOf(production, { bin, from, limit }),
  clip: (production: string, clip: string) => clipOf(production, { clip }),
  setMarks: (production: string, clip: string, body: unknown) =>
    api.put<Marks>(below(production, `clips/${clip}/marks`), body),
  keepSubclip: (production: string, clip: string, body: unknown) =>
    api.post<Subclip>(below(production, `clips/${clip}/subclips`), body),
  removeSubclip: (production: string, clip: string, subclip: string) =>
    api.delete<Done>(below(production, `clips/${clip}/subclips/${subclip}`)),
  addMarker: (production: string, clip: string, body: unknown) =>
    api.post<Marker>(below(production, `clips/${clip}/markers`), body),
  removeMarker: (production: string, clip: string, marker: string) =>
    api.delete<Done>(below(production, `clips/${clip}/markers/${marker}`)),
  make: (production: string, name: string) => api.post<BinMade>(below(production, 'bins'), { name }),
  rename: (production: string, bin: string, name: string) =>
    api.patch<BinMade>(below(production, `bins/${bin}`), { name }),
  remove: (production: string, bin: string) => api.delete<Done>(below(production, `bins/${bin}`)),
  put: (production: string, bin: string, refs: string[], from: string | null) =>
    api.post<Moved>(below(production, `bins/${bin}/items`), { refs, from }),
  takeOut: (production: string, bin: string, refs: string[]) =>
    api.delete<Done>(below(production, `bins/${bin}/items`), { refs }),
  /** The next rows of a page that is being scrolled. */
  more: (production: string, bin: string, from: number, limit: number) =>
    api.get<BinPage>(below(production, `bins/${encodeURIComponent(bin)}/items?from=${from}&limit=${limit}`)),
}
