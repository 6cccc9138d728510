package server

import (
	"context"
	"math/rand/v2"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"undaris/core/call"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/planner"
)

// Calls that come in turn are told in the address of their page: of each its key, position, degree, direction and kind of chord.
const (
	mostMixed  = 24
	mixedParts = 5
)

// mixed writes asks so.
func mixed(asks []planner.Ask) string {
	if len(asks) < 2 {
		return ""
	}
	return strings.Join(each(asks, func(a planner.Ask) string {
		way := "up"
		if a.Down {
			way = "down"
		}
		return strings.Join([]string{planner.KeyName(a.Key).String(), strconv.Itoa(a.Position + 1), a.Degree, way, a.Quality}, ".")
	}), "~")
}

// readMixed reads what mixed wrote: wishes, each for one ask.
func readMixed(text string, w call.Wish, minor bool) (list []call.Wish, err error) {
	refuse := func(part string) error {
		return at("body.mixed", part, problem(http.StatusUnprocessableEntity, "calls in turn are written as C.1.third.up.7"))
	}
	parts := strings.Split(text, "~")
	if len(parts) > mostMixed {
		return nil, refuse(text)
	}
	for _, part := range parts {
		f := strings.SplitN(part, ".", mixedParts)
		if len(f) < mixedParts {
			return nil, refuse(part)
		}
		key, err := readKey("body.mixed", f[0])
		if err != nil {
			return nil, err
		}
		n, err := strconv.Atoi(f[1])
		place, ok := w.In.Numbered(key.Tonic.Class(), n)
		if err != nil || !ok || f[3] != "up" && f[3] != "down" {
			return nil, refuse(part)
		}
		chord, err := harmony.Parse(f[0] + f[4])
		if err != nil {
			return nil, at("body.mixed", part, err)
		}
		own := w
		if own.Starts, err = harmony.RolesOf(f[2]); err != nil {
			return nil, at("body.mixed", part, err)
		}
		own.Kinds, own.Only = []string{call.Tones}, f[3]
		own.Grounds = []call.Ground{{Key: form.Key{Tonic: key.Tonic, Minor: minor}, Chords: chordsOn(key, chord), Windows: []neck.Region{place.Region}}}
		list = append(list, own)
	}
	return list, nil
}

// chordsOn are a kind of chord on the first, fourth and fifth step of a key.
func chordsOn(key form.Key, chord harmony.Chord) (list []harmony.Chord) {
	p := form.Progression{Beats: 4, Bars: []form.Bar{{Changes: []form.Change{{Chord: chord}}}}}
	for _, fifths := range []int{0, 5, 7} {
		to := form.Key{Tonic: planner.KeyName(key.Tonic.Class() + fifths), Minor: key.Minor}
		list = append(list, p.Transpose(key, to).Bars[0].Changes[0].Chord)
	}
	return list
}

// inTurn draws calls from one wish after the other, in rounds that are never in the same order.
func inTurn(ctx context.Context, wishes []call.Wish, step, count int, seed uint64) ([]call.Call, error) {
	rng := rand.New(rand.NewPCG(seed, 97))
	drawn := make([][]call.Call, len(wishes))
	for i, w := range wishes {
		w.Seed = seed + uint64(i)
		list, err := call.Draw(ctx, w.At(step), (count+len(wishes)-1)/len(wishes))
		if err != nil {
			return nil, err
		}
		drawn[i] = list
	}
	var out []call.Call
	order := make([]int, len(wishes))
	for i := range order {
		order[i] = i
	}
	last := -1
	for round := 0; len(out) < count; round++ {
		rng.Shuffle(len(order), func(i, j int) { order[i], order[j] = order[j], order[i] })
		if len(order) > 1 && order[0] == last {
			order[0], order[1] = order[1], order[0]
		}
		last = order[len(order)-1]
		for _, i := range order {
			if round < len(drawn[i]) && len(out) < count {
				out = append(out, drawn[i][round])
			}
		}
		if !slices.ContainsFunc(drawn, func(list []call.Call) bool { return round+1 < len(list) }) {
			break
		}
	}
	return out, nil
}
