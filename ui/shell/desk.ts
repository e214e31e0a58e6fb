import { computed, inject, provide, type ComputedRef, type InjectionKey } from 'vue'
import { useRoute } from 'vue-router'
import type { Day, Production } from '@/api/types'

export interface DeskContext {
  production: ComputedRef<Production>
  day: ComputedRef<Day>
}

const KEY: InjectionKey<DeskContext> = Symbol('desk')

export function provideDesk(context: DeskContext): void {
  provide(KEY, context)
}

/** The production and the day that every stage is about. */
export function useDesk() {
  const context = inject(KEY)
  if (context === undefined) throw new Error('A stage stands outside the desk.')
  const route = useRoute()
  return {
    ...context,
    /** Below `/api/productions/ULID/`. */
    base: computed(() => `productions/${context.production.value.ulid}`),
    query: computed(() => route.query),
  }
}
