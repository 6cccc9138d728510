package musicxml

import (
	"bytes"
	"cmp"
	"context"
	"encoding/xml"
	"errors"
	"io"
	"regexp"
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/say"
	"undaris/core/score"
	"undaris/formats"
)

// Found is what a file held. A note whose place on the neck the file does not
// tell has String 0; In is nil unless the file states a tuning.
type Found struct{ formats.Found }

// Limits of what is read.
const (
	maxMeasures = form.MaxBars
	maxNotes    = score.MaxNotes
	maxElements = 200_000
	maxSaid     = 40

	maxDirections = 10_000
)

// ErrNotScore is returned for a file that is no partwise MusicXML.
var ErrNotScore = errors.New("this is no MusicXML score in parts (score-partwise); export it in parts and try again")

// Read reads the first voice that has notes, of a plain or a compressed file, a
// measure at a time. Entities other than XML's own are refused, and a broken
// file is an error that says where it breaks.
func Read(ctx context.Context, data []byte) (Found, error) {
	f, err := read(ctx, data, formats.Wish{})
	return Found{f}, err
}

func read(ctx context.Context, data []byte, w formats.Wish) (formats.Found, error) {
	if Compressed(data) {
		var err error
		if data, err = unpack(data); err != nil {
			return formats.Found{}, err
		}
	}
	data = formats.Decoded(data)
	look, err := scout(ctx, data)
	if err != nil {
		return formats.Found{}, err
	}
	f := Found{}
	f.Title = strings.TrimSpace(cmp.Or(look.work, look.title))
	look.tell(&f)
	chosen, err := w.Chosen(len(look.voices), 0)
	if err != nil {
		return f.Found, err
	}
	voice := look.voice(chosen)
	f.Parts = look.list(chosen)
	if n := len(look.parts); n > 1 && !w.Chart {
		f.say("%d parts; %s was read", n, cmp.Or(look.parts[voice.part].name, say.F("part %d", voice.part+1)))
	}
	if n := look.parts[voice.part].measures; n > maxMeasures {
		f.say("%d measures; the first %d were read", n, maxMeasures)
	}
	r := look.reader(ctx, &f, voice)
	r.chart = w.Chart
	if other, ok := look.tablature(voice.part); ok {
		of := Found{}
		frets := look.reader(ctx, &of, other)
		frets.aside = true
		if err := frets.from(data[look.parts[other.part].at:]); err != nil {
			return f.Found, err
		}
		r.frets, r.fretsOf = &of, look.parts[other.part].name
	}
	if at, ok := look.harmonised(voice.part); ok {
		of := Found{}
		chords := look.reader(ctx, &of, look.bars(at))
		chords.chart, chords.aside = true, true
		if err := chords.from(data[look.parts[at].at:]); err != nil {
			return f.Found, err
		}
		r.lent, r.lentOf = chords.chords, look.parts[at].name
	}
	if err := r.from(data[look.parts[voice.part].at:]); err != nil {
		return f.Found, err
	}
	r.sayWords()
	for _, what := range look.lost(voice, w.Chart) {
		f.say("%s", what)
	}
	return f.Found, nil
}

// bars is a part read for what is not a note.
func (l look) bars(part int) voice { return voice{part: part} }

// reader reads a voice of a file.
func (l look) reader(ctx context.Context, f *Found, v voice) *reader {
	p := l.parts[v.part]
	return &reader{ctx: ctx, f: f, divisions: 1, beats: 4, scale: 1, measures: p.measures, open: map[[2]int]int{}, hasTab: p.tab > 0, staff: max(p.tab, v.staff), voice: v.name}
}

// from reads a part of a file, which begins where the data does.
func (r *reader) from(data []byte) error {
	dec := decoder(data)
	if _, err := dec.Token(); err != nil {
		return broken(err)
	}
	return r.part(dec)
}

// decoded are the encodings that [formats.Decoded] made UTF-8 of, or that are part of it.
var decoded = regexp.MustCompile(`(?i)^(utf-?16.*|iso-?8859-?1|latin-?1|windows-1252|us-ascii|ascii)$`)

func decoder(data []byte) *xml.Decoder {
	dec := xml.NewDecoder(bytes.NewReader(data))
	dec.CharsetReader = func(label string, in io.Reader) (io.Reader, error) {
		if decoded.MatchString(label) {
			return in, nil
		}
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
	scale     float64 // of a beat by its length in quarters: 2/3 where beats are three eighths
	simple    bool    // a metre was met whose beats are quarters
	threes    bool    // and one whose beats are three eighths
	measures  int     // that the part has
	lengths   []int   // of the bars that are over, in quarters
	metres    []int   // and what their time signature says
	lead, led int     // ticks of a pickup, and the metre that it is written in
	transpose int
	written   form.Key       // of a transposing part, as it reads it
	staff     int            // the staff that is read; 0 is any
	voice     string         // the voice that is read
	bar       int            // of the measure in hand, from 0; −1 in a pickup
	open      map[[2]int]int // notes that are tied on, by MIDI number and string
	hasTab    bool
	fingers   map[[2]int]int               // of the notation staff, by onset and MIDI number
	signed    map[[2]int][]score.Ornaments // likewise
	chords    map[int]harmony.Chord
	sections  map[int]string
	rows      map[int]bool // bars that begin a line on the paper
	signs     map[int]form.Signs
	again     int      // how many bars the bar in hand repeats; 0 is none
	words     []string // that are left out

	directions int
	frets      *Found // a tablature that another part of the file is, and that part's name
	fretsOf    string
	lent       map[int]harmony.Chord // of another part, for one without chords
	lentOf     string
	chart      bool // its chords are wanted, and not its notes
	aside      bool // it is read for its frets: bar by bar, as it is written
}

// part reads a part up to its end.
func (r *reader) part(dec *xml.Decoder) error {
	r.signed = map[[2]int][]score.Ornaments{}
	r.fingers, r.chords, r.sections = map[[2]int]int{}, map[int]harmony.Chord{}, map[int]string{}
	r.rows, r.signs = map[int]bool{}, map[int]form.Signs{}
	start := 0 // of the measure, in ticks
	var first xml.StartElement
	lead := 0 // ticks of a first measure that is short
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
		switch {
		case lead > 0 && implicit(m) && !implicit(first): // the rest of a bar that is cut in two
			start += r.ends(first, 1, lead)
		case lead > 0:
			r.leads(first, lead)
		}
		lead = 0
		met := len(r.f.Notes)
		length, err := r.measure(dec, start)
		if err != nil {
			return err
		}
		if r.again > 0 && met == len(r.f.Notes) {
			if err := r.repeat(start); err != nil {
				return err
			}
		}
		i++
		if i == 1 && r.measures > 1 && length > 0 && length < r.beats*score.Tick { // the next tells what it is
			first, lead = m, length
			continue
		}
		start += r.ends(m, i, length)
	}
}

// ends ends a bar that is so long, and tells in ticks how long it is taken to be.
func (r *reader) ends(m xml.StartElement, i, length int) int {
	own := r.beats
	switch whole := length%score.Tick == 0; {
	case length > r.beats*score.Tick:
		r.f.say("bar %d is longer than its time signature; what stands beyond it was moved into the next", r.bar+1)
	case length == 0 || length == r.beats*score.Tick:
	case whole && (implicit(m) || r.measures > 1 && (i == 1 || i == r.measures)):
		own = length / score.Tick
		r.f.say("bar %d has %d beats of %d, as it stands", r.bar+1, own, r.beats)
	default:
		r.f.say("bar %d has %g beats of %d; it was filled", r.bar+1, float64(length)/score.Tick, r.beats)
	}
	r.lengths, r.metres = append(r.lengths, own), append(r.metres, r.beats)
	r.bar++
	return own * score.Tick
}

// repeat writes into the bar in hand what the bar that it repeats has, as far as there is room.
func (r *reader) repeat(start int) error {
	from := len(r.lengths) - r.again
	if from < 0 {
		r.f.say("bar %d is to repeat %d bars, and there are none before it", r.bar+1, r.again)
		return nil
	}
	began := start
	for _, beats := range r.lengths[from:] {
		began -= beats * score.Tick
	}
	end := began + min(r.lengths[from], r.beats)*score.Tick
	for _, n := range r.f.Notes {
		if n.Start < began || n.Start >= end {
			continue
		}
		if len(r.f.Notes) >= maxNotes {
			return say.Errorf("more than %d notes; the file is longer than can be read", maxNotes)
		}
		n.Start, n.Length = n.Start+start-began, min(n.Length, end-n.Start)
		r.f.Notes = append(r.f.Notes, n)
	}
	return nil
}

// implicit tells that a measure is not counted: a pickup, or the rest of one that is cut in two.
func implicit(m xml.StartElement) bool { return attribute(m, "implicit") == "yes" }

// inMeasure are the elements of a measure that are read.
var inMeasure = []string{"attributes", "backup", "forward", "harmony", "print", "barline", "direction", "sound", "note"}

// longest is how far one measure may reach, in ticks.
const longest = 64 * score.Tick

// measure reads a measure up to its end.
func (r *reader) measure(dec *xml.Decoder, start int) (length int, err error) {
	now, last := float64(start), float64(start)
	furthest := now
	ticks := func(d float64) float64 { return d / r.divisions * score.Tick * r.scale }
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
		if !slices.Contains(inMeasure, begins.Name.Local) { // the ledger tells of it
			if err := dec.Skip(); err != nil {
				return 0, broken(err)
			}
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
			r.harmony(e, min(start+longest, max(start, int(now+ticks(min(1e7, max(-1e7, e.Offset)))+0.5))))
		case "print":
			if e.NewSystem == "yes" || e.NewPage == "yes" {
				r.rows[r.bar] = true
			}
		case "barline":
			r.order(e)
		case "direction", "sound":
			if r.directions++; r.directions > maxDirections {
				return 0, say.Errorf("more than %d directions; that is more than can be read", maxDirections)
			}
			r.direction(e)
			r.order(e)
		case "note":
			if r.chart {
				if e.Grace == nil && e.Chord == nil {
					now += ticks(e.Duration)
				}
				break
			}
			if e.Grace != nil {
				r.f.say("grace notes were left out")
				continue
			}
			switch { // what is to be seen and not to be played here is time that passes
			case e.Cue != nil:
				r.f.say("cue notes were left out")
			case e.Head == "slash" || e.Head == "none":
				r.f.say("heads that only mark the beat were read as rests")
			}
			if e.Cue != nil || e.Head == "slash" || e.Head == "none" {
				if e.Chord == nil {
					last = now
					now += ticks(e.Duration)
				}
				furthest = max(furthest, now)
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
