package practice

import (
	"math"

	"undaris/core/judge"
	"undaris/core/score"
)

// still counts the landings that count and were held without vibrato.
func still(f Free, heard []judge.Heard, swing float64) (n int) {
	for _, l := range f.Landings {
		if !l.Counts || l.Note < 0 {
			continue
		}
		note := f.Line.Notes[l.Note]
		at := judge.Swung(note.Start, swing)
		sways := false
		for _, h := range heard {
			if math.Abs(h.At-at) < score.Tick/4 && math.Abs(h.Pitch-float64(note.Heard())) < 0.6 {
				sways = sways || h.Sways()
			}
		}
		if !sways {
			n++
		}
	}
	return n
}

// astray finds where free playing tells the chords of another place of the form:
// the notes of the chord, counted by how long they sound.
func (f Free) astray() []judge.Lost {
	l := f.Line
	return judge.Astray(len(l.Bars), l.Beats, func(from, to int, by float64) (float64, int) {
		n := 0
		fits, all := 0.0, 0.0
		for _, note := range l.Notes {
			if note.Start < from*l.Bar() || note.Start >= to*l.Bar() || note.Dead {
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
