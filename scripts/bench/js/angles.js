const tiles = [...document.querySelectorAll('.wall .tile canvas')]

if (what === 'step') {
  key('Home')
  await wait(1500)
  key(' ')
  await wait(1500)
  const begin = performance.now()
  const moments = []
  const seen = tiles.map(() => new Set())
  while (performance.now() - begin < 1000 * given.seconds) {
    await picture()
    const now = window.numbersIn(tiles)
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
    const [seen] = window.numbersIn([tiles[0]])
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
    const [now] = window.numbersIn([canvas])
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
