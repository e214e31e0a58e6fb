import { computed, shallowRef, watch } from 'vue'
import { bins } from '@/api/endpoints/bins'
import { setAnswer } from '@/api/queries'
import type { ClipSheet } from '@/api/types'
import { attempt } from '@/shell/say'

export interface Marks {
  in_ticks: number | null
  out_ticks: number | null
}

/** Milliseconds for which an answer can be on its way that knows nothing of what was set last. */
const IN_FLIGHT = 1500

/**
 * A person's in and out on a clip. What was set here stands until the server says the same: two keys in a row are
 * faster than its answer to the first, which knows nothing of the second.
 */
export function useMarks(production: () => string, sheet: () => ClipSheet | undefined) {
  const own = shallowRef<{ clip: string; marks: Marks } | null>(null)
  let sending: Promise<unknown> = Promise.resolve()
  let open = 0
  let answeredAt = 0
  const same = (a: Marks, b: Marks) => a.in_ticks === b.in_ticks && a.out_ticks === b.out_ticks
  const marks = computed<Marks>(() => {
    const now = sheet()
    return own.value !== null && own.value.clip === now?.ulid
      ? own.value.marks
      : (now?.marks ?? { in_ticks: null, out_ticks: null })
  })
  watch(sheet, (now) => {
    if (open > 0 || own.value === null) return
    // What came so long after the last answer was asked for after it, and is the server's own word.
    const isLate = performance.now() - answeredAt > IN_FLIGHT
    if (isLate || now === undefined || now.ulid !== own.value.clip || same(now.marks, own.value.marks)) own.value = null
  })

  async function set(next: Marks): Promise<void> {
    const now = sheet()
    if (now === undefined) return
    own.value = { clip: now.ulid, marks: next }
    setAnswer(bins.clip(production(), now.ulid), { ...now, marks: next })
    open++
    // One after the other, so that the last one set is the last one kept.
    const turn = sending.then(() => attempt(() => bins.setMarks(production(), now.ulid, next)))
    sending = turn
    const kept = await turn
    open--
    // What was refused is not there; the page shows what is.
    if (kept === undefined) own.value = null
    answeredAt = performance.now()
  }
  return { marks, set }
}
