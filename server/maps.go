package server

import (
	"context"
	"slices"
	"strings"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/store"
)

// Instrument is the neck as it is drawn.
type Instrument struct {
	Tuning string   `json:"tuning"`
	Open   []string `json:"open" doc:"names of the open strings, string 1 first, capo counted"`
	MIDI   []int    `json:"midi" doc:"numbers of the open strings, string 1 first, capo counted"`
	Last   int      `json:"last" doc:"the highest fret"`
	Capo   int      `json:"capo"`
	Left   bool     `json:"left"`
}

// Map is everything that the Bench and the Atlas draw of a chart.
type Map struct {
	Chart      Chart      `json:"chart"`
	Instrument Instrument `json:"instrument"`
	Sheet
	Imagined   bool         `json:"imagined" doc:"some bars are the soloist's own; each has the band's beside it"`
	Positions  []Position   `json:"positions" doc:"lowest first; the player's own window last, with number 0"`
	SmallBox   *Position    `json:"smallBox,omitempty" doc:"the box on the top three strings"`
	Choruses   int          `json:"choruses" doc:"choruses of the thread before it comes round"`
	Neck       [][]Note     `json:"neck" doc:"for each chord, its tones on the whole neck"`
	Blends     []Blend      `json:"blends" doc:"for each chord, the palette over it on the whole neck"`
	Changes    []Crossing   `json:"changes" doc:"the pairs of chords that follow each other"`
	ByPosition []InPosition `json:"byPosition" doc:"for each position"`
}

// Crossing is a pair of chords that follow each other.
type Crossing struct {
	From  int    `json:"from" doc:"index of the chord"`
	To    int    `json:"to"`
	Steps []Step `json:"steps" doc:"what moves where, ranked"`
}

// InPosition is what lies in one position.
type InPosition struct {
	Runs      []Run           `json:"runs" doc:"for each chord"`
	Crossings [][][]MovePlace `json:"crossings" doc:"for each of the changes, for each of its steps: where it lies, nearest first"`
	Thread    Thread          `json:"thread"`
}

func (s *server) maps(api huma.API) {
	get(s, api, "/api/charts/{id}/map", "chart-map", "Everything about a chart on the player's neck: all bars, all positions",
		queued(s, func(ctx context.Context, in *struct {
			ByID
			Low  int `query:"low" default:"-1" doc:"with high: a window of the player's own"`
			High int `query:"high" default:"-1"`
		}) (Map, error) {
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return Map{}, missing("chart", err)
			}
			player, err := s.store.Player()
			if err != nil {
				return Map{}, err
			}
			var own *neck.Window
			if in.Low != -1 || in.High != -1 {
				own = &neck.Window{Low: in.Low, High: in.High}
			}
			return chartMap(ctx, c, player.Player, own)
		}))
}

// survey is a chart read and laid on a neck.
type survey struct {
	in     *neck.Instrument
	hand   neck.Hand
	key    form.Key
	plan   store.Plan
	by     crossing.Ranking
	chords []harmony.Chord
	weave  weave
	moves  [][]crossing.Move         // for each pair, wherever they lie
	rubs   map[int]map[string]string // by step and degree: what it is over the band's chord
}

// chartMap computes the whole of a chart's map.
func chartMap(ctx context.Context, c store.Chart, player store.Player, own *neck.Window) (Map, error) {
	in, hand, err := playerNeck(player)
	if err != nil {
		return Map{}, err
	}
	band, key, err := progression(c)
	if err != nil {
		return Map{}, err
	}
	solo, err := imagined(band, key, c.Plan)
	if err != nil {
		return Map{}, err
	}
	m := Map{Chart: wireChart(c), Instrument: wireInstrument(in, player.Left), Positions: wirePositions(in, key), Imagined: c.Plan.Imagined != nil}
	if own != nil {
		if _, err := (WindowQuery{own.Low, own.High}).window(in); err != nil {
			return Map{}, err
		}
		m.Positions = append(m.Positions, Position{Low: own.Low, High: own.High})
	}
	if box, ok := blend.SmallBox(in, key.Tonic.Class()); ok {
		m.SmallBox = &Position{Low: box.Window.Low, High: box.Window.High}
	}
	s := survey{in: in, hand: hand, key: key, plan: c.Plan, rubs: map[int]map[string]string{}}
	if s.by, err = (RankQuery{c.Plan.Targets, c.Plan.Nearest}).ranking("body.targets"); err != nil {
		return Map{}, err
	}
	if s.weave, err = newWeave(in, solo, key, c.Plan, "body."); err != nil {
		return Map{}, err
	}
	palette, err := blend.PaletteByID(paletteOf(c.Plan))
	if err != nil {
		return Map{}, at("body.palette", c.Plan.Palette, err)
	}
	m.Sheet, s.chords = wireSheet(solo, key)
	m.Choruses = len(s.weave.mode.Choruses)
	s.hear(&m.Sheet, band, solo)
	m.Changes = follow(m.Bars)
	for i, c := range m.Changes {
		moves := crossing.Steps(s.chords[c.From], s.chords[c.To], s.by)
		s.moves = append(s.moves, moves)
		for _, move := range moves {
			m.Changes[i].Steps = append(m.Changes[i].Steps, wireStep(move))
		}
	}
	whole := neck.Window{Low: 0, High: in.Last()}
	for _, chord := range s.chords {
		m.Neck = append(m.Neck, wholeNeck(in, chord))
		m.Blends = append(m.Blends, wireBlend(in, key, palette, chord, whole, false))
	}
	m.ByPosition = make([]InPosition, len(m.Positions))
	var all sync.WaitGroup
	for i, pos := range m.Positions {
		all.Go(func() { m.ByPosition[i] = s.lay(ctx, neck.Window{Low: pos.Low, High: pos.High}) })
	}
	all.Wait()
	return m, nil
}

// lay finds runs, crossings and the thread in one window.
func (s *survey) lay(ctx context.Context, w neck.Window) InPosition {
	out := InPosition{Runs: make([]Run, len(s.chords)), Crossings: make([][][]MovePlace, len(s.moves))}
	prefer := picks(s.plan, w)
	for i, chord := range s.chords {
		out.Runs[i] = wireRun(arpeggio.Make(s.in, chord, w, s.hand, prefer))
	}
	for i, moves := range s.moves {
		out.Crossings[i] = make([][]MovePlace, len(moves))
		for j, m := range moves {
			out.Crossings[i][j] = wirePlaces(crossing.Places(s.in, m, w))
		}
	}
	out.Thread = s.weave.tie(ctx, w, pinsIn(s.plan.Pins, w, s.weave.places))
	for i, t := range out.Thread.Targets {
		out.Thread.Targets[i].Against = s.rubs[t.Step][t.Degree]
	}
	return out
}

// follow lists the different pairs of chords that follow each other, the last
// of the form leading to the first.
func follow(bars []Bar) []Crossing {
	var order []int
	for _, b := range bars {
		for _, c := range b.Changes {
			order = append(order, c.Chord)
		}
	}
	pairs := []Crossing{}
	for i, from := range order {
		to := order[(i+1)%len(order)]
		if from != to && !slices.ContainsFunc(pairs, func(p Crossing) bool { return p.From == from && p.To == to }) {
			pairs = append(pairs, Crossing{From: from, To: to, Steps: []Step{}})
		}
	}
	return pairs
}

// imagined puts the soloist's bars in place of the band's.
func imagined(band form.Progression, key form.Key, plan store.Plan) (form.Progression, error) {
	if plan.Imagined == nil {
		return band, nil
	}
	own, err := form.Read(plan.Imagined.Text, band.Beats, key)
	if err != nil {
		return band, at("body.imagined", plan.Imagined.Text, err)
	}
	from := plan.Imagined.Bar - 1
	if from < 0 || from+len(own.Bars) > len(band.Bars) {
		return band, at("body.imagined", plan.Imagined.Bar,
			say.Errorf("bars %d to %d are imagined, and the chart has bars 1 to %d", from+1, from+len(own.Bars), len(band.Bars)))
	}
	solo := form.Progression{Beats: band.Beats, Bars: slices.Clone(band.Bars)}
	for i, b := range own.Bars {
		old := band.Bars[from+i]
		solo.Bars[from+i] = form.Bar{Section: old.Section, Row: old.Row, Changes: b.Changes}
	}
	return solo, nil
}

// hear sets the band's chords beside the soloist's own and marks what rubs.
func (s *survey) hear(sheet *Sheet, band, solo form.Progression) {
	step := 0
	for i := range solo.Bars {
		mine, theirs := solo.Bars[i].Changes, band.Bars[i].Changes
		same := slices.EqualFunc(mine, theirs, func(a, b form.Change) bool {
			return a.Beat == b.Beat && a.Chord.String() == b.Chord.String()
		})
		for j, c := range mine {
			if !same {
				chord := theirs[0].Chord
				for _, t := range theirs {
					if t.Beat <= c.Beat {
						chord = t.Chord
					}
				}
				s.rubs[step] = map[string]string{}
				for _, r := range blend.Rubs(c.Chord, chord) {
					s.rubs[step][string(r.Tone.Degree)] = string(r.Over.Degree)
					sheet.Bars[i].Changes[j].Rubs = append(sheet.Bars[i].Changes[j].Rubs,
						Rub{wireTone(r.Tone), string(r.Over.Degree), chord.String()})
				}
			}
			step++
		}
		if !same {
			var symbols []string
			for _, t := range theirs {
				symbols = append(symbols, t.Chord.String())
			}
			sheet.Bars[i].Band = strings.Join(symbols, " ")
		}
	}
}

func wireInstrument(in *neck.Instrument, left bool) Instrument {
	w := Instrument{Tuning: in.Tuning(), Last: in.Last(), Capo: in.Capo, Left: left}
	for i := range in.Open {
		w.Open = append(w.Open, in.OpenName(i+1).String())
		w.MIDI = append(w.MIDI, in.MIDI(neck.Placement{String: i + 1}))
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
