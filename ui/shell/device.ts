import { reactive } from 'vue'

/**
 * A device's colour and pattern: those of the first letters are fixed, any other letter or word takes one of the rest.
 */
export type Tone = 'A' | 'B' | 'C' | 'D' | 'S' | 'E' | 'F' | 'G' | 'H' | 'I' | 'J' | 'K'

/** The colour of a waveform in each tone, lighter than the tab so that what lies over it is read. */
const WAVES: Record<Tone, string> = {
  A: '#d9b05e',
  B: '#7db6b1',
  C: '#b49ac0',
  D: '#a9b675',
  S: '#8a9fc4',
  E: '#cf9d86',
  F: '#86b892',
  G: '#c9a9a0',
  H: '#a3a6d2',
  I: '#d69cb2',
  J: '#86b7c9',
  K: '#b5a58e',
}
const REST: Tone[] = ['E', 'F', 'G', 'H', 'I', 'J', 'K']

/** In the order in which a person chooses among them. */
export const TONES = Object.keys(WAVES) as Tone[]

/** What people chose for the devices of the open production, by letter. */
const chosen = reactive(new Map<string, Tone>())
export function chooseTones(devices: { letter: string; colour: number | null }[]): void {
  chosen.clear()
  for (const device of devices) {
    const tone = device.colour === null ? undefined : TONES[device.colour]
    if (tone !== undefined) chosen.set(device.letter, tone)
  }
}

/** The tone of a device's letter or word: as somebody chose it, else always the same for the same one. */
export function toneOf(letter: string): Tone {
  const own = chosen.get(letter)
  if (own !== undefined) return own
  if (Object.hasOwn(WAVES, letter)) return letter as Tone
  let sum = 0
  for (const sign of letter) sum = (sum * 31 + (sign.codePointAt(0) ?? 0)) % 9973
  return REST[sum % REST.length]!
}

export const deviceColour = (letter: string): string => `var(--dev-${toneOf(letter)})`
export const waveColour = (letter: string): string => WAVES[toneOf(letter)]
