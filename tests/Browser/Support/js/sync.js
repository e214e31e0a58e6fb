// Minutes of flashes and beeps, of which each is measured as it comes out: the flash when it is drawn, the beep at the device. Then
// fifty seeks, each to just before a flash, and the next beep under it.
const answer = await (await fetch(`/api/productions/${given.production}/clips/${given.clip}/playlist`)).json()
const minute = 60 * TICKS
/** The card lasts a little more than a minute: so many of them, one after the other. */
const again = (pieces) =>
  Array.from({ length: Math.ceil(given.seconds / 60) }, (_, n) =>
    pieces.map((one) => ({ ...one, at: one.at + n * minute, length: Math.min(one.length, minute - one.at) })),
  ).flat()
const card = engine.fromAnswer(answer)
const playlist = { ...card, pictures: again(card.pictures), sounds: again(card.sounds), length: Math.ceil(given.seconds / 60) * minute }
const { player, screen, canvas } = made(playlist.pictures, playlist)
player.setSounds(playlist.sounds)
// Where the recorder's clicks lie on the playlist's clock, by the samples themselves.
const tape = new engine.Tape()
const clicks = []
for (const at of [5, 25, 45, 60]) {
  const heard = await engine.mix(card.sounds, (at - 0.5) * 48000, 48000, (sound, channel, from, count) =>
    tape.read(around.channel(sound, channel), from, count))
  const first = heard.left.findIndex((one) => Math.abs(one) > 0.05)
  clicks.push({ flash: at, beep: at - 0.5 + first / 48000 })
}
/** When each beep of what was laid is heard, by the wall. */
const heardBeeps = () => {
  const beeps = []
  // The last seconds will do; ten minutes of samples would be looked through for each flash.
  window.laid.splice(0, Math.max(0, window.laid.length - 40))
  let quiet = Infinity
  for (const { context, at, rate, samples } of window.laid) {
    const stamp = context.getOutputTimestamp()
    for (let i = 0; i < samples.length; i++) {
      if (Math.abs(samples[i]) > 0.05) {
        if (quiet > 9600) beeps.push(at + i / 48000 / rate - stamp.contextTime + stamp.performanceTime / 1000)
        quiet = 0
      } else quiet++
    }
  }
  return beeps
}
window.laid.length = 0
player.transport.run(1)
const flashes = []
const late = []
let lit = true
const look = () => {
  if (screen.canvas === null) return
  const pen = screen.canvas.getContext('2d')
  const bright = pen.getImageData(8, 8, 1, 1).data[0] > 120
  // The device's clock is asked as near to it as can be: it may stand still for a moment on a busy machine.
  if (bright && !lit) {
    const now = performance.now() / 1000
    flashes.push(now)
    const beep = heardBeeps().findLast((one) => Math.abs(one - now) < 1)
    if (beep !== undefined) late.push(beep - now)
  }
  lit = bright
}
player.onChange(look)
await until(() => player.transport.position() > (given.seconds - 1) * TICKS, given.seconds + 30)
const played = [...late]
const seeks = []
for (let n = 0; n < given.seeks; n++) {
  const target = (5 * (1 + (n % 11)) - 0.6) * TICKS
  player.transport.goTo(target)
  await until(() => Math.abs((screen.seenTicks() ?? 0) - target) < TICKS / 20)
  lit = false
  late.length = flashes.length = window.laid.length = 0
  player.transport.run(1)
  // Two frames are gone in a moment: one that the machine had no time to draw is none that came late, and counts as not seen.
  await until(() => flashes.length > 0 || player.transport.position() > target + 1.2 * TICKS, 8)
  if (late.length > 0) seeks.push(late[0])
}
player.close()
done({ clicks, played, seeks, flashes: flashes.length, counts: screen.counts })
