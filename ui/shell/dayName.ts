import { locale } from '@/words/language'
/** A shoot day's date as its tab says it: Mon 5 Oct. */
export const dayName = (day: { date: string }): string =>
  new Date(day.date + 'T12:00:00').toLocaleDateString(locale, { weekday: 'short', day: 'numeric', month: 'short' })
