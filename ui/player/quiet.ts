/** Seconds of one look at how loud it is. */
const LOOK = 0.01
/** Pauses inside speech that are shorter belong to it. */
const PAUSE = 0.18
/** Left before and behind what is heard, so that no breath of it is cut. */
const EDGE = 0.02
/** Above the quiet of the place by so much it is sound: 10 dB. */
const ABOVE = 3.16
/** Below it is silence whatever the quiet of the place, of full level 1. */
const SILENCE = 0.0015

/**
 * Where the sound around a place begins and ends: from quiet to quiet, pauses within speech left in it. In a pause it
 * is what comes next, else what was before.
 *
 * @param samples of one channel, at any rate
 * @param rate samples a second
 * @param at the place, in samples
 * @returns samples, the end exclusive; null where nothing is heard
 */
export function soundAround(samples: Float32Array, rate: number, at: number): { from: number; to: number } | null {
  const size = Math.max(1, Math.round(LOOK * rate))
  const looks = Math.floor(samples.length / size)
  if (looks === 0) return null
  const level = new Float32Array(looks)
  for (let look = 0; look < looks; look++) {
    let sum = 0
    for (let n = look * size; n < (look + 1) * size; n++) sum += samples[n]! * samples[n]!
    level[look] = Math.sqrt(sum / size)
  }
  const quiet = [...level].sort((a, b) => a - b)[Math.floor(looks * 0.2)]!
  const limit = Math.max(SILENCE, quiet * ABOVE)
  const pause = Math.round(PAUSE / LOOK)
  const runs: { from: number; to: number }[] = []
  for (let look = 0; look < looks; look++) {
    if (level[look]! < limit) continue
    const last = runs.at(-1)
    if (last !== undefined && look - last.to <= pause) last.to = look + 1
    else runs.push({ from: look, to: look + 1 })
  }
  const here = at / size
  const run = runs.find((one) => here < one.to) ?? runs.at(-1)
  if (run === undefined) return null
  const edge = Math.round(EDGE * rate)
  return {
    from: Math.max(0, run.from * size - edge),
    to: Math.min(samples.length, run.to * size + edge),
  }
}
