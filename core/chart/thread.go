package chart

import (
	"context"
	"errors"
	"slices"

	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Target is a note of the thread.
type Target struct {
	crossing.Target
	Step    int // the chord it belongs to, counted from 0 through the form
	Chorus  int // from 0
	Pinned  bool
	Against harmony.Degree // what it is over the band's chord, where the soloist imagines another and it rubs
	Led     *Led           // by two tones of the chord before that enclose it, where the region has them
}

// Led is the way into a target from both sides.
type Led struct {
	Below, Above     harmony.Tone
	AtBelow, AtAbove neck.Placement
}

// led looks for what encloses a target.
func (c Chart) led(before harmony.Chord, g crossing.Target, stop harmony.Chord, w neck.Region) *Led {
	for _, e := range crossing.Enclosures(before, stop) {
		if e.To.Degree != g.Tone.Degree {
			continue
		}
		if below, above, ok := e.Places(c.In, g.Placement, w); ok {
			return &Led{e.Below, e.Above, below, above}
		}
	}
	return nil
}

// Thread is one target for each chord of the form.
type Thread struct {
	Targets []Target
	Cost    crossing.Cost
}

// NoThread says why there is no thread: a chord without a possible target, or a
// question too wide.
type NoThread struct {
	Step   int  // the chord that has no possible target
	Pinned bool // a target chosen by hand stands in the way
	Says   string
}

func (e *NoThread) Error() string { return e.Says }

// tied is a chart made ready for threads in any window.
type tied struct {
	places []form.Place
	stops  []crossing.Stop // through all choruses, without pins
	beside map[int]Beside
}

func (c Chart) ready() tied {
	t := tied{places: c.Solo.Places()}
	t.beside = c.beside(t.places)
	weave := c.Plan.Weave
	for chorus := range weave.Mode.Choruses {
		for _, p := range t.places {
			stop := crossing.Stop{Chord: p.Chord, Allowed: weave.Mode.Allowed(chorus)}
			if len(weave.Allowed) > 0 {
				if roles, ok := weave.Allowed[form.Numeral(p.Chord, c.Key)]; ok {
					stop.Allowed = roles
				}
			}
			t.stops = append(t.stops, stop)
		}
	}
	return t
}

// Thread ties the thread of a window, through as many choruses as its mode has.
// The error is a *[NoThread] where there is none.
func (c Chart) Thread(ctx context.Context, w neck.Region) (Thread, error) {
	return c.tie(ctx, c.ready(), w)
}

func (c Chart) tie(ctx context.Context, t tied, w neck.Region) (Thread, error) {
	n := len(t.places)
	stops := t.stops
	pins := c.Plan.pins(w, t.places)
	if len(pins) > 0 {
		stops = slices.Clone(t.stops)
		for i := range stops {
			if pin, ok := pins[i%n]; ok {
				stops[i].Pin = &pin
			}
		}
	}
	weave := c.Plan.Weave
	on, err := w.On(weave.Strings)
	if err != nil {
		return Thread{}, &NoThread{Says: "No thread: " + err.Error() + "."}
	}
	targets, cost, err := crossing.Tie(ctx, c.In, stops, crossing.Range{Region: on, LowMIDI: weave.LowMIDI, HiMIDI: weave.HiMIDI})
	if err != nil {
		return Thread{}, t.why(err)
	}
	out := Thread{make([]Target, len(targets)), cost}
	for i, g := range targets {
		step := g.Stop % n
		_, pinned := pins[step]
		out.Targets[i] = Target{Target: g, Step: step, Chorus: g.Stop / n, Pinned: pinned}
		if before := t.places[(step+n-1)%n].Chord; before.String() != t.places[step].Chord.String() {
			out.Targets[i].Led = c.led(before, g, t.places[step].Chord, w)
		}
		for _, r := range t.beside[step].Rubs {
			if r.Tone.Degree == g.Tone.Degree {
				out.Targets[i].Against = r.Over.Degree
			}
		}
	}
	return out, nil
}

// why tells which chord has no possible target.
func (t tied) why(err error) error {
	var size *crossing.SizeError
	if errors.As(err, &size) {
		return &NoThread{Says: "No thread: " + size.Error() + "."}
	}
	var stop *crossing.StopError
	if !errors.As(err, &stop) {
		return err
	}
	step := stop.Stop % len(t.places)
	return &NoThread{step, stop.Pinned, say.F("No thread: in bar %d, %s.", t.places[step].Bar+1, stop.Reason)}
}
