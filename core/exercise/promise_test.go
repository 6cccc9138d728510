package exercise

import (
	"fmt"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/approach"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Every exercise over every kind of chord in every key: it plays what its name
// promises and nothing else, in time, as one hand can. Positions, paces, strings
// and approaches take turns; with EVERY=1 each position is tried with each string
// set and pace, which takes long (make thorough).
func TestEveryExerciseKeepsItsPromise(t *testing.T) {
	// What is wider than some position on all strings, or walks to a tone that some
	// chord lacks. Everything else is played wherever it is offered.
	wide := map[string]bool{}
	for _, id := range []string{"spread", "spread-fourth", "spread-climbing", "spread-inversions", "two-positions", "reach", "sixths", "sinking-thirds", "triad-chords",
		"three-a-string", "four-a-string", "fifths-down", "walk-root-third", "walk-third-fifth", "walk-ninth-third"} {
		wide[id] = true
	}
	qualities := []string{"7", "9", "7b9", "7#9", "7alt", "m7", "m6", "m", "m7b5", "dim7", "maj7", "6", "", "7sus4", "mMaj7", "aug"}
	sets := []neck.Strings{0, neck.StringsOf(1, 2, 3), neck.StringsOf(3, 4, 5, 6), neck.StringsOf(1, 3), neck.StringsOf(5, 2)}
	every := os.Getenv("EVERY") != ""
	for i, d := range Drills {
		t.Run(d.ID, func(t *testing.T) {
			t.Parallel()
			n, played := i*len(qualities)*len(pitch.Roots), 0
			for _, quality := range qualities {
				for _, tonic := range pitch.Roots {
					chord := harmony.MustParse(tonic.String() + quality)
					key := form.Key{Tonic: tonic, Minor: chord.Minor()}
					p, err := form.Read("| "+chord.String()+" | % |", 4, key)
					require.NoError(t, err)
					positions := neck.Standard().Positions(tonic.Class())
					for _, c := range turns(n, len(positions), len(sets), len(Paces), every) {
						n++
						x := task(d.ID)
						x.Key, x.Region, x.Pace = key, positions[c[0]].Region, Paces[c[2]].ID
						x.Region.Strings, x.Approach, x.Down = sets[c[1]], led(n), n%2 == 0
						if keepsPromise(t, d, chord, p, x, wide[d.ID]) {
							played++
						}
					}
				}
			}
			assert.Positive(t, played)
		})
	}
}

// turns are the positions, string sets and paces to try for a chord: every one
// with every other, or one of each in turn.
func turns(n, positions, sets, paces int, every bool) (out [][3]int) {
	if !every {
		return [][3]int{{n % positions, n / 3 % sets, n / 5 % paces}}
	}
	for p := range positions {
		for s := range sets {
			for q := range paces {
				out = append(out, [3]int{p, s, q})
			}
		}
	}
	return out
}

// keepsPromise tells whether an exercise is played, and fails where it is not what
// it says.
func keepsPromise(t *testing.T, d Drill, chord harmony.Chord, p form.Progression, x Task, wide bool) bool {
	fail := func(format string, args ...any) {
		t.Helper()
		t.Fatalf("%s over %s at %d, %s, %q on %v: %s", d.ID, chord, x.Region.Low, x.Pace, x.Approach, x.Region.Strings, fmt.Sprintf(format, args...))
	}
	notes, _, err := Over(t.Context(), p, x)
	if err != nil { // said in a sentence: never an empty staff
		if x.Region.Strings == 0 && (d.fits == nil || d.fits(chord)) && !wide {
			fail("it lies in every position: %v", err)
		}
		if !regexp.MustCompile(`is not played over|nothing of it lies|no hand can play`).MatchString(err.Error()) {
			fail("%v", err)
		}
		return false
	}
	s := score.Score{Progression: p, In: x.In, Notes: notes}
	if err := s.Check(); err != nil {
		fail("%v", err)
	}
	promised := promise(d.ID, chord, x.Key)
	for i, n := range notes {
		if n.End() > 2*3840 || i > 0 && notes[i-1].Start < n.Start && notes[i-1].End() > n.Start {
			fail("note %d does not fit into its time", i)
		}
		if n.Bend > 3 && n.Finger != 2 && n.Finger != 3 || n.Bend > 0 && (n.Finger == 0 || n.Bend > x.In.Bends(n.Placement)) {
			fail("note %d is bent %d quarter tones at %v by finger %d", i, n.Bend, n.Placement, n.Finger)
		}
		// What has no degree leads to a tone, or fills a way.
		if n.Degree != "" && !promised[pitch.Class(n.Heard())] {
			fail("%s (%s) was not promised", n.Pitch, n.Degree)
		}
	}
	return true
}

// promise is what an exercise may play over a chord, as pitch classes: reckoned
// from the text of the chord and key alone.
func promise(id string, c harmony.Chord, key form.Key) map[int]bool {
	out := map[int]bool{}
	add := func(tones []harmony.Tone, want func(harmony.Tone) bool) {
		for _, x := range tones {
			if want(x) {
				out[x.Name.Class()] = true
			}
		}
	}
	letters := func(ls ...int) func(harmony.Tone) bool {
		return func(x harmony.Tone) bool { return slices.Contains(ls, x.Interval.Letters) }
	}
	all := func(harmony.Tone) bool { return true }
	switch {
	case strings.HasPrefix(id, "key"):
		for _, n := range key.Scale() {
			out[n.Class()] = true
		}
	case strings.HasPrefix(id, "scale"), strings.HasSuffix(id, "a-string"):
		add(c.Scale(), all)
	case id == "ninth", id == "walk-ninth-third", id == "third-in-roots":
		add(c.Tones, all)
		add(c.Scale(), letters(1))
	case id == "extensions":
		add(c.Tones, all)
		add(c.Scale(), letters(1, 3, 5))
	case id == "from-third":
		add(c.Tones, letters(2, 4, 6))
		add(c.Scale(), letters(1))
	case strings.HasPrefix(id, "stretched"), strings.HasPrefix(id, "spread-fourth"), strings.HasPrefix(id, "spread-climbing"):
		add(c.Tones, all)
		add(c.Scale(), letters(0, 1, 2, 3, 4))
		out[pitch.Class(c.Root.Class()+5)] = true
		out[pitch.Class(c.Root.Class()+6)] = true
	case id == "thirds":
		add(c.Tones, letters(0, 2))
	case id == "triads", id == "triad-chords", id == "spread-inversions":
		add(c.Tones, letters(0, 2, 4))
	default:
		add(c.Tones, all)
	}
	return out
}

// No two exercises are the same notes under two names, over a seventh chord.
func TestNoTwoExercisesAreTheSame(t *testing.T) {
	seen := map[string]string{}
	for _, d := range Drills {
		x := task(d.ID)
		x.Region, x.Key = neck.Region{Low: 5, High: 12}, form.Key{}
		p, _ := form.Read("| C7 | % | % | % | F7 | % | % | % |", 4, form.Key{})
		notes, _, err := Over(t.Context(), Ground(p, d.ID), x)
		require.NoError(t, err, d.ID)
		text := ""
		for _, n := range notes {
			text += fmt.Sprint(n.Start, " ", n.Pitch.MIDI(), " ", n.String, " ", n.Bend, ",")
		}
		assert.NotContains(t, seen, text, "%s is %s", d.ID, seen[text])
		seen[text] = d.ID
	}
}

// led is one way of leading in after the other, with none among them.
func led(n int) string {
	if n %= len(approach.Ways) + 1; n > 0 {
		return approach.Ways[n-1].ID
	}
	return ""
}
