package musicxml

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"

	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// note reads one note at a tick: a note of its own, or the end of a tied one.
func (r *reader) note(e *entry, at, length int) error {
	staff := max(e.Staff, 1)
	if e.Pitch == nil {
		if e.Rest == nil {
			r.f.say("notes without pitch were left out")
		}
		return nil
	}
	name, ok := nameOf(e.Pitch.Step, e.Pitch.Alter)
	if !ok || e.Pitch.Octave < -1 || e.Pitch.Octave > 9 {
		r.f.say("a note in bar %d is no pitch that can be read (%s %+g); it was left out", r.bar+1, e.Pitch.Step, e.Pitch.Alter)
		return nil
	}
	n := score.Note{Start: at, Length: length, Pitch: pitch.Pitch{Name: name, Octave: e.Pitch.Octave}}
	if r.transpose != 0 {
		n.Pitch = moved(n.Pitch, r.transpose)
	}
	midi := n.Pitch.MIDI()
	r.notations(e, &n)
	if r.hasTab && staff != r.staff {
		if n.Finger > 0 {
			r.fingers[[2]int{at, midi}] = n.Finger
		}
		if key := [2]int{at, midi}; !has(e.ties(), "stop") { // of two in unison the order tells which is which
			r.signed[key] = append(r.signed[key], n.Ornaments)
		}
		return nil
	}
	if r.voice == "" {
		r.voice = cmp.Or(e.Voice, "1")
	}
	if cmp.Or(e.Voice, "1") != r.voice || !r.hasTab && r.staff > 0 && staff != r.staff {
		r.f.say("several voices; voice %s was read, from bar %d on the others were left out", r.voice, r.bar+1)
		return nil
	}
	stop, start := has(e.ties(), "stop"), has(e.ties(), "start")
	key := [2]int{midi, n.String}
	if i, tied := r.open[key]; stop && tied && r.f.Notes[i].End() >= at-2 {
		r.f.Notes[i].Length = at + length - r.f.Notes[i].Start
		if !start {
			delete(r.open, key)
		}
		return nil
	}
	if len(r.f.Notes) >= maxNotes {
		return say.Errorf("more than %d notes; the file is longer than can be read", maxNotes)
	}
	if start {
		r.open[key] = len(r.f.Notes)
	}
	r.f.Notes = append(r.f.Notes, n)
	return nil
}

func moved(p pitch.Pitch, by int) pitch.Pitch {
	midi := p.MIDI() + by
	if by%12 == 0 {
		return pitch.Pitch{Name: p.Name, Octave: p.Octave + by/12}
	}
	for _, n := range pitch.Roots {
		if n.Class() == pitch.Class(midi) {
			return pitch.At(midi, n)
		}
	}
	return p
}

func has(list []typed, what string) bool {
	return slices.ContainsFunc(list, func(t typed) bool { return t.Type == what })
}

func (r *reader) notations(e *entry, n *score.Note) {
	n.Dead = e.Head == "x"
	n.PalmMute = e.Mute == "palm"
	for _, t := range e.Notations {
		if has(t.Slides, "stop") || has(t.Glissandi, "stop") {
			n.Join = score.Slide
		}
		for group, list := range map[string][]group{"articulations": t.Articulations, "ornaments": t.Ornaments, "technical": t.Technical} {
			for _, g := range list {
				for _, s := range g.Signs {
					r.sign(group, s, n)
				}
			}
		}
	}
}

// sign reads one sign of a note: those of [score.Ways], and the ones that are
// written in a way of their own.
func (r *reader) sign(group string, s sign, n *score.Note) {
	for _, w := range score.Ways {
		x := w.XML
		if x.Tag != "" && x.Group == group && x.Tag == s.XMLName.Local {
			w.Put(&n.Ornaments, 1)
			return
		}
		if v, ok := spoken(x.Words, s.Text); ok && x.Words != "" && s.XMLName.Local == "other-technical" {
			w.Put(&n.Ornaments, w.Within(v))
			return
		}
	}
	number, _ := strconv.Atoi(strings.TrimSpace(s.Text))
	switch s.XMLName.Local {
	case "strong-accent":
		n.Accent = true
	case "staccatissimo":
		n.Staccato = true
	case "string":
		n.String = max(0, min(neck.MaxStrings+1, number))
	case "fret":
		n.Fret = max(0, min(99, number))
	case "harmonic":
		r.f.say("harmonics are read as plain notes, from bar %d on", r.bar+1)
	case "fingering":
		if number >= 1 && number <= 4 {
			n.Finger = number
		}
	case "hammer-on":
		if s.Type == "stop" {
			n.Join = score.Hammer
		}
	case "pull-off":
		if s.Type == "stop" {
			n.Join = score.PullOff
		}
	case "bend":
		r.bend(s, n)
	case "scoop":
		n.Scoop = 1
	case "plop":
		n.Scoop = -1
	case "falloff":
		n.SlideOut = -3
	case "doit":
		n.SlideOut = 3
	case "down-bow":
		n.Stroke = score.DownStroke
	case "up-bow":
		n.Stroke = score.UpStroke
	case "pluck":
		n.Stroke = score.ByFinger
		if strings.TrimSpace(s.Text) == "p" {
			n.Stroke = score.ByThumb
		}
	case "wavy-line":
		if s.Type == "start" && n.Trill == 0 {
			n.Vibrato = true
		}
	case "trill-mark":
		n.Vibrato = false // the wave is the trill's
		n.Trill = map[string]int{"half": 1}[s.Step]
		if n.Trill == 0 {
			n.Trill = 2
		}
	case "other-ornament":
		if v, ok := spoken("trill %d", s.Text); ok {
			n.Trill = max(1, min(4, v))
		}
		if s.Text == "vibrato" {
			n.Vibrato = true
		} else if _, ok := spoken("trill %d", s.Text); !ok {
			r.f.say("an ornament in bar %d, “%s”, was left out", r.bar+1, brief(s.Text))
		}
	case "other-technical":
		r.f.say("a sign in bar %d, “%s”, was left out", r.bar+1, brief(s.Text))
	}
}

// brief is a text as it is told.
func brief(text string) string {
	words := []rune(strings.Join(strings.Fields(text), " "))
	return string(words[:min(len(words), maxWords)])
}

// spoken reads a number in words, or only that the words are there.
func spoken(words, text string) (v int, ok bool) {
	if !strings.Contains(words, "%") {
		return 1, words == text
	}
	before, after, _ := strings.Cut(words, "%d")
	text, begins := strings.CutPrefix(text, before)
	text, ends := strings.CutSuffix(text, after)
	v, err := strconv.Atoi(text)
	return v, begins && ends && err == nil
}

func (r *reader) bend(s sign, n *score.Note) {
	down := s.Release != nil || s.Alter < 0
	quarters := int(2*math.Abs(s.Alter) + 0.5)
	switch {
	case down && n.Bend > 0:
		n.Release, n.ReleaseTo = true, max(0, min(n.Bend-quarters, 5))
		if s.Alter == 0 {
			n.ReleaseTo = 0
		}
	case down:
	case quarters > 6:
		r.f.say("a bend of %g half steps in bar %d was cut to 3", s.Alter, r.bar+1)
		n.Bend = 6
	default:
		n.Bend, n.PreBend = quarters, s.PreBend != nil
	}
}
