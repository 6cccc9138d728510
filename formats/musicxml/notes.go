package musicxml

import (
	"cmp"
	"fmt"
	"slices"

	"undaris/core/neck"
	"undaris/core/pitch"
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
		return nil
	}
	if r.voice == "" {
		r.voice = cmp.Or(e.Voice, "1")
	}
	if cmp.Or(e.Voice, "1") != r.voice {
		r.f.say("several voices; only the first was read, from bar %d on the others were left out", r.bar+1)
		return nil
	}
	stop, start := has(e.Ties, "stop"), has(e.Ties, "start")
	key := [2]int{midi, n.String}
	if i, tied := r.open[key]; stop && tied && r.f.Notes[i].End() >= at-2 {
		r.f.Notes[i].Length = at + length - r.f.Notes[i].Start
		if !start {
			delete(r.open, key)
		}
		return nil
	}
	if len(r.f.Notes) >= maxNotes {
		return fmt.Errorf("more than %d notes; the file is longer than can be read", maxNotes)
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
		if n.Class() == ((midi%12)+12)%12 {
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
	for _, t := range e.Notations {
		if t.String > 0 && t.Fret != nil {
			n.Placement = neck.Placement{String: t.String, Fret: *t.Fret}
		}
		if len(t.Fingering) == 1 && t.Fingering[0] >= '1' && t.Fingering[0] <= '4' {
			n.Finger = int(t.Fingering[0] - '0')
		}
		switch {
		case has(t.Hammers, "stop"):
			n.Join = score.Hammer
		case has(t.Pulls, "stop"):
			n.Join = score.PullOff
		case has(t.Slides, "stop") || has(t.Glissandi, "stop"):
			n.Join = score.Slide
		}
		for _, b := range t.Bends {
			switch quarters := int(b.Alter*2 + 0.5); {
			case b.Release != nil || b.Alter < 0:
				n.Release = n.Bend > 0
			case quarters > 6:
				r.f.say("a bend of %g half steps in bar %d was cut to 3", b.Alter, r.bar+1)
				n.Bend = 6
			default:
				n.Bend = quarters
			}
		}
		n.Accent = n.Accent || t.Accent != nil
		n.Vibrato = n.Vibrato || has(t.Wavy, "start") && t.Trill == nil || len(t.Wavy) > 1
		if t.Trill != nil {
			n.Trill = map[string]int{"half": 1}[t.Trill.Step]
			if n.Trill == 0 {
				n.Trill = 2
			}
			var other int
			if _, err := fmt.Sscanf(t.Other, "trill %d", &other); err == nil && other > 0 && other < 5 {
				n.Trill = other
			}
		}
		if t.Scoop != nil {
			n.Scoop = 1
		} else if t.Plop != nil {
			n.Scoop = -1
		}
		var from int
		if _, err := fmt.Sscanf(t.Technique, "slide from %d", &from); err == nil && from >= -5 && from <= 5 {
			n.Scoop = -from
		}
	}
}
