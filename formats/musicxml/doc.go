// Package musicxml writes and reads MusicXML 4.0, the open format for scores.
//
// [Write] gives a part on two staves, notation and tablature, with chord
// symbols, fingers, strings and frets, and the ways a note is played. [Read]
// understands one guitar's voice of any partwise file and says in [Found] what
// it had to leave out or guess.
package musicxml
