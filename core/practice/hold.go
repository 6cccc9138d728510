package practice

import (
	"math/rand/v2"
	"slices"
	"strconv"
	"strings"

	"undaris/core/approach"
	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// HoldKind is a kind of limit that a player holds to for some bars, whatever a way to practise asks besides.
type HoldKind struct {
	ID, Name, About string
	// options are what it may be, on an instrument and in a key.
	options func(over edit.Line) []HoldOption
	// own is what a player chose that is no option, where a kind can be held to in other ways; nil otherwise.
	own func(over edit.Line, of string) (HoldOption, bool)
	// place is where an option is played, of a kind that tells that; nil otherwise.
	place func(over edit.Line, of string) neck.Region
	// kept counts what of a stretch holds to it.
	kept func(f Free, h Hold) (kept, of int)
}

// HoldOption is one thing that a limit may be.
type HoldOption struct{ ID, Says string }

// Hold is a limit over some bars.
type Hold struct {
	Kind, Of string // of [HoldKinds], and which of its options
	Says     string
	From, To int // ticks
	region   neck.Region
}

// Held is a limit with how it was held to.
type Held struct {
	Hold
	Kept, Asked int // of notes, bars, changes or beginnings
}

// HoldKinds lists them.
var HoldKinds = []HoldKind{
	{
		ID: "stay", Name: "stay in the position", About: "whatever you play lies in the position that is chosen",
		options: func(over edit.Line) []HoldOption { return []HoldOption{{"", "stay at " + over.Region.Says()}} },
		place:   func(over edit.Line, _ string) neck.Region { return over.Region },
		kept:    placed,
	},
	{
		ID: "frets", Name: "other frets", About: "one position of the key after another",
		options: func(over edit.Line) (list []HoldOption) {
			for _, p := range over.In.Positions(over.Key.Tonic.Class()) {
				list = append(list, HoldOption{strconv.Itoa(p.Low) + "-" + strconv.Itoa(p.High), say.F("frets %d to %d", p.Low, p.High)})
			}
			return list
		},
		place: func(_ edit.Line, of string) (r neck.Region) {
			low, high, _ := strings.Cut(of, "-")
			r.Low, _ = strconv.Atoi(low)
			r.High, _ = strconv.Atoi(high)
			return r
		},
		kept: placed,
	},
	{
		ID: "strings", Name: "some strings", About: "neighbouring strings, and no others",
		options: func(over edit.Line) (list []HoldOption) {
			n := over.In.Strings()
			for wide := min(3, n-1); wide >= 2; wide-- {
				for first := 1; first+wide-1 <= n; first++ {
					list = append(list, HoldOption{say.F("%d-%d", first, first+wide-1), say.F("strings %d to %d", first, first+wide-1)})
				}
			}
			return list
		},
		own: func(over edit.Line, of string) (HoldOption, bool) {
			set, err := neck.ParseStrings(of)
			list := set.List()
			return HoldOption{of, set.Says()}, err == nil && len(list) > 0 && list[0] <= over.In.Strings()
		},
		place: func(over edit.Line, of string) neck.Region {
			set, _ := neck.ParseStrings(of)
			return neck.Region{High: over.In.Last(), Strings: set}
		},
		kept: placed,
	},
	{
		ID: "degrees", Name: "some degrees", About: "of the chord of the moment, and no others",
		options: func(edit.Line) (list []HoldOption) {
			for _, of := range []string{"root,third", "third,seventh", "root,fifth", "third,fifth", "root,third,fifth", "third,fifth,seventh", "third"} {
				list = append(list, HoldOption{of, "nothing but " + say.List(strings.Split(of, ","), "and")})
			}
			return list
		},
		kept: func(f Free, h Hold) (int, int) {
			roles, _ := harmony.RolesOf(strings.Split(h.Of, ",")...)
			return f.notes(h, func(i int) bool {
				chord, ok := f.Line.ChordAt(f.Line.Notes[i].Start)
				tone, is := chord.ToneAt(f.Line.Notes[i].Heard() % 12)
				return ok && is && Stage{Land: roles}.counts(chord, tone.Degree)
			})
		},
	},
	{
		ID: "triads", Name: "triads of the key", About: "every note is one of three in a row that are a triad of the key",
		options: func(edit.Line) []HoldOption { return []HoldOption{{"", "triads of the key, one after another"}} },
		kept: func(f Free, h Hold) (int, int) {
			within := f.triads(h)
			return f.notes(h, func(i int) bool { return within[i] })
		},
	},
	{
		ID: "few", Name: "few notes", About: "at most so many in a bar",
		options: func(edit.Line) (list []HoldOption) {
			for _, n := range []int{1, 2, 3, 4, 6} {
				list = append(list, HoldOption{strconv.Itoa(n), say.F("at most %s a bar", notes(n))})
			}
			return list
		},
		kept: func(f Free, h Hold) (kept, of int) {
			most, _ := strconv.Atoi(h.Of)
			for bar := range f.Line.Bars {
				if at := f.Line.At(bar); at < h.From || at >= h.To {
					continue
				}
				of++
				n := 0
				for _, x := range f.Line.Notes {
					if f.Line.BarOf(x.Start) == bar {
						n++
					}
				}
				if n <= most {
					kept++
				}
			}
			return kept, of
		},
	},
	{
		ID: "start", Name: "a start", About: "the first note is this degree of its chord",
		options: func(edit.Line) (list []HoldOption) {
			for _, r := range []harmony.Role{harmony.Third, harmony.Root, harmony.Fifth, harmony.Seventh} {
				list = append(list, HoldOption{r.String(), "begin on the " + r.String()})
			}
			return list
		},
		kept: func(f Free, h Hold) (int, int) {
			roles, _ := harmony.RolesOf(h.Of)
			for _, n := range f.Line.Notes {
				if n.Start < h.From || n.Start >= h.To {
					continue
				}
				chord, ok := f.Line.ChordAt(n.Start)
				if tone, is := chord.ToneAt(n.Heard() % 12); ok && is && (Stage{Land: roles}).counts(chord, tone.Degree) {
					return 1, 1
				}
				break
			}
			return 0, 1
		},
	},
	{
		ID: "device", Name: "a way in", About: "every change is led into so",
		options: func(edit.Line) (list []HoldOption) {
			for _, w := range approach.Ways {
				list = append(list, HoldOption{w.ID, "into the changes " + w.Says()})
			}
			return list
		},
		kept: func(f Free, h Hold) (kept, of int) {
			way, _ := approach.ByID(h.Of)
			for _, l := range f.Landings {
				if l.At <= h.From || l.At > h.To { // what is led into a change is played before it
					continue
				}
				if of++; f.led(l, way) {
					kept++
				}
			}
			return kept, of
		},
	},
}

func notes(n int) string {
	if n == 1 {
		return "one note"
	}
	return say.F("%d notes", n)
}

// HoldKindByID finds a kind.
func HoldKindByID(id string) (HoldKind, error) {
	i := slices.IndexFunc(HoldKinds, func(k HoldKind) bool { return k.ID == id })
	if i < 0 {
		return HoldKind{}, say.Errorf("there is no limit called %q", id)
	}
	return HoldKinds[i], nil
}

// Options are what a limit of a kind may be, on the instrument and in the key of a line.
func (k HoldKind) Options(over edit.Line) []HoldOption { return k.options(over) }

// Holding is what a player chose to hold to.
type Holding struct {
	Kinds []string // of HoldKinds; behind a colon one of its options, or else they are drawn
	Every int      // bars after which others are drawn; 0 is never
	Seed  uint64   // the same seed draws the same
}

// Over lists what is held to in a pass, counted from 0: one of the kinds in each pass at first, then all of them together.
func (h Holding) Over(over edit.Line, pass int) (list []Hold, err error) {
	kinds := h.Kinds
	if len(kinds) > 1 && pass >= 0 && pass < len(kinds) {
		kinds = kinds[pass : pass+1]
	}
	rng := rand.New(rand.NewPCG(h.Seed, uint64(max(0, pass))))
	every := h.Every
	if every <= 0 {
		every = len(over.Bars)
	}
	last := map[string]string{}
	for bar := 0; bar < len(over.Bars); bar += every {
		from, to := over.At(bar), over.At(min(len(over.Bars), bar+every))
		var stretch []Hold
		for range 30 { // until a note can be found that holds to all of it
			stretch = nil
			for _, text := range kinds {
				one, err := draw(rng, over, text, last)
				if err != nil {
					return nil, err
				}
				one.From, one.To = from, to
				stretch = append(stretch, one)
			}
			where(over, stretch)
			if possible(over, stretch) {
				break
			}
		}
		for _, one := range stretch {
			last[one.Kind] = one.Of
		}
		list = append(list, stretch...)
	}
	return list, nil
}

// draw draws an option that is not the last one, or takes the one that was chosen.
func draw(rng *rand.Rand, over edit.Line, text string, last map[string]string) (h Hold, err error) {
	id, of, chosen := strings.Cut(text, ":")
	kind, err := HoldKindByID(id)
	if err != nil {
		return h, err
	}
	options := kind.options(over)
	if chosen {
		options = slices.DeleteFunc(options, func(o HoldOption) bool { return o.ID != of })
		if len(options) == 0 && kind.own != nil {
			if o, ok := kind.own(over, of); ok {
				options = []HoldOption{o}
			}
		}
	} else if len(options) > 1 {
		options = slices.DeleteFunc(options, func(o HoldOption) bool { _, known := last[id]; return known && o.ID == last[id] })
	}
	if len(options) == 0 {
		return h, say.Errorf("%q is nothing that can be held to as %s", of, kind.Name)
	}
	o := options[rng.IntN(len(options))]
	return Hold{Kind: id, Of: o.ID, Says: o.Says}, nil
}

// where joins what a stretch says of places: these frets, on those strings.
func where(over edit.Line, stretch []Hold) {
	whole := neck.Region{High: over.In.Last()}
	for _, h := range stretch {
		kind, _ := HoldKindByID(h.Kind)
		if kind.place == nil {
			continue
		}
		r := kind.place(over, h.Of)
		if whole.Low, whole.High = max(whole.Low, r.Low), min(whole.High, r.High); r.Strings != 0 {
			whole.Strings = r.Strings
		}
	}
	for i := range stretch {
		stretch[i].region = whole
	}
}

// possible tells that over every chord of a stretch there is a tone that holds to all of it.
func possible(over edit.Line, stretch []Hold) bool {
	if len(stretch) == 0 {
		return true
	}
	roles := []harmony.Role(nil)
	for _, h := range stretch {
		if h.Kind == "degrees" {
			roles, _ = harmony.RolesOf(strings.Split(h.Of, ",")...)
		}
	}
	for _, p := range over.Places() {
		if at := over.At(p.Bar) + p.Beat*score.Tick; at < stretch[0].From || at >= stretch[0].To || p.Chord.None {
			continue
		}
		if !slices.ContainsFunc(p.Chord.Tones, func(t harmony.Tone) bool {
			return Stage{Land: roles}.counts(p.Chord, t.Degree) && lies(over.In, t.Name.Class(), stretch[0].region)
		}) {
			return false
		}
	}
	return true
}

// lies tells that a region has a place that sounds as told.
func lies(in *neck.Instrument, class int, r neck.Region) bool {
	for _, str := range in.On(r.Strings) {
		for fret := r.Low; fret <= r.High; fret++ {
			if in.MIDI(neck.Placement{String: str, Fret: fret})%12 == class {
				return true
			}
		}
	}
	return false
}

// Hold judges what is held to beside what the stage asks.
func (f *Free) Hold(list []Hold) {
	for _, h := range list {
		kind, err := HoldKindByID(h.Kind)
		if err != nil {
			continue
		}
		if !f.played.Has(h.From) {
			continue
		}
		if to := int(f.played.To); to > 0 {
			h.To = min(h.To, to)
		}
		kept, of := kind.kept(*f, h)
		f.Held = append(f.Held, Held{h, kept, of})
	}
	var worst Held
	for _, h := range f.Held {
		if h.Asked-h.Kept > worst.Asked-worst.Kept {
			worst = h
		}
	}
	if worst.Asked > worst.Kept && len(f.Line.Notes) > 0 {
		f.Try = say.F("hold to it: %s, bar %d on; %d of %d did", worst.Says, f.Line.BarOf(worst.From)+1, worst.Kept, worst.Asked)
	}
}

// Broken is how much was not held to.
func (f Free) Broken() (n int) {
	for _, h := range f.Held {
		n += h.Asked - h.Kept
	}
	return n
}

// notes counts those of a stretch that are as they are to be.
func (f Free) notes(h Hold, is func(i int) bool) (kept, of int) {
	for i, n := range f.Line.Notes {
		if n.Start < h.From || n.Start >= h.To || n.Dead {
			continue
		}
		if of++; is(i) {
			kept++
		}
	}
	return kept, of
}

// placed counts the notes that can be played where a stretch asks. On which string a note was played nobody hears: what has a
// place there counts as played there, and so does what can be bent to from one.
func placed(f Free, h Hold) (kept, of int) {
	in := f.Line.In
	return f.notes(h, func(i int) bool {
		midi := f.Line.Notes[i].Heard()
		for by := range 3 {
			for _, p := range in.Find(midi-by, h.region) {
				if by == 0 || blend.Limit(in, p, false) >= by {
					return true
				}
			}
		}
		return false
	})
}

// triads tells of each note whether it is one of three in a row that are a triad of the key.
func (f Free) triads(h Hold) map[int]bool {
	scale := f.Line.Key.Scale()
	of := map[[3]int]bool{}
	for i := range scale {
		three := [3]int{scale[i].Class(), scale[(i+2)%len(scale)].Class(), scale[(i+4)%len(scale)].Class()}
		slices.Sort(three[:])
		of[three] = true
	}
	within := map[int]bool{}
	all := f.Line.Notes
	for i := 0; i+2 < len(all); i++ {
		three := [3]int{all[i].Heard() % 12, all[i+1].Heard() % 12, all[i+2].Heard() % 12}
		slices.Sort(three[:])
		if of[three] && all[i].Start >= h.From-score.Tick && all[i+2].Start < h.To+score.Tick {
			within[i], within[i+1], within[i+2] = true, true, true
		}
	}
	return within
}

// led tells that a change was landed on behind the notes that lead into it so.
func (f Free) led(l Landing, way approach.Way) bool {
	if !l.Landed() || l.Note < 0 || l.Note < len(way.Steps) {
		return false
	}
	goal := f.Line.Notes[l.Note]
	for k, midi := range way.To(goal.Heard(), l.Chord) {
		n := f.Line.Notes[l.Note-len(way.Steps)+k]
		if n.Heard() != midi || goal.Start-n.Start > 2*score.Tick {
			return false
		}
	}
	return true
}
