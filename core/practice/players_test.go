package practice_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/ear"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/pitch"
	"undaris/core/practice"
	"undaris/core/score"
)

// model is what a player of a mode means to play: what is written, or where anything may be the tones of each chord in eighths, on
// each change the tone that is asked for.
func model(t *testing.T, m practice.Mode, chart edit.Line) edit.Line {
	l := chart
	l.Progression = m.Over(chart.Progression, chart.Key)
	if m.Writes() {
		_, own, err := m.Line(t.Context(), l, practice.Ask{Lick: figure(t), Tune: tune(t, chart)})
		require.NoError(t, err, m.ID)
		return own
	}
	stage, held := m.Stage(0), 0 // eighths that a note is held for
	for bar := range l.Bars {
		for eighth := range 2 * l.Beats {
			at := l.At(bar) + eighth*score.Tick/2
			chord, sounds := l.ChordAt(at)
			if !sounds {
				continue
			}
			if held > 0 {
				held--
				continue
			}
			class, length := int(chord.Tones[eighth%len(chord.Tones)].Name.Class()), score.Tick/2
			if l.Change(at) {
				if class = asked(chord, stage); slices.Contains(stage.Land, harmony.Extension) && (eighth+4)%(2*l.Beats) != 0 {
					held = 3
					length *= 4
				}
			}
			n := score.Note{Start: at, Length: length, Pitch: pitch.At(60+class, l.Spell(at, 60+class))}
			l.Notes = append(l.Notes, n)
		}
	}
	l.Notes = score.Numbered(l.Notes)
	return l
}

// asked is a tone that a stage counts as landed on a chord.
func asked(chord harmony.Chord, stage practice.Stage) int {
	for _, want := range stage.Land {
		for _, t := range chord.Tones {
			if t.Degree.Role() == want || want == harmony.Seventh && t.Degree == "6" {
				return int(t.Name.Class())
			}
		}
		for step, s := range blend.Sounds(chord) {
			if want == harmony.Extension && s.Class == blend.Colour && s.Degree.Role() == want {
				return (int(chord.Tones[0].Name.Class()) + step) % 12
			}
		}
	}
	return int(chord.Tones[0].Name.Class())
}

// hears is what the ear makes of what is played, beside what was to be played, or where anything may be beside nothing.
func hears(m practice.Mode, l edit.Line, heard []judge.Heard, swing float64) []judge.Heard {
	var expected []judge.Expected
	if m.Writes() {
		expected = judge.Sounding(l.Score, swing)
	}
	listener := ear.Listen(expected)
	for _, o := range ear.Noticed(heard, judge.Sounding(l.Score, swing)) {
		listener.Hear(o)
	}
	return listener.Heard()
}

// Every way to practise, over every form, with a player who does what is asked, one who is silent, one who loses the form, and one who
// errs: the first is told so, the second nothing that is wrong, the third where, and the fourth each mistake and no other.
func TestEveryModeWithFourPlayers(t *testing.T) {
	for _, m := range practice.Modes {
		lost, found, erring, told := 0, 0, 0, 0
		for k, f := range form.Forms {
			chart := over(f, pitch.Roots[(5*k)%len(pitch.Roots)])
			l := model(t, m, chart)
			what := m.ID + " over " + f.Name
			judged := func(p judge.Player) (practice.Free, judge.Erred) {
				p.Seed = uint64(k)
				heard, erred := p.Play(l.Score, 100, 0.5)
				out := l
				if !m.Writes() {
					out.Notes = nil
				}
				free, err := m.Judge(out, 0, hears(m, l, heard, 0.5), 100, 0.5)
				require.NoError(t, err, what)
				return free, erred
			}

			perfect, _ := judged(judge.Player{})
			require.NotEmpty(t, perfect.Landings, what)
			for _, landing := range perfect.Landings {
				assert.True(t, landing.Counts, "%s at %d over %s: %s", what, landing.At, landing.Chord, landing.Says)
			}
			assert.Zero(t, perfect.Outside, what)
			assert.Empty(t, perfect.Lost, what)

			silent, _ := judged(judge.Player{Inaudible: true})
			for _, landing := range silent.Landings {
				assert.False(t, landing.Counts, what)
				assert.Contains(t, []string{judge.Unheard, "silent"}, landing.When, what)
			}
			assert.Zero(t, silent.Outside, what)
			assert.Empty(t, silent.Lost, what)

			// Who comes in late for some bars plays other chords there, unless they are the same.
			astray, at := judged(judge.Player{Lost: 0.25})
			if len(at.Lost) > 0 {
				lost++
				missed := slices.ContainsFunc(astray.Landings, func(l practice.Landing) bool { return !l.Counts })
				if len(astray.Lost) > 0 || missed {
					found++
				}
			}

			errs, at := judged(judge.Player{Wrong: 0.3, Late: 0.2})
			for _, landing := range errs.Landings {
				wrong := false // any of what was played about it
				for i, n := range l.Notes {
					if off := n.Start - landing.At; (at.Wrong[i] || at.Late[i] || at.Bent[i]) && off > -2*score.Tick && off < max(landing.End-landing.At, 2*score.Tick) {
						wrong = true
					}
				}
				if !landing.Counts {
					told++
					assert.True(t, wrong, "%s at %d: %s, where nothing was wrong", what, landing.At, landing.Says)
				}
			}
			erring += len(at.Wrong)
		}
		t.Logf("%-12s lost in %d choruses, told in %d; %d notes wrong, %d changes not met", m.ID, lost, found, erring, told)
		assert.Positive(t, told, m.ID)
		assert.Positive(t, lost, m.ID)
		if m.ID != "root-first" { // there the right tone counts, whenever it comes
			assert.GreaterOrEqual(t, 2*found, lost, m.ID)
		}
	}
}
