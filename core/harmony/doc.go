// Package harmony reads chord symbols and spells chords.
//
// A [Chord] is a root and the degrees stacked on it. Every tone keeps the
// letter its degree asks for: D♭7 is D♭ F A♭ C♭, although C♭ sounds as B.
// [Parse] accepts the many ways people write one chord (C−7, Cmin7, Cm7) and
// [Chord.String] prints one way back.
package harmony
