// Whatever is connected to a sound device goes through two meters on its way, and its samples are kept for a while.
window.taps = []
const connect = AudioNode.prototype.connect
AudioNode.prototype.connect = function (to, ...more) {
  if (to === this.context.destination && !(this instanceof AnalyserNode)) {
    const split = this.context.createChannelSplitter(2)
    const meters = [0, 1].map(() => this.context.createAnalyser())
    connect.call(this, split)
    meters.forEach((meter, ear) => {
      meter.fftSize = 8192
      connect.call(split, meter, ear)
    })
    window.taps.push({ context: this.context, node: this, meters })
  }
  return connect.call(this, to, ...more)
}
const most = [0, 0]
const listen = () => {
  const data = new Float32Array(8192)
  for (const { meters } of window.taps)
    meters.forEach((meter, ear) => {
      meter.getFloatTimeDomainData(data)
      for (const one of data) most[ear] = Math.max(most[ear], Math.abs(one))
    })
}
setInterval(listen, 60)
window.ears = () => {
  listen()
  return most.splice(0, 2, 0, 0)
}
/** Seconds that the devices have played: they stand still where the machine has no time for them. */
window.deviceTime = () => Math.min(...window.taps.map(({ context }) => context.currentTime))
// What is laid, and when: the samples of each piece from its start by the device's clock.
window.laid = []
const start = AudioBufferSourceNode.prototype.start
AudioBufferSourceNode.prototype.start = function (at, ...more) {
  window.laid.push({ context: this.context, at, rate: this.playbackRate.value, samples: this.buffer.getChannelData(0) })
  return start.call(this, at, ...more)
}
