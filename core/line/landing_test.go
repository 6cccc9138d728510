package line

import (
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/pitch"
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

// What may rest can differ by chord of the form: the same note is met over the five and not over the one, on a change and off it.
func TestWhatMayRestDiffersByChordOfTheForm(t *testing.T) {
	r, err := RuleByID("strict,five:wide")
	require.NoError(t, err)
	for _, key := range pitch.Roots {
		k := form.Key{Tonic: key}
		for up, sound := range map[int]string{0: Wrong, 2: Wrong, 5: Wrong, 7: LeanedOn, 9: Wrong} {
			chord, before := k.Spell(key.Class()+up), k.Spell(key.Class()+10)
			p, err := form.Read("| "+before.String()+"7 | "+chord.String()+"7 | % |", 4, k)
			require.NoError(t, err)
			s := score.Score{Key: k, Tempo: 96, Progression: p, In: neck.Standard()}
			nine := chord.Class() + 2
			at := s.In.Find(60+pitch.Class(nine), neck.Region{Low: 0, High: 14})[0]
			s.Notes = []score.Note{{Start: 3840, Length: 1920, Placement: at, Pitch: pitch.At(s.In.MIDI(at), k.Spell(pitch.Class(nine)))},
				{Start: 3 * 1920, Length: 1920, Placement: at, Pitch: pitch.At(s.In.MIDI(at), k.Spell(pitch.Class(nine)))}}
			report := Check(s, minorPentatonic(), r)
			require.Len(t, report.Landings, 2)
			assert.Equal(t, sound, report.Landings[1].When, "%s in %s", chord, key)
			assert.Equal(t, sound == Wrong, report.Notes[1].Fault, "%s in %s: %s", chord, key, report.Notes[1].Says)
			if sound == LeanedOn {
				assert.Contains(t, report.Notes[1].Says, "over the five")
			}
		}
	}
	for _, bad := range []string{"loose", "usual,five", "usual,five:loose", "usual,six:wide", "usual,five:wide,five:strict", "five:wide", ",five:wide,"} {
		_, err := RuleByID(bad)
		assert.Error(t, err, bad)
	}
	all, err := RuleByID("wide,one:strict,four:usual,five:wide")
	require.NoError(t, err)
	assert.Equal(t, "strict", all.Over(form.Key{}, harmony.MustParse("C7")).ID)
	assert.Equal(t, "usual", all.Over(form.Key{}, harmony.MustParse("F7")).ID)
	assert.Equal(t, Rules[2].Name, all.Over(form.Key{}, harmony.MustParse("A7")).Name)
	assert.Equal(t, "usual", Rule{}.Over(form.Key{}, harmony.MustParse("A7")).ID, "who says nothing has the usual one")
}

// A written line rests where the rule lets it: by no rule on anything else, by a wide one on more, over the five alone where that is
// said.
func TestLinesRestWhereTheRuleLetsThem(t *testing.T) {
	coloured, seeds := map[string]int{}, uint64(2)
	if os.Getenv("EVERY") != "" {
		seeds = 12
	}
	for _, id := range []string{"strict", "usual", "wide", "strict,five:wide"} {
		rule, err := RuleByID(id)
		require.NoError(t, err)
		for _, c := range charts {
			s := empty(t, c.form, c.key)
			for seed := range seeds {
				position := s.In.Positions(s.Key.Tonic.Class())[1+seed%3]
				for _, word := range Words {
					w := Wish{Region: position.Region, Palette: palette(t, "composite"), Rhythm: OwnRhythm, Word: word.ID, Density: word.Density, Phrasing: word.Phrasing,
						ChordTones: word.ChordTones, Approach: true, Spice: word.Spice, Rule: rule, Seed: 500 + seed}
					s.Notes, err = Write(t.Context(), s, w, neck.UsualHand)
					require.NoError(t, err)
					for i, r := range Check(s, w.Palette, rule).Notes {
						chord, _ := s.ChordAt(s.Notes[i].Start)
						require.False(t, r.Fault && r.Rests, "%s by %s over %s in %s: %s", word.ID, id, c.form, position.Says(), r.Says)
						if r.Rests && r.Class != blend.ChordTone && r.Role == Leaned && s.Notes[i].Bend != 1 {
							coloured[id]++
							five := pitch.Class(chord.Root.Class()-s.Key.Tonic.Class()) == 7
							require.False(t, word.ChordTones || id == "strict" || id == "strict,five:wide" && !five, "%s by %s over %s: %s", word.ID, id, c.form, r.Says)
						}
					}
				}
			}
		}
	}
	t.Log(coloured)
	assert.Greater(t, coloured["usual"], 40)
	assert.Greater(t, coloured["wide"], coloured["usual"])
	assert.Greater(t, coloured["strict,five:wide"], 3)
}

// An extension that is wished for is landed on: a 9, 11 or 13 that is a colour of its chord, over minor sevenths as over
// dominants; nothing else takes its place where the position has one.
func TestLinesLandOnExtensions(t *testing.T) {
	met, all := 0, 0
	for _, c := range charts {
		s := empty(t, c.form, c.key)
		for _, position := range s.In.Positions(s.Key.Tonic.Class())[1:4] {
			for seed := range uint64(4) {
				w := Wish{Region: position.Region, Palette: palette(t, "composite"), Rhythm: "eighths", Density: 3, Targets: []harmony.Role{harmony.Extension}, Approach: true, Seed: seed + 1}
				notes, err := Write(t.Context(), s, w, neck.UsualHand)
				require.NoError(t, err, "%s at %s, %d", c.form, position.Says(), seed)
				for _, n := range notes {
					if !s.Change(n.Start) {
						continue
					}
					chord, _ := s.ChordAt(n.Start)
					sound := blend.Sounds(chord)[chord.Above(n.Heard())]
					all++
					if sound.Degree.Role() == harmony.Extension {
						met++
						require.NotContains(t, []blend.Class{blend.Tension, blend.Passing, blend.Blue}, sound.Class, "%s over %s", sound.Degree, chord)
						continue
					}
					for midi := s.In.MIDI(neck.Placement{String: s.In.Strings(), Fret: position.Low}); midi <= s.In.MIDI(neck.Placement{String: 1, Fret: position.High}); midi++ {
						other := blend.Sounds(chord)[chord.Above(midi)]
						require.False(t, other.Class == blend.Colour && other.Degree.Role() == harmony.Extension && len(s.In.Find(midi, position.Region)) > 0,
							"%s over %s at %s, though %s lies there", sound.Degree, chord, position.Says(), other.Degree)
					}
				}
			}
		}
	}
	t.Log(met, "of", all, "changes on an extension")
	assert.Greater(t, met, 9*all/10)
}
