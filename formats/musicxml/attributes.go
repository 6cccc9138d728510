package musicxml

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
)

func (r *reader) attributes(e *entry) error {
	if e.Divisions != 0 {
		if e.Divisions < 1 || e.Divisions > 1e6 {
			return say.Errorf("%g divisions of a quarter in bar %d; it cannot be read", e.Divisions, r.bar+1)
		}
		r.divisions = e.Divisions
	}
	for _, t := range e.Transposes {
		r.transpose = t.Chromatic + 12*t.Octave
	}
	for _, k := range e.Keys {
		if r.bar > 0 {
			r.f.say("the key changes in bar %d; the first key was kept", r.bar+1)
			break
		}
		minor := k.Mode == "minor"
		if key, ok := form.KeyOf(k.Fifths, minor); ok {
			r.written, r.f.Key = key, sounding(key, r.transpose)
		}
	}
	for _, a := range e.Again {
		if r.again = 0; a.Type != "stop" {
			r.again = max(1, a.Bars)
		}
	}
	for _, t := range e.Times {
		if t.Beats == "" && t.Type == 0 { // without a metre: what was met last goes on, which is told
			continue
		}
		beats := 0
		for part := range strings.SplitSeq(t.Beats, "+") { // 3+2
			n := 0
			if _, err := fmt.Sscanf(part, "%d", &n); err != nil || n < 1 || n > 1000 {
				beats = -1
				break
			}
			beats += n
		}
		n, threes, ok := form.Metre(beats, t.Type)
		if !ok {
			return say.Errorf("a time of %s/%d in bar %d; bars of 1 to %d quarters, or of as many times three eighths, can be read", t.Beats, t.Type, r.bar+1, form.MaxBeats)
		}
		r.beats, r.scale = n, 1
		switch {
		case threes:
			r.scale, r.threes = 2./3, true
			r.f.say("written in %d/%d; read as %s of three eighths to the bar", beats, t.Type, counted(n, "one beat", "beats"))
		case t.Type != 4:
			r.f.say("written in %d/%d; read as %d quarters to the bar", beats, t.Type, n)
		}
		r.simple = r.simple || !threes
	}
	for _, d := range e.Details {
		if len(d.Tunings) == 0 {
			continue
		}
		slices.SortFunc(d.Tunings, func(a, b tuningXML) int { return a.Line - b.Line })
		var open []string
		for _, t := range d.Tunings {
			if n, ok := nameOf(t.Step, t.Alter); ok {
				open = append(open, pitch.Pitch{Name: n, Octave: t.Octave}.String())
			}
		}
		in, err := neck.Tuned(strings.Join(open, ","), max(0, d.Capo))
		if err != nil {
			r.f.say("its tuning cannot be read (%s); the frets it gives were not used", err)
			continue
		}
		r.f.In = in
	}
	return nil
}

func (r *reader) direction(e *entry) {
	tempo := e.Tempo
	for _, s := range e.Sounds {
		tempo = cmp.Or(tempo, s.Tempo)
		r.f.Swing = r.f.Swing || s.Swing != nil
	}
	for _, m := range e.Metronome {
		quarters := map[string]float64{"half": 2, "quarter": 1, "eighth": 0.5, "16th": 0.25}[m.Unit]
		if len(m.Dots) > 0 {
			quarters *= 1.5
		}
		if n, err := strconv.ParseFloat(strings.TrimSpace(m.Minute), 64); err == nil && tempo == 0 {
			tempo = n * quarters
		}
	}
	switch tempo = float64(int(tempo*r.scale + 0.5)); {
	case tempo < 1 || tempo >= 1000:
	case r.f.Tempo == 0:
		r.f.Tempo = int(tempo)
	case r.f.Tempo != int(tempo):
		r.f.say("the tempo changes in bar %d; the first, %d, was taken throughout", r.bar+1, r.f.Tempo)
	}
	if e.Sections != "" {
		r.sections[r.bar] = e.Sections
	}
}
