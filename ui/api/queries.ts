import { QueryClient, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'
import { api, ApiError } from './client'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, trouble) => count < 2 && (!(trouble instanceof ApiError) || trouble.status === 0 || trouble.status >= 500),
    },
  },
})

/** Topics of the live stream to the first words of the addresses that show them. */
const STALE: Record<string, RegExp> = {
  tasks: /tasks|cards|lineup|handoffs|tabs/,
  cards: /cards|sheet|tabs/,
  bench: /cards|sheet/,
  takes: /log|sheet|tabs|bins|reels|lineup|clips/,
  lineup: /lineup|log|sheet|tabs/,
  bins: /bins|clips/,
  reels: /reels|sheet/,
  notes: /reels/,
  handoffs: /handoffs|sheet/,
  patterns: /patterns|log\/read|cards/,
  clips: /clips|cards|bins|log|tabs|reels/,
}

/** Marks what a change may have made old; what is on screen is fetched again at once. */
export function makeStale(topic: string): void {
  const pattern = STALE[topic]
  if (pattern === undefined) return
  void queryClient.invalidateQueries({ predicate: (query) => pattern.test(String(query.queryKey[1] ?? '')) })
}

/** The key of a question that waits; no address is like it. */
const NOTHING = '(nothing)'

/** What a production's address answers. `path` is below the production; null waits. */
export function useAnswer<T>(production: MaybeRefOrGetter<string>, path: MaybeRefOrGetter<string | null>, options: { poll?: number } = {}) {
  return useQuery<T, ApiError>({
    queryKey: computed(() => [toValue(production), toValue(path) ?? NOTHING]),
    // From the key and not from the refs: a later fetch of this key must ask the same address.
    queryFn: ({ queryKey, signal }) => api.get<T>(join(String(queryKey[0]), String(queryKey[1])), signal),
    enabled: computed(() => toValue(path) !== null),
    refetchInterval: options.poll ?? false,
    placeholderData: (previous: unknown, query: { queryKey: readonly unknown[] } | undefined) =>
      // A list that is narrowed or paged keeps its rows until the new ones come; another place starts empty.
      query !== undefined && String(query.queryKey[1]).split('?')[0] === (toValue(path) ?? '').split('?')[0] ? (previous as never) : undefined,
  })
}

function join(production: string, path: string): string {
  return `productions/${production}${path === '' ? '' : '/' + path}`
}
