import type { Topic } from './answers'

/** What an answer is about; `ui/api/stale.ts` says which changes make which of them old. */
export type About =
  | 'audit'
  | 'bin'
  | 'bin-counts'
  | 'bin-sum'
  | 'bins'
  | 'card'
  | 'cards'
  | 'check'
  | 'clip'
  | 'columns'
  | 'compared'
  | 'connections'
  | 'cut'
  | 'cuts'
  | 'cut-history'
  | 'cut-since'
  | 'cut-sources'
  | 'cut-version'
  | 'devices'
  | 'events'
  | 'exports'
  | 'fields'
  | 'glance'
  | 'handoff'
  | 'handoffs'
  | 'heard'
  | 'history'
  | 'imports'
  | 'lineup'
  | 'line-sums'
  | 'links'
  | 'list'
  | 'log'
  | 'looks'
  | 'marked'
  | 'opened'
  | 'pauses'
  | 'people'
  | 'place'
  | 'playlist'
  | 'points'
  | 'production'
  | 'received'
  | 'reads'
  | 'reel'
  | 'reels'
  | 'run'
  | 'runs'
  | 'said'
  | 'scene'
  | 'scenes'
  | 'search'
  | 'sequence'
  | 'sheet'
  | 'split'
  | 'spoken'
  | 'stores'
  | 'subjects'
  | 'tabs'
  | 'tasks'
  | 'track-plan'
  | 'uses'
  | 'volume'
  | 'wall'
  | 'words'
  | 'words-history'

/** The rows that an answer is about, by what they are; a change that names another row leaves it as it is. */
export type Ids = Record<string, string | number | null>

/** A question to the server: which production, about what, of which rows, and where it is asked. */
export interface Ask<T> {
  key: readonly [production: string, about: About, ids: Ids]
  path: string
  /** The ids that may differ while what is shown stays until the new answer comes, such as words of a search. */
  keeps: readonly string[]
  /** Only a type: what is answered. */
  readonly answer?: T
}

const paths = new Map<About, (ids: never) => string>()

/**
 * Makes the question of one address below a production. The path is asked of the key again when it is fetched anew,
 * so that a key never asks another address.
 */
export function question<T, I extends Ids = Record<never, never>>(
  about: About,
  path: (ids: I) => string,
  keeps: readonly string[] = [],
): (production: string, ids: I) => Ask<T> {
  // While the makers reload a module it says the same once more.
  if (paths.has(about) && import.meta.hot === undefined)
    throw new Error(`Two questions are about ${about}: one would be asked at the other's address.`)
  paths.set(about, path as (ids: never) => string)
  return (production, ids) => ({ key: [production, about, ids], path: below(production, path(ids)), keeps })
}

/** Where the question of a key is asked. */
export function pathOf(key: Ask<unknown>['key']): string {
  return below(key[0], (paths.get(key[1]) as ((ids: Ids) => string) | undefined)?.(key[2]) ?? '')
}

/** An address below a production. */
export const below = (production: string, path: string): string =>
  `productions/${production}${path === '' ? '' : '/' + path}`

/** What an answer can depend on: a topic of the live stream, or only the words and marks of one take. */
export type Cause = Exclude<Topic, 'here'> | 'words'
