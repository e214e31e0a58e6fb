import { useStorage } from '@vueuse/core'
import type { LookValues } from '@/api/types'

/** Whether looks are shown, in every player of this computer; one key turns them off and on. */
export const looksShown = useStorage('cartella.looks-shown', true)

/** Rec. 709 luma, as ASC CDL weighs saturation. */
const LUMA = [0.2126, 0.7152, 0.0722] as const

/** Rows of a colour matrix that keeps the luma and takes that much of the colour. */
export function saturationMatrix(saturation: number): string {
  return [0, 1, 2]
    .map((row) =>
      [...[0, 1, 2].map((column) => LUMA[column]! * (1 - saturation) + (row === column ? saturation : 0)), 0, 0]
        .map((value) => Number(value.toFixed(6)))
        .join(' '),
    )
    .concat('0 0 0 1 0')
    .join(' ')
}

export const isPlain = (look: LookValues): boolean =>
  look.saturation === 1 &&
  look.slope.every((value) => value === 1) &&
  look.offset.every((value) => value === 0) &&
  look.power.every((value) => value === 1)

/** What a few simple controls do to a look: brighter all over, darker parts lifted, middle tones, colour. */
export interface SimpleLook {
  light: number
  shadows: number
  middle: number
  warmth: number
  colour: number
}

/** Light in stops, shadows -1 to 1, middle tones -1 to 1, warmth -1 to 1, colour 0 to 2. */
export function fromSimple(simple: SimpleLook): LookValues {
  const slope = 2 ** simple.light
  const round = (value: number) => Math.round(value * 10_000) / 10_000
  return {
    slope: [round(slope * (1 + 0.15 * simple.warmth)), round(slope), round(slope * (1 - 0.15 * simple.warmth))],
    offset: [round(0.15 * simple.shadows), round(0.15 * simple.shadows), round(0.15 * simple.shadows)],
    power: [round(2 ** -simple.middle), round(2 ** -simple.middle), round(2 ** -simple.middle)],
    saturation: round(simple.colour),
  }
}

/**
 * The controls that stand for a look, as far as they can: what they leave out is the difference between the channels.
 */
export function toSimple(look: LookValues): SimpleLook {
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length
  const light = Math.log2(Math.max(0.01, look.slope[1]))
  return {
    light,
    shadows: Math.max(-1, Math.min(1, mean(look.offset) / 0.15)),
    middle: Math.max(-1, Math.min(1, -Math.log2(Math.max(0.01, mean(look.power))))),
    warmth: Math.max(-1, Math.min(1, (look.slope[0] - look.slope[2]) / (0.3 * Math.max(0.01, look.slope[1])))),
    colour: look.saturation,
  }
}
