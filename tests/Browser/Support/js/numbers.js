// Reads the numbers that pictures carry as columns: `window.numbersIn(canvases)`, `window.numberIn(selector)`; where places are named, what
// they showed when each digit went down, too.
const [bits, place] = arguments
const strip = document.createElement('canvas')
strip.width = bits * 8
strip.height = 16
const pen = strip.getContext('2d', { willReadFrequently: true })
/** Read at once; null for a canvas that shows nothing yet. */
window.numbersIn = (canvases) => {
  canvases.forEach((one, row) => {
    if (one !== null && one.width > 1) pen.drawImage(one, 0, one.height / 2, one.width, 1, 0, row, strip.width, 1)
  })
  const { data } = pen.getImageData(0, 0, strip.width, canvases.length)
  return canvases.map((one, row) => {
    if (one === null || one.width < 2) return null
    let number = 0
    for (let bit = 0; bit < bits; bit++)
      if (data[4 * (row * strip.width + bit * 8 + 4) + 1] > 127) number += 2 ** bit
    return number
  })
}
window.numberIn = (selector) => window.numbersIn([document.querySelector(selector)])[0]
window.digits = []
window.addEventListener(
  'keydown',
  (event) =>
    place !== undefined &&
    /^\d$/.test(event.key) &&
    window.digits.push([event.key, window.numbersIn([...document.querySelectorAll(place)])]),
  true,
)
/** What one place shows from now on, seconds of the page and the number; each once. */
window.watchNumbers = (selector) => {
  const seen = []
  let on = true
  const follow = () => {
    const number = window.numberIn(selector)
    if (number !== seen.at(-1)?.[1]) seen.push([performance.now() / 1000, number])
    if (on) requestAnimationFrame(follow)
  }
  follow()
  return () => ((on = false), seen)
}
/** When each beep of what was laid last is heard, seconds of the page; the device is tapped (tap.js). */
window.beeps = (pieces = Infinity) => {
  const found = []
  window.laid.splice(0, Math.max(0, window.laid.length - pieces))
  let quiet = Infinity
  for (const { context, at, rate, samples } of window.laid) {
    const stamp = context.getOutputTimestamp()
    for (let i = 0; i < samples.length; i++) {
      if (Math.abs(samples[i]) > 0.05) {
        if (quiet > 9600) found.push(at + i / 48000 / rate - stamp.contextTime + stamp.performanceTime / 1000)
        quiet = 0
      } else quiet++
    }
  }
  return found
}
