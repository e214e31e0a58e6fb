const room = () => document.querySelector('.room')
const TICKS = 705600000
/** The first pictures of a take. */
const begins = (item) => () => Number(room().dataset.item) === item && numberSeen() !== null && numberSeen() < 6
const stop = async () => {
  key('k')
  await wait(150)
}
let seed = 11
const random = () => ((seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648)

if (what === 'next') {
  await stop()
  const times = []
  for (let n = 0; n < given.count; n++) {
    const item = Number(room().dataset.item)
    // Wherever in the take the hand is.
    for (let step = 0; step < 1 + Math.floor(random() * 4); step++) key('.')
    await wait(120 + 300 * random())
    key("'")
    times.push(await until(begins(item + 1)))
  }
  done({ times })
} else if (what === 'slate') {
  await stop()
  const times = []
  for (let n = 0; n < given.count; n++) {
    const item = Math.floor(random() * given.takes)
    if (item === Number(room().dataset.item)) continue
    key('g')
    await until(() => document.querySelector('.ask input') !== null)
    const box = document.querySelector('.ask input')
    box.value = `${1 + Math.floor(item / 5)}/${1 + (item % 5)}`
    box.dispatchEvent(new Event('input'))
    await wait(120)
    const form = box.form
    const begin = performance.now()
    form.requestSubmit()
    await until(begins(item))
    times.push(performance.now() - begin)
  }
  done({ times })
} else if (what === 'keys') {
  key('g')
  await until(() => document.querySelector('.ask input') !== null)
  const box = document.querySelector('.ask input')
  box.value = '3/1'
  box.dispatchEvent(new Event('input'))
  box.form.requestSubmit()
  await until(begins(10))
  await wait(300)
  const before = Number(room().dataset.at)
  const began = performance.now()
  for (let n = 0; n < given.count; n++) {
    key('.')
    await wait(Math.max(0, began + 100 * (n + 1) - performance.now()))
  }
  await wait(300)
  done({ moved: Math.round(((Number(room().dataset.at) - before) * 25) / TICKS) })
} else if (what === 'play') {
  key('g')
  await until(() => document.querySelector('.ask input') !== null)
  const box = document.querySelector('.ask input')
  box.value = '1/1'
  box.dispatchEvent(new Event('input'))
  box.form.requestSubmit()
  await until(begins(0))
  window.heard = []
  let lit = false
  const look = () => {
    const canvas = document.querySelector('.screens canvas')
    const bright = canvas.getContext('2d').getImageData(8, 8, 1, 1).data[0] > 120
    // The device's clock is asked as near to it as can be: it may stand still for a moment on a busy machine.
    if (bright && !lit) {
      const now = performance.now() / 1000
      const beep = window.beeps(40).findLast((one) => Math.abs(one - now) < 1)
      if (beep !== undefined) window.heard.push(beep)
    }
    lit = bright
    // At its end the reel goes on from its start.
    if (document.querySelector('.room .card') !== null && room().dataset.playing === 'false') key(' ')
    requestAnimationFrame(look)
  }
  requestAnimationFrame(look)
  window.laid.length = 0
  if (room().dataset.playing !== 'true') key(' ')
  await until(() => room().dataset.playing === 'true' && Number(room().dataset.at) > TICKS)
  done({})
} else if (what === 'since') {
  // Each picture that came up around a beep: when, seconds since 1970, and how much later than its sound, which the beep says to the sample.
  const late = []
  const start = performance.timeOrigin / 1000
  for (const beep of (window.heard ?? []).splice(0))
    window.seen.forEach(([moment, number], at) => {
      const now = moment / 1000 - start
      const before = window.seen[at - 1]?.[1] ?? null
      if (number === null || before === null || number === before || Math.abs(now - beep) > given.around) return
      if (Math.abs(number - given.flash) <= 25 * given.around) late.push([moment / 1000, now - beep - (number - given.flash) / 25])
    })
  // The frame of the reel that each picture was, by its number and the place that the window says.
  const seen = window.seen.splice(0).flatMap(([moment, number, at]) => {
    if (number === null) return []
    const said = Math.floor((at * 25) / TICKS)
    let item = Math.floor(said / given.frames)
    const within = said % given.frames
    if (number > given.frames - 25 && within < 25) item--
    if (number < 25 && within > given.frames - 25) item++
    return [[moment, item * given.frames + number]]
  })
  done({ seen, late })
}
