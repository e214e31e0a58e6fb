import { t } from '@/words'
/** Whose word something of a take is, where no file of notes says it. */
export const SOURCES: Record<string, string> = {
  person: t('shell.said.aPerson'),
  ixml: t('shell.said.theRecorder'),
  name: t('shell.said.theName'),
  carried: t('shell.said.theTakeBefore'),
}

/** Of several files of notes each has its own name. */
export const whoSaid = (by: string | null, place: string | null): string =>
  by === 'script'
    ? (place ?? t('shell.said.aFileOfNotes'))
    : place !== null && by !== null && by in SOURCES
      ? `${SOURCES[by]}, ${place}`
      : (SOURCES[by ?? ''] ?? t('shell.said.theLog'))
