package edit

import (
	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/score"
)

// Import makes a line, on the instrument in hand, of a score that came from a
// file. Where the file has no chords those of under are laid under it. What had
// to be guessed, moved or left out is marked on the notes and said.
func Import(s score.Score, said []string, under score.Score, hand neck.Hand) (Line, error) {
	l := Line{Score: s, Hand: hand, Said: said}
	if in := under.In; s.In != nil && (s.In.Tuning() != in.Tuning() || s.In.Capo != in.Capo) {
		l.say("it is written for a neck tuned %s; places were found on yours", s.In.Tuning())
	}
	l.In = under.In
	if len(under.Bars) > 0 && silent(s.Progression) {
		for i := range min(len(l.Bars), len(under.Bars)) {
			l.Bars[i].Changes = under.Bars[i].Changes
		}
		l.Key = under.Key
	}
	if t := min(form.MaxTempo, max(form.MinTempo, l.Tempo)); t != l.Tempo {
		l.say("a tempo of %d cannot be played; it was set to the nearest that can", l.Tempo)
		l.Tempo = t
	}
	l.Region = Around(l.Score)
	if odd := l.MarkOdd(); odd > 0 {
		l.say("%d notes stand in divisions that cannot be written here, such as fives or sevens; they sound where they were and are drawn at the nearest place", odd)
	}
	lick.Separate(l.Notes, len(l.Bars)*l.Bar())
	l.LeaveOut()
	if err := l.SettleMarked(); err != nil {
		return l, err
	}
	l.Region = Around(l.Score)
	return l, nil
}

func silent(p form.Progression) bool {
	for _, place := range p.Places() {
		if !place.Chord.None {
			return false
		}
	}
	return true
}
