package line

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// sung is a line of phrases over a blues in C: of each where it begins, in beats, and its pitches, in quarters.
func sung(t require.TestingT, phrases ...[]int) score.Score {
	key := form.Key{Tonic: pitch.Name{Letter: 0}}
	p, err := form.Read("| C7 | C7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7 |", 4, key)
	require.NoError(t, err)
	s := score.Score{Key: key, Progression: p, In: neck.Standard(), Tempo: 96}
	for _, ph := range phrases {
		for i, midi := range ph[1:] {
			places := s.In.Find(midi, neck.Region{High: 22})
			require.NotEmpty(t, places, midi)
			s.Notes = append(s.Notes, score.Note{Start: (ph[0] + i) * score.Tick, Length: score.Tick, Placement: places[0], Pitch: pitch.At(midi, key.Spell(midi))})
		}
	}
	return s
}

func TestPhrasesHaveRoles(t *testing.T) {
	const c, d, eb, e, g, bb, hc = 60, 62, 63, 64, 67, 70, 72
	for _, x := range []struct {
		name    string
		phrases [][]int
		says    []string
	}{
		{"a question and its answer", [][]int{{0, c, e, g}, {8, g, e, c}}, []string{"question: stays open on the key's 5", "answer: closes on the key's R"}},
		{"the same question twice, then the answer", [][]int{{0, c, e, g}, {8, c, e, g}, {16, g, e, d, c}},
			[]string{"stays open on the key's 5", "question: A again; stays open on the key's 5", "answer: closes on the key's R"}},
		{"the same beginning, another end", [][]int{{0, c, d, e, g}, {8, c, d, e, c}}, []string{"question: stays open on the key's 5", "answer: begins as A, with another end; closes on the key's R"}},
		{"another beginning, the same end", [][]int{{0, c, g, e, d, c}, {8, bb, hc, e, d, c}}, []string{"closes on the key's R", "another beginning, ends as A; closes on the key's R"}},
		{"an octave up", [][]int{{0, c, e, c}, {8, hc, hc + 4, hc}}, []string{"closes on the key's R", "A an octave up; closes on the key's R"}},
		{"and down", [][]int{{0, hc, hc + 4, hc}, {8, c, e, c}}, []string{"closes on the key's R", "A an octave down; closes on the key's R"}},
		{"a third rests on its own chord alone", [][]int{{0, c, d, e}, {16, c, d, e}}, []string{"closes on the key's 3", "A again; stays open on the key's 3"}},
		{"a minor third does not rest over a major chord", [][]int{{0, c, d, eb}, {8, c, d}}, []string{"stays open on the key's ♭3", "stays open on the key's 2"}},
		{"what comes long after answers nothing", [][]int{{0, c, e, g}, {13, g, e, c}}, []string{"stays open on the key's 5", "closes on the key's R"}},
		{"a turnaround leads on, a coda closes", [][]int{{40, c, e, g}, {44, bb, g}}, []string{"turnaround: stays open on the key's 5", "turnaround: stays open on the key's 5"}},
		{"a coda", [][]int{{36, c, e, g}, {44, bb, g, c}}, []string{"question: stays open on the key's 5", "coda: closes on the key's R"}},
	} {
		var says []string
		for _, p := range phrases(sung(t, x.phrases...)) {
			says = append(says, p.Says())
		}
		assert.Equal(t, x.says, says, x.name)
	}
}

// In any line every question is open, and what follows it closes; what is said to be an octave up is.
func TestRolesHoldInAnyLine(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var list [][]int
		at := 0
		for range rapid.IntRange(1, 6).Draw(t, "phrases") {
			ph := []int{at}
			for range rapid.IntRange(1, 4).Draw(t, "notes") {
				ph = append(ph, rapid.IntRange(48, 76).Draw(t, "midi"))
			}
			if len(list) > 0 && rapid.Bool().Draw(t, "again") { // as one before, here or elsewhere
				like := list[rapid.IntRange(0, len(list)-1).Draw(t, "which")]
				by := rapid.SampledFrom([]int{0, 0, 12, -12, 1}).Draw(t, "by")
				ph = []int{at}
				for _, midi := range like[1:] {
					ph = append(ph, min(84, max(42, midi+by)))
				}
			}
			list = append(list, ph)
			at += len(ph) + rapid.IntRange(1, 6).Draw(t, "silence")
			if at > 42 {
				break
			}
		}
		s := sung(t, list...)
		all := phrases(s)
		require.Equal(t, 0, all[0].From)
		for i, p := range all {
			require.NotEmpty(t, p.Says())
			require.NotEmpty(t, p.Ends)
			require.Equal(t, p.Ends == "R", s.Notes[p.To].Heard()%12 == 0)
			switch p.Role {
			case Question:
				require.False(t, p.Closes)
				require.True(t, all[i+1].Closes)
				require.Contains(t, []string{Answer, Coda, Question}, all[i+1].Role)
			case Answer, Coda:
				require.True(t, p.Closes)
			case Turnaround:
				require.False(t, p.Closes)
			}
			if i == 0 {
				require.Empty(t, p.Like)
			}
		}
	})
}
