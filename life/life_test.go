package life

import (
	"embed"
	"encoding/binary"
	"log/slog"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/judge"
	"undaris/core/score"
	"undaris/demo"
	"undaris/server"
	"undaris/store"
)

// The demo has something in every place: takes with their sound, a set, a lesson with what came back, a pickup and an ending, and
// lines of other instruments; and it opens as before.
func TestABandHasALife(t *testing.T) {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, demo.Fill(s))
	require.NoError(t, demo.Weeks(s, time.Now()))
	require.NoError(t, Lead(s))
	charts, err := s.Charts(store.All)
	require.NoError(t, err)
	assert.Equal(t, "Slipway Shuffle", charts[0].Title, "what is opened first")
	for _, c := range charts {
		assert.Empty(t, c.Problem, c.Title)
	}
	stomp, err := s.Chart(titled(s)["Gangway Stomp"])
	require.NoError(t, err)
	assert.Equal(t, []string{"turnaround", "walk-down"}, []string{stomp.Intro, stomp.Ending})

	kept, err := s.Takes(store.All)
	require.NoError(t, err)
	require.Len(t, kept, len(takes))
	sounding := 0
	for i, row := range kept {
		take, err := s.Take(row.ID)
		require.NoError(t, err)
		assert.NotEmpty(t, take.Heard, take.Title)
		assert.NotEmpty(t, take.Line.Notes, take.Title)
		assert.Equal(t, takes[len(takes)-1-i].sounds, take.Sound)
		if take.Sound {
			sounding++
			f, err := s.Sound(take.ID)
			require.NoError(t, err)
			f.Close()
		}
	}
	assert.Equal(t, 2, sounding)
	assert.Greater(t, kept[0].Landed, kept[2].Landed, "the same thirds go better in the end")

	sets, err := s.Sets(store.All)
	require.NoError(t, err)
	require.Len(t, sets, 1)
	set, err := s.Set(sets[0].ID)
	require.NoError(t, err)
	for _, i := range set.Items {
		_, err := s.Chart(i.Chart)
		assert.NoError(t, err)
	}
	tunings := map[string]bool{}
	lines, err := s.Lines(store.All)
	require.NoError(t, err)
	for _, row := range lines {
		assert.Empty(t, row.Problem, row.Title)
		l, err := s.Line(row.ID)
		require.NoError(t, err)
		tunings[l.Tuning] = true
	}
	assert.GreaterOrEqual(t, len(tunings), 3)

	h := &hands{handler: server.New(s, embed.FS{}, slog.New(slog.DiscardHandler))}
	var rows []server.LessonRow
	h.do("GET", "/api/assignments", nil, &rows)
	require.NoError(t, h.err)
	require.Len(t, rows, 1)
	var l server.Lesson
	h.do("GET", "/api/assignments/1", nil, &l)
	require.NoError(t, h.err)
	require.Len(t, l.Results, 1)
	r := l.Results[0]
	assert.Equal(t, []string{"Bram", "Bar 5 was the hard one."}, []string{r.Pupil, r.Words})
	assert.True(t, r.Aims[1].Reached, "four thirds in a row")
	assert.NotEmpty(t, r.Played)
	require.Len(t, r.Takes, 1, "one is heard beside the aim")
	assert.NotEmpty(t, r.Takes[0].Line.Notes)
}

// The sound of a take is a WAV in which every note has its pitch, and nothing is cut off.
func TestTheSoundOfATake(t *testing.T) {
	for midi := 28; midi <= 88; midi += 4 {
		wav := sounded([]judge.Heard{{At: 0, Length: score.Tick, Pitch: float64(midi)}}, 60)
		require.Equal(t, "RIFF", string(wav[:4]))
		require.Equal(t, len(wav)-44, int(binary.LittleEndian.Uint32(wav[40:])))
		at := func(i int) float64 { return float64(int16(binary.LittleEndian.Uint16(wav[44+2*i:]))) }
		f := 440 * math.Exp2(float64(midi-69)/12)
		// Of the lags near a period the one at which it is most like itself.
		best, most := 0, 0.0
		for lag := int(rate / f * 0.8); lag < int(rate/f*1.25)+2; lag++ {
			sum := 0.0
			for i := 2000; i < 8000; i++ {
				sum += at(i) * at(i+lag)
			}
			if sum > most {
				best, most = lag, sum
			}
		}
		assert.InDelta(t, rate/f, best, 1.01, "MIDI %d", midi)
	}
	loud := sounded([]judge.Heard{{Length: 960, Pitch: 40}, {Length: 960, Pitch: 47}, {Length: 960, Pitch: 52}, {At: 1920, Length: 10, Pitch: 60}}, 100)
	assert.InDelta(t, (1930*60./100/score.Tick+1.5)*rate, (len(loud)-44)/2, rate/10)
	assert.Less(t, len(sounded(nil, 100)), 2*44+4*rate)
}
