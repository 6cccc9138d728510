package practice_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/practice"
	"undaris/core/score"
)

// over is the place to play: a form in a key, in its first position.
func over(f form.Form, tonic pitch.Name) edit.Line {
	key := form.Key{Tonic: tonic, Minor: f.Minor}
	in := neck.Standard()
	l := edit.Line{Hand: neck.UsualHand, Region: in.Positions(tonic.Class())[0].Region, Palette: blend.Palettes[0], Feel: "shuffle"}
	l.Score = score.Score{Key: key, Tempo: 100, Progression: f.In(key), In: in}
	return l
}

var c = pitch.Name{}

// meets plays on every change the tone of a role, so many ticks off, and nothing else.
func meets(l edit.Line, role harmony.Role, off float64) (heard []judge.Heard) {
	for bar, b := range l.Bars {
		for _, c := range b.Changes {
			at := l.At(bar) + c.Beat*score.Tick
			if !l.Change(at) {
				continue
			}
			for _, t := range c.Chord.Tones {
				if t.Degree.Role() == role {
					heard = append(heard, judge.Heard{At: float64(at) + off, Length: 700, Pitch: float64(60+t.Name.Class()) + 0.08})
				}
			}
		}
	}
	return heard
}

// Every mode, every stage: what it asks for counts, what it does not ask for does not.
func TestEveryStageCountsWhatItAsks(t *testing.T) {
	l := over(form.Forms[0], c)
	for _, m := range practice.Modes {
		assert.NotEmpty(t, m.Says, m.ID)
		for pass, stage := range m.Stages {
			assert.Equal(t, stage, m.Stage(pass))
			for _, role := range []harmony.Role{harmony.Root, harmony.Third, harmony.Fifth, harmony.Seventh} {
				f, err := practice.Judge(l, meets(l, role, 0), 120, 0.6, stage)
				require.NoError(t, err)
				require.NotEmpty(t, f.Landings)
				want := len(stage.Land) == 0 || stage.Land[0] == role
				for _, landing := range f.Landings {
					assert.Equal(t, want, landing.Counts, "%s, stage %d: %v on %s", m.ID, pass, role, landing.Chord)
				}
				assert.Zero(t, f.Outside, "%s: chord tones are always allowed", m.ID)
			}
			f, err := practice.Judge(l, nil, 120, 0.5, stage)
			require.NoError(t, err)
			assert.Equal(t, "nothing was heard", f.Good, m.ID)
		}
		assert.Equal(t, m.Stages[len(m.Stages)-1], m.Stage(99), m.ID)
	}
	_, err := practice.ModeByID("none")
	assert.ErrorContains(t, err, "no way to practise")
}

func TestWhatMayBePlayed(t *testing.T) {
	l := over(form.Forms[0], c)
	bar := func(pitches ...float64) (heard []judge.Heard) {
		for i, p := range pitches {
			heard = append(heard, judge.Heard{At: float64(i) * 480, Length: 400, Pitch: p})
		}
		return heard
	}
	for _, c := range []struct {
		name    string
		play    practice.Playing
		heard   []judge.Heard
		outside int
	}{
		{"tones of C7", practice.Tones, bar(60, 64, 67, 70), 0},
		{"a nine among tones", practice.Tones, bar(60, 62, 64), 1},
		{"a nine in the scale", practice.Scale, bar(60, 62, 64), 0},
		{"a flat nine is not in the scale", practice.Scale, bar(60, 61, 64), 1},
		{"a half step that leads on", practice.Chromatic, bar(60, 63, 64), 0},
		{"one that leads nowhere", practice.Chromatic, bar(60, 61), 1},
		{"everything", practice.Anything, bar(61, 66, 68), 0},
	} {
		f, err := practice.Judge(l, c.heard, 120, 0.5, practice.Stage{Play: c.play})
		require.NoError(t, err)
		assert.Equal(t, c.outside, f.Outside, c.name)
	}
}

func TestFreeLandings(t *testing.T) {
	l := over(form.Forms[0], c)
	for name, c := range map[string]struct {
		off  float64
		when string
	}{
		"on the beat":                  {0, line.OnTime},
		"a little late is on the beat": {60, line.OnTime},
		"half a beat before is pushed": {-480, line.Pushed},
		"half a beat after is late":    {480, line.Late},
	} {
		f, err := practice.Judge(l, meets(l, harmony.Third, c.off), 120, 0.5, practice.Modes[1].Stages[0])
		require.NoError(t, err)
		for _, landing := range f.Landings[1:] {
			assert.Equal(t, c.when, landing.When, "%s: %s", name, landing.Says)
		}
	}
}

// Of two tones that are struck together on a change each may be the one that is asked for, whichever lies on top; together with it
// another is no other tone.
func TestADoubleStopLandsByEitherTone(t *testing.T) {
	l := over(form.Forms[0], c)
	roles := []harmony.Role{harmony.Root, harmony.Third, harmony.Fifth, harmony.Seventh}
	for i, first := range roles {
		for _, second := range roles[i+1:] {
			heard := append(meets(l, first, 0), meets(l, second, 0)...)
			for _, asked := range roles {
				f, err := practice.Judge(l, heard, 120, 0.5, practice.Stage{Land: []harmony.Role{asked}})
				require.NoError(t, err)
				for _, landing := range f.Landings[1:] {
					assert.Equal(t, asked == first || asked == second, landing.Counts, "%s and %s, asked for %s: %s %s", first, second, asked, landing.Word(), landing.Says)
				}
			}
		}
	}
}

// On time is the same to the ear at every tempo: 80 to 120 milliseconds late at the most, in free playing as in a written line.
func TestOnTimeHasACeiling(t *testing.T) {
	l := over(form.Forms[0], c)
	for tempo := 30; tempo <= 300; tempo += 10 {
		limit := judge.Within(tempo)
		assert.True(t, limit >= 80 && limit <= 120, "%d: %g", tempo, limit)
		ticks := func(ms float64) float64 { return ms / 60000 * float64(tempo) * score.Tick }
		for off, landed := range map[float64]bool{0: true, limit - 15: true, limit + 15: false} {
			if ticks(off) > score.Tick/4 {
				continue // it stands nearer to the eighth after the beat, and is late as written
			}
			f, err := practice.Judge(l, meets(l, harmony.Third, ticks(off)), tempo, 0.5, practice.Modes[1].Stages[0])
			require.NoError(t, err)
			for _, landing := range f.Landings[1:] {
				assert.Equal(t, landed, landing.Landed(), "%d a minute, %.0f ms late: %s", tempo, off, landing.Says)
				if !landed {
					assert.Contains(t, landing.Says, " late")
				}
			}
		}
	}
}

// What the core wrote and a player played, swung and not quite in time, is written
// down as it was.
func TestWhatIsPlayedIsWrittenDown(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := rapid.SampledFrom(form.Forms).Draw(t, "form")
		l := over(f, rapid.SampledFrom(pitch.Roots).Draw(t, "tonic"))
		swing := rapid.SampledFrom([]float64{0.5, 0.6, 0.667}).Draw(t, "swing")
		notes, err := line.Write(context.Background(), l.Score, line.Wish{Region: l.Region, Palette: l.Palette, Rhythm: "eighths", Density: 3, Seed: rapid.Uint64Range(0, 20).Draw(t, "seed")}, l.Hand)
		require.NoError(t, err)
		s := l.Score
		s.Notes = notes
		heard, _ := judge.Player{Spread: 6, Seed: rapid.Uint64().Draw(t, "player")}.Play(s, 100, swing)
		got, err := practice.Written(l, heard, swing)
		require.NoError(t, err)
		if len(got.Notes) != len(notes) {
			t.Fatalf("%d notes of %d", len(got.Notes), len(notes))
		}
		for i, n := range got.Notes {
			if n.Pitch.MIDI() != notes[i].Pitch.MIDI() || math.Abs(float64(n.Start-notes[i].Start)) > 1 {
				t.Fatalf("note %d: %s at %d, was %s at %d", i, n.Pitch, n.Start, notes[i].Pitch, notes[i].Start)
			}
		}
	})
}

// Whatever is heard, strays of a band in the microphone too, is written down: what no
// hand can hold together is left out, and said.
func TestWhateverIsHeardIsWrittenDown(t *testing.T) {
	l := over(form.Forms[0], c)
	rapid.Check(t, func(t *rapid.T) {
		var heard []judge.Heard
		for range rapid.IntRange(0, 60).Draw(t, "notes") {
			heard = append(heard, judge.Heard{At: float64(rapid.IntRange(-500, 46000).Draw(t, "at") / 120 * 120), Length: float64(rapid.IntRange(0, 2000).Draw(t, "length")), Pitch: float64(rapid.IntRange(30, 95).Draw(t, "pitch"))})
		}
		w, err := practice.Written(l, heard, 0.6)
		if err != nil {
			t.Fatalf("%v", err)
		}
		if err := w.Check(); err != nil {
			t.Fatalf("%v", err)
		}
	})
}
