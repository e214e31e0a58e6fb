/** A cut as `docs/formats.md` writes a sequence; ticks. */
export interface CutItem {
  name: string
  source: { id: string; name: string; start_ticks: number; duration_ticks: number; rate: string | null }
  source_start_ticks: number
  duration_ticks: number
  record_start_ticks: number
  enabled: boolean
  metadata: Record<string, unknown> & { take?: string; gain_millibels?: number; heard?: string }
  angles?: { current: string; list: { angle: string }[] }
}
export interface CutTrack {
  kind: 'picture' | 'sound'
  name: string
  role?: string
  locked: boolean
  enabled: boolean
  items: CutItem[]
}
export interface CutValue {
  title: string
  rate: string
  start_ticks: number
  tracks: CutTrack[]
}

/** What a step changed, as the operation `restore` says it. */
export interface CutChange {
  tracks: { track: number; index: number; count: number; items: CutItem[]; shift_ticks: number }[]
  heads?: { track: number; head: Omit<CutTrack, 'items'> | null }[]
}

export const endOf = (item: CutItem): number => item.record_start_ticks + item.duration_ticks

/**
 * The cut with a change made, as the server makes it. What only moved is another object, and `moved` says which it
 * was.
 */
export function applied(value: CutValue, change: CutChange): { value: CutValue; moved: Map<CutItem, CutItem> } {
  const moved = new Map<CutItem, CutItem>()
  const tracks = [...value.tracks]
  const heads = change.heads ?? []
  for (const { track, head } of heads) if (head !== null) tracks[track] = { items: [], ...tracks[track], ...head }
  for (const one of change.tracks) {
    const track = tracks[one.track]
    if (track === undefined) continue
    const behind = track.items.slice(one.index + one.count)
    const later =
      one.shift_ticks === 0
        ? behind
        : behind.map((item) => {
            const now = { ...item, record_start_ticks: item.record_start_ticks + one.shift_ticks }
            moved.set(item, now)
            return now
          })
    tracks[one.track] = { ...track, items: [...track.items.slice(0, one.index), ...one.items, ...later] }
  }
  const gone = heads.filter((one) => one.head === null).length
  return { value: { ...value, tracks: gone === 0 ? tracks : tracks.slice(0, -gone) }, moved }
}

/** The item at an instant, or the next one behind it; by halves, since a track has thousands. */
export function indexAt(items: CutItem[], ticks: number): number {
  let low = 0
  let high = items.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (endOf(items[middle]!) <= ticks) low = middle + 1
    else high = middle
  }
  return low
}

export function itemAt(items: CutItem[], ticks: number): number | null {
  const index = indexAt(items, ticks)
  return index < items.length && items[index]!.record_start_ticks <= ticks ? index : null
}

export const lengthOf = (value: CutValue): number =>
  value.tracks.reduce((most, track) => Math.max(most, track.items.length === 0 ? 0 : endOf(track.items.at(-1)!)), 0)

/** Every instant at which something begins or ends, in order and once each. */
export function cutsOf(value: CutValue, tracks: number[] | null = null): number[] {
  const all = new Set<number>([0])
  value.tracks.forEach((track, index) => {
    if (tracks !== null && !tracks.includes(index)) return
    for (const item of track.items) {
      all.add(item.record_start_ticks)
      all.add(endOf(item))
    }
  })
  return [...all].sort((a, b) => a - b)
}

/** The order in which tracks lie on the paper: pictures with the uppermost first, then sound. */
export function paperOrder(tracks: CutTrack[]): number[] {
  const all = tracks.map((_, index) => index)
  return [
    ...all.filter((index) => tracks[index]!.kind === 'picture').reverse(),
    ...all.filter((index) => tracks[index]!.kind === 'sound'),
  ]
}

/**
 * An amount that somebody typed: `12` or `+12` frames, `-1.` a second earlier, `2.5` two seconds and five frames.
 *
 * @returns frames; null where it is none
 */
export function amountTyped(text: string, nominal: number): number | null {
  const found = /^([+-]?)(\d{1,6})(?:(\.)(\d{0,3}))?$/.exec(text.trim().replace(',', '.'))
  if (found === null) return null
  const [, sign, whole, point, rest] = found
  const frames = point === undefined ? Number(whole) : Number(whole) * nominal + Number(rest === '' ? 0 : rest)
  return sign === '-' ? -frames : frames
}
