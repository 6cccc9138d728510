package edit

import (
	"slices"

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
	l.over(under)
	if t := min(form.MaxTempo, max(form.MinTempo, l.Tempo)); t != l.Tempo {
		l.say("a tempo of %d cannot be played; it was set to the nearest that can", l.Tempo)
		l.Tempo = t
	}
	l.Region = Around(l.Score)
	if odd := l.MarkOdd(); odd > 0 {
		l.say("%d notes stand in divisions that cannot be written here, such as fives or sevens; they sound where they were and are drawn at the nearest place", odd)
	}
	lick.Separate(l.Notes, l.End())
	l.LeaveOut()
	if err := l.SettleMarked(); err != nil {
		return l, err
	}
	l.unjoin()
	l.Region = Around(l.Score)
	return l, nil
}

// unjoin takes back guesses of how notes are reached that the places found do not bear out.
func (l *Line) unjoin() {
	for i := range l.Notes {
		n := &l.Notes[i]
		if !n.JoinGuessed {
			continue
		}
		before, ok := l.Before(i)
		up := n.Fret - before.Fret
		off := n.Join != score.Picked && (!ok || up == 0 || n.Join == score.Hammer && up < 0 || n.Join == score.PullOff && up > 0)
		if off || n.Scoop != 0 && (n.Fret == 0 || n.Fret-n.Scoop < 0) {
			n.Join, n.Scoop, n.JoinGuessed = score.Picked, 0, false
		}
	}
}

// over lays a line that has no chords over those of a chart, which goes round as often as it
// takes, and says where the two differ.
func (l *Line) over(under score.Score) {
	switch {
	case !l.Silent():
		if len(under.Bars) > 0 {
			l.say("it has chords of its own; the chart's were not laid under it")
		}
		return
	case len(under.Bars) == 0:
		l.say("no chords; the bars are without")
		return
	}
	end := 1
	if n := len(l.Notes); n > 0 {
		end = l.Notes[n-1].Start + 1
	}
	ground := under.Round((end + score.Tick - 1) / score.Tick)
	if n := len(ground.Bars); n < len(l.Bars) && ground.Even() && l.Even() && ground.Beats == l.Beats {
		ground = under.Round(l.Length())
	}
	l.say("the chart's chords were laid under it")
	switch {
	case under.Beats != l.Beats:
		l.say("the file has %d quarters in a bar and the chart %d: its notes lie on the chart's bars", l.Beats, under.Beats)
	case !slices.Equal(under.Lengths(), l.Lengths()) && (!under.Even() || !l.Even()):
		l.say("the metre of the file and of the chart change in other bars: its notes lie on the chart's")
	}
	if n := len(under.Bars); len(ground.Bars) > n {
		l.say("the chart has %d bars and the line %d: it goes round again", n, len(ground.Bars))
	}
	l.Progression, l.Key = ground, under.Key
}
