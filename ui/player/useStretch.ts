import { t } from '@/words'
import { computed, type MaybeRefOrGetter, ref, toValue, watch } from 'vue'
import { length, TICKS } from './time'

/**
 * A stretch of a recording that is looked at, from all of it down to its samples; it goes along with the playhead.
 *
 * @param options.spans how much one sees, seconds, from the widest; null is all of it
 */
export function useStretch(options: {
  spans: readonly (number | null)[]
  /** Ticks. */
  duration: MaybeRefOrGetter<number>
  position: MaybeRefOrGetter<number>
  /** While it plays, what comes next is shown rather than what was. */
  plays: () => boolean
}) {
  const { spans } = options
  const duration = computed(() => toValue(options.duration))
  const closeness = ref(0)
  const first = ref(0)
  const span = computed(() => {
    const seconds = spans[closeness.value] ?? null
    return seconds === null ? duration.value : Math.min(duration.value, seconds * TICKS)
  })
  watch(
    [() => toValue(options.position), span, duration],
    ([at, wide], before) => {
      const rest = Math.max(0, duration.value - wide)
      const isOut = at < first.value || at >= first.value + wide
      if (isOut || before?.[1] !== wide) first.value = Math.max(0, at - (isOut && options.plays() ? 0.1 : 0.5) * wide)
      first.value = Math.min(first.value, rest)
    },
    { immediate: true },
  )
  /** Another closeness around the playhead. */
  function look(closer: number): void {
    let next = closeness.value + closer
    // What is longer than the clip is the clip.
    while (closer !== 0 && (spans[next] ?? 0) * TICKS > duration.value) next += closer
    closeness.value = Math.min(Math.max(0, next), spans.length - 1)
  }
  const share = (ticks: number) =>
    `${Math.min(100, Math.max(0, (100 * (ticks - first.value)) / Math.max(1, span.value)))}%`
  /** Whether any of a stretch is in sight. */
  const isSeen = (from: number, to = from + 1) => to > first.value && from <= first.value + span.value
  const said = computed(() => {
    if (closeness.value === 0) return t('player.useStretch.allOfIt')
    return span.value >= TICKS
      ? length(span.value)
      : t('player.useStretch.ms', [Math.round((span.value / TICKS) * 1000)])
  })
  return {
    first,
    span,
    share,
    isSeen,
    said,
    look,
    isWidest: computed(() => closeness.value === 0),
    isClosest: computed(() => closeness.value === spans.length - 1),
  }
}
