import { useIntersectionObserver } from '@vueuse/core'
import { computed, ref, toValue, useTemplateRef, type MaybeRefOrGetter } from 'vue'

/** Rows that are put on a page at once. */
const STEP = 120

/**
 * The first of very many rows; more of them when their end comes into sight, or a row behind it is chosen. What a page
 * does not show of thousands it need not draw.
 *
 * The element that stands behind the rows has `ref="end"`.
 *
 * @param chosen the place of the row that is chosen
 */
export function useSoFar<T>(rows: MaybeRefOrGetter<readonly T[]>, chosen: MaybeRefOrGetter<number> = -1) {
  const steps = ref(1)
  const shown = computed(() => Math.max(STEP * steps.value, toValue(chosen) + STEP / 2))
  const end = useTemplateRef<HTMLElement>('end')
  useIntersectionObserver(
    end,
    ([entry]) => {
      if (entry?.isIntersecting === true && shown.value < toValue(rows).length) steps.value++
    },
    { rootMargin: '600px' },
  )
  return {
    soFar: computed(() => toValue(rows).slice(0, shown.value)),
    /** How many are not shown yet. */
    rest: computed(() => Math.max(0, toValue(rows).length - shown.value)),
  }
}
