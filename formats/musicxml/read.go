package musicxml

import (
	"bytes"
	"cmp"
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Found is what a file held. A note whose place on the neck the file does not
// tell has String 0.
type Found struct {
	score.Score          // In is nil unless the file states a tuning
	Said        []string // what was left out or guessed, in plain words
}

// Limits of what is read.
const (
	maxMeasures = form.MaxBars
	maxNotes    = score.MaxNotes
	maxElements = 200_000
	maxSaid     = 40
)

// ErrNotScore is returned for a file that is no partwise MusicXML.
var ErrNotScore = errors.New("this is no MusicXML score in parts (score-partwise); export it in parts and try again")

// Read reads the first part that has notes, of a plain or a compressed file, a
// measure at a time. Entities other than XML's own are refused, and a broken
// file is an error that says where it breaks.
func Read(ctx context.Context, data []byte) (Found, error) {
	if Compressed(data) {
		var err error
		if data, err = unpack(data); err != nil {
			return Found{}, err
		}
	}
	look, err := scout(ctx, data)
	if err != nil {
		return Found{}, err
	}
	f := Found{}
	f.Title = strings.TrimSpace(cmp.Or(look.work, look.title))
	if look.parts > 1 {
		f.say("%d parts; only the first with notes was read", look.parts)
	}
	if look.measures > maxMeasures {
		f.say("%d measures; the first %d were read", look.measures, maxMeasures)
	}
	r := &reader{ctx: ctx, f: &f, divisions: 1, beats: 4, unit: 4, open: map[[2]int]int{}, hasTab: look.tab > 0, staff: look.tab}
	dec := decoder(data)
	for part := 0; ; {
		t, err := dec.Token()
		if err != nil {
			return f, broken(err)
		}
		if start, ok := t.(xml.StartElement); ok && start.Name.Local == "part" {
			if part == look.part {
				return f, r.part(dec)
			}
			part++
			if err := dec.Skip(); err != nil {
				return f, broken(err)
			}
		}
	}
}

func decoder(data []byte) *xml.Decoder {
	dec := xml.NewDecoder(bytes.NewReader(data))
	dec.CharsetReader = func(label string, _ io.Reader) (io.Reader, error) {
		return nil, say.Errorf("the text is encoded as %s; save it as UTF-8", label)
	}
	return dec
}

func broken(err error) error { return say.Errorf("this MusicXML cannot be read: %w", err) }

func (f *Found) say(format string, args ...any) {
	text := say.F(format, args...)
	if len(f.Said) < maxSaid && !slices.Contains(f.Said, text) {
		f.Said = append(f.Said, text)
	}
}

// reader walks the measures of a part.
type reader struct {
	ctx       context.Context
	f         *Found
	divisions float64
	beats     int
	unit      int // of the time signature
	transpose int
	staff     int            // the staff that is read; 0 is any
	voice     string         // the voice that is read
	bar       int            // of the measure in hand, from 0; −1 in a pickup
	open      map[[2]int]int // notes that are tied on, by MIDI number and string
	hasTab    bool
	fingers   map[[2]int]int // of the notation staff, by onset and MIDI number
	chords    map[int]harmony.Chord
	sections  map[int]string
	rows      map[int]bool // bars that begin a line on the paper
}

// part reads a part up to its end.
func (r *reader) part(dec *xml.Decoder) error {
	r.fingers, r.chords, r.sections = map[[2]int]int{}, map[int]harmony.Chord{}, map[int]string{}
	r.rows = map[int]bool{}
	start := 0 // of the measure, in ticks
	for i := 0; ; {
		t, err := dec.Token()
		if err != nil {
			return broken(err)
		}
		if _, over := t.(xml.EndElement); over {
			return r.finish()
		}
		m, begins := t.(xml.StartElement)
		if !begins {
			continue
		}
		if m.Name.Local != "measure" || i >= maxMeasures {
			if err := dec.Skip(); err != nil {
				return broken(err)
			}
			continue
		}
		pickup := i == 0 && slices.ContainsFunc(m.Attr, func(a xml.Attr) bool { return a.Name.Local == "implicit" && a.Value == "yes" })
		length, err := r.measure(dec, start, pickup)
		if err != nil {
			return err
		}
		i++
		if pickup && length < r.beats*score.Tick*4/r.unit {
			for j := range r.f.Notes {
				r.f.Notes[j].Start -= length
			}
			shift := map[[2]int]int{}
			for k, v := range r.fingers {
				shift[[2]int{k[0] - length, k[1]}] = v
			}
			r.fingers = shift
			continue
		}
		if full := r.beats * score.Tick * 4 / r.unit; length > full {
			r.f.say("bar %d is longer than its time signature; what stands beyond it was moved into the next", r.bar+1)
		}
		start += r.beats * score.Tick * 4 / r.unit
		r.bar++
	}
}

// longest is how far one measure may reach, in ticks.
const longest = 64 * score.Tick

// measure reads a measure up to its end.
func (r *reader) measure(dec *xml.Decoder, start int, pickup bool) (length int, err error) {
	now, last := float64(start), float64(start)
	furthest := now
	ticks := func(d float64) float64 { return d / r.divisions * score.Tick }
	for {
		if r.ctx.Err() != nil {
			return 0, r.ctx.Err()
		}
		t, err := dec.Token()
		if err != nil {
			return 0, broken(err)
		}
		if _, over := t.(xml.EndElement); over {
			return int(furthest+0.5) - start, nil
		}
		begins, ok := t.(xml.StartElement)
		if !ok {
			continue
		}
		e := &entry{}
		if err := dec.DecodeElement(e, &begins); err != nil {
			return 0, broken(err)
		}
		if !(e.Duration >= 0 && e.Duration <= 1e7) {
			return 0, say.Errorf("a length of %g in bar %d; it cannot be read", e.Duration, r.bar+1)
		}
		switch e.XMLName.Local {
		case "attributes":
			if err := r.attributes(e); err != nil {
				return 0, err
			}
		case "backup":
			now = max(float64(start), now-ticks(e.Duration))
		case "forward":
			now += ticks(e.Duration)
		case "harmony":
			r.harmony(e, min(start+longest, max(start, int(now+ticks(min(1e7, max(-1e7, e.Offset)))+0.5))), pickup)
		case "print":
			if e.NewSystem == "yes" || e.NewPage == "yes" {
				r.rows[r.bar] = true
			}
		case "direction", "sound":
			r.direction(e)
		case "note":
			if e.Grace != nil {
				r.f.say("grace notes were left out")
				continue
			}
			at := now
			if e.Chord != nil {
				at = last
			} else {
				last = now
				now += ticks(e.Duration)
			}
			if now-float64(start) > longest {
				break
			}
			if err := r.note(e, int(at+0.5), int(ticks(e.Duration)+0.5)); err != nil {
				return 0, err
			}
		}
		if now-float64(start) > longest {
			return 0, say.Errorf("bar %d goes on for more than %d beats; it cannot be read", r.bar+1, longest/score.Tick)
		}
		furthest = max(furthest, now)
	}
}

func (r *reader) attributes(e *entry) error {
	if e.Divisions != 0 {
		if e.Divisions < 1 || e.Divisions > 1e6 {
			return say.Errorf("%g divisions of a quarter in bar %d; it cannot be read", e.Divisions, r.bar+1)
		}
		r.divisions = e.Divisions
	}
	for _, k := range e.Keys {
		if r.bar > 0 {
			r.f.say("the key changes in bar %d; the first key was kept", r.bar+1)
			break
		}
		minor := k.Mode == "minor"
		if key, ok := form.KeyOf(k.Fifths, minor); ok {
			r.f.Key = key
		}
	}
	for _, t := range e.Times {
		var beats int
		if _, err := fmt.Sscanf(t.Beats, "%d", &beats); err != nil || t.Type < 1 || t.Type > 32 || beats < 1 || beats*4/t.Type < form.MinBeats || beats*4/t.Type > form.MaxBeats || beats*4%t.Type != 0 {
			return say.Errorf("a time of %s/%d in bar %d; bars of %d to %d quarters can be read", t.Beats, t.Type, r.bar+1, form.MinBeats, form.MaxBeats)
		}
		if r.bar > 0 && (beats != r.beats || t.Type != r.unit) {
			return say.Errorf("the time changes to %d/%d in bar %d; only one time through a line can be read", beats, t.Type, r.bar+1)
		}
		r.beats, r.unit = beats, t.Type
	}
	for _, t := range e.Transposes {
		r.transpose = t.Chromatic + 12*t.Octave
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
		in, err := neck.New(strings.Join(open, ","), 24, 648, min(max(0, d.Capo), 12))
		if err != nil {
			r.f.say("its tuning cannot be read (%s); the frets it gives were not used", err)
			continue
		}
		r.f.In = in
	}
	return nil
}

func (r *reader) harmony(e *entry, at int, pickup bool) {
	c, ok := chordOf(&e.harmonyXML)
	if !ok {
		r.f.say("a chord in bar %d (%s %s) cannot be read and was left out", r.bar+1, e.Root.Step, cmp.Or(e.Kind.Text, e.Kind.Value))
		return
	}
	if pickup {
		at = 0
	}
	r.chords[at] = c
}

func (r *reader) direction(e *entry) {
	tempo := e.Tempo
	for _, s := range e.Sounds {
		tempo = cmp.Or(tempo, s.Tempo)
		r.f.Swing = r.f.Swing || s.Swing != nil
	}
	if tempo >= 1 && tempo < 1000 && r.f.Tempo == 0 {
		r.f.Tempo = int(tempo + 0.5)
	}
	if e.Sections != "" {
		r.sections[r.bar] = e.Sections
	}
}

// finish puts chords into bars and checks the places on the neck.
func (r *reader) finish() error {
	f := r.f
	if r.unit != 4 {
		f.say("written in %d/%d; read as %d quarters to the bar", r.beats*1, r.unit, r.beats*4/r.unit)
	}
	f.Beats = r.beats * 4 / r.unit
	f.Tempo = cmp.Or(f.Tempo, 100)
	bar := f.Beats * score.Tick
	score.Sort(f.Notes)
	bars := max(1, r.bar)
	if n := len(f.Notes); n > 0 {
		bars = max(bars, (f.Notes[n-1].Start+bar)/bar)
	}
	if bars > form.MaxBars {
		return say.Errorf("a line of %d bars; %d can be read", bars, form.MaxBars)
	}
	f.Bars = make([]form.Bar, bars)
	chord := harmony.Chord{None: true}
	if len(r.chords) == 0 {
		f.say("no chord symbols; the bars are without chords")
	}
	changes := slices.Sorted(maps.Keys(r.chords))
	for i := range f.Bars {
		f.Bars[i] = form.Bar{Section: r.sections[i], Row: r.rows[i], Changes: []form.Change{{Chord: chord}}}
		for len(changes) > 0 && changes[0] < (i+1)*bar {
			at, c := changes[0], r.chords[changes[0]]
			changes = changes[1:]
			chord = c
			beat := max(0, at-i*bar) / score.Tick
			if max(0, at-i*bar)%score.Tick != 0 {
				f.say("a chord in bar %d begins between beats; it was moved to its beat", i+1)
			}
			list := &f.Bars[i].Changes
			if last := &(*list)[len(*list)-1]; last.Beat == beat {
				last.Chord = c
			} else {
				*list = append(*list, form.Change{Beat: beat, Chord: c})
			}
		}
	}
	guessed := 0
	fingered := slices.ContainsFunc(f.Notes, func(n score.Note) bool { return n.Finger > 0 })
	for i := range f.Notes {
		n := &f.Notes[i]
		if !fingered { // the fingers may stand on the notation alone
			n.Finger = r.fingers[[2]int{n.Start, n.Pitch.MIDI()}]
		}
		if n.Start < -bar {
			return errors.New("the pickup is longer than a bar")
		}
		n.Length = max(n.Length, 1)
		if f.In == nil || f.In.CheckPlacement(n.Placement) != nil || f.In.MIDI(n.Placement) != n.Pitch.MIDI() {
			n.Placement = neck.Placement{}
			guessed++
		}
	}
	if guessed > 0 {
		f.say("%d of %d notes have no place on the neck that fits; one was found for them", guessed, len(f.Notes))
	}
	return nil
}
