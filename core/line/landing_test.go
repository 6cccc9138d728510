package line

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/score"
)

// More than sixty changes judged by hand, each argued in a word. The text is a
// lick over the new chord: what stands before the bar line is played before the
// change, and |+ holds the last of it a beat over.
func TestChangesJudgedByHand(t *testing.T) {
	for _, c := range []struct {
		from, to, text, when, why string
	}{
		// On the beat, on a chord tone.
		{"C7", "F7", "5,/e R/e | 3/h", OnTime, "the third on one"},
		{"C7", "F7", "R/q | b7/q", OnTime, "the seventh on one"},
		{"F7", "C7", "| R/e 3/e", OnTime, "the root, after silence"},
		{"G7", "C7", "b7,/e R/e | 5/h", OnTime, "the fifth"},
		{"Dm7", "G7", "b7,/q | 3/q", OnTime, "seventh falls to third"},
		{"C7", "F7", "| 3+5/q", OnTime, "a double stop of two tones"},
		{"C7", "Fm7", "| b3/h", OnTime, "the minor third of a minor chord"},
		{"C7", "F7", "5/e | 9/h^2", OnTime, "the ninth bent a whole step into the third"},
		{"C7", "F7", "| b3/q^1", OnTime, "the flat third bent a half step into the third"},
		{"C7", "F7", "| 11/q^2", OnTime, "the fourth bent a whole step into the fifth"},
		{"G7", "Cdim7", "| b5/q", OnTime, "a tone of the diminished chord"},
		{"C7", "F7", "b3/e | 3/qh", OnTime, "hammered onto one"},
		{"C7", "F7", "b3/e | 3/qs", OnTime, "slid onto one"},
		{"C7", "F7", "| 3/q{1", OnTime, "scooped into"},

		// Pushed: a little before the change.
		{"C7", "F7", "5,/e R/e 3/e | -/q", Pushed, "an eighth before, and rest: the third of the new chord"},
		{"C7", "F7", "5/e 3/e |+ -/h", Pushed, "an eighth before, held over the bar"},
		{"C7", "F7", "5/q 3/s |+ -/q 5/e", Pushed, "a sixteenth before, held over"},
		{"C7", "F7", "R/e 3/q |+ -/h", Pushed, "a beat before and held over"},

		// Held over from longer before.
		{"C7", "F7", "5/h |+ -/h", HeldOver, "the root of the old chord becomes the fifth"},
		{"C7", "Am7", "b3/w |+ -/h", HeldOver, "a common tone, held through a bar"},

		// Leaned on and resolved.
		{"C7", "F7", "5,/e | b3/e 3/qh", Resolved, "flat third on the beat, hammered to the third"},
		{"C7", "F7", "| b3/e 3/qs", Resolved, "slid to the third"},
		{"C7", "F7", "| b3/e 3/q", Resolved, "picked, and still by step"},
		{"C7", "F7", "| 11/e 3/q", Resolved, "four to three"},
		{"C7", "F7", "| 11/q 3/q", Resolved, "a whole beat of four, then three"},
		{"C7", "F7", "| 9/e R/q", Resolved, "nine to root"},
		{"C7", "F7", "| 9/e 3/q", Resolved, "nine to third, a whole step up"},
		{"C7", "F7", "| 13/e 5/q", Resolved, "thirteen to five"},
		{"C7", "F7", "| b5/e 5/q", Resolved, "flat five to five"},
		{"C7", "F7", "| #11/e 5/q", Resolved, "the same sound by another name"},
		{"C7", "F7", "| b9/e R/q", Resolved, "flat nine to root"},
		{"C7", "F7", "| 7,/e R/q", Resolved, "a half step below the root"},
		{"C7", "F7", "| b13/e 5/q", Resolved, "flat thirteen to five"},
		{"C7", "Fm7", "| 11/e b3/q", Resolved, "four to the minor third"},
		{"C7", "F7", "11/e | 9/e b3/s 3/q", Resolved, "up by half steps into the third"},
		{"C7", "F7", "| 11/e b3/e 3/q", Resolved, "above and below, then the third"},
		{"C7", "F7", "| 9/e 7,/e R/q", Resolved, "above and below, then the root"},
		{"C7", "F7", "| 13/e b5/e 5/q", Resolved, "above and below, then the fifth"},
		{"C7", "F7", "11/e | b3/e 3/q", Resolved, "enclosed across the bar line"},
		{"G7", "Cmaj7", "| 11/e 3/h", Resolved, "the suspended fourth falls"},

		// Leaned on, and may rest.
		{"C7", "F7", "R/e | 9/h", LeanedOn, "the ninth held"},
		{"C7", "F7", "| 13/h", LeanedOn, "the thirteenth held"},
		{"C7", "F7", "| 9/q -/q", LeanedOn, "the ninth and silence"},
		{"C7", "F7", "| b3/q^q", LeanedOn, "the flat third curled: a blue note"},
		{"C7", "F7", "| b3/h^q", LeanedOn, "and held so"},
		{"Dm7", "Gm7", "| 9/h", LeanedOn, "the ninth of a minor chord"},
		{"G7", "Cmaj7", "| 9/h", LeanedOn, "the ninth of a major seventh"},

		// Late.
		{"C7", "F7", "| -/e 3/q", Late, "an eighth late"},
		{"C7", "F7", "| -/s R/q", Late, "a sixteenth late"},
		{"C7", "F7", "5,/q | -/q b7/q", Late, "a whole beat late"},
		{"C7", "F7", "| 11/e R/q", Late, "a passing note on the beat, then the root by a leap"},
		{"C7", "F7", "| b9/e 5/q", Late, "a wrong note on the beat, then five by a leap"},
		{"C7", "F7", "| 9/e 5/q", Late, "nine, and away by a leap"},
		{"C7", "F7", "| R/ex 3/q", Late, "a muted stroke, then the third"},

		// Wrong.
		{"C7", "F7", "| b9/h", Wrong, "the flat nine held"},
		{"C7", "F7", "5/e | 9/h^1", Wrong, "the ninth bent a half step, to the flat third, and held there"},
		{"C7", "F7", "b9/h |+ -/h", Wrong, "held over from before as the flat nine"},
		{"C7", "F7", "| 11/h", Wrong, "the fourth held over a dominant"},
		{"C7", "F7", "| 7/h", Wrong, "the major seventh over a dominant"},
		{"C7", "F7", "| b3/h", Wrong, "the flat third held plain"},
		{"C7", "F7", "| 9/e 11/e 9/e", Wrong, "no tone within the beat"},
		{"G7", "Cm6", "| b7/h", Wrong, "the flat seventh contradicts the sixth"},
		{"G7", "C", "| #11/h", Wrong, "the sharp eleventh over a plain major chord"},

		// Silent.
		{"C7", "F7", "R,/q | -/h", Silent, "the root of the old chord is let go, and nothing follows"},
		{"C7", "F7", "| -/h 3/q", Silent, "two beats late is no landing"},
		{"C7", "F7", "b7,/q | -/h", Silent, "the seventh a beat before, and let go on the bar line: no push"},
	} {
		l := judged(t, c.from, c.to, c.text, Usual)
		assert.Equal(t, c.when, l.When, "%s to %s, %q (%s): %s", c.from, c.to, c.text, c.why, l.Says)
		assert.Equal(t, c.when != Late && c.when != Wrong && c.when != Silent, l.Landed())
	}
}

// judged plays a lick over a bar of each chord and judges the change between.
func judged(t *testing.T, from, to, text string, rule Rule) Landing {
	key := form.Key{}
	p, err := form.Read("| "+from+" | "+to+" | % |", 4, key)
	require.NoError(t, err)
	notes, err := lick.Parse(strings.Replace(text, "|+", "|", 1))
	require.NoError(t, err, text)
	if strings.Contains(text, "|+") { // the note before the bar line is held a beat over it
		i := slices.IndexFunc(notes, func(n lick.Note) bool { return n.Start+n.Length == 0 })
		notes[i].Length += score.Tick
	}
	s := score.Score{Key: key, Tempo: 96, Progression: p, In: neck.Standard()}
	s.Notes, err = lick.Lick{Chord: "7", Notes: notes}.Realise(harmony.MustParse(to), 3840, lick.Ground{In: s.In, Region: neck.Region{Low: 3, High: 12}, Hand: neck.UsualHand})
	require.NoError(t, err, text)
	for _, l := range Check(s, minorPentatonic(), rule).Landings {
		if l.At == 3840 {
			return l
		}
	}
	require.Fail(t, "no change", "%s to %s", from, to)
	return Landing{}
}

func TestTheRuleSaysWhatMayRest(t *testing.T) {
	for _, c := range []struct {
		to, text string
		when     map[string]string // by rule
	}{
		{"F7", "| 9/h", map[string]string{"strict": Wrong, "usual": LeanedOn, "wide": LeanedOn}},
		{"F7", "| 11/h", map[string]string{"strict": Wrong, "usual": Wrong, "wide": LeanedOn}},
		{"F7", "| b9/h", map[string]string{"strict": Wrong, "usual": Wrong, "wide": Wrong}},
		{"Fm7", "| 11/h", map[string]string{"strict": Wrong, "usual": Wrong, "wide": LeanedOn}},
	} {
		for _, rule := range Rules {
			l := judged(t, "C7", c.to, c.text, rule)
			assert.Equal(t, c.when[rule.ID], l.When, "%s over %s by %s: %s", c.text, c.to, rule.ID, l.Says)
			if l.When == LeanedOn {
				assert.Contains(t, l.Says, rule.Name, "it says by which rule")
			}
		}
	}
	assert.Equal(t, "leaned on the 11, resolved to the 3 of F7", judged(t, "C7", "F7", "| 11/e 3/q", Usual).Says)
	assert.Equal(t, "pushed: the 3 of F7 comes an eighth before it", judged(t, "C7", "F7", "5,/e R/e 3/e | -/q", Usual).Says)
}
