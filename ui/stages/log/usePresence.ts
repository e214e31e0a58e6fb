import { log as logApi } from '@/api/endpoints/log'
import { useIntervalFn, watchDebounced } from '@vueuse/core'
import { computed, shallowRef } from 'vue'
import { onLive } from '@/api/live'

export interface Colleague {
  who: string
  name: string
  initials: string
  row: string | null
  at: number
}

const FORGET_AFTER = 50_000
const SAY_EVERY = 20_000

/** Who else stands on which row of the same day; tells the others where this person stands. */
export function usePresence(
  production: () => string,
  day: () => string,
  self: () => string | undefined,
  row: () => string | null,
) {
  const others = shallowRef(new Map<string, Colleague>())
  const tell = () =>
    void (
      document.visibilityState === 'visible' && logApi.here(production(), day(), { row: row() }).catch(() => undefined)
    )
  onLive('here', (facts) => {
    const one = facts as unknown as Colleague & { day: string }
    if (one.who === self()) return
    const next = new Map(others.value)
    const isNew = !next.has(one.who)
    if (one.day === day()) next.set(one.who, { ...one, at: Date.now() })
    else next.delete(one.who)
    others.value = next
    // Somebody who has just come does not know yet where this person stands.
    if (isNew && one.day === day()) tell()
  })
  watchDebounced([row, day], tell, { debounce: 250, immediate: true })
  useIntervalFn(() => {
    tell()
    const now = Date.now()
    const next = new Map([...others.value].filter(([, one]) => now - one.at < FORGET_AFTER))
    if (next.size !== others.value.size) others.value = next
  }, SAY_EVERY)
  return {
    others,
    byRow: computed(() =>
      Map.groupBy(
        [...others.value.values()].filter((one) => one.row !== null),
        (one) => one.row!,
      ),
    ),
  }
}
