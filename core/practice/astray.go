package practice

import (
	"cmp"
	"slices"

	"undaris/core/judge"
	"undaris/core/score"
)

// astray finds where free playing tells the chords of another place of the form:
// the notes of the chord, counted by how long they sound.
func (f Free) astray() []judge.Lost {
	l := f.Line
	return judge.Astray(len(l.Bars), l.Beats, judge.FreeEvidence, func(from, to int, by float64) (float64, int) {
		n := 0
		fits, all := 0.0, 0.0
		start, end := l.At(from), l.At(to)
		first, _ := slices.BinarySearchFunc(l.Notes, start, func(n score.Note, at int) int { return cmp.Compare(n.Start, at) })
		for _, note := range l.Notes[first:] {
			if note.Start >= end {
				break
			}
			if note.Dead {
				continue
			}
			chord, sounds := l.ChordAt(note.Start - int(by*score.Tick))
			if !sounds {
				continue
			}
			n++
			length := float64(min(note.Length, score.Tick))
			all += length
			if _, tone := chord.ToneAt(note.Heard() % 12); tone {
				fits += length
			}
		}
		return fits / max(1, all), n
	})
}
