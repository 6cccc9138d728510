package chart

import (
	"slices"

	"undaris/core/blend"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Pick is a place chosen where a pitch can be had in two, for the window it was
// chosen in.
type Pick struct {
	neck.Region
	neck.Placement
}

// Pin is a target chosen by hand for the chord that begins on a beat, for the
// window it was chosen in. Bar and Beat count from 0.
type Pin struct {
	neck.Region
	Bar, Beat int
	neck.Placement
}

// Weave says how a thread is to be tied.
type Weave struct {
	Mode            crossing.Mode
	Allowed         map[string][]harmony.Role // by numeral, in place of the mode's
	Strings         neck.Strings              // that its targets lie on; those of the region where none is said
	LowMIDI, HiMIDI int                       // register, both included; 0 is no limit
}

// Plan is what a player has decided about a chart. Pins and picks whose bar,
// beat or place the chart or the neck no longer has are passed over.
type Plan struct {
	Palette blend.Palette
	By      crossing.Ranking
	Weave   Weave
	Picks   []Pick
	Pins    []Pin
}

// Chart is a progression in the hands of a player.
type Chart struct {
	Title string
	Tempo int // beats a minute
	Swing bool
	In    *neck.Instrument
	Hand  neck.Hand
	Key   form.Key
	Band  form.Progression // what is played
	Solo  form.Progression // what the soloist follows: the same, but for imagined bars
	Plan  Plan
}

// Imagine puts the soloist's own bars in place of the band's, from a bar counted
// from 1. It is an error when the chart does not have so many.
func Imagine(band, own form.Progression, bar int) (form.Progression, error) {
	from := bar - 1
	if from < 0 || from+len(own.Bars) > len(band.Bars) {
		return band, say.Errorf("bars %d to %d are imagined, and the chart has bars 1 to %d", bar, from+len(own.Bars), len(band.Bars))
	}
	solo := form.Progression{Beats: band.Beats, Bars: slices.Clone(band.Bars), Pickup: band.Pickup}
	for i, b := range own.Bars {
		old := band.Bars[from+i]
		if n := band.BeatsOf(from + i); own.BeatsOf(i) != n {
			return band, say.Errorf("bar %d has %d beats; write %d/4 before what is imagined there", from+i+1, n, n)
		}
		solo.Bars[from+i] = form.Bar{Section: old.Section, Row: old.Row, Beats: old.Beats, Written: old.Written, Pass: old.Pass, Changes: b.Changes}
	}
	return solo, nil
}

// Beside is what the band plays where the soloist imagines another chord: the
// chord of the moment, and what rubs against it.
type Beside struct {
	Band harmony.Chord
	Rubs []blend.Rub
}

// imagined tells that a bar is the soloist's own.
func (c Chart) imagined(bar int) bool {
	return !slices.EqualFunc(c.Solo.Bars[bar].Changes, c.Band.Bars[bar].Changes, func(a, b form.Change) bool {
		return a.Beat == b.Beat && a.Chord.String() == b.Chord.String()
	})
}

// beside sets the band's chords beside the soloist's own, by step.
func (c Chart) beside(places []form.Place) map[int]Beside {
	out := map[int]Beside{}
	for step, p := range places {
		if !c.imagined(p.Bar) {
			continue
		}
		played := c.Band.Bars[p.Bar].Changes
		chord := played[0].Chord
		for _, t := range played {
			if t.Beat <= p.Beat {
				chord = t.Chord
			}
		}
		out[step] = Beside{chord, blend.Rubs(p.Chord, chord)}
	}
	return out
}

// picks are the places chosen in a window.
func (p Plan) picks(w neck.Region) (out []neck.Placement) {
	for _, pick := range p.Picks {
		if pick.Low == w.Low && pick.High == w.High && w.Strings.Has(pick.String) {
			out = append(out, pick.Placement)
		}
	}
	return out
}

// pins are the targets chosen in a window, by step.
func (p Plan) pins(w neck.Region, places []form.Place) map[int]neck.Placement {
	out := map[int]neck.Placement{}
	for _, pin := range p.Pins {
		if pin.Low != w.Low || pin.High != w.High || !w.Strings.Has(pin.String) {
			continue
		}
		if i := slices.IndexFunc(places, func(q form.Place) bool { return q.Bar == pin.Bar && q.Beat == pin.Beat }); i >= 0 {
			out[i] = pin.Placement
		}
	}
	return out
}
