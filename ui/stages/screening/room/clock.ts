import { guest } from '@/api/endpoints/guest'

/** How often the clocks are compared at first; the quickest answer counts. */
const ASKS = 5

/**
 * The server's clock less this machine's, milliseconds: asked a few times, and half of the way there and back taken.
 */
export async function serverApart(ask: () => Promise<{ now_ms: number }> = guest.clock): Promise<number> {
  let best = { apart: 0, took: Infinity }
  for (let n = 0; n < ASKS; n++) {
    const sent = Date.now()
    const began = performance.now()
    const { now_ms } = await ask()
    const took = performance.now() - began
    if (took < best.took) best = { apart: now_ms - (sent + took / 2), took }
  }
  return best.apart
}
