import type { DaySheet } from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** The day sheet. */
const sheetOf = question<DaySheet, { day: string }>('sheet', ({ day }) => `days/${day}/sheet`)

export const day = {
  sheet: (production: string, day: string) => sheetOf(production, { day }),
  fix: (production: string, day: string, body: unknown) =>
    api.post<DaySheet>(below(production, `days/${day}/points`), body),
}
