import type { About, Cause, Ids } from './ask'

/** What shows a clip by itself. */
const CLIP: About[] = ['clip', 'check', 'points', 'uses', 'marked']
const BINS: About[] = ['bins', 'bin', 'bin-counts', 'bin-sum']
const REELS: About[] = ['reels', 'reel', 'sequence', 'playlist', 'said', 'wall']
/** What is known of a cut's clips and takes; a page that has a cut asks for new ones itself. */
const CUTS: About[] = ['cut-sources']

/** Each cause to the answers that it makes old. */
const STALE: Record<Cause, About[]> = {
  settings: [
    'words',
    ...(['production', 'devices', 'stores', 'fields', 'people', 'connections', 'audit'] as const),
    ...(['cards', 'card', 'place', 'sheet', 'tabs', 'lineup', 'log', 'columns', 'bins', 'subjects'] as const),
    'track-plan',
  ],
  tasks: [
    'tasks',
    'words',
    'line-sums',
    'exports',
    'cards',
    'card',
    'lineup',
    'runs',
    'handoffs',
    'handoff',
    'tabs',
    'sheet',
  ],
  cards: ['cards', 'card', 'volume', 'imports', 'sheet', 'tabs'],
  looks: ['looks', ...CLIP, ...REELS, ...CUTS, 'heard'],
  lanes: ['production', 'devices', 'cards', 'card', 'sheet', 'tabs', 'lineup'],
  takes: [
    'log',
    'cut',
    'sheet',
    'tabs',
    ...BINS,
    ...REELS,
    ...CUTS,
    'lineup',
    'runs',
    ...CLIP,
    'heard',
    'scenes',
    'history',
    'scene',
    'spoken',
    'reads',
    'line-sums',
  ],
  // The tree has names of scenes and bins, and no word of a take.
  words: ['sheet', 'tabs', 'bin', 'bin-counts', 'bin-sum', ...REELS, ...CLIP, 'scenes', 'history'],
  lineup: [
    'words',
    'pauses',
    'reads',
    'line-sums',
    'bin',
    'bin-counts',
    'bin-sum',
    'lineup',
    'events',
    'wall',
    'runs',
    'run',
    'check',
    'cut',
    'log',
    'sheet',
    'tabs',
    'reel',
    'playlist',
    'heard',
  ],
  bins: [...BINS, 'subjects', ...CLIP],
  sequences: [
    ...REELS,
    'cuts',
    'cut-history',
    'cut-since',
    'events',
    'received',
    'list',
    'compared',
    'uses',
    'bin',
    'bin-counts',
    'bin-sum',
    'subjects',
    'sheet',
  ],
  notes: ['reels', 'reel', 'said', 'links'],
  handoffs: ['handoffs', 'handoff', 'sheet', 'tabs'],
  patterns: ['cards', 'card', 'place', 'bins'],
  spoken: ['words', 'words-history', 'spoken', 'reads', 'line-sums', 'sheet', 'tabs', 'bin-counts'],
  clips: [...CLIP, ...CUTS, 'heard', 'cards', 'card', ...BINS, 'log', 'tabs', 'reels', 'reel'],
}

/** Sums over a whole day cost the server more than they tell; they follow a run of changes a little later. */
export const SUMS: ReadonlySet<About> = new Set<About>(['tabs', 'scenes', 'bin-counts', 'bin-sum'])

/** Whether a change of a topic is known here: a page that was loaded before an update hears some that are not. */
export const isKnown = (cause: string): cause is Cause => cause in STALE

/** Answers that depend on the row they name and on no other of its sort. */
const OF_ONE: ReadonlySet<About> = new Set<About>([
  ...(['card', 'clip', 'points', 'uses', 'history'] as const),
  ...(['reel', 'sequence', 'playlist', 'links', 'said', 'exports', 'wall'] as const),
  ...(['cut-history', 'cut-since', 'cut-sources', 'cut-version'] as const),
])

/** What shows how far a task is; that it only got further is no reason to ask for anything else. */
const PROGRESS: ReadonlySet<About> = new Set<About>(['tasks', 'cards', 'card', 'exports'])

/** Whether a change makes an answer old. One that names a row leaves answers alone that are about another row only. */
export function isStale(cause: Cause, facts: Record<string, unknown>, about: About, ids: Ids): boolean {
  if (STALE[cause]?.includes(about) !== true) return false
  if (cause === 'tasks' && facts.progress === true && !PROGRESS.has(about)) return false
  // Places that a run has found so far come with the event itself.
  if (cause === 'lineup' && facts.found !== undefined) return false
  if (!OF_ONE.has(about)) return true
  return Object.entries(ids).every(([what, id]) => facts[what] === undefined || id === null || facts[what] === id)
}
