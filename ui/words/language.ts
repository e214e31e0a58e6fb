/** The languages of the interface, each by its own name. */
export const LANGUAGES = { en: 'English', it: 'Italiano' } as const
export type Language = keyof typeof LANGUAGES

const KEPT = 'cartella.language'
const isLanguage = (value: string | null | undefined): value is Language => value != null && value in LANGUAGES

/** What was chosen on this computer, else the browser's first language if the interface speaks it. */
function chosen(): Language {
  if (typeof localStorage === 'undefined' || typeof navigator === 'undefined') return 'en'
  const kept = localStorage.getItem(KEPT)
  const own = navigator.language.slice(0, 2)
  return isLanguage(kept) ? kept : isLanguage(own) ? own : 'en'
}

/** Fixed while a page is open: words stand in tables that are made once. */
export const language: Language = chosen()

/** How dates, times and numbers are written. */
export const locale = { en: 'en-GB', it: 'it-IT' }[language]

/** Keeps another language and opens the page anew in it. */
export function speak(wanted: Language): void {
  localStorage.setItem(KEPT, wanted)
  location.reload()
}
