package practice

import (
	"undaris/core/judge"
	"undaris/core/score"
)

// astray finds where free playing tells the chords of another place of the form:
// the notes of the chord, counted by how long they sound.
func (f Free) astray() []judge.Lost {
	l := f.Line
	return judge.Astray(len(l.Bars), l.Beats, func(from, to int, by float64) (float64, int) {
		n := 0
		fits, all := 0.0, 0.0
		for _, note := range l.Notes {
			if note.Start < l.At(from) || note.Start >= l.At(to) || note.Dead {
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
