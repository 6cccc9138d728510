package server

import (
	"bytes"
	"encoding/json"
	"io"
	"log/slog"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// valid makes JSON that fits a schema, of every kind that bodies are made of.
func valid(rng *rand.Rand, m *shapeMaker, s *huma.Schema, depth int) any {
	if s.Ref != "" {
		s = m.registry.SchemaFromRef(s.Ref)
	}
	if s.Nullable && rng.IntN(3) == 0 {
		return nil
	}
	if len(s.Enum) > 0 {
		return s.Enum[rng.IntN(len(s.Enum))]
	}
	between := func(low, high *float64, wide float64) float64 {
		from, to := -wide, wide
		if low != nil {
			from, to = *low, *low+wide
		}
		if high != nil {
			to = *high
		}
		return from + rng.Float64()*(to-from)
	}
	length := func(least, most *int) int {
		n := rng.IntN(4)
		if least != nil {
			n += *least
		}
		if most != nil {
			n = min(n, *most)
		}
		return n
	}
	switch s.Type {
	case huma.TypeString:
		if s.Format != "" {
			return "2026-11-02T10:00:00Z"
		}
		letters := []rune(`aB♭7 |"\/` + "\n\tø" + "𝄞")
		var out []rune
		for range length(s.MinLength, s.MaxLength) {
			out = append(out, letters[rng.IntN(len(letters))])
		}
		return string(out)
	case huma.TypeInteger:
		return int(between(s.Minimum, s.Maximum, 1000))
	case huma.TypeNumber:
		return between(s.Minimum, s.Maximum, 1000)
	case huma.TypeBoolean:
		return rng.IntN(2) == 0
	case huma.TypeArray:
		list := []any{}
		if depth < 5 {
			for range length(s.MinItems, s.MaxItems) {
				list = append(list, valid(rng, m, s.Items, depth+1))
			}
		}
		return list
	case huma.TypeObject:
		out := map[string]any{}
		for name, of := range s.Properties {
			if slices.Contains(s.Required, name) || depth < 5 && rng.IntN(2) == 0 {
				out[name] = valid(rng, m, of, depth+1)
			}
		}
		return out
	}
	return nil
}

// spoil changes something somewhere in a value.
func spoil(rng *rand.Rand, v any) any {
	odd := []any{nil, "", strings.Repeat("x", 5000), -1, 1e9, 1.5, true, []any{}, map[string]any{}, "shuffle"}
	switch v := v.(type) {
	case map[string]any:
		if len(v) == 0 || rng.IntN(8) == 0 {
			v[[]string{"tempo", "Title", "extra", ""}[rng.IntN(4)]] = odd[rng.IntN(len(odd))]
			return v
		}
		var names []string
		for name := range v {
			names = append(names, name)
		}
		slices.Sort(names)
		name := names[rng.IntN(len(names))]
		if rng.IntN(8) == 0 {
			delete(v, name)
			return v
		}
		v[name] = spoil(rng, v[name])
		return v
	case []any:
		if len(v) == 0 || rng.IntN(6) == 0 {
			return append(v, odd[rng.IntN(len(odd))])
		}
		i := rng.IntN(len(v))
		v[i] = spoil(rng, v[i])
		return v
	}
	return odd[rng.IntN(len(odd))]
}

// Over all bodies that the API describes, right ones and ones that were spoilt: what a shape takes Huma takes too, and
// nearly all that is right is taken.
func TestShapesTakeNothingThatIsRefused(t *testing.T) {
	registry, bodies := bodiesOf(t)
	m := &shapeMaker{registry, map[string]*shape{}}
	rng := rand.New(rand.NewPCG(7, 7))
	right, taken, refused, known := 0, 0, 0, 0
	each := 10_000/len(bodies) + 1
	for name, s := range bodies {
		is := m.of(s)
		if is.kind != 0 {
			known++
		}
		for i := range each {
			v := valid(rng, m, s, 0)
			if i%2 == 1 {
				v = spoil(rng, v)
			}
			text, err := json.Marshal(v)
			require.NoError(t, err)
			var parsed any
			require.NoError(t, json.Unmarshal(text, &parsed))
			found := huma.ValidateResult{}
			huma.Validate(registry, s, huma.NewPathBuffer(nil, 0), huma.ModeWriteToServer, parsed, &found)
			takes := is.takes(text)
			if len(found.Errors) > 0 {
				refused++
				require.False(t, takes, "%s: %s: %v", name, text, found.Errors)
				continue
			}
			if right++; takes {
				taken++
			}
		}
	}
	assert.Greater(t, refused, 2000)
	assert.Greater(t, taken, right*2/3, "%d of %d right bodies; %d of %d schemas", taken, right, known, len(bodies))
	t.Log(right, taken, refused, known, len(bodies))
}

// bodiesOf are the schemas of the bodies of every operation.
func bodiesOf(t testing.TB) (huma.Registry, map[string]*huma.Schema) {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	_, api := assemble(nil, s, front, slog.New(slog.DiscardHandler))
	list := map[string]*huma.Schema{}
	for path, item := range api.OpenAPI().Paths {
		for method, op := range map[string]*huma.Operation{"POST": item.Post, "PUT": item.Put} {
			if op != nil && op.RequestBody != nil {
				if media := op.RequestBody.Content["application/json"]; media != nil {
					list[method+" "+path] = media.Schema
				}
			}
		}
	}
	require.Greater(t, len(list), 30)
	return api.OpenAPI().Components.Schemas, list
}

// What is no JSON, or JSON that some read otherwise than others, is not taken.
func TestWhatIsNoJSONIsNotTaken(t *testing.T) {
	registry, bodies := bodiesOf(t)
	is := (&shapeMaker{registry, map[string]*shape{}}).of(bodies["POST /api/lines/study"])
	whole, err := json.Marshal(longLine(2))
	require.NoError(t, err)
	require.True(t, is.takes(whole))
	require.True(t, is.takes([]byte(" "+string(whole)+"\n")))
	for cut := range whole {
		assert.False(t, is.takes(whole[:cut]), "%s", whole[:cut])
	}
	for was, now := range map[string]string{
		`"tempo":96`:       `"tempo":096`,
		`"tempo": 96`:      `"tempo":+96`,
		`"beats":4`:        `"beats":4.`,
		`"beats":4,`:       `"beats":4,,`,
		`"low":7`:          `"low":7,"low":7`,
		`"low": 7`:         `"low":0x7`,
		`"high":11`:        `"high":1e1`,
		`"title":"Test"`:   `"title":"Te` + "\x01" + `st"`,
		`"key":"C"`:        `"key":"` + "\xff" + `"`,
		`"feel":"shuffle"`: `"feel":'shuffle'`,
	} {
		spoilt := bytes.Replace(whole, []byte(strings.ReplaceAll(was, ": ", ":")), []byte(now), 1)
		require.NotEqual(t, string(whole), string(spoilt), was)
		assert.False(t, is.takes(spoilt), now)
	}
	assert.False(t, is.takes(append(whole, '}')))
	assert.False(t, is.takes([]byte(strings.Repeat("[", 100_000))))
}

// What is refused is refused in Huma's words, whatever was looked at first.
func TestRefusalsAreSaidAsEver(t *testing.T) {
	srv := serve(t)
	for body, says := range map[string]string{
		`{"title":""`: "", `[]`: "expected object", `{"title":1}`: "expected string", `{"extra":1}`: "unexpected property", `{"tempo":1}`: "beats is missing",
	} {
		resp, err := srv.Client().Post(srv.URL+"/api/lines/study", "application/json", strings.NewReader(body))
		require.NoError(t, err)
		text, _ := io.ReadAll(resp.Body)
		resp.Body.Close()
		assert.GreaterOrEqual(t, resp.StatusCode, 400, body)
		assert.Less(t, resp.StatusCode, 500, body)
		assert.Contains(t, string(text), says, body)
	}
}

func FuzzAShape(f *testing.F) {
	registry, bodies := bodiesOf(f)
	s := bodies["POST /api/lines/study"]
	is := (&shapeMaker{registry, map[string]*shape{}}).of(s)
	whole, _ := json.Marshal(longLine(2))
	f.Add(whole)
	f.Fuzz(func(t *testing.T, text []byte) {
		if !is.takes(text) {
			return
		}
		var parsed any
		require.NoError(t, json.Unmarshal(text, &parsed))
		found := huma.ValidateResult{}
		huma.Validate(registry, s, huma.NewPathBuffer(nil, 0), huma.ModeWriteToServer, parsed, &found)
		require.Empty(t, found.Errors)
	})
}
