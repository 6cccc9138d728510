package chart_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Runs of one fingering have one shape, over every form, key and position; and a chord that is the same on the neck
// twelve frets up has the same shape there, also where the neck ends.
func TestAShapeFollowsItsFingering(t *testing.T) {
	t.Parallel()
	in := neck.Standard()
	runs, shared := 0, 0
	for _, f := range form.Forms {
		for _, tonic := range pitch.Roots {
			c := played(f, form.Key{Tonic: tonic, Minor: f.Minor})
			var windows []neck.Region
			for _, p := range in.Positions(tonic.Class()) {
				windows = append(windows, p.Region)
			}
			m := c.Map(t.Context(), windows)
			shapes := map[int]string{}
			for i, w := range m.Windows {
				for chord, kind := range w.Alike {
					runs++
					known, twice := shapes[kind]
					if twice {
						shared++
						assert.Equal(t, known, w.Shapes[chord], "%s in %s: %s at %s", f.ID, tonic, m.Chords[chord], windows[i].Says())
					}
					shapes[kind] = w.Shapes[chord]
				}
			}
		}
	}
	t.Log(runs, "runs,", shared, "of a fingering that another has")
	assert.Greater(t, shared, 2000)
	for _, tonic := range pitch.Roots {
		for _, p := range in.Positions(tonic.Class()) {
			assert.Equal(t, p.Shape, in.Shape(tonic.Class(), p.Region), "%s at %s", tonic, p.Says())
		}
	}
}
