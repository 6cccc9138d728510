package server

import (
	"context"
	"errors"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/say"
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
	Led     *Led   `json:"led,omitempty" doc:"by two tones of the chord before that enclose it"`
}

// Led is the way into a target from both sides.
type Led struct {
	Below LedTone `json:"below"`
	Above LedTone `json:"above"`
}

// LedTone is a tone that leads, and where it lies.
type LedTone struct {
	ToneName
	Place
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

func wireTarget(g chart.Target) Target {
	w := Target{Step: g.Step, Chorus: g.Chorus, String: g.String, Fret: g.Fret, MIDI: g.MIDI, Degree: string(g.Tone.Degree),
		Note: g.Tone.Name.String(), Move: g.Move, Pinned: g.Pinned, Against: string(g.Against)}
	if l := g.Led; l != nil {
		w.Led = &Led{LedTone{wireTone(l.Below), Place(l.AtBelow)}, LedTone{wireTone(l.Above), Place(l.AtAbove)}}
	}
	return w
}

func wireThread(t chart.Thread, why error) Thread {
	w := Thread{each(t.Targets, wireTarget), t.Cost.HalfSteps, tenth(t.Cost.Travel), nil}
	var none *chart.NoThread
	if errors.As(why, &none) {
		w.Problem = &ThreadProblem{none.Says, none.Step, none.Pinned}
	} else if why != nil {
		w.Problem = &ThreadProblem{Message: why.Error()}
	}
	return w
}

// readPins reads "bar.beat string:fret" for a window.
func readPins(texts []string, w neck.Region) (pins []chart.Pin, err error) {
	for _, text := range texts {
		p := chart.Pin{Region: w}
		if n, err := fmt.Sscanf(text, "%d.%d %d:%d", &p.Bar, &p.Beat, &p.String, &p.Fret); err != nil || n != 4 {
			return nil, at("query.pins", text, say.Errorf("%q is no pin; it is written bar.beat string:fret, such as 2.1 3:8", text))
		}
		p.Bar, p.Beat = p.Bar-1, p.Beat-1
		pins = append(pins, p)
	}
	return pins, nil
}

func (s *server) threads(api huma.API) {
	get(s, api, "/api/threads", "thread", "One target for each chord of a form, joined at the least movement",
		func(ctx context.Context, in *struct {
			NeckRegion
			Text    string   `query:"text" required:"true" maxLength:"60000" doc:"| C7 | F7 | C7 | % |"`
			Key     string   `query:"key" required:"true"`
			Beats   int      `query:"beats" default:"4"`
			Mode    string   `query:"mode" default:"guide-tones"`
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
			c := chart.Chart{In: on.in, Hand: on.hand, Key: key, Band: p, Solo: p}
			c.Plan.Weave.LowMIDI, c.Plan.Weave.HiMIDI = in.Lowest, in.Highest
			if c.Plan.Weave.Mode, err = crossing.ModeByID(in.Mode); err != nil {
				return Thread{}, at("query.thread", in.Mode, err)
			}
			if c.Plan.Pins, err = readPins(in.Pins, on.w); err != nil {
				return Thread{}, err
			}
			t, err := c.Thread(ctx, on.w)
			if err != nil {
				return Thread{}, at("query.pins", in.Pins, err)
			}
			return wireThread(t, nil), nil
		})
}
