/* A band as on an old tape: in a room, with the tape's flutter and hiss, a little out of tune. */

/** Seconds that the room rings. */
const rings = 0.7
/** Of the sound, that comes from the room. */
const wet = 0.22
/** Sways a second of a worn tape, and by how many seconds each moves the sound. */
const flutter = [
  { rate: 0.6, depth: 0.0011 },
  { rate: 5.3, depth: 0.00009 },
]

/** A generator of numbers between -1 and 1, the same each time. */
function* noise() {
  for (let seed = 20260919; ;) {
    seed = (seed * 48271) % 2147483647
    yield (seed / 2147483647) * 2 - 1
  }
}

export async function onTape(wav: ArrayBuffer, cents: number): Promise<AudioBuffer> {
  const rate = 44100
  const plain = await new OfflineAudioContext(2, 1, rate).decodeAudioData(wav)
  const speed = 2 ** (cents / 1200)
  const context = new OfflineAudioContext(2, Math.ceil(plain.length / speed + rate), rate)
  const source = new AudioBufferSourceNode(context, { buffer: plain, playbackRate: speed })
  const room = context.createBuffer(2, Math.round(rings * rate), rate)
  const random = noise()
  for (const side of [0, 1]) {
    const data = room.getChannelData(side)
    for (let i = 0; i < data.length; i++) data[i] = random.next().value! * (1 - i / data.length) ** 3
  }
  const delay = new DelayNode(context, { delayTime: 0.01, maxDelayTime: 0.05 })
  for (const { rate, depth } of flutter) {
    const sway = new OscillatorNode(context, { frequency: rate })
    sway.connect(new GainNode(context, { gain: depth })).connect(delay.delayTime)
    sway.start()
  }
  const hall = new ConvolverNode(context, { buffer: room })
  const warm = new BiquadFilterNode(context, { type: 'lowpass', frequency: 9500 })
  source.connect(delay)
  delay.connect(warm)
  delay
    .connect(hall)
    .connect(new GainNode(context, { gain: wet }))
    .connect(warm)
  const hiss = context.createBuffer(1, rate * 2, rate)
  const quiet = hiss.getChannelData(0)
  for (let i = 0; i < quiet.length; i++) quiet[i] = random.next().value! * 0.0012
  const tape = new AudioBufferSourceNode(context, { buffer: hiss, loop: true })
  tape.connect(warm)
  warm.connect(new GainNode(context, { gain: 0.8 })).connect(context.destination)
  source.start(0.35)
  tape.start()
  return context.startRendering()
}
