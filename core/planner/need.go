package planner

import (
	"cmp"
	"slices"
	"time"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Asks are what tunes need of a player on an instrument: in the key of each, in each position, from each tone of each kind of chord that
// it has, up and down. Calls keep no time.
func Asks(in *neck.Instrument, tunes []Tune) (asks []Ask) {
	seen := map[Ask]bool{}
	for _, t := range tunes {
		for _, quality := range t.Qualities {
			for _, p := range in.Positions(t.Key) {
				if p.Number > Positions {
					continue
				}
				for _, d := range degreesOf(quality) {
					for _, down := range []bool{false, true} {
						a := Ask{Key: t.Key, Position: p.Number - 1, Quality: quality, Degree: d, Down: down, Device: "tones"}
						if !seen[a] {
							seen[a] = true
							asks = append(asks, a)
						}
					}
				}
			}
		}
	}
	return asks
}

// Says tells an ask in words: the kind of chord, the way, and where on an instrument.
func (a Ask) Says(in *neck.Instrument) string {
	way, where := "upward", "anywhere"
	if a.Down {
		way = "downward"
	}
	if p, ok := in.Numbered(a.Key, a.Position+1); ok {
		where = say.F("frets %d to %d", p.Low, p.High)
	}
	return say.F("%v in %s, %s, %s from the %s", chord(KeyName(a.Key).String()+a.Quality), form.Key{Tonic: KeyName(a.Key)}, where, way, a.Degree)
}

// degreesOf are those of [Degrees] that a kind of chord has.
func degreesOf(quality string) []string {
	c, err := harmony.Parse("C" + quality)
	if err != nil {
		return nil
	}
	return slices.DeleteFunc(slices.Clone(Degrees), func(d string) bool {
		return !slices.ContainsFunc(c.Tones, func(t harmony.Tone) bool { return t.Degree.Role().String() == d })
	})
}

// unmet are the places, degrees and kinds of chords of an ask that were never asked for.
func (m *Model) unmet(a Ask) (list []Kind) {
	for _, s := range a.Skills() {
		if k, known := m.skills[s]; (s.Kind == Place || s.Kind == Degree || s.Kind == Chord) && (!known || k.Trials == 0) {
			list = append(list, s.Kind)
		}
	}
	return list
}

// ready is how likely what is known has to succeed, before something new comes.
const ready = 0.45

// due are so many asks to the letter that are made of what was met before, the most worth first, and one that is new where something
// may be: the next step from what is known.
func (m *Model) due(o Order, counted *Tally, count int, at time.Time, seed uint64, mayBeNew bool) (asks []Ask, next *Ask) {
	needed := map[Ask]bool{}
	var known, fresh, others []Ask
	for _, a := range Asks(o.In, o.Tunes) {
		needed[a] = true
		if len(m.unmet(a)) == 0 {
			known = append(known, a)
		} else {
			fresh = append(fresh, a)
		}
	}
	for _, a := range Everything() { // what was learned for other music stays known
		if a.Tempo = 0; needed[a] {
			continue
		}
		if counted.asked(a) != nil {
			known = append(known, a)
		} else if len(m.unmet(a)) > 0 {
			others = append(others, a)
		}
	}
	if len(fresh) == 0 {
		fresh = others
	}
	if len(o.Tunes) == 0 && len(known) == 0 { // there is nothing else to begin with: some steps, each on the one before
		first := m.next(o, fresh)
		fresh = slices.DeleteFunc(fresh, func(a Ask) bool { return a.Key != first.Key || a.Position != first.Position })
		for n := (count + Mixed - 1) / Mixed; n > 0 && len(fresh) > 0; n-- {
			next := m.next(o, fresh)
			known = append(known, *next)
			fresh = slices.DeleteFunc(fresh, func(a Ask) bool { return a == *next })
		}
		return known, nil
	}
	asks = m.Choose(known, count, at, seed)
	if !mayBeNew || len(fresh) == 0 || !m.steady(asks, at) {
		return asks, nil
	}
	return asks, m.next(o, fresh)
}

// steady tells that what was chosen goes well enough for something new beside it; of nothing it does.
func (m *Model) steady(asks []Ask, at time.Time) bool {
	sum := 0.0
	for _, a := range asks {
		p, _ := m.Predict(a, at)
		sum += p
	}
	return len(asks) < Mixed || sum >= ready*float64(len(asks)) // of little nothing can be told
}

// next is the new thing that is nearest to what is known: with the least that is new; roots before thirds, up before down, the first
// tune before the next, the kind of chord that begins it before others, the place where the hand stretches least before others.
func (m *Model) next(o Order, fresh []Ask) *Ask {
	tune := func(a Ask) int {
		return max(0, slices.IndexFunc(o.Tunes, func(t Tune) bool { return t.Key == a.Key && slices.Contains(t.Qualities, a.Quality) }))
	}
	cost := func(a Ask) int {
		n := slices.Index(Degrees, a.Degree) + 4*tune(a)
		if a.Down {
			n += 3
		}
		if k := tune(a); k < len(o.Tunes) {
			n += max(0, slices.Index(o.Tunes[k].Qualities, a.Quality))
		}
		if narrow, ok := o.In.Narrow(a.Key, o.Hand); !ok || narrow.Number-1 != a.Position {
			n += 2 + a.Position
		}
		return n
	}
	best := slices.MinFunc(fresh, func(a, b Ask) int {
		return cmp.Or(cmp.Compare(len(m.unmet(a)), len(m.unmet(b))), cmp.Compare(cost(a), cost(b)), cmp.Compare(a.Key, b.Key), cmp.Compare(a.Position, b.Position))
	})
	return &best
}
