/** Whose word something of a take is, where no file of notes says it. */
export const SOURCES: Record<string, string> = {
  person: 'A person',
  ixml: 'The recorder',
  name: 'The name',
  carried: 'The take before',
}

/** Of several files of notes each has its own name. */
export const whoSaid = (by: string | null, place: string | null): string =>
  by === 'script'
    ? (place ?? 'A file of notes')
    : place !== null && by !== null && by in SOURCES
      ? `${SOURCES[by]}, ${place}`
      : (SOURCES[by ?? ''] ?? 'The log')
