import type { Playlist } from '../answers'
import { question } from '../ask'

/** What plays when. */
const ofClip = question<Playlist, { clip: string }>('heard', ({ clip }) => `clips/${clip}/playlist`)
const ofSequence = question<Playlist, { sequence: string }>(
  'playlist',
  ({ sequence }) => `sequences/${sequence}/playlist`,
)

export const player = {
  /** A clip by itself, and what is heard under it. */
  clip: (production: string, clip: string) => ofClip(production, { clip }),
  sequence: (production: string, sequence: string) => ofSequence(production, { sequence }),
}
