const key = (name, more = {}) => {
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true, ...more }))
  document.body.dispatchEvent(new KeyboardEvent('keyup', { key: name, bubbles: true, cancelable: true, ...more }))
}
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms))
const picture = () => new Promise((resolve) => requestAnimationFrame(resolve))
/** Until something is so, looked at with each picture of the display; milliseconds that it took, and one picture more. */
const until = (question, limit = 10000) =>
  new Promise((resolve, reject) => {
    const begin = performance.now()
    const look = () => {
      if (question()) requestAnimationFrame(() => resolve(performance.now() - begin))
      else if (performance.now() - begin > limit) reject(new Error(`not so: ${question}`))
      else requestAnimationFrame(look)
    }
    look()
  })
if (what === 'floor') {
  const times = []
  let last = performance.now()
  for (let n = 0; n < 60; n++) {
    await picture()
    times.push(performance.now() - last)
    last = performance.now()
  }
  done({ picture: times.sort((a, b) => a - b)[30] })
  return
}
