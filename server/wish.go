package server

import (
	"cmp"
	"strings"

	"undaris/core/harmony"
	"undaris/core/line"
	"undaris/core/say"
)

// WishBody is what a written line should be like.
type WishBody struct {
	Rhythm     string     `json:"rhythm,omitempty" maxLength:"40" doc:"of the catalogue: eighths, triplets …; own is as the word and the feel say"`
	Density    int        `json:"density,omitempty" minimum:"0" maximum:"5" doc:"1 to 5; 0 is 3"`
	Contour    string     `json:"contour,omitempty" maxLength:"40"`
	Phrasing   string     `json:"phrasing,omitempty" maxLength:"40"`
	Targets    []string   `json:"targets,omitempty" maxItems:"5" enum:"root,third,fifth,seventh,extension" doc:"roles allowed on each change; any where none is said, thirds liked best"`
	ChordTones bool       `json:"chordTones,omitempty" doc:"nothing but chord tones"`
	Approach   bool       `json:"approach,omitempty" doc:"notes from outside the palette may lead into chord tones"`
	Word       string     `json:"word,omitempty" maxLength:"40" doc:"a style: what it sets where nothing else is said"`
	Spice      *SpiceBody `json:"spice,omitempty" doc:"how much of each way of playing, 0 to 10; the word's where it is not said"`
	Closing    string     `json:"closing,omitempty" maxLength:"40" doc:"how the last two bars go, of the catalogue's closings"`
	Lift       int        `json:"lift,omitempty" minimum:"-10" maximum:"10" doc:"higher, or lower when negative, in tenths of the region"`
	Seed       uint64     `json:"seed,omitempty"`
	From       int        `json:"from,omitempty" minimum:"0" maximum:"1024" doc:"first bar to write, from 1; 0 is all"`
	To         int        `json:"to,omitempty" minimum:"0" maximum:"1024"`
}

// SpiceBody is how much a line has of each way of playing, by its name, 0 to 10.
type SpiceBody map[string]int

func (o lineIn) wish(b WishBody) (line.Wish, error) {
	w := line.Wish{Rhythm: b.Rhythm, Word: b.Word, Contour: b.Contour, Approach: b.Approach, Seed: b.Seed, Lift: b.Lift, Closing: b.Closing}
	word, err := line.WordByID(b.Word)
	if err != nil {
		return w, at("body.wish.word", b.Word, err)
	}
	w.Spice, w.Density, w.Phrasing, w.ChordTones = word.Spice, cmp.Or(b.Density, word.Density), cmp.Or(b.Phrasing, word.Phrasing), b.ChordTones || word.ChordTones
	if b.Spice != nil {
		for name, n := range *b.Spice {
			taste, ok := line.TasteByID(name)
			if !ok || n < 0 || n > line.MostSpice {
				return w, at("body.wish.spice."+name, n, say.Errorf("%q: %d; there are %s, each 0 to %d", name, n, tastes(), line.MostSpice))
			}
			taste.Set(&w.Spice, n)
		}
	}
	if w.Targets, err = harmony.RolesOf(b.Targets...); err != nil {
		return w, at("body.wish.targets", b.Targets, err)
	}
	if err := o.CheckBars(b.From, b.To); err != nil {
		return w, at("body.from", b.From, err)
	}
	if b.From > 0 {
		w.From, w.To = b.From-1, b.To
	}
	return w, nil
}

// tastes names the ways of playing.
func tastes() string {
	return strings.Join(each(line.Tastes, func(t line.Taste) string { return t.ID }), ", ")
}

// DrillBody says which exercise.
type DrillBody struct {
	Drill    string `json:"drill" maxLength:"40"`
	Pace     string `json:"pace" maxLength:"40"`
	From     string `json:"from,omitempty" maxLength:"10" doc:"a degree to start from"`
	Order    int    `json:"order,omitempty" minimum:"0" maximum:"24" doc:"1 to 24, of four tones"`
	Cell     []int  `json:"cell,omitempty" maxItems:"16" doc:"steps of the scale from 1, for the cell that is carried through it"`
	Down     bool   `json:"down,omitempty"`
	Approach string `json:"approach,omitempty" maxLength:"40" doc:"what leads into each tone; the tone comes on the beat"`
	Into     string `json:"into,omitempty" maxLength:"60" doc:"the only tones that are led into: root, third, fifth, seventh; all where none is said"`
	Together bool   `json:"together,omitempty" doc:"struck at once, what it plays one after the other"`
	Octave   bool   `json:"octave,omitempty" doc:"one octave, from the start"`
	Roots    string `json:"roots,omitempty" enum:"before,after" doc:"of a chord over its root: where the root is played; both where it is not said"`
	Land     string `json:"land,omitempty" maxLength:"60" doc:"timed to come out on one of these of the next chord: root, third, fifth, seventh"`
	Beat     int    `json:"beat,omitempty" minimum:"0" maximum:"12" doc:"of each chord's last bar, on which a run that is timed sets out"`
	Route    int    `json:"route,omitempty" minimum:"0" maximum:"16" doc:"which of the runs that are as short"`
	Burst    int    `json:"burst,omitempty" minimum:"0" maximum:"12" doc:"so many notes, the last held until a beat"`
	Offset   int    `json:"offset,omitempty" minimum:"0" maximum:"15" doc:"sixteenths after each chord begins"`
	Double   bool   `json:"double,omitempty" doc:"the second half of each chord goes at twice the pace"`
	Until    int    `json:"until,omitempty" minimum:"0" maximum:"12" doc:"the beat of its last bar after which each chord rests"`
	HighStr  int    `json:"highString,omitempty" minimum:"0" maximum:"8" doc:"with lowString: what older exercises are on; the region tells it"`
	LowStr   int    `json:"lowString,omitempty" minimum:"0" maximum:"8"`
	Strings  []int  `json:"strings,omitempty" maxItems:"8" minimum:"1" maximum:"8" doc:"of the region those that it is on, also apart"`
}
