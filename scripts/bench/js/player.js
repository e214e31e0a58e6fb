// Measures the engine in a page: what is asked for in `given.what`.
const clips = given.clips
const p95 = (times) => times.sort((a, b) => a - b)[Math.floor(0.95 * times.length)]
const p50 = (times) => times.sort((a, b) => a - b)[Math.floor(0.5 * times.length)]
let seed = given.seed
const random = (below) => {
  seed = (seed * 1103515245 + 12345) % 2147483648
  return seed % below
}
const whole = (clip) => picture(clip, 0, clip.frames * frameTicks(clip), 0)
const seeks = async (player, screen, clip, count) => {
  const times = []
  for (let n = 0; n < count; n++) {
    const frame = random(clip.frames)
    const begin = performance.now()
    player.transport.goTo(frame * frameTicks(clip))
    await until(() => screen.seen?.frame === frame)
    times.push(performance.now() - begin)
  }
  return times
}
const play = async (player, seconds, speed = 1) => {
  const begin = performance.now()
  player.transport.run(speed)
  await until(() => performance.now() - begin > seconds * 1000 || player.transport.state.kind === 'standing', seconds + 60)
  player.transport.stop()
}
const measures = {
  // The browser's own decoder without the engine, one group of pictures after the other: the floor.
  async floor() {
    const frame = frameTicks(clips[0])
    const source = await engine.openVideo(address(clips[0].ulid, 'proxy'), clips[0].rate)
    const times = []
    for (let n = 0; n < 60; n++) {
      const begin = performance.now()
      await source.group(12 * random(100), (_number, shown) => shown.close())
      times.push(performance.now() - begin)
    }
    source.close()
    return { group: p50(times), frame }
  },
  async seeks() {
    const { player, screen } = made([whole(clips[0])])
    await until(() => screen.seen !== null)
    const times = await seeks(player, screen, clips[0], 200)
    player.close()
    return { p50: p50(times), p95: p95(times) }
  },
  async cuts() {
    const pieces = []
    let at = 0
    for (let n = 0; n < 60; n++) {
      const clip = clips[n % clips.length]
      pieces.push(picture(clip, at, 25 * frameTicks(clip), random(1000) * frameTicks(clip)))
      at += 25 * frameTicks(clip)
    }
    const { player, screen, playlist } = made(pieces)
    await until(() => screen.seen !== null)
    const late = []
    let last = 0
    player.transport.run(1)
    const state = player.transport.state
    await until(() => {
      const index = playlist.pictures.indexOf(screen.seen?.piece)
      if (index > last) {
        late.push(performance.now() - (state.since * 1000 + (playlist.pictures[index].at / TICKS) * 1000))
        last = index
      }
      return player.transport.state.kind === 'standing'
    }, 90)
    player.close()
    return { count: late.length, p50: p50(late), p95: p95(late) }
  },
  async reverse() {
    const { player, screen } = made([whole(clips[0])])
    player.transport.goTo(1400 * frameTicks(clips[0]))
    await until(() => screen.seen?.frame === 1400)
    let last = 1400
    let shown = 0
    const begin = performance.now()
    player.transport.run(-1)
    await until(() => {
      if (screen.seen !== null && screen.seen.frame !== last) {
        shown++
        last = screen.seen.frame
      }
      return performance.now() - begin > 10000
    }, 30)
    player.close()
    return { perSecond: shown / ((performance.now() - begin) / 1000) }
  },
  async dropped() {
    const { player, screen } = made([whole(clips[0])])
    await until(() => screen.seen !== null)
    await play(player, 2)
    screen.counts = { shown: 0, dropped: 0 }
    await play(player, given.seconds ?? 50)
    const counts = screen.counts
    player.close()
    return { ...counts, share: counts.dropped / Math.max(1, counts.shown + counts.dropped) }
  },
  async wall() {
    const { player } = made([whole(clips[0])])
    player.removeScreen(player.screens[0])
    const screens = clips.map((clip) => {
      const screen = player.addScreen([whole(clip)], 'small')
      screen.attach(document.createElement('canvas'))
      return screen
    })
    await until(() => screens.every((screen) => screen.seen !== null))
    await play(player, 2)
    for (const screen of screens) screen.counts = { shown: 0, dropped: 0 }
    const begin = performance.now()
    await play(player, 20)
    const seconds = (performance.now() - begin) / 1000
    const least = Math.min(...screens.map((screen) => screen.counts.shown)) / seconds
    player.close()
    return { perSecond: least }
  },
  // Plays nine decks and seeks in them for as long as it is told to; the caller looks at the memory meanwhile.
  async soak() {
    window.soak ??= (() => {
      const { player } = made([whole(clips[0])])
      const screens = clips.slice(1).map((clip) => {
        const screen = player.addScreen([whole(clip)], 'small')
        screen.attach(document.createElement('canvas'))
        return screen
      })
      player.transport.setLoop(true)
      return { player, screens }
    })()
    const { player } = window.soak
    for (let n = 0; n < given.seeks; n++) {
      player.transport.goTo(random(clips[0].frames) * frameTicks(clips[0]))
      await new Promise((resolve) => setTimeout(resolve, 60))
    }
    await play(player, given.seconds)
    return { heap: performance.memory?.usedJSHeapSize ?? 0 }
  },
}
done(await measures[given.what]())
