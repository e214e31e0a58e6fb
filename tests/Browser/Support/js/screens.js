// Reads the numbers that pictures carry, with each picture of the display: `window.seen` fills with the moment, the number and where the
// window says that it is.
const bits = arguments[0]
const strip = document.createElement('canvas')
strip.width = 480
strip.height = 4
const pen = strip.getContext('2d', { willReadFrequently: true })
window.numberSeen = () => {
  const canvas = document.querySelector('.screens canvas')
  if (canvas === null || canvas.width < 2) return null
  pen.drawImage(canvas, 0, canvas.height / 2, canvas.width, 4, 0, 0, 480, 4)
  let number = 0
  for (let bit = 0; bit < bits; bit++)
    if (pen.getImageData(Math.floor((480 * (bit + 0.5)) / bits), 2, 1, 1).data[1] > 127) number += 2 ** bit
  return number
}
window.seen = []
const look = () => {
  const page = document.querySelector('.room, .house, .guest')
  if (page !== null)
    window.seen.push([performance.timeOrigin + performance.now(), window.numberSeen(), Number(page.dataset.at)])
  if (window.seen.length > 1200) window.seen.splice(0, 600)
  requestAnimationFrame(look)
}
look()
// What was seen when a key went down.
window.addEventListener('keydown', (event) => (window.atKey = { key: event.key, number: window.numberSeen() }), true)
