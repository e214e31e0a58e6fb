// Fifty cuts between clips of several rates, and within one clip: stepped through forward and back, then played.
const pieces = []
let at = 0
const expected = []
for (let n = 0; n < 51; n++) {
  const clip = given.clips[n % 7 === 3 ? 0 : n % given.clips.length]
  const from = (n * 37) % 200
  const frames = 2 + (n % 3)
  pieces.push(picture(clip, at, frames * frameTicks(clip), from * frameTicks(clip)))
  for (let f = 0; f < frames; f++) expected.push(from + f)
  at += frames * frameTicks(clip)
}
const { player, screen, canvas, playlist } = made(pieces)
const shown = async () => {
  const now = player.transport.position()
  await until(() => {
    const piece = engine.pieceAt(playlist.pictures, now)
    return screen.seen?.piece === piece && screen.seen.frame === engine.frameAt(piece, now)
  })
  return read(canvas)
}
const forward = []
for (let n = 0; n < expected.length; n++) {
  forward.push(await shown())
  player.transport.step(1)
}
const backward = []
for (let n = 0; n < expected.length; n++) {
  backward.push(await shown())
  player.transport.step(-1)
}
player.transport.goTo(0)
await shown()
const played = []
player.transport.run(1)
await until(() => {
  const seen = screen.seen
  if (seen !== null) {
    const place = `${playlist.pictures.indexOf(seen.piece)}/${seen.frame}`
    if (played.at(-1)?.place !== place) played.push({ place, number: read(canvas), piece: playlist.pictures.indexOf(seen.piece), frame: seen.frame })
  }
  return player.transport.state.kind === 'standing'
}, 60)
player.close()
done({ expected, forward, backward, played })
