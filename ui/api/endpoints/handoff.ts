import type { HandoffState, Handoffs, Made } from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** Packages for the editing team. */
const listOf = question<Handoffs>('handoffs', () => 'handoffs')

export const handoff = {
  list: (production: string) => listOf(production, {}),
  make: (production: string, body: unknown) => api.post<Made>(below(production, 'handoffs'), body),
  answer: (production: string, handoff: string, body: unknown) =>
    api.post<HandoffState>(below(production, `handoffs/${handoff}/answer`), body),
}
