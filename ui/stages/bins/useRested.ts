import { onScopeDispose, type Ref, shallowRef, watch } from 'vue'

/** So long the cursor rests before the panel follows it, milliseconds: less than between two keys of a quick hand. */
const RESTS = 60

/**
 * What the panel beside a list shows: it follows when the cursor rests, and not while a cell is written. A clip that is
 * opened takes the page's time, which the hand on the keys needs more.
 */
export function useRested<T>(wanted: Ref<T>, isHeld: () => boolean): Readonly<Ref<T>> {
  const shown = shallowRef(wanted.value) as Ref<T>
  let timer: ReturnType<typeof setTimeout> | undefined
  watch([wanted, isHeld], ([now, held], before) => {
    clearTimeout(timer)
    if (held || now === shown.value) return
    // The first one that there is to show is shown at once.
    if (shown.value === null || before[0] === null) shown.value = now
    else timer = setTimeout(() => (shown.value = wanted.value), RESTS)
  })
  onScopeDispose(() => clearTimeout(timer))
  return shown
}
