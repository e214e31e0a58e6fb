// Reads the numbers that the pictures of an event carry: `window.numberIn(selector)`, and what one place showed when each digit went down.
const [bits, place] = arguments
const strip = document.createElement('canvas')
strip.width = 480
strip.height = 4
const pen = strip.getContext('2d', { willReadFrequently: true })
window.numberIn = (selector) => {
  const canvas = document.querySelector(selector)
  if (canvas === null || canvas.width < 2) return null
  pen.drawImage(canvas, 0, canvas.height / 2, canvas.width, 4, 0, 0, 480, 4)
  let number = 0
  for (let bit = 0; bit < bits; bit++)
    if (pen.getImageData(Math.floor((480 * (bit + 0.5)) / bits), 2, 1, 1).data[1] > 127) number += 2 ** bit
  return number
}
window.digits = []
window.addEventListener(
  'keydown',
  (event) => /^\d$/.test(event.key) && window.digits.push([event.key, window.numberIn(place)]),
  true,
)
/** What one place shows from now on, seconds of the page and the number; each once. */
window.watchNumbers = (selector) => {
  const seen = []
  let on = true
  const look = () => {
    const number = window.numberIn(selector)
    if (number !== seen.at(-1)?.[1]) seen.push([performance.now() / 1000, number])
    if (on) requestAnimationFrame(look)
  }
  look()
  return () => ((on = false), seen)
}
/** When each beep of what was laid since is heard, seconds of the page. */
window.beeps = () => {
  const found = []
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
