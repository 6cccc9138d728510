package server

import (
	"fmt"
	"math"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/arpeggio"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/store"
)

// Instrument is the neck as it is drawn.
type Instrument struct {
	Tuning string    `json:"tuning"`
	Open   []string  `json:"open" doc:"names of the open strings, string 1 first, capo counted"`
	Last   int       `json:"last" doc:"the highest fret"`
	Capo   int       `json:"capo"`
	Left   bool      `json:"left"`
	At     []float64 `json:"at" doc:"distance of each fret from the open end in mm"`
}

// Map is everything that the Bench and the Atlas draw of a chart.
type Map struct {
	Chart      Chart      `json:"chart"`
	Instrument Instrument `json:"instrument"`
	Sheet
	Positions []Position `json:"positions" doc:"lowest first; the player's own window last, with number 0"`
	Neck      [][]Note   `json:"neck" doc:"for each chord, its tones on the whole neck"`
	Runs      [][]Run    `json:"runs" doc:"for each position, for each chord"`
}

func (s *server) maps(api huma.API) {
	get(api, "/api/charts/{id}/map", "chart-map", "Everything about a chart on the player's neck: all bars, all positions",
		func(in *struct {
			ChartID
			Low  int `query:"low" default:"-1" doc:"with high: a window of the player's own"`
			High int `query:"high" default:"-1"`
		}) (Map, error) {
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return Map{}, missing(err)
			}
			player, err := s.store.Player()
			if err != nil {
				return Map{}, err
			}
			var own *neck.Window
			if in.Low != -1 || in.High != -1 {
				own = &neck.Window{Low: in.Low, High: in.High}
			}
			return chartMap(c, player, own)
		})
}

// chartMap computes the whole of a chart's map.
func chartMap(c store.Chart, player store.Player, own *neck.Window) (Map, error) {
	in, hand, err := playerNeck(player)
	if err != nil {
		return Map{}, err
	}
	p, key, err := progression(c)
	if err != nil {
		return Map{}, err
	}
	m := Map{Chart: wireChart(c), Instrument: wireInstrument(in, player.Left), Positions: wirePositions(in, key)}
	if own != nil {
		if _, err := (WindowQuery{own.Low, own.High}).window(in); err != nil {
			return Map{}, err
		}
		m.Positions = append(m.Positions, Position{Low: own.Low, High: own.High})
	}
	var chords []harmony.Chord
	m.Sheet, chords = wireSheet(p, key)
	for _, chord := range chords {
		m.Neck = append(m.Neck, wholeNeck(in, chord))
	}
	for _, pos := range m.Positions {
		w := neck.Window{Low: pos.Low, High: pos.High}
		prefer := picks(c.Plan, w)
		runs := make([]Run, len(chords))
		for i, chord := range chords {
			runs[i] = wireRun(arpeggio.Make(in, chord, w, hand, prefer))
		}
		m.Runs = append(m.Runs, runs)
	}
	return m, nil
}

func wireInstrument(in *neck.Instrument, left bool) Instrument {
	w := Instrument{Tuning: in.Tuning(), Last: in.Last(), Capo: in.Capo, Left: left}
	for i := range in.Open {
		w.Open = append(w.Open, in.OpenName(i+1).String())
	}
	for f := 0; f <= in.Last(); f++ {
		w.At = append(w.At, math.Round(in.FretAt(f)*100)/100)
	}
	return w
}

// wholeNeck lists every place of a chord's tones.
func wholeNeck(in *neck.Instrument, c harmony.Chord) []Note {
	list := []Note{}
	for s := 1; s <= in.Strings(); s++ {
		for f := 0; f <= in.Last(); f++ {
			midi := in.MIDI(neck.Placement{String: s, Fret: f})
			if t, ok := c.ToneAt(midi % 12); ok {
				list = append(list, Note{String: s, Fret: f, Note: t.Name.String(), MIDI: midi, Degree: string(t.Degree)})
			}
		}
	}
	return list
}

// picks are the places chosen in a window.
func picks(plan store.Plan, w neck.Window) (out []neck.Placement) {
	for _, text := range plan.Picks {
		if low, high, p, err := readPick(text); err == nil && low == w.Low && high == w.High {
			out = append(out, p)
		}
	}
	return out
}

func readPick(text string) (low, high int, p neck.Placement, err error) {
	if n, err := fmt.Sscanf(text, "%d-%d %d:%d", &low, &high, &p.String, &p.Fret); err != nil || n != 4 {
		return 0, 0, p, fmt.Errorf("%q is no chosen place; it is written low-high string:fret, such as 0-4 3:4", text)
	}
	return low, high, p, nil
}

// checkPlan says what in a plan cannot be kept.
func checkPlan(plan store.Plan, _ store.Chart) error {
	for _, text := range plan.Picks {
		if _, _, _, err := readPick(text); err != nil {
			return at("body.picks", text, err)
		}
	}
	return nil
}
