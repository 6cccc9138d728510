package server

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/segmentio/encoding/json"

	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
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
	Spans      []FormSpan   `json:"spans" doc:"stretches worth being led through at once"`
	ByPosition []InPosition `json:"byPosition" doc:"for each position"`

	written []byte // itself in JSON, where it is kept
}

func (m *Map) json() []byte { return m.written }

// Crossing is a pair of chords that follow each other.
type Crossing struct {
	From     int         `json:"from" doc:"index of the chord"`
	To       int         `json:"to"`
	Steps    []Step      `json:"steps" doc:"what moves where, ranked"`
	Enclosed []Enclosure `json:"enclosed" doc:"tones of the next chord between two of this one"`
}

// Enclosure is two tones of a chord a half step either side of one of the next.
type Enclosure struct {
	Below ToneName `json:"below"`
	Above ToneName `json:"above"`
	To    ToneName `json:"to"`
}

// InPosition is what lies in one position.
type InPosition struct {
	Runs      []Run           `json:"runs" doc:"for each chord"`
	Shapes    []string        `json:"shapes" doc:"the movable open shape that each chord takes; empty where it means nothing"`
	Alike     []int           `json:"alike" doc:"for each chord: runs of one number, here or in another position, have the same fingering"`
	Crossings [][][]MovePlace `json:"crossings" doc:"for each of the changes, for each of its steps: where it lies, nearest first"`
	Thread    Thread          `json:"thread"`
}

// mapKey is all that a map depends on.
type mapKey struct {
	chart, version uint
	updated        int64
	player         string
	low, high      int
	strings, way   string
}

func (s *server) chartMaps(api huma.API) {
	get(s, api, "/api/charts/{id}/map", "chart-map", "Everything about a chart on the player's neck: all bars, all positions",
		queued(s, func(ctx context.Context, in *struct {
			ByID
			Low     int    `query:"low" default:"-1" doc:"with high: a region of the player's own"`
			High    int    `query:"high" default:"-1"`
			Strings string `query:"strings" maxLength:"20" doc:"such as 5,2; all where none is said"`
			Way     string `query:"way" maxLength:"20" doc:"the regions of a way to divide the neck, in place of the positions"`
		}) (*Map, error) {
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return nil, missing("chart", err)
			}
			player, err := s.store.Player()
			if err != nil {
				return nil, err
			}
			key := mapKey{c.ID, c.Version, c.UpdatedAt.UnixNano(), fmt.Sprint(player.Player), in.Low, in.High, in.Strings, in.Way}
			if known, ok := s.maps.get(key); ok {
				return known, nil
			}
			var own *RegionQuery
			if in.Low != -1 || in.High != -1 {
				own = &RegionQuery{in.Low, in.High, in.Strings}
				in.Strings = ""
			}
			m, err := chartMap(ctx, c, player.Player, own, in.Way, in.Strings)
			if err != nil || ctx.Err() != nil {
				return nil, cmp.Or(err, ctx.Err())
			}
			if m.written, err = json.Marshal(&m); err != nil {
				return nil, err
			}
			s.maps.put(key, &m, len(m.written))
			return &m, nil
		}))
}

// divided is the regions of a way to divide the neck, on some strings where the way
// has none of its own; the positions of the key by no way.
func divided(on chart.Chart, way, strings string) ([]Position, error) {
	set, err := neck.ParseStrings(strings)
	if err != nil {
		return nil, at("query.strings", strings, err)
	}
	if way == "" {
		list := wirePositions(on.In, on.Key)
		for i := range list {
			list[i].Strings = set.List()
			if err := on.In.CheckRegion(list[i].region()); err != nil {
				return nil, at("query.strings", strings, err)
			}
		}
		return list, nil
	}
	ways := chart.Divide(on.In, on.Key)
	i := slices.IndexFunc(ways, func(d chart.Division) bool { return d.ID == way })
	if i < 0 {
		return nil, at("query.way", way, say.Errorf("there is no way %q to divide the neck", way))
	}
	var list []Position
	for n, r := range ways[i].Regions {
		if r.Strings == 0 {
			r.Strings = set
		}
		if err := on.In.CheckRegion(r.Region); err != nil {
			return nil, at("query.strings", strings, err)
		}
		p := wireRegion(r.Region)
		p.Number, p.Name = n+1, r.Name
		list = append(list, p)
	}
	return list, nil
}

// chartMap computes the whole of a chart's map.
func chartMap(ctx context.Context, c store.Chart, player store.Player, own *RegionQuery, way, strings string) (Map, error) {
	on, err := onTheNeck(c, player)
	if err != nil {
		return Map{}, err
	}
	m := Map{Chart: wireChart(c), Instrument: wireInstrument(on.In, player.Left),
		Imagined: c.Plan.Imagined != nil, Choruses: len(on.Plan.Weave.Mode.Choruses)}
	if m.Positions, err = divided(on, way, strings); err != nil {
		return Map{}, err
	}
	if own != nil {
		r, err := own.region(on.In)
		if err != nil {
			return Map{}, err
		}
		m.Positions = append(m.Positions, wireRegion(r))
	}
	if box, ok := blend.SmallBox(on.In, on.Key.Tonic.Class()); ok {
		small := wireRegion(box.Region)
		m.SmallBox = &small
	}
	laid := on.Map(ctx, each(m.Positions, Position.region))
	m.Sheet = wireSheet(on.Solo, on.Key)
	m.beside(on, laid.Beside)
	m.Neck = each(laid.Neck, func(notes []arpeggio.Note) []Note { return each(notes, wireNote) })
	m.Blends = each(laid.Blends, wireBlend)
	for i, b := range m.Blends {
		b.implies(laid.Chords[i], laid.Chords)
	}
	m.Changes = each(laid.Pairs, func(p chart.Pair) Crossing {
		return Crossing{p.From, p.To, each(p.Moves, wireStep), each(p.Enclosed, func(e crossing.Enclosure) Enclosure {
			return Enclosure{wireTone(e.Below), wireTone(e.Above), wireTone(e.To)}
		})}
	})
	m.Spans = each(laid.Spans, wireFormSpan)
	m.ByPosition = each(laid.Windows, func(w chart.InWindow) InPosition {
		return InPosition{each(w.Runs, wireRun), w.Shapes, w.Alike, each(w.Places, wireMoves), wireThread(w.Thread, w.NoThread)}
	})
	return m, nil
}

func wireMoves(moves [][]crossing.Place) [][]MovePlace {
	return each(moves, func(places []crossing.Place) []MovePlace { return each(places, wirePlace) })
}

// beside writes what the band plays beside the soloist's own bars.
func (m *Map) beside(on chart.Chart, at map[int]chart.Beside) {
	for step, p := range on.Solo.Places() {
		b, own := at[step]
		if !own {
			continue
		}
		bar := &m.Bars[p.Bar]
		bar.Band = strings.Join(each(on.Band.Bars[p.Bar].Changes, func(c form.Change) string { return c.Chord.String() }), " ")
		bar.Changes[p.Index].Rubs = each(b.Rubs, func(r blend.Rub) Rub { return Rub{wireTone(r.Tone), string(r.Over.Degree), b.Band.String()} })
	}
}

func wireInstrument(in *neck.Instrument, left bool) Instrument {
	open := in.OpenStrings()
	return Instrument{in.Tuning(), each(open, func(p pitch.Pitch) string { return p.Name.String() }), each(open, pitch.Pitch.MIDI), in.Last(), in.Capo, left}
}
