import { reactive } from 'vue'

/** Milliseconds between looks whether the desk answers again, for one look, and for as long as changes wait for it. */
const LOOK = 2000
const LOOK_FOR = 5000
const LONGEST = 15 * 60_000

/** Whether the desk answers, and how many changes wait until it does. */
export const reach = reactive({ isLost: false, waiting: 0 })

/** Called when it answers again. */
const whenBack = new Set<() => void>()
export const onBack = (hear: () => void): void => void whenBack.add(hear)

let back: Promise<void> | null = null
let letGo: () => void = () => {}

/** Health is another question: a desk with a full disk answers, and what waits is to be sent. */
async function answers(): Promise<boolean> {
  try {
    const answer = await fetch('/api/session', { cache: 'no-store', signal: AbortSignal.timeout(LOOK_FOR) })
    return answer.status < 500
  } catch {
    return false
  }
}

/** The desk did not answer: it is looked for until it does. */
export function lost(): Promise<void> {
  back ??= (async () => {
    reach.isLost = true
    for (;;) {
      await new Promise((done) => setTimeout(done, LOOK))
      if (await answers()) break
    }
    reach.isLost = false
    back = null
    for (const hear of whenBack) hear()
  })()
  return back
}

/** Something hints that the line is dead, which is no proof: the desk may run on this very machine. */
export async function lookForIt(): Promise<void> {
  if (back === null && !(await answers())) void lost()
}

/**
 * Waits with a change until the desk answers again.
 *
 * @returns false when it was waited for too long, or is not to be sent any more
 */
export async function waitForIt(): Promise<boolean> {
  reach.waiting++
  let timer: ReturnType<typeof setTimeout> | undefined
  const given = new Promise<false>((done) => {
    const before = letGo
    letGo = () => {
      before()
      done(false)
    }
    timer = setTimeout(() => done(false), LONGEST)
  })
  const isBack = await Promise.race([lost().then(() => true as const), given])
  clearTimeout(timer)
  reach.waiting--
  if (reach.waiting === 0) letGo = () => {}
  return isBack
}

/** Changes that wait are not sent any more; who asked for them hears that the desk cannot be reached. */
export function forget(): void {
  letGo()
  letGo = () => {}
}
