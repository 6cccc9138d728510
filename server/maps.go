package server

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"reflect"
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
	MapHead
	Neck       [][]Note     `json:"neck" doc:"for each chord, its tones on the whole neck"`
	Blends     []Blend      `json:"blends" doc:"for each chord, the palette over it on the whole neck"`
	Changes    []Crossing   `json:"changes" doc:"the pairs of chords that follow each other"`
	ByPosition []InPosition `json:"byPosition" doc:"for each position"`
}

// MapHead is what of a map does not grow with its chords.
type MapHead struct {
	Chart      Chart      `json:"chart"`
	Instrument Instrument `json:"instrument"`
	Sheet
	Imagined  bool       `json:"imagined" doc:"some bars are the soloist's own; each has the band's beside it"`
	Positions []Position `json:"positions" doc:"lowest first; the player's own window last, with number 0"`
	SmallBox  *Position  `json:"smallBox,omitempty" doc:"the box on the top three strings"`
	Choruses  int        `json:"choruses" doc:"choruses of the thread before it comes round"`
	Spans     []FormSpan `json:"spans" doc:"stretches worth being led through at once"`
}

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
	InPositionHead
	Crossings [][][]MovePlace `json:"crossings" doc:"for each of the changes, for each of its steps: where it lies, nearest first"`
}

// InPositionHead is that without the crossings.
type InPositionHead struct {
	Runs   []Run    `json:"runs" doc:"for each chord"`
	Shapes []string `json:"shapes" doc:"the movable open shape that each chord takes; empty where it means nothing"`
	Alike  []int    `json:"alike" doc:"for each chord: runs of one number, here or in another position, have the same fingering"`
	Grips  []Grip   `json:"grips" doc:"for each chord, held at once"`
	Thread Thread   `json:"thread"`
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
	op := operation(http.MethodGet, "/api/charts/{id}/map", "chart-map", "Everything about a chart on the player's neck: all bars, all positions", 0)
	op.Responses = map[string]*huma.Response{"200": {Description: "OK", Content: map[string]*huma.MediaType{
		"application/json": {Schema: api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[Map](), true, "Map")}}}}
	register(s, api, op,
		func(ctx context.Context, in *struct {
			ByID
			Low     int    `query:"low" default:"-1" doc:"with high: a region of the player's own"`
			High    int    `query:"high" default:"-1"`
			Strings string `query:"strings" maxLength:"20" doc:"such as 5,2; all where none is said"`
			Way     string `query:"way" maxLength:"20" doc:"the regions of a way to divide the neck, in place of the positions"`
		}) (out mapped, err error) {
			out.ContentType = "application/json"
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return out, missing("chart", err)
			}
			player, err := s.store.Player()
			if err != nil {
				return out, err
			}
			key := mapKey{c.ID, c.Version, c.UpdatedAt.UnixNano(), fmt.Sprint(player.Player), in.Low, in.High, in.Strings, in.Way}
			if known, ok := s.maps.get(key); ok {
				out.Body = func(c huma.Context) { _, _ = c.BodyWriter().Write(known) }
				return out, nil
			}
			var own *RegionQuery
			if in.Low != -1 || in.High != -1 {
				own = &RegionQuery{in.Low, in.High, in.Strings}
				in.Strings = ""
			}
			var parts mapParts
			err = s.inTurn(ctx, func() error {
				parts, err = chartMap(ctx, c, player.Player, own, in.Way, in.Strings)
				return cmp.Or(err, ctx.Err())
			})
			out.Body = func(c huma.Context) { s.writeMap(c, parts, key) }
			return out, err
		})
}

// mapped is a map that is written part by part: of a long chart it is too large to be whole in memory.
type mapped struct {
	ContentType string `header:"Content-Type"`
	Body        func(huma.Context)
}

// mapParts are a map's parts, each made when it is its turn.
type mapParts []func() ([]byte, error)

// writeMap writes a map's parts one after the other; one that is not too large is kept. Who asked
// may read slowly: nobody waits for that.
func (s *server) writeMap(c huma.Context, parts mapParts, key mapKey) {
	var whole []byte
	out := patientBody(c)
	for _, part := range parts {
		var text []byte
		err := s.inTurn(c.Context(), func() (err error) {
			text, err = part()
			return err
		})
		if err != nil {
			panic(http.ErrAbortHandler) // what was sent is no map, and must not look like one
		}
		if _, err := out.Write(text); err != nil {
			return
		}
		if len(whole) <= recentBytes/2 {
			whole = append(whole, text...)
		}
	}
	s.maps.put(key, whole, len(whole))
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

// chartMap computes a chart's map, as far as it can be before it is written.
func chartMap(ctx context.Context, c store.Chart, player store.Player, own *RegionQuery, way, strings string) (mapParts, error) {
	on, err := onTheNeck(c, player)
	if err != nil {
		return nil, err
	}
	h := MapHead{Chart: wireChart(c), Instrument: wireInstrument(on.In, player.Left),
		Imagined: c.Plan.Imagined != nil, Choruses: len(on.Plan.Weave.Mode.Choruses)}
	if h.Positions, err = divided(on, way, strings); err != nil {
		return nil, err
	}
	if own != nil {
		r, err := own.region(on.In)
		if err != nil {
			return nil, err
		}
		h.Positions = append(h.Positions, wireRegion(r))
	}
	if box, ok := blend.SmallBox(on.In, on.Key.Tonic.Class()); ok {
		small := wireRegion(box.Region)
		h.SmallBox = &small
	}
	laid := on.Map(ctx, each(h.Positions, Position.region))
	h.Sheet = wireSheet(on.Solo, on.Key)
	h.beside(on, laid.Beside)
	h.Spans = each(laid.Spans, wireFormSpan)
	return mapOf(h, laid)
}

// pairsAtOnce is how many crossings are made before they are written.
const pairsAtOnce = 64

// mapOf lists the parts of a map: what does not grow, then a field at a time, and of the
// positions each by itself, its crossings some at a time.
func mapOf(h MapHead, laid chart.Map) (mapParts, error) {
	head, err := json.Marshal(h)
	parts := mapParts{}
	raw := func(text string) {
		parts = append(parts, func() ([]byte, error) { return []byte(text), nil })
	}
	made := func(part func() any) {
		parts = append(parts, func() ([]byte, error) { return json.Marshal(part()) })
	}
	open := func(object []byte) string { return string(object[:len(object)-1]) } // for more fields
	raw(open(head) + `,"neck":`)
	made(func() any {
		return each(laid.Neck, func(notes []arpeggio.Note) []Note { return each(notes, wireNote) })
	})
	raw(`,"blends":`)
	made(func() any {
		blends := each(laid.Blends, wireBlend)
		for i, b := range blends {
			b.implies(laid.Chords[i], laid.Chords)
		}
		return blends
	})
	raw(`,"changes":`)
	made(func() any {
		return each(laid.Pairs, func(p chart.Pair) Crossing {
			return Crossing{p.From, p.To, each(p.Moves, wireStep), each(p.Enclosed, func(e crossing.Enclosure) Enclosure {
				return Enclosure{wireTone(e.Below), wireTone(e.Above), wireTone(e.To)}
			})}
		})
	})
	before := `,"byPosition":[`
	for i, w := range laid.Windows {
		raw(before)
		before = ","
		parts = append(parts, func() ([]byte, error) {
			head, err := json.Marshal(InPositionHead{each(w.Runs, wireRun), w.Shapes, w.Alike, each(w.Grips, wireGrip), wireThread(w.Thread, w.NoThread)})
			return []byte(open(head) + `,"crossings":[`), err
		})
		for from := 0; from < len(laid.Pairs); from += pairsAtOnce {
			some := laid.Pairs[from:min(from+pairsAtOnce, len(laid.Pairs))]
			parts = append(parts, func() ([]byte, error) {
				list, err := json.Marshal(each(laid.Places(i, some), wireMoves))
				if from > 0 {
					list[0] = ','
				} else {
					list = list[1:]
				}
				return list[:len(list)-1], err
			})
		}
		raw("]}")
	}
	if len(laid.Windows) == 0 {
		raw(before)
	}
	raw("]}")
	return parts, err
}

func wireMoves(moves [][]crossing.Place) [][]MovePlace {
	return each(moves, func(places []crossing.Place) []MovePlace { return each(places, wirePlace) })
}

// beside writes what the band plays beside the soloist's own bars.
func (m *MapHead) beside(on chart.Chart, at map[int]chart.Beside) {
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
