package server

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// A stretch is told before it is played: in the study of a line with the places where it fits, in a lick, and in the plan.
func TestStretchesAreToldBeforeTheyArePlayed(t *testing.T) {
	srv := serve(t)
	low := bluesIn("F")
	low.Low, low.High = 0, 5
	low.Title = "Low reach"
	for i, fret := range []int{1, 3, 5, 1} {
		low.Notes = append(low.Notes, store.LineNote{ID: i + 1, Start: i * 480, Length: 480, String: 4, Fret: fret})
	}
	var st Study
	require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/study", low, &st).StatusCode)
	require.Len(t, st.Report.Stretches, 1)
	wide := st.Report.Stretches[0]
	assert.Contains(t, wide.Says, "126 mm, frets 1 to 5")
	assert.Equal(t, []int{1, 2, 3, 4}, wide.Notes)
	require.Len(t, wide.There, 4)
	for i, m := range wide.There {
		n := st.Score.Notes[i]
		assert.Equal(t, n.ID, m.ID)
		assert.Equal(t, n.MIDI, st.Score.Open[m.String-1]+m.Fret)
		low.Notes[i].String, low.Notes[i].Fret = m.String, m.Fret
	}
	require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/study", low, &st).StatusCode)
	assert.Empty(t, st.Report.Stretches, "it fits there")

	for i, fret := range []int{1, 3, 5, 1} {
		low.Notes[i].String, low.Notes[i].Fret = 4, fret
	}
	var lines []LineRow
	ask(t, srv, "GET", "/api/lines", nil, &lines)
	var kept Line
	require.Equal(t, 201, ask(t, srv, "POST", "/api/lines", low, &kept).StatusCode)
	var today Today
	path := "/api/today?minutes=60"
	for _, l := range lines {
		path += "&without=line+" + fmt.Sprint(l.ID)
	}
	ask(t, srv, "GET", path, nil, &today)
	told := false
	for _, i := range today.Items {
		told = told || i.Line == kept.ID && strings.Contains(i.Why, "its widest stretch is 126 mm, frets 1 to 5: warm up first")
	}
	assert.True(t, told, "%+v", today.Items)
}
