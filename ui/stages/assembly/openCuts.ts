/** One of the cuts that lie open in this window, and where it stood when it was left; ticks from its first frame. */
export interface OpenCut {
  ulid: string
  kind: 'cut' | 'wall'
  name: string
  at: number
}

/** Under which name a window keeps those of a production. */
export const placeOf = (production: string): string => `cartella.cuts.open.${production}`

/** So many lie open; the one that was opened first goes for another. */
const MOST = 9

/** With a cut that is here now: one that lay open already keeps its place among them and where it stood. */
export function opened(open: OpenCut[], ulid: string, kind: OpenCut['kind'], name: string): OpenCut[] {
  return open.some((one) => one.ulid === ulid)
    ? open.map((one) => (one.ulid === ulid ? { ...one, name } : one))
    : [...open, { ulid, kind, name, at: 0 }].slice(-MOST)
}

export const stood = (open: OpenCut[], ulid: string, at: number): OpenCut[] =>
  open.map((one) => (one.ulid === ulid ? { ...one, at } : one))

/** @returns null where no other lies open */
export function beside(open: OpenCut[], ulid: string, by: 1 | -1): OpenCut | null {
  const at = open.findIndex((one) => one.ulid === ulid)
  return open.length < 2 || at < 0 ? null : open[(at + by + open.length) % open.length]!
}

/** Without those that are off the list of cuts. */
export const still = (open: OpenCut[], known: string[]): OpenCut[] => open.filter((one) => known.includes(one.ulid))
