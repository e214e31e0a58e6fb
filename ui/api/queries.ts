import { QueryClient, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'
import { api, ApiError } from './client'
import type { Topic } from './types'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, trouble) =>
        count < 2 && (!(trouble instanceof ApiError) || trouble.status === 0 || trouble.status >= 500),
    },
  },
})

/** What an answer can depend on: a topic of the live stream, or only the words and marks of one take. */
export type Cause = Exclude<Topic, 'here'> | 'words'

/** Each cause to the addresses whose answers it makes old. */
const STALE: Record<Cause, RegExp> = {
  settings: /^$|settings|cards|sheet|tabs|lineup|log/,
  tasks: /tasks|cards|lineup|handoffs|tabs|sheet/,
  cards: /cards|sheet|tabs/,
  looks: /looks|clips|reels|sequences|check/,
  lanes: /^$|cards|sheet|tabs|lineup/,
  takes: /log|cut|sheet|tabs|bins|reels|sequences|lineup|clips|scenes/,
  words: /sheet|tabs|bins|reels|clips|scenes|history/,
  lineup: /lineup|check|cut|log|sheet|tabs|reels|sequences/,
  bins: /bins|clips/,
  sequences: /reels|sequences|uses|sheet/,
  notes: /reels/,
  handoffs: /handoffs|sheet/,
  patterns: /patterns|log\/read|cards/,
  clips: /clips|cards|bins|log|tabs|reels/,
}

/** Sums over a whole day cost the server more than they tell; they follow a run of changes a little later. */
const SUMS = /tabs|scenes/
const SUMS_AFTER = 1500
let sums: ReturnType<typeof setTimeout> | undefined

/** When each topic was last made stale, by this page's own doing or by what it heard. */
const staleAt = new Map<Cause, number>()
/** Within this time of a fetch that an action started, the server's own word of the same action is no news. */
const SAME_ACTION_MS = 1500

export function justMadeStale(topic: Cause): boolean {
  return performance.now() - (staleAt.get(topic) ?? -Infinity) < SAME_ACTION_MS
}

/**
 * Marks what a change may have made old; what is on screen is fetched again at once, sums of the day a little later.
 */
export function makeStale(topic: Cause): void {
  // A page that was loaded before an update hears topics that it does not know.
  const pattern = STALE[topic] as RegExp | undefined
  if (pattern === undefined) return
  staleAt.set(topic, performance.now())
  const isOften = topic === 'takes' || topic === 'words'
  const about = (which: (path: string) => boolean) => ({
    predicate: (query: { queryKey: readonly unknown[] }) => which(String(query.queryKey[1] ?? '')),
  })
  const now = about((path) => pattern.test(path) && !(isOften && SUMS.test(path)))
  // A question that waits for its first answer is not asked twice at once, and that answer may be from before the
  // change.
  const first = queryClient
    .getQueryCache()
    .findAll(now)
    .filter(
      (query) =>
        query.state.data === undefined && query.promise !== undefined && query.state.fetchStatus === 'fetching',
    )
  void queryClient.invalidateQueries(now)
  for (const query of first)
    void query.promise
      ?.catch(() => undefined)
      .then(() => queryClient.invalidateQueries({ queryKey: query.queryKey, exact: true }))
  if (!isOften) return
  void queryClient.invalidateQueries({ ...about((path) => pattern.test(path) && SUMS.test(path)), refetchType: 'none' })
  sums ??= setTimeout(() => {
    sums = undefined
    void queryClient.refetchQueries({ ...about((path) => SUMS.test(path)), type: 'active', stale: true })
  }, SUMS_AFTER)
}

/** The key of a question that waits; no address is like it. */
const NOTHING = '(nothing)'

/** What a production's address answers. `path` is below the production; null waits. */
export function useAnswer<T>(
  production: MaybeRefOrGetter<string>,
  path: MaybeRefOrGetter<string | null>,
  options: { poll?: number; large?: boolean } = {},
) {
  return useQuery<T, ApiError>({
    queryKey: computed(() => [toValue(production), toValue(path) ?? NOTHING]),
    // From the key and not from the refs: a later fetch of this key must ask the same address.
    queryFn: ({ queryKey, signal }) => api.get<T>(join(String(queryKey[0]), String(queryKey[1])), signal),
    enabled: computed(() => toValue(path) !== null),
    refetchInterval: options.poll ?? false,
    // Answers are replaced and never changed in place, so that nothing has to watch each of their fields.
    shallow: true,
    structuralSharing: options.large !== true,
    placeholderData: (previous: unknown, query: { queryKey: readonly unknown[] } | undefined) =>
      // A list that is narrowed or paged keeps its rows until the new ones come; another place starts empty.
      query !== undefined && String(query.queryKey[1]).split('?')[0] === (toValue(path) ?? '').split('?')[0]
        ? (previous as never)
        : undefined,
  })
}

/** Begins to ask for what a page will show, before the page is there. */
export function ahead(production: string, path: string): void {
  void queryClient.prefetchQuery({
    queryKey: [production, path],
    queryFn: ({ signal }) => api.get(join(production, path), signal),
    structuralSharing: false,
  })
}

function join(production: string, path: string): string {
  return `productions/${production}${path === '' ? '' : '/' + path}`
}
