// What a window of a screening shows, with each picture of the display: `window.seen` fills with the moment, the number and where the
// window says that it is. Comes after numbers.js.
window.numberSeen = () => window.numberIn('.screens canvas')
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
