import type { Done, Import, ImportLook, Imports, Received, Task } from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** A file as it is told of. */
export interface ImportFacts {
  path: string
  size_bytes: number
}

/** Files that are dropped on a page. */
const openOf = question<Imports>('imports', () => 'imports')

export const imports = {
  open: (production: string) => openOf(production, {}),
  look: (production: string, files: ImportFacts[]) =>
    api.post<ImportLook>(below(production, 'imports/look'), { files }),
  begin: (production: string, day: string, files: ImportFacts[], kind: string | null) =>
    api.post<Import>(below(production, `days/${day}/imports`), { files, import_kind: kind }),
  send: (production: string, upload: string, number: number, from: number, piece: ArrayBuffer) =>
    api.piece<Received>(below(production, `imports/${upload}/files/${number}?from=${from}`), piece),
  copy: (production: string, upload: string) => api.post<Task>(below(production, `imports/${upload}/copy`)),
  drop: (production: string, upload: string) => api.delete<Done>(below(production, `imports/${upload}`)),
}
