package neck

import (
	"math"
	"strings"

	"undaris/core/pitch"
	"undaris/core/say"
)

// Limits of an instrument.
const (
	MinStrings, MaxStrings = 4, 8
	MinFrets, MaxFrets     = 12, 27
	MinScale, MaxScale     = 300.0, 1000.0 // millimetres
)

// Instrument is a fretted neck. Build one with [New].
type Instrument struct {
	Open  []pitch.Pitch // without the capo, low to high
	Frets int           // from the nut
	Scale float64       // millimetres from nut to bridge
	Capo  int           // fret from the nut; 0 is none

	at [MaxFrets + 6]float64 // distance of each fret from the open end, in mm
}

// Tuning is a known list of open strings, low to high.
type Tuning struct {
	ID, Name string
	Open     string
	Scale    float64 // millimetres, usual for such an instrument
	Frets    int
}

// Tunings lists the tunings offered; any other list of pitches works too.
var Tunings = []Tuning{
	{"standard", "Standard", "E2,A2,D3,G3,B3,E4", 648, 22},
	{"half-step-down", "Half step down", "Eb2,Ab2,Db3,Gb3,Bb3,Eb4", 648, 22},
	{"drop-d", "Drop D", "D2,A2,D3,G3,B3,E4", 648, 22},
	{"open-g", "Open G", "D2,G2,D3,G3,B3,D4", 648, 22},
	{"open-d", "Open D", "D2,A2,D3,F#3,A3,D4", 648, 22},
	{"dadgad", "DADGAD", "D2,A2,D3,G3,A3,D4", 648, 22},
	{"seven-string", "Seven-string", "B1,E2,A2,D3,G3,B3,E4", 648, 24},
	{"bass", "Bass", "E1,A1,D2,G2", 864, 20},
	{"five-string-bass", "Five-string bass", "B0,E1,A1,D2,G2", 864, 20},
}

// TuningName is what a tuning is called, or the tuning itself where it has no name.
func TuningName(open string) string {
	for _, t := range Tunings {
		if t.Open == open {
			return t.Name
		}
	}
	return open
}

// Tuned is an instrument of a tuning, with the frets and the scale that are usual for it: those of
// [Tunings], else of another with as many strings that begins as low, else of a guitar.
func Tuned(open string, capo int) (*Instrument, error) {
	in, err := New(open, MaxFrets, Tunings[0].Scale, 0)
	if err != nil {
		return nil, err
	}
	frets, scale := Tunings[0].Frets, Tunings[0].Scale
	for _, t := range Tunings {
		if like, err := New(t.Open, t.Frets, t.Scale, 0); err == nil && like.Strings() == in.Strings() && abs(like.Open[0].MIDI()-in.Open[0].MIDI()) < 7 {
			frets, scale = t.Frets, t.Scale
			break
		}
	}
	return New(open, frets, scale, capo)
}

func abs(n int) int { return max(n, -n) }

// Standard is a guitar in standard tuning with 22 frets at 648 mm.
func Standard() *Instrument {
	in, err := New(Tunings[0].Open, 22, 648, 0)
	if err != nil {
		panic(err)
	}
	return in
}

// New builds an instrument from open strings such as "E2,A2,D3,G3,B3,E4", low
// to high, 4 to 8 of them each higher than the last; 12 to 27 frets; a scale of
// 300 to 1000 mm; a capo that leaves 12 frets. The error names what is wrong.
func New(tuning string, frets int, scale float64, capo int) (*Instrument, error) {
	in := &Instrument{Frets: frets, Scale: scale, Capo: capo}
	texts := strings.FieldsFunc(tuning, func(r rune) bool { return r == ',' || r == ' ' })
	if len(texts) < MinStrings || len(texts) > MaxStrings {
		return nil, say.Errorf("tuning %q has %d strings; write %d to %d pitches from low to high, such as E2,A2,D3,G3,B3,E4", tuning, len(texts), MinStrings, MaxStrings)
	}
	for i, t := range texts {
		p, err := pitch.ParsePitch(t)
		if err != nil {
			return nil, say.Errorf("string %d of the tuning: %w", len(texts)-i, err)
		}
		if i > 0 && p.MIDI() <= in.Open[i-1].MIDI() {
			return nil, say.Errorf("string %d (%s) is not higher than string %d (%s); list the strings from low to high", len(texts)-i, p, len(texts)-i+1, in.Open[i-1])
		}
		in.Open = append(in.Open, p)
	}
	switch {
	case frets < MinFrets || frets > MaxFrets:
		return nil, say.Errorf("%d frets; between %d and %d can be mapped", frets, MinFrets, MaxFrets)
	case !(scale >= MinScale && scale <= MaxScale):
		return nil, say.Errorf("a scale of %g mm; between %g and %g can be mapped", scale, MinScale, MaxScale)
	case capo < 0 || capo > frets-MinFrets:
		return nil, say.Errorf("capo at fret %d; on %d frets it can sit at 0 to %d", capo, frets, frets-MinFrets)
	}
	for fret := range in.at {
		in.at[fret] = scale * (math.Exp2(-float64(capo)/12) - math.Exp2(-float64(capo+fret)/12))
	}
	return in, nil
}

// Tuning writes the open strings as [New] reads them.
func (in *Instrument) Tuning() string {
	var s []string
	for _, p := range in.Open {
		s = append(s, p.String())
	}
	return strings.Join(s, ",")
}

// Strings is the number of strings.
func (in *Instrument) Strings() int { return len(in.Open) }

// Last is the highest fret, counted from the capo.
func (in *Instrument) Last() int { return in.Frets - in.Capo }

// Compass is the lowest and the highest MIDI number that lie on it.
func (in *Instrument) Compass() (low, high int) {
	low = 128
	for s := 1; s <= in.Strings(); s++ {
		low = min(low, in.MIDI(Placement{String: s}))
		high = max(high, in.MIDI(Placement{String: s, Fret: in.Last()}))
	}
	return low, high
}

// MIDI is the sound of a placement.
func (in *Instrument) MIDI(p Placement) int {
	return in.Open[len(in.Open)-p.String].MIDI() + in.Capo + p.Fret
}

// OpenName names what an open string sounds, with the capo on: sharps for
// strings tuned in sharps or naturals, flats for strings tuned in flats.
func (in *Instrument) OpenName(str int) pitch.Name {
	open := in.Open[len(in.Open)-str]
	if in.Capo == 0 {
		return open.Name
	}
	midi := in.MIDI(Placement{String: str})
	for _, n := range pitch.Roots {
		if n.Class() == midi%12 && (n.Alter == 0 || (n.Alter < 0) == (open.Alter < 0)) {
			return n
		}
	}
	return open.Name.Up(pitch.Interval{HalfSteps: in.Capo})
}

// OpenStrings are what the open strings sound, with the capo on, string 1 first.
func (in *Instrument) OpenStrings() (open []pitch.Pitch) {
	for s := 1; s <= in.Strings(); s++ {
		open = append(open, pitch.At(in.MIDI(Placement{String: s}), in.OpenName(s)))
	}
	return open
}

// FretAt is the distance of a fret from the nut (or capo) in millimetres.
// Rule of the equal-tempered fret: L·(1 − 2^(−n/12)).
// Frets beyond the neck, up to a hand's width, have a distance too.
func (in *Instrument) FretAt(fret int) float64 { return in.at[fret] }

// Reach is the distance between two frets in millimetres.
func (in *Instrument) Reach(a, b int) float64 { return math.Abs(in.at[a] - in.at[b]) }

// Placement is a place on the neck: String from 1 (highest), Fret from 0.
type Placement struct{ String, Fret int }

// Bass tells that it is written in the bass clef: its first string is below E3.
func (in *Instrument) Bass() bool { return in.Open[len(in.Open)-1].MIDI() < 52 }

// CheckPlacement says whether the place is on the neck.
func (in *Instrument) CheckPlacement(p Placement) error {
	if p.String < 1 || p.String > in.Strings() || p.Fret < 0 || p.Fret > in.Last() {
		return say.Errorf("string %d, fret %d is not on this neck, which has strings 1 to %d and frets 0 to %d", p.String, p.Fret, in.Strings(), in.Last())
	}
	return nil
}

// Find lists where a MIDI number lies inside the region, lowest string first.
func (in *Instrument) Find(midi int, r Region) []Placement {
	var out []Placement
	for s := len(in.Open); s >= 1; s-- {
		if at := (Placement{s, midi - in.MIDI(Placement{s, 0})}); r.Has(at) {
			out = append(out, at)
		}
	}
	return out
}

// plainFrom is the lowest open string, as a MIDI number, that is plain steel on
// a guitar in any usual tuning; thicker strings are wound and bend less.
const plainFrom = 52

// Bendable is how many half steps a string can be bent at a place: three at the
// most on plain strings, one on wound ones, and at the first fret, where the nut holds it. Open
// strings cannot be bent.
func (in *Instrument) Bendable(p Placement) int {
	switch {
	case p.Fret == 0:
		return 0
	case p.Fret == 1, in.wound(p.String):
		return 1
	}
	return 3
}

// Bends is how far a player bends a string at a place, in quarter tones: of the wound strings the
// highest a half step, the others no further than a curl.
func (in *Instrument) Bends(p Placement) int {
	if p.Fret > 0 && in.wound(p.String) && p.String > 1 && in.wound(p.String-1) {
		return 1
	}
	return 2 * in.Bendable(p)
}

// Plain tells whether a string is plain steel, and not wound.
func (in *Instrument) Plain(str int) bool { return !in.wound(str) }

func (in *Instrument) wound(str int) bool { return in.Open[in.Strings()-str].MIDI() < plainFrom }
