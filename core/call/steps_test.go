package call

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
)

// What a step asks lies within it, each kind can be asked at each, and what is wished for stays as it is.
func TestStepsOpenWhatIsLeftOpen(t *testing.T) {
	for i, s := range Steps {
		assert.NotEmpty(t, s.Name)
		for _, k := range Kinds {
			for seed := range 8 {
				w := rapid.Custom(wish).Example(100*i + seed)
				w.Starts, w.Ends, w.Only, w.Orders, w.Devices, w.Paces, w.Kinds, w.Plain = nil, nil, "", nil, nil, nil, []string{k.ID}, false
				w = w.At(i + 1)
				calls, err := Draw(t.Context(), w, 4)
				if err != nil { // on a bass little can be bent
					require.Contains(t, []string{Bend, Material}, k.ID)
					continue
				}
				for _, c := range calls {
					ms, _ := c.Gap()
					require.Equal(t, k.Paced && s.paces, ms > 0)
					require.True(t, s.orders || c.Order == "" || c.Order == "row")
					require.True(t, s.devices || c.Device == "" || c.Device == "plain")
					if k.ID == Tones {
						require.True(t, s.only == "" || !c.Down)
						require.True(t, len(s.starts) == 0 || slices.Contains(s.starts, c.Degree().Role()))
					}
					if s.plain && (k.ID == Place || k.ID == Written || k.ID == Every) {
						require.True(t, c.Chord.HasDegree(c.Degree()))
					}
				}
			}
		}
	}
}

func TestEachStepAsksWhatTheOneBeforeAsks(t *testing.T) {
	within := func(easier, harder []string) bool {
		return len(harder) == 0 && len(easier) == 0 || len(easier) == 0 || !slices.ContainsFunc(easier, func(x string) bool { return !slices.Contains(harder, x) })
	}
	for i := 1; i < len(Steps); i++ {
		a, b := Wish{}.At(i), Wish{}.At(i+1)
		assert.True(t, within(a.Orders, b.Orders) && within(a.Devices, b.Devices) && within(a.Paces, b.Paces), Steps[i].Name)
		assert.True(t, b.Only == "" || a.Only == b.Only, Steps[i].Name)
		assert.True(t, a.Plain || !b.Plain, Steps[i].Name)
		assert.True(t, within(a.Kinds, b.Kinds) || len(b.Kinds) == 0, Steps[i].Name)
		assert.True(t, len(b.Starts) == 0 || len(a.Starts) > 0 && !slices.ContainsFunc(a.Starts, func(r harmony.Role) bool { return !slices.Contains(b.Starts, r) }), Steps[i].Name)
		assert.NotEqual(t, a, b, "%s is a step", Steps[i].Name)
		assert.True(t, Steps[i].Played || !Steps[i-1].Played, "what only playing has comes last")
	}
	assert.Equal(t, Wish{Seed: 3}, Wish{Seed: 3}.At(0))
	own := Wish{Kinds: []string{Place}, Starts: []harmony.Role{harmony.Seventh}, Only: "down", Orders: []string{"back"}, Devices: []string{"plain"}, Paces: []string{"free"}}
	for i := range Steps {
		got := own.At(i + 1)
		got.Plain = false
		assert.Equal(t, own, got, "what is wished for stays")
	}
	assert.Equal(t, Wish{}.At(len(Steps)), Wish{}.At(99))
}
