import type { Lineup, Placed, Stray } from '@/api/types'

/** Places that a run has found, as its events tell them, by clip. */
export type Found = Record<string, { start_ticks: number; confidence: number }>

/** What a place that sound has just found has not got yet; the page asks for it when the run is over. */
const NOT_YET = {
  group: 0,
  way: 'sound',
  sure: true,
  drift_ppm: null,
  is_anchor: false,
  second_ticks: null,
  second_against: null,
  agreeing: null,
  windows: null,
  against: null,
  height: null,
  runner_up: null,
  residual_ticks: null,
  clock_disagrees_ticks: null,
  point: null,
  weakest_link: null,
  miss_ticks: null,
  laid_by: null,
} satisfies Partial<Placed>

/** A line-up with places that a run has found since: strays come onto the map, what lay elsewhere moves. */
export function withFound(known: Lineup, found: Found): Lineup {
  const come = known.strays.flatMap((stray) => {
    const place = found[stray.clip]
    return place === undefined || stray.device === null ? [] : [laid(stray, place)]
  })
  return {
    ...known,
    placements: [
      ...known.placements.map((one) => {
        const place = found[one.clip]
        return place === undefined || one.locked ? one : { ...one, ...NOT_YET, ...place }
      }),
      ...come,
    ],
    strays: known.strays.filter((one) => found[one.clip] === undefined || one.device === null),
  }
}

const laid = (stray: Stray, place: Found[string]): Placed => ({
  ...stray,
  device: stray.device ?? '',
  drift_applied: false,
  locked: false,
  ...NOT_YET,
  ...place,
})
