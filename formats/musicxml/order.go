package musicxml

import (
	"regexp"
	"strings"

	"undaris/core/form"
	"undaris/core/say"
	"undaris/core/score"
)

// order notes what a barline or a sound says of the order in which measures are played.
func (r *reader) order(e *entry) {
	s := r.signs[max(0, r.bar)]
	if e.Repeat != nil {
		switch e.Repeat.Direction {
		case "forward":
			s.Opens = true
		case "backward":
			s.Times = max(2, min(maxTimes, e.Repeat.Times))
		}
	}
	if e.Ending != nil && e.Ending.Type == "start" {
		for _, c := range e.Ending.Number {
			if c >= '1' && c <= '9' {
				s.Endings = append(s.Endings, int(c-'0'))
			}
		}
	}
	jumps := []jumpXML{e.jumpXML}
	for _, sound := range e.Sounds {
		jumps = append(jumps, sound.jumpXML)
	}
	for _, j := range jumps {
		s.Segno = s.Segno || j.Segno != ""
		s.Coda = s.Coda || j.Coda != ""
		s.ToCoda = s.ToCoda || j.ToCoda != ""
		s.Fine = s.Fine || j.Fine != ""
		switch {
		case j.DaCapo == "yes" && s.Jump == form.NoJump:
			s.Jump = form.DC
		case j.DalSegno != "" && s.Jump == form.NoJump:
			s.Jump = form.DS
		}
	}
	s = r.said(e, s)
	r.signs[max(0, r.bar)] = s
}

// maxTimes is how often a repeat is played at most.
const maxTimes = 39

// said is what words and drawn signs say of the order, where nothing sounds for them.
func (r *reader) said(e *entry, s form.Signs) form.Signs {
	toCoda := false
	for _, words := range e.Words {
		in := form.SignsIn(words)
		if !in.Any() {
			r.spoken(words)
			continue
		}
		s.Fine, s.ToCoda = s.Fine || in.Fine, s.ToCoda || in.ToCoda
		toCoda = toCoda || in.ToCoda
		if in.Jump != form.NoJump {
			s.Jump = in.Jump
		}
		s.Segno, s.Coda = s.Segno || in.Segno, s.Coda || in.Coda
	}
	s.Segno = s.Segno || len(e.DrawnSegno)+len(e.BarSegno) > 0
	s.Coda = s.Coda || len(e.DrawnCoda)+len(e.BarCoda) > 0 && !toCoda && !s.ToCoda // beside “to coda” it is where one leaves
	return s
}

// unfold plays the measures in their order: bars and notes are written out as often as they
// are played.
func (r *reader) unfold() error {
	f := r.f
	song := form.Song{Beats: f.Beats, Pickup: f.Progression.Pickup}
	var coda, fine bool
	for i, b := range f.Bars {
		w := form.Written{Bar: b, Signs: r.signs[i]}
		coda, fine = coda || w.ToCoda, fine || w.Fine
		song.Bars = append(song.Bars, w)
	}
	for i := range song.Bars { // a jump goes on to what the music has
		if jump := &song.Bars[i].Jump; *jump == form.DC || *jump == form.DS {
			switch {
			case coda:
				*jump += " al Coda"
			case fine:
				*jump += " al Fine"
			}
		}
	}
	f.Song = &song
	order := song.Order()
	if order == "" || r.chart {
		return nil
	}
	played := song.Play(form.MaxBars)
	if len(played.Bars) > form.MaxBars {
		return say.Errorf("more than %d bars with the repeats written out", form.MaxBars)
	}
	byBar := map[int][]score.Note{}
	var notes []score.Note
	for _, n := range f.Notes {
		if n.Start < 0 {
			notes = append(notes, n)
			continue
		}
		bar := f.BarOf(n.Start)
		byBar[bar] = append(byBar[bar], n)
	}
	for at, b := range played.Bars {
		for _, n := range byBar[b.Written-1] {
			n.Start += played.StartOf(at)*score.Tick - f.At(b.Written-1)
			notes = append(notes, n)
		}
		if len(notes) > score.MaxNotes {
			return say.Errorf("more than %d notes with the repeats written out", score.MaxNotes)
		}
		played.Bars[at].Written, played.Bars[at].Pass = 0, 0
	}
	f.Bars, f.Notes = played.Bars, notes
	f.say("its repeats were written out: %s", order)
	return nil
}

// swung is what is written over music that swings.
var swung = regexp.MustCompile(`(?i)\b(swing|swung|shuffle)\b`)

// tempoWords say again what the metronome beside them says.
var tempoWords = regexp.MustCompile(`^[\s♩♪.=\d()]*$`)

// spoken reads words that say nothing of the order.
func (r *reader) spoken(words string) {
	switch words = brief(words); {
	case len(r.words) > mostWords: // enough is told
		r.words = append(r.words, "")
	case tempoWords.MatchString(words):
	case swung.MatchString(words) && !strings.Contains(strings.ToLower(words), "no swing"):
		r.f.Swing = true
	default:
		r.words = append(r.words, say.F("“%s” (bar %d)", words, r.bar+1))
	}
}

// Words that are left out are told as far as so many characters, and so many of them.
const (
	maxWords  = 60
	mostWords = 12
)

func (r *reader) sayWords() {
	switch n := len(r.words); {
	case n == 0:
	case n <= mostWords:
		r.f.say("words were left out: %s", strings.Join(r.words, ", "))
	default:
		r.f.say("words were left out: %s and %d more", strings.Join(r.words[:mostWords], ", "), n-mostWords)
	}
}
