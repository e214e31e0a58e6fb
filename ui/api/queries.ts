import { QueryClient, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, onScopeDispose, toValue } from 'vue'
import { type About, type Ask, type Cause, type Ids, pathOf } from './ask'
import { api, ApiError } from './client'
import { isKnown, isStale, SUMS } from './stale'

export type { Cause } from './ask'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, trouble) =>
        count < 2 && (!(trouble instanceof ApiError) || trouble.status === 0 || trouble.status >= 500),
    },
  },
})

/** Sums are asked for when a run of changes pauses, and now and then while it goes on; milliseconds. */
const SUMS_AFTER = 1500
const SUMS_AT_LATEST = 8000
let sums: ReturnType<typeof setTimeout> | undefined
let sumsWaitSince = 0

/** When each topic was last made stale, by this page's own doing or by what it heard. */
const staleAt = new Map<Cause, number>()
/** Within this time of a fetch that an action started, the server's own word of the same action is no news. */
const SAME_ACTION_MS = 1500

export function justMadeStale(topic: Cause): boolean {
  return performance.now() - (staleAt.get(topic) ?? -Infinity) < SAME_ACTION_MS
}

/**
 * An action has begun whose page asks for what it changes when it is ready to: the server's own word of it is no news.
 */
export function willMakeStale(topic: Cause): void {
  staleAt.set(topic, performance.now())
}

type Key = readonly [string, About, Ids]
/** A question that waits has a key that is none. */
const keyOf = (query: { queryKey: readonly unknown[] }): Key | null =>
  query.queryKey.length === 3 ? (query.queryKey as unknown as Key) : null

/**
 * Marks what a change may have made old; what is on screen is fetched again at once, sums of the day a little later.
 * `facts` name the rows that changed, where the change says so.
 */
export function makeStale(topic: Cause, facts: Record<string, unknown> = {}): void {
  if (!isKnown(topic)) return
  staleAt.set(topic, performance.now())
  const isOften = topic === 'takes' || topic === 'words'
  const about = (which: (about: About) => boolean) => ({
    predicate: (query: { queryKey: readonly unknown[] }) => {
      const key = keyOf(query)
      return key !== null && which(key[1]) && isStale(topic, facts, key[1], key[2])
    },
  })
  const now = about((one) => !(isOften && SUMS.has(one)))
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
  void queryClient.invalidateQueries({ ...about((one) => SUMS.has(one)), refetchType: 'none' })
  if (sums === undefined) sumsWaitSince = performance.now()
  else clearTimeout(sums)
  const wait = Math.min(SUMS_AFTER, Math.max(0, sumsWaitSince + SUMS_AT_LATEST - performance.now()))
  sums = setTimeout(() => {
    sums = undefined
    const isSum = (query: { queryKey: readonly unknown[] }) => SUMS.has(keyOf(query)?.[1] ?? 'production')
    void queryClient.refetchQueries({ predicate: isSum, type: 'active', stale: true })
  }, wait)
}

/** The key of a question that waits; no question is like it. */
const NOTHING = ['(nothing)'] as const

/** Asks what a key says. */
const fetchKey = ({ queryKey, signal }: { queryKey: readonly unknown[]; signal: AbortSignal }) =>
  api.get<never>(pathOf(queryKey as unknown as Key), signal)

/**
 * A list that is narrowed or paged keeps its rows until the new ones come; another place starts empty.
 *
 * An answer is kept for minutes with the functions that asked it, and those with everything around them: they are made
 * here, and let go of the page when it goes, so that no page is kept with all that was on it.
 */
const keepRows =
  (page: { asks: (() => Ask<unknown> | null) | null }) =>
  (previous: unknown, query: { queryKey: readonly unknown[] } | undefined) =>
    query !== undefined && isSamePlace(keyOf(query), page.asks?.() ?? null) ? (previous as never) : undefined

/** What a question is answered; null waits. */
export function useAnswer<T>(ask: MaybeRefOrGetter<Ask<T> | null>, options: { poll?: number; large?: boolean } = {}) {
  const now = computed(() => toValue(ask))
  const page: Parameters<typeof keepRows>[0] = { asks: () => now.value }
  onScopeDispose(() => (page.asks = null))
  return useQuery<T, ApiError>({
    queryKey: computed(() => now.value?.key ?? NOTHING),
    queryFn: fetchKey,
    enabled: computed(() => now.value !== null),
    refetchInterval: options.poll ?? false,
    // Answers are replaced and never changed in place, so that nothing has to watch each of their fields.
    shallow: true,
    structuralSharing: options.large !== true,
    placeholderData: keepRows(page),
  })
}

function isSamePlace(key: Key | null, ask: Ask<unknown> | null): boolean {
  if (key === null || ask === null || key[0] !== ask.key[0] || key[1] !== ask.key[1]) return false
  return Object.entries(ask.key[2]).every(([what, id]) => ask.keeps.includes(what) || key[2][what] === id)
}

/** What was answered last; nothing where nobody asked yet. */
export const answerOf = <T>(ask: Ask<T>): T | undefined => queryClient.getQueryData<T>(ask.key)

/** What is known of an answer before the server says it again. */
export function setAnswer<T>(ask: Ask<T>, change: T | ((known: T | undefined) => T | undefined)): void {
  queryClient.setQueryData<T>(ask.key, change as never)
}

/** Begins to ask for what a page will show, before the page is there. */
export function ahead(ask: Ask<unknown>): void {
  void queryClient.prefetchQuery({
    queryKey: ask.key,
    queryFn: ({ signal }) => api.get(ask.path, signal),
    structuralSharing: false,
  })
}
