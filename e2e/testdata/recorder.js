/* Keeps what reaches the loudspeaker, with the frame it begins on. */
registerProcessor(
  'recorder',
  class extends AudioWorkletProcessor {
    constructor() {
      super()
      this.chunks = []
      this.start = -1
      this.gaps = 0
      this.port.onmessage = ({ data }) => {
        if (data === 'clear') {
          this.chunks = []
          this.start = -1
          this.gaps = 0
          return
        }
        if (data === 'length') {
          this.port.postMessage(this.chunks.length * 128)
          return
        }
        const all = new Float32Array(this.chunks.length * 128)
        this.chunks.forEach((c, i) => all.set(c, i * 128))
        this.port.postMessage({ start: this.start, gaps: this.gaps, samples: all })
      }
    }
    process([input], [output]) {
      if (this.start < 0) this.start = currentFrame
      else if (currentFrame !== this.start + this.chunks.length * 128) this.gaps++
      const left = input[0] ?? new Float32Array(128)
      this.chunks.push(left.slice())
      output.forEach((c, i) => c.set(input[i] ?? left))
      return true
    }
  },
)
