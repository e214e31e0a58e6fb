import { createI18n } from 'vue-i18n'
import { language, locale } from './language'

/** What the interface says, in the language of this page: a folder for each beside this, with a file for each part. */
const { default: messages } = await (language === 'it' ? import('./it') : import('./en'))

const i18n = createI18n({
  legacy: false,
  locale: language,
  messages: { [language]: messages },
  missingWarn: false,
  fallbackWarn: false,
})

/**
 * A sentence or word, by its name: the file it stands in, then its own.
 *
 * @param values what stands in its places `{0}`, `{1}`
 */
export const t = (name: string, values: unknown[] = []): string => i18n.global.t(name, values)

/** A number of something, `1 clip`, `12 clips`; what can be counted stands in `counted.json`. */
export const counted = (count: number, what: string): string =>
  i18n.global.t(`counted.${what}`, { n: count }, { plural: count })

/** A word that the desk sends, such as a role or a colour, as the page says it; an unknown one stays. */
export function valueWord(value: string): string {
  const name = `values.${value.replaceAll(/\W+/g, '_')}`
  return i18n.global.te(name) ? i18n.global.t(name) : value
}

/** A number with its decimals, as the language writes it. */
export const decimal = (value: number, digits: number): string =>
  value.toLocaleString(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits, useGrouping: false })
