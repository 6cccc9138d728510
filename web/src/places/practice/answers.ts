/* Notes that are heard as answers: each once, at the pitch that it proves to have. */

/** Milliseconds that a note which is not asked for is waited on, since its pitch may still be found otherwise. */
export const doubt = 150

export class Answers {
  private readonly answered = new Set<number>()
  private pitches = new Map<number, number>()
  private readonly waits = new Map<number, ReturnType<typeof setTimeout>>()

  /** asked tells whether a pitch is what is asked for now; answer is told each note's. */
  constructor(
    private readonly asked: (midi: number) => boolean,
    private readonly answer: (midi: number, tick: number) => unknown,
  ) {}

  /** What is known by now; only the last notes can still change. */
  hear(notes: { at: number; pitch: number }[]) {
    this.pitches = new Map(notes.slice(-4).map((n) => [n.at, n.pitch]))
    for (const [at, pitch] of this.pitches) {
      if (this.answered.has(at)) continue
      if (this.asked(pitch)) this.settle(at)
      else if (!this.waits.has(at)) this.waits.set(at, setTimeout(() => this.settle(at), doubt)) // prettier-ignore
    }
  }

  private settle(at: number) {
    const pitch = this.pitches.get(at)
    if (pitch === undefined || this.answered.has(at)) return
    this.answered.add(at)
    this.answer(pitch, at)
  }

  stop() {
    for (const w of this.waits.values()) clearTimeout(w)
  }
}
