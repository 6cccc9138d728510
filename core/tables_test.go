// Package core_test looks at the tables of the core, entry by entry.
package core_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/approach"
	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/crossing"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// named is what is to be chosen by its ID and shown by its name.
type named struct{ id, name string }

func names[T any](list []T, of func(T) named) (out []named) {
	for _, x := range list {
		out = append(out, of(x))
	}
	return out
}

func option(o line.Option) named { return named{o.ID, o.Name} }

// What can be chosen has an ID and a name of its own in its table.
func TestNothingIsCalledAlike(t *testing.T) {
	for table, list := range map[string][]named{
		"forms": names(form.Forms, func(f form.Form) named { return named{f.ID, f.Name} }),
		"turnarounds": names(form.Turnarounds, func(f form.Turnaround) named {
			return named{f.ID, map[bool]string{true: "minor: "}[f.Minor] + f.Name}
		}),
		"feels":      names(form.Feels, func(f form.Feel) named { return named{f.ID, f.Name} }),
		"tunings":    names(neck.Tunings, func(u neck.Tuning) named { return named{u.ID, u.Name} }),
		"palettes":   names(blend.Palettes, func(p blend.Palette) named { return named{p.ID, p.Name} }),
		"threads":    names(crossing.Modes, func(m crossing.Mode) named { return named{m.ID, m.Name} }),
		"arcs":       names(band.Arcs, func(a band.Arc) named { return named{a.ID, a.Name} }),
		"compers":    names(band.Compers, func(c band.Comper) named { return named{c.ID, c.Name} }),
		"rhythms":    names(line.Rhythms, func(r line.Rhythm) named { return option(r.Option) }),
		"phrasings":  names(line.Phrasings, option),
		"words":      names(line.Words, func(w line.Word) named { return option(w.Option) }),
		"tastes":     names(line.Tastes, func(t line.Taste) named { return named{t.ID, t.Name} }),
		"rules":      names(line.Rules, func(r line.Rule) named { return named{r.ID, r.Name} }),
		"drills":     names(exercise.Drills, func(d exercise.Drill) named { return named{d.ID, d.Name} }),
		"paces":      names(exercise.Paces, func(p exercise.Pace) named { return named{p.ID, p.Name} }),
		"approaches": names(approach.Ways, func(w approach.Way) named { return named{w.ID, w.Name()} }),
		"ways":       names(score.Ways, func(w score.Way) named { return named{w.Key, w.Name} }),
	} {
		ids, called := map[string]bool{}, map[string]bool{}
		assert.NotEmpty(t, list, table)
		for _, x := range list {
			assert.NotEmpty(t, x.id, "%s: %q", table, x.name)
			assert.NotEmpty(t, x.name, "%s: %q", table, x.id)
			assert.False(t, ids[x.id] || called[x.name], "%s: %v", table, x)
			ids[x.id], called[x.name] = true, true
		}
	}
}

// kinds are a chord of every kind that notes are judged over.
var kinds = []string{"", "6", "7", "9", "13", "7b9", "7#9", "7alt", "7sus4", "sus2", "maj7", "maj9", "m", "m6", "m7", "m9", "mmaj7", "m7b5", "dim", "dim7", "aug", "7#5", "5", "add9", "maj7#11"}

// Over every kind of chord on every root, in every key, a palette is what it says:
// its notes climb from its root, what does not rest leads to a tone that the chord
// has, and with what is to be added the whole chord is there.
func TestEveryPaletteOverEveryChord(t *testing.T) {
	for _, p := range blend.Palettes {
		for _, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic}
			for _, root := range pitch.Roots {
				for _, kind := range kinds {
					chord := harmony.MustParse(root.String() + kind)
					if wrong := misled(key, p, chord); wrong != "" {
						t.Fatalf("%s of %s over %s: %s", p.ID, key, chord, wrong)
					}
				}
			}
		}
	}
}

// misled says what of a palette over a chord is not so.
func misled(key form.Key, p blend.Palette, chord harmony.Chord) string {
	b := blend.Over(key, p, chord)
	from, last := key.Tonic.Class(), -1
	if p.OfChord {
		from = chord.Root.Class()
	}
	if len(b.Notes) < 5 {
		return "too few notes"
	}
	reached := map[int]bool{}
	for _, n := range b.Notes {
		step := pitch.Class(n.Name.Class() - from)
		if step <= last {
			return "its notes do not climb"
		}
		last = step
		reached[n.Name.Class()] = true
		for _, d := range n.Wants {
			if !chord.HasDegree(d) {
				return string(n.Sound.Degree) + " wants " + string(d)
			}
		}
		if rests := n.Class == blend.ChordTone || n.Class == blend.Colour; rests != (len(n.Wants) == 0) {
			return string(n.Sound.Degree) + " leads nowhere, or rests and leads on"
		}
	}
	for _, tone := range b.Added {
		if reached[tone.Name.Class()] {
			return string(tone.Degree) + " is added and there already"
		}
		reached[tone.Name.Class()] = true
	}
	for _, tone := range chord.Tones {
		if !reached[tone.Name.Class()] {
			return string(tone.Degree) + " is nowhere"
		}
	}
	return ""
}

// Every tuning makes an instrument, with a place for the five positions of every key.
func TestEveryTuningIsAnInstrument(t *testing.T) {
	for _, u := range neck.Tunings {
		in, err := neck.New(u.Open, u.Frets, u.Scale, 0)
		require.NoError(t, err, u.ID)
		for _, tonic := range pitch.Roots {
			numbers := map[int]bool{}
			for _, p := range in.Positions(tonic.Class()) {
				require.NoError(t, in.CheckRegion(p.Region), "%s in %s", u.ID, tonic)
				numbers[p.Number] = true
			}
			for n := 1; n <= 5; n++ {
				assert.True(t, numbers[n], "%s in %s: position %d", u.ID, tonic, n)
			}
		}
	}
}

// Every feel has a groove, every groove a feel, and every tempo of the forms can
// be played.
func TestEveryFeelHasItsGroove(t *testing.T) {
	require.Len(t, band.Grooves, len(form.Feels))
	for _, f := range form.Feels {
		g, err := band.GrooveOf(f.ID)
		require.NoError(t, err, f.ID)
		assert.True(t, g.Swing >= 0.5 && g.Swing <= 0.75, f.ID)
		assert.True(t, f.Tempo >= form.MinTempo && f.Tempo <= form.MaxTempo, f.ID)
	}
}
