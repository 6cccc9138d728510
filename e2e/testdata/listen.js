/* Put into the page before it starts: everything that goes to the loudspeaker passes a recorder. */
;(() => {
  const Real = window.AudioContext
  const ear = (window.ear = { seen: [] })
  window.AudioContext = class extends Real {
    constructor(options) {
      super(options)
      ear.context = this
      ear.ready = this.audioWorklet.addModule('/test/recorder.js')
    }
  }
  const connect = AudioNode.prototype.connect
  AudioNode.prototype.connect = function (to, ...rest) {
    if (to === ear.context?.destination && !ear.node) {
      ear.wait = ear.ready.then(() => {
        ear.node = new AudioWorkletNode(ear.context, 'recorder', { outputChannelCount: [2] })
        connect.call(this, ear.node)
        connect.call(ear.node, ear.context.destination)
      })
      return to
    }
    return connect.call(this, to, ...rest)
  }
  ear.take = () =>
    new Promise((done) => {
      ear.node.port.onmessage = ({ data }) => done((ear.record = data))
      ear.node.port.postMessage('take')
    })
  ear.seconds = () =>
    new Promise((done) => {
      ear.node.port.onmessage = ({ data }) => done(data / ear.context.sampleRate)
      ear.node.port.postMessage('length')
    })
  ear.clear = () => ear.node.port.postMessage('clear')
  ear.rms = (from = 0, to = Infinity) => {
    const s = ear.record.samples.subarray(from, to)
    return Math.sqrt(s.reduce((a, x) => a + x * x, 0) / s.length)
  }
  /** Frames at which something sharp begins, at least a tenth of a second apart. */
  ear.onsets = (threshold) => {
    const { samples, start } = ear.record
    const out = []
    for (let i = 0; i < samples.length; i++)
      if (Math.abs(samples[i]) > threshold && (!out.length || start + i - out.at(-1) > ear.context.sampleRate / 10))
        out.push(start + i)
    return out
  }
  /** Notes when the beat shown changes, in seconds of what is heard. */
  ear.watch = () => {
    let last
    const look = () => {
      const now = document.querySelector('.strip [data-beat]')?.dataset.beat
      if (now !== last) {
        last = now
        const stamp = ear.context.getOutputTimestamp()
        // What is drawn now is seen when the frame is shown.
        if (now) ear.seen.push({ beat: Number(now), at: stamp.contextTime + (performance.now() - stamp.performanceTime) / 1000 })
      }
      requestAnimationFrame(look)
    }
    look()
  }
})()
