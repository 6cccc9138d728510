package server

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/store"
)

// Target is a note of the thread.
type Target struct {
	Step    int    `json:"step" doc:"the chord it belongs to, counted from 0 through the form"`
	Chorus  int    `json:"chorus,omitempty" doc:"from 0"`
	String  int    `json:"string"`
	Fret    int    `json:"fret"`
	MIDI    int    `json:"midi"`
	Degree  string `json:"degree"`
	Note    string `json:"note"`
	Move    int    `json:"move" doc:"half steps from the target before"`
	Pinned  bool   `json:"pinned,omitempty"`
	Against string `json:"against,omitempty" doc:"what it is over the band's chord, where the soloist imagines another and it rubs"`
}

// Thread is one target for each chord of the form, or why there is none.
type Thread struct {
	Targets     []Target       `json:"targets"`
	HalfSteps   int            `json:"halfSteps" doc:"all moves together"`
	Millimetres float64        `json:"mm" doc:"travel of the hand"`
	Problem     *ThreadProblem `json:"problem,omitempty"`
}

// ThreadProblem says which chord has no possible target.
type ThreadProblem struct {
	Message string `json:"message"`
	Step    int    `json:"step"`
	Pinned  bool   `json:"pinned" doc:"a target chosen by hand stands in the way"`
}

// weave is what a thread is tied from, but for its window.
type weave struct {
	in        *neck.Instrument
	places    []form.Place
	mode      crossing.Mode
	high, low int             // string set; 0 is all
	register  [2]int          // lowest and highest MIDI number; 0 is no limit
	stops     []crossing.Stop // through all choruses, without pins
}

// targets ties the thread in a window, through as many choruses as the mode has.
func (v weave) targets(ctx context.Context, w neck.Window, pins map[int]neck.Placement) ([]crossing.Target, crossing.Cost, error) {
	n := len(v.places)
	stops := v.stops
	if len(pins) > 0 {
		stops = slices.Clone(v.stops)
		for i := range stops {
			if pin, ok := pins[i%n]; ok {
				stops[i].Pin = &pin
			}
		}
	}
	return crossing.Tie(ctx, v.in, stops, crossing.Range{Window: w, HighStr: v.high, LowStr: v.low,
		LowMIDI: v.register[0], HiMIDI: v.register[1]})
}

// problem tells which chord has no possible target.
func (v weave) problem(err error) *ThreadProblem {
	var size *crossing.SizeError
	if errors.As(err, &size) {
		return &ThreadProblem{Message: "No thread: " + size.Error() + "."}
	}
	var stop *crossing.StopError
	switch {
	case err == nil:
		return nil
	case !errors.As(err, &stop):
		return &ThreadProblem{Message: err.Error()}
	}
	n := len(v.places)
	p := v.places[stop.Stop%n]
	return &ThreadProblem{fmt.Sprintf("No thread: in bar %d, %s.", p.Bar+1, stop.Reason), stop.Stop % n, stop.Pinned}
}

// tie is the thread of a window as the API tells it.
func (v weave) tie(ctx context.Context, w neck.Window, pins map[int]neck.Placement) Thread {
	n := len(v.places)
	targets, cost, err := v.targets(ctx, w, pins)
	if problem := v.problem(err); problem != nil {
		return Thread{Targets: []Target{}, Problem: problem}
	}
	t := Thread{Targets: make([]Target, len(targets)), HalfSteps: cost.HalfSteps, Millimetres: tenth(cost.Travel)}
	for i, g := range targets {
		_, pinned := pins[g.Stop%n]
		t.Targets[i] = Target{Step: g.Stop % n, Chorus: g.Stop / n, String: g.String, Fret: g.Fret, MIDI: g.MIDI,
			Degree: string(g.Tone.Degree), Note: g.Tone.Name.String(), Move: g.Move, Pinned: pinned}
	}
	return t
}

// roleList reads roles without adding those left out.
func roleList(text string) ([]harmony.Role, error) {
	roles, err := harmony.ParseOrder(text)
	if err != nil {
		return nil, err
	}
	return roles[:len(strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ' ' }))], nil
}

// newWeave reads a plan's wishes about the thread.
func newWeave(in *neck.Instrument, p form.Progression, key form.Key, plan store.Plan, where string) (weave, error) {
	v := weave{in: in, places: p.Places()}
	allowed := map[string][]harmony.Role{} // by numeral
	var err error
	id := plan.Thread
	if id == "" {
		id = crossing.Modes[0].ID
	}
	if v.mode, err = crossing.ModeByID(id); err != nil {
		return v, at(where+"thread", id, err)
	}
	for numeral, text := range plan.Allowed {
		if strings.TrimSpace(text) == "" {
			continue
		}
		roles, err := roleList(text)
		if err != nil {
			return v, at(where+"allowed", text, err)
		}
		allowed[numeral] = roles
	}
	if plan.Strings != "" {
		if n, err := fmt.Sscanf(plan.Strings, "%d-%d", &v.high, &v.low); err != nil || n != 2 || v.high < 1 || v.low < v.high || v.low > neck.MaxStrings {
			return v, at(where+"strings", plan.Strings, say.Errorf("%q is no string set; write the highest and the lowest string, such as 1-3", plan.Strings))
		}
	}
	v.stops = make([]crossing.Stop, 0, len(v.places)*len(v.mode.Choruses))
	for chorus := range v.mode.Choruses {
		for _, p := range v.places {
			stop := crossing.Stop{Chord: p.Chord, Allowed: v.mode.Allowed(chorus)}
			if len(allowed) > 0 {
				if roles, ok := allowed[form.Numeral(p.Chord, key)]; ok {
					stop.Allowed = roles
				}
			}
			v.stops = append(v.stops, stop)
		}
	}
	return v, nil
}

// readPin reads "low-high bar.beat string:fret".
func readPin(text string) (w neck.Window, bar, beat int, p neck.Placement, err error) {
	if n, err := fmt.Sscanf(text, "%d-%d %d.%d %d:%d", &w.Low, &w.High, &bar, &beat, &p.String, &p.Fret); err != nil || n != 6 {
		return w, 0, 0, p, say.Errorf("%q is no chosen target; it is written low-high bar.beat string:fret, such as 7-11 2.1 3:8", text)
	}
	return w, bar, beat, p, nil
}

// pinsIn are the pins of a window by step. Pins whose bar or beat the chart no
// longer has are passed over.
func pinsIn(pins []string, w neck.Window, places []form.Place) map[int]neck.Placement {
	out := map[int]neck.Placement{}
	for _, text := range pins {
		pw, bar, beat, p, err := readPin(text)
		if err != nil || pw != w {
			continue
		}
		if i := slices.IndexFunc(places, func(q form.Place) bool { return q.Bar == bar-1 && q.Beat == beat-1 }); i >= 0 {
			out[i] = p
		}
	}
	return out
}

func (s *server) threads(api huma.API) {
	get(s, api, "/api/threads", "thread", "One target for each chord of a form, joined at the least movement",
		func(ctx context.Context, in *struct {
			NeckWindow
			Text    string   `query:"text" required:"true" maxLength:"60000" doc:"| C7 | F7 | C7 | % |"`
			Key     string   `query:"key" required:"true"`
			Beats   int      `query:"beats" default:"4"`
			Mode    string   `query:"mode" default:"guide-tones"`
			Strings string   `query:"strings" doc:"a string set, such as 1-3"`
			Lowest  int      `query:"lowest" minimum:"0" maximum:"127" doc:"MIDI number of the lowest target; 0 is no limit"`
			Highest int      `query:"highest" minimum:"0" maximum:"127" doc:"MIDI number of the highest target; 0 is no limit"`
			Pins    []string `query:"pins,explode" maxItems:"2048" doc:"bar.beat string:fret, such as 2.1 3:8"`
		}) (Thread, error) {
			on, err := in.read()
			if err != nil {
				return Thread{}, err
			}
			key, err := readKey("query.key", in.Key)
			if err != nil {
				return Thread{}, err
			}
			p, err := form.Read(in.Text, in.Beats, key)
			if err != nil {
				return Thread{}, at("query.text", in.Text, err)
			}
			v, err := newWeave(on.in, p, key, store.Plan{Thread: in.Mode, Strings: in.Strings}, "query.")
			if err != nil {
				return Thread{}, err
			}
			v.register = [2]int{in.Lowest, in.Highest}
			var pins []string
			for _, pin := range in.Pins {
				full := fmt.Sprintf("%d-%d %s", on.w.Low, on.w.High, pin)
				if _, _, _, _, err := readPin(full); err != nil {
					return Thread{}, at("query.pins", pin, say.Errorf("%q is no pin; it is written bar.beat string:fret, such as 2.1 3:8", pin))
				}
				pins = append(pins, full)
			}
			t := v.tie(ctx, on.w, pinsIn(pins, on.w, v.places))
			if t.Problem != nil {
				return t, at("query.pins", in.Pins, errors.New(t.Problem.Message))
			}
			return t, nil
		})
}
