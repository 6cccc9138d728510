package edit

import (
	"slices"

	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// WithoutChords is said of a line that has none.
const WithoutChords = "no chords; the bars are without"

// Import makes a line of a score that came from a file. It stays on the instrument that it is
// written for; where the file names none it stands on the one in hand, or where that has not all
// its notes on one that has. Where the file has no chords those of under are laid under it. What
// had to be guessed, moved or left out is marked on the notes and said.
func Import(s score.Score, said []string, under score.Score, hand neck.Hand) (Line, error) {
	l := Line{Score: s, Hand: hand, Said: said}
	l.instrument(under.In)
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

// instrument chooses the one a line that came from a file stands on.
func (l *Line) instrument(yours *neck.Instrument) {
	its := l.In
	if its != nil && (its.Tuning() != yours.Tuning() || its.Capo != yours.Capo) {
		l.In = longEnough(its, l.Notes)
		capo := ""
		if its.Capo > 0 {
			capo = say.F(", with a capo on fret %d", its.Capo)
		}
		l.say("it is written for a neck tuned %s%s, and stays on it; it can be laid on yours", its.Tuning(), capo)
		return
	}
	l.In = yours
	gone := len(l.beyond())
	if gone == 0 {
		return
	}
	for _, t := range neck.Tunings {
		other, err := neck.New(t.Open, t.Frets, t.Scale, 0)
		if err != nil {
			continue
		}
		if l.In = other; len(l.beyond()) == 0 {
			l.say("notes that lie beyond your neck: %d; it stands on another, %s, which has them all", gone, t.Name)
			return
		}
	}
	l.In = yours
}

// longEnough is an instrument with as many frets as the places of notes ask for, where that can be.
func longEnough(in *neck.Instrument, notes []score.Note) *neck.Instrument {
	frets := in.Frets
	for _, n := range notes {
		if n.String > 0 && n.Fret+in.Capo <= neck.MaxFrets {
			frets = max(frets, n.Fret+in.Capo)
		}
	}
	if longer, err := neck.New(in.Tuning(), frets, in.Scale, in.Capo); err == nil {
		return longer
	}
	return in
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
		l.say(WithoutChords)
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
	l.Respell() // the names were those of another key, or of none
}
