const key = (name) => {
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }))
  document.body.dispatchEvent(new KeyboardEvent('keyup', { key: name, bubbles: true, cancelable: true }))
}
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms))
const picture = () => new Promise((resolve) => requestAnimationFrame(resolve))
const strip = document.createElement('canvas')
strip.width = given.bits * 8
strip.height = 9
const pen = strip.getContext('2d', { willReadFrequently: true })
/** The numbers that some canvases carry, read at once; null for one that shows nothing yet. */
const numbers = (canvases) => {
  canvases.forEach((one, row) => {
    if (one.width > 1) pen.drawImage(one, 0, one.height / 2, one.width, 1, 0, row, strip.width, 1)
  })
  const { data } = pen.getImageData(0, 0, strip.width, canvases.length)
  return canvases.map((one, row) => {
    if (one.width < 2) return null
    let number = 0
    for (let bit = 0; bit < given.bits; bit++)
      if (data[4 * (row * strip.width + bit * 8 + 4) + 1] > 127) number += 2 ** bit
    return number
  })
}
const tiles = [...document.querySelectorAll('.wall .tile canvas')]

if (what === 'floor') {
  const times = []
  let last = performance.now()
  for (let n = 0; n < 60; n++) {
    await picture()
    times.push(performance.now() - last)
    last = performance.now()
  }
  done({ picture: times.sort((a, b) => a - b)[30] })
} else if (what === 'step') {
  key('Home')
  await wait(1500)
  key(' ')
  await wait(1500)
  const begin = performance.now()
  const moments = []
  const seen = tiles.map(() => new Set())
  while (performance.now() - begin < 1000 * given.seconds) {
    await picture()
    const now = numbers(tiles)
    moments.push(Math.max(...now) - Math.min(...now))
    now.forEach((number, tile) => seen[tile].add(number))
  }
  key('k')
  done({ moments, perSecond: seen.map((one) => (1000 * one.size) / (performance.now() - begin)) })
} else if (what === 'live') {
  key('Home')
  await wait(1500)
  key(' ')
  const begin = performance.now()
  const pressed = []
  for (let n = 0; n < given.cuts; n++) {
    await wait(Math.max(0, begin + 700 + (n * 1000 * (given.seconds - 2)) / given.cuts - performance.now()))
    const [seen] = numbers([tiles[0]])
    key(String(1 + ((n * 4) % 9)))
    pressed.push([n, seen])
  }
  await wait(1500)
  key('k')
  for (let n = 0; n < 200 && document.querySelector('.wall').dataset.pending !== '0'; n++) await wait(50)
  done({ pressed })
} else if (what === 'played') {
  const canvas = document.querySelector('.cut .screen canvas')
  key('Home')
  await wait(1500)
  key(' ')
  await wait(800)
  const seen = new Map()
  const order = []
  const begin = performance.now()
  while (performance.now() - begin < 1000 * given.seconds - 2000) {
    await picture()
    const [now] = numbers([canvas])
    if (order.at(-1) !== now) order.push(now)
    seen.set(now, (seen.get(now) ?? 0) + 1)
  }
  key('k')
  let missing = 0
  let again = 0
  for (let n = 1; n < order.length; n++) {
    if (order[n] > order[n - 1]) missing += order[n] - order[n - 1] - 1
    else again++
  }
  done({ seen: order.length, missing, again })
}
