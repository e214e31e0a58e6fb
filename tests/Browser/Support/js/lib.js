const address = (clip, what) => `/api/productions/${given.production}/clips/${clip}/media/${what}`
const around = {
  picture: (piece, rendition) => address(piece.clip, rendition),
  channel: (sound, channel) => address(sound.clip, `channel-${channel}`),
}
const TICKS = 705600000
/** The number that a picture carries. */
const read = (canvas) => {
  const strip = document.createElement('canvas')
  strip.width = 480
  strip.height = 4
  const pen = strip.getContext('2d', { willReadFrequently: true })
  pen.drawImage(canvas, 0, canvas.height / 2, canvas.width, 4, 0, 0, 480, 4)
  let number = 0
  for (let bit = 0; bit < given.bits; bit++)
    if (pen.getImageData(Math.floor((480 * (bit + 0.5)) / given.bits), 2, 1, 1).data[1] > 127) number += 2 ** bit
  return number
}
const picture = (clip, at, length, from) => ({
  clip: clip.ulid, at, length, from, rate: clip.rate, frames: clip.frames, start: null, version: '', look: null, name: '', take: null,
})
const frameTicks = (clip) => (TICKS * clip.rate.den) / clip.rate.num
const made = (pictures, more = {}) => {
  const length = Math.max(0, ...pictures.map((one) => one.at + one.length))
  const playlist = { rate: pictures[0]?.rate, start: 0, length, pictures, sounds: [], own: [], recordings: [], ...more }
  const player = new engine.Player(around)
  const canvas = document.createElement('canvas')
  const screen = player.addScreen(pictures)
  screen.attach(canvas)
  player.load(playlist)
  return { player, screen, canvas, playlist }
}
/** Until something is so, looked at with each picture of the display. */
const until = (question, seconds = 20) =>
  new Promise((resolve, reject) => {
    const end = performance.now() + seconds * 1000
    const look = () => {
      const answer = question()
      if (answer) resolve(answer)
      else if (performance.now() > end) reject(new Error(`not so: ${question}`))
      else requestAnimationFrame(look)
    }
    look()
  })
