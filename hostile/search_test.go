package hostile

import (
	"cmp"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/url"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/e2e/room"
)

// variedText has as many different chords, in as many different pairs, as a chart can hold.
func variedText(bars, per int) string {
	roots := strings.Fields("C Db D Eb E F F# G Ab A Bb B")
	kinds := strings.Split(",m,7,maj7,m7,m7b5,dim7,9,m9,maj9,13,7b9,7#9,m11,11,6,m6,sus4,7sus4,aug,mMaj7,69,add9,7#5,7b5", ",")
	var b strings.Builder
	for k := range bars * per {
		if k%per == 0 {
			b.WriteString("| ")
		}
		b.WriteString(roots[(k*5+k*k*7)%12] + kinds[(k*k*3+k/5)%len(kinds)] + " ")
	}
	return b.String() + "|"
}

// greedy asks for as much as is legal.
type greedy struct {
	*rand.Rand
	schemas map[string]any
	ids     map[string][]string // of the catalogue, by list
	lines   []object
	heard   []object
}

// lists are where the IDs of a field stand in the catalogue.
var lists = map[string]string{"drill": "drills", "pace": "paces", "rhythm": "rhythms", "contour": "contours", "word": "words", "phrasing": "phrasings", "closing": "closings",
	"palette": "palettes", "mode": "modes", "picking": "pickings", "connector": "connectors", "approach": "choice approach", "thread": "threads", "feel": "feels", "way": "ways",
	"reading": "readings", "bass": "basses", "click": "clicks", "comp": "compers", "arc": "arcs", "kinds": "calls", "orders": "callOrders", "devices": "callDevices", "paces": "callPaces"}

func (g greedy) one(of []string) string {
	if len(of) == 0 {
		return ""
	}
	return of[g.IntN(len(of))]
}

func (g greedy) value(name string, s map[string]any) any {
	if ref, ok := s["$ref"].(string); ok {
		kind := ref[strings.LastIndexByte(ref, '/')+1:]
		if kind == "LineBody" {
			return g.lines[g.IntN(len(g.lines))]
		}
		s, _ = g.schemas[kind].(map[string]any)
	}
	switch {
	case name == "heard":
		return g.heard
	case name == "text":
		return variedText(512, 4)
	case name == "spice":
		all := object{}
		for _, id := range g.ids["tastes"] {
			all[id] = 10
		}
		return all
	case name == "key", name == "keys":
		return g.one([]string{"C", "F#", "Bb", "Am"})
	case name == "chord", name == "symbol":
		return g.one([]string{"C7", "F#m11", "Bb13", "Ebmaj9"})
	case name == "strings":
		return ""
	}
	if enum, ok := s["enum"].([]any); ok {
		return enum[g.IntN(len(enum))]
	}
	switch s["type"] {
	case "object":
		out := object{}
		properties, _ := s["properties"].(map[string]any)
		for name, of := range properties {
			if g.IntN(12) > 0 {
				out[name] = g.value(name, of.(map[string]any))
			}
		}
		return out
	case "array":
		items, _ := s["items"].(map[string]any)
		most, _ := s["maxItems"].(float64)
		list := []any{}
		for range min(int(most), 1+g.IntN(100)) {
			list = append(list, g.value(name, items))
		}
		return list
	case "integer", "number":
		most, has := s["maximum"].(float64)
		if name == "chart" || name == "lick" || name == "with" {
			return 1 + g.IntN(7)
		}
		if !has {
			most = 1000
		}
		if g.IntN(3) > 0 && most < 1e5 {
			return most
		}
		return 1 + g.IntN(int(max(1, min(most, 40))))
	case "boolean":
		return g.IntN(4) > 0
	case "string":
		if from, known := lists[name]; known {
			return g.one(g.ids[from])
		}
	}
	return ""
}

// The slowest that is legal is looked for in every operation: lines, charts, takes and wishes as
// large as they may be, with every choice of the catalogue. SEARCH= asks more often.
func TestTheSlowestIsLookedFor(t *testing.T) {
	if !room.Inside(t) { // some of what is asked switches the network on
		return
	}
	dir := t.TempDir()
	p := start(t, "demo", dir)
	p.ask("PUT", "/api/player", bigNeck)
	all, schemas := operations(t, p)
	g := greedy{Rand: rand.New(rand.NewPCG(29, 3)), schemas: schemas, ids: map[string][]string{}}
	_, data := p.ask("GET", "/api/catalogue", nil)
	var catalogue map[string]json.RawMessage
	require.NoError(t, json.Unmarshal(data, &catalogue))
	for name, raw := range catalogue {
		var entries []struct{ ID string }
		if json.Unmarshal(raw, &entries) == nil {
			for _, e := range entries {
				g.ids[name] = append(g.ids[name], e.ID)
			}
		}
	}
	var choices []struct {
		ID      string
		Options []struct{ ID string }
	}
	require.NoError(t, json.Unmarshal(catalogue["choices"], &choices))
	for _, c := range choices {
		for _, o := range c.Options {
			g.ids["choice "+c.ID] = append(g.ids["choice "+c.ID], o.ID)
		}
	}
	for name, list := range lists {
		require.NotEmpty(t, g.ids[list], name)
	}
	for i := range 4096 {
		g.heard = append(g.heard, object{"at": i * 240, "length": 200, "pitch": 50 + i%30})
	}
	for _, bars := range []int{12, 60, 512} {
		for _, high := range []int{4, 12, 27} {
			for _, notes := range []int{0, 400, 4000} {
				l := bigLine(notes)
				l["text"], l["low"], l["high"] = variedText(bars, 4), 0, high
				if notes*240 > bars*3840 {
					continue
				}
				g.lines = append(g.lines, l)
			}
		}
	}
	status, data := p.ask("POST", "/api/charts", object{"title": "Long", "key": "C", "feel": "jazz", "tempo": 300, "beats": 4, "text": variedText(512, 4)})
	require.Equal(t, 201, status, string(data))
	status, data = p.ask("POST", "/api/lines", g.lines[len(g.lines)-1])
	require.Equal(t, 201, status, string(data[:min(300, len(data))]))
	type asked struct {
		what     string
		work     time.Duration
		status   int
		resident int
	}
	var slowest []asked
	answered, refused := map[string]int{}, 0
	times, _ := strconv.Atoi(cmp.Or(os.Getenv("SEARCH"), "12"))
	for _, op := range all {
		if op.method == "DELETE" || op.method == "PUT" || strings.HasSuffix(op.path, "/here") || op.path == "/api/imports" || strings.Contains(op.path, "/players") {
			continue
		}
		for range times {
			q := url.Values{}
			for _, x := range op.parameters {
				if x.In != "query" || g.IntN(3) == 0 {
					continue
				}
				switch x.Name {
				case "low":
					q.Set("low", "0")
				case "high":
					q.Set("high", g.one([]string{"4", "9", "12", "27"}))
				case "tuning":
					q.Set("tuning", "A1,B1,E2,A2,D3,G3,B3,E4")
				case "frets":
					q.Set("frets", "27")
				case "scale":
					q.Set("scale", "648")
				case "comfort":
					q.Set("comfort", "250")
				case "chords":
					q["chords"] = strings.Fields(strings.ReplaceAll(variedText(8, 4), "|", ""))
				case "choruses":
					q.Set("choruses", "4")
				case "lead", "of":
					q.Set(x.Name, "thread")
				case "voices":
					q.Set("voices", g.one([]string{"2", "3", "4"}))
				case "id":
					for id := range 71 {
						q.Add("id", fmt.Sprint(id+1))
					}
				case "limit":
					q.Set("limit", "1000")
				default:
					q.Set(x.Name, fmt.Sprint(g.value(x.Name, object{"type": "string"})))
				}
			}
			var body any
			if op.body != nil {
				body = g.value("", op.body)
			}
			id := "7"
			if strings.HasPrefix(op.path, "/api/lines") {
				id = "5"
			}
			p.reset()
			begun, now := p.busy(), time.Now()
			status, data := p.ask(op.method, strings.ReplaceAll(op.path, "{id}", id)+"?"+q.Encode(), body)
			took := min(time.Since(now), p.busy()-begun)
			require.Less(t, status, 500, "%s %s: %.300s\n%s", op.method, op.path, data, lastFault(p.errs.String()))
			if status < 300 {
				answered[op.path]++
			} else {
				refused++
			}
			short, _ := json.Marshal(body)
			slowest = append(slowest, asked{fmt.Sprintf("%s %s?%.80s %s", op.method, op.path, q.Encode(), tail(string(short))[max(0, len(tail(string(short)))-400):]), took, status, p.peak()})
		}
	}
	slices.SortFunc(slowest, func(a, b asked) int { return cmp.Compare(b.work, a.work) })
	for _, s := range slowest[:12] {
		t.Logf("%4d ms, %3d MB, %d: %s", s.work.Milliseconds(), s.resident, s.status, s.what)
	}
	most := slices.MaxFunc(slowest, func(a, b asked) int { return cmp.Compare(a.resident, b.resident) })
	t.Logf("%d asked, %d refused, %d operations answered; at most %d MB: %.150s", len(slowest), refused, len(answered), most.resident, most.what)
	for _, s := range slowest {
		assert.LessOrEqual(t, s.resident, 150, s.what)
		assert.True(t, s.work <= maxWork || strings.Contains(s.what, "/map") && s.work <= 2*maxWork, "%v: %s", s.work, s.what) // a map is written as it is made
	}
}
