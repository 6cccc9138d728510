declare module '@spotify/basic-pitch/esm/toMidi.js' {
  interface Framed {
    startFrame: number
    durationFrames: number
    pitchMidi: number
    amplitude: number
  }
  interface Timed {
    startTimeSeconds: number
    durationSeconds: number
    pitchMidi: number
    amplitude: number
  }
  export function outputToNotesPoly(
    frames: number[][],
    onsets: number[][],
    onsetThresh?: number,
    frameThresh?: number,
    minNoteLen?: number,
    inferOnsets?: boolean,
    maxFreq?: number | null,
    minFreq?: number | null,
    melodiaTrick?: boolean,
  ): Framed[]
  export function noteFramesToTime(notes: Framed[]): Timed[]
}
