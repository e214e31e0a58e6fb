import type { CutItem, CutTrack } from './value'

/** Pieces and tracks of cuts that only tests have: a take's picture, its sound, a track of either. Ticks. */
export const piece = (take: string, at: number, length: number, source = `${take} picture`): CutItem => ({
  name: take,
  source: { id: source, name: source, start_ticks: 0, duration_ticks: 1000, rate: '25' },
  source_start_ticks: 100,
  duration_ticks: length,
  record_start_ticks: at,
  enabled: true,
  metadata: { take },
})
export const sound = (take: string, at: number, length: number) => piece(take, at, length, `${take} sound`)
export const track = (kind: 'picture' | 'sound', items: CutItem[], locked = false): CutTrack => ({
  kind,
  name: kind,
  locked,
  enabled: true,
  items,
})
