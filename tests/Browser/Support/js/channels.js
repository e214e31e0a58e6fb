// A recorder file that beeps on one channel and hums on the other: how loud each is by itself, at several speeds.
const playlist = engine.fromAnswer(
  await (await fetch(`/api/productions/${given.production}/clips/${given.clip}/playlist`)).json(),
)
const { player } = made([], { ...playlist, pictures: [] })
const only = (...channels) => [{ ...playlist.sounds[0], channels: channels.map((index) => ({ index, gainDb: 0 })) }]
const answer = {}
const heard = async (sounds, speed, from) => {
  player.setSounds(sounds)
  player.transport.goExactly(from * TICKS)
  const before = window.taps.length > 0 ? window.deviceTime() : 0
  player.transport.run(speed)
  await until(() => Math.abs(player.transport.position() / TICKS - from) > Math.max(0.4, 0.3 * Math.abs(speed)))
  // The meters look back over 0.17 s of the device: until it has played on by more, they hear what was before.
  await until(() => window.taps.length > 0 && window.deviceTime() > before + 0.3)
  window.ears()
  // Over a beep, and what the device still holds of it.
  await until(() => Math.abs(player.transport.position() / TICKS - from) > Math.max(1.6, 1.2 * Math.abs(speed)))
  const most = Math.max(...window.ears())
  player.transport.stop()
  return most
}
await heard(only(1), 1, 10)
for (const [name, speed, from] of [['1', 1, 11], ['2x', 2, 10.5], ['-1x', -1, 13]]) {
  answer[`beep ${name}`] = await heard(only(1), speed, from)
  answer[`hum ${name}`] = await heard(only(2), speed, from)
}
answer.none = await heard([], 1, 11)
answer['8x'] = await heard(only(1, 2), 8, 4)
player.setSounds(only(2))
player.goTo(20 * TICKS)
window.ears()
player.step(1)
let most = 0
await until(() => (most = Math.max(most, ...window.ears())) > 0.02, 5)
answer.scrub = most
player.close()
done(answer)
