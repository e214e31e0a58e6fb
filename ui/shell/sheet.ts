import { t } from '@/words'
import { useRoute, useRouter } from 'vue-router'
import { useShortcuts } from './keys'

/** The page of a clip, reached by a key from wherever one is shown; it leads back to there. */
export function useSheet(clip: () => string | null | undefined, ticks: () => number) {
  const route = useRoute()
  const router = useRouter()
  function open(): void {
    const ulid = clip()
    if (ulid == null) return
    void router.push({
      name: 'clip',
      params: { production: route.params.production, day: route.params.day, clip: ulid },
      query: { at: String(Math.round(ticks())) },
    })
  }
  useShortcuts('This clip', [{ keys: ['Alt+Enter'], what: t('shell.sheet.theWholePageForIt'), run: open }])
  return open
}
