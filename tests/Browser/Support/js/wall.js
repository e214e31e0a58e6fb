// Nine decks of one clip, each so many frames later than the one before, on one clock.
const clip = given.clips[0]
const frame = frameTicks(clip)
const first = picture(clip, 0, 200 * frame, 0)
const { player, canvas } = made([first])
player.removeScreen(player.screens[0])
const decks = Array.from({ length: 9 }, (_, n) => {
  const screen = player.addScreen([picture(clip, 0, 200 * frame, n * frame)], 'small')
  const canvas = document.createElement('canvas')
  screen.attach(canvas)
  return { screen, canvas, late: n }
})
await until(() => decks.every(({ screen }) => screen.seen !== null))
const moments = []
player.transport.run(1)
let last = -1
await until(() => {
  const now = decks.map(({ canvas, late }) => read(canvas) - late)
  if (now[0] !== last) moments.push(now)
  last = now[0]
  return player.transport.state.kind === 'standing'
}, 60)
const counts = decks.map(({ screen }) => screen.counts)
player.close()
done({ moments, counts })
