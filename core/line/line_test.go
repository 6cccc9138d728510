package line

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

func empty(t testing.TB, formID, key string) score.Score {
	f, ok := form.FormByID(formID)
	require.True(t, ok)
	k, err := form.ParseKey(key)
	require.NoError(t, err)
	return score.Score{Key: k, Progression: f.In(k), In: neck.Standard(), Tempo: 96}
}

func minorPentatonic() blend.Palette { return blend.Palettes[0] }

func TestLinesKeepWhatWasAskedInEveryFormKeyAndPosition(t *testing.T) {
	for i, f := range form.Forms {
		t.Run(f.ID, func(t *testing.T) {
			t.Parallel()
			everywhere(t, f, uint64(i*137))
		})
	}
}

func everywhere(t *testing.T, f form.Form, seed uint64) {
	for _, tonic := range pitch.Roots {
		key := form.Key{Tonic: tonic, Minor: f.Minor}
		s := score.Score{Key: key, Progression: f.In(key), In: neck.Standard()}
		for _, pos := range s.In.Positions(tonic.Class()) {
			seed++
			w := Wish{Region: pos.Region, Palette: blend.Palettes[seed%8], Rhythm: Rhythms[seed%4].ID, Density: 1 + int(seed%5),
				Contour: Contours[seed%5].ID, Phrasing: Phrasings[seed%4].ID, ChordTones: seed%3 == 0, Approach: seed%2 == 0,
				Targets: [][]harmony.Role{nil, {harmony.Third}, {harmony.Third, harmony.Seventh}}[seed%3], Seed: seed}
			notes, err := Write(t.Context(), s, w, neck.UsualHand)
			require.NoError(t, err, "%s in %s at %d", f.ID, key, pos.Low)
			s.Notes = notes
			require.NoError(t, s.Check())
			check(t, s, w, fmt.Sprintf("%s in %s at %d, seed %d", f.ID, key, pos.Low, seed))
		}
	}
}

func check(t *testing.T, s score.Score, w Wish, where string) {
	same := 0
	for i, n := range s.Notes {
		chord, ok := s.ChordAt(n.Start)
		require.True(t, ok, where)
		_, tone := chord.ToneAt(n.Pitch.MIDI() % 12)
		if s.InBar(n.Start)%1920 == 0 || w.ChordTones || i == len(s.Notes)-1 {
			require.True(t, tone, "%s: %s at %d over %s", where, n.Pitch, n.Start, chord)
		}
		require.True(t, n.Fret >= w.Region.Low && n.Fret <= w.Region.High, where)
		if i > 0 && s.Notes[i-1].Pitch.MIDI() == n.Pitch.MIDI() {
			same++
			require.Less(t, same, 2, "%s: the same note three times", where)
		} else {
			same = 0
		}
	}
	for bar, b := range s.Bars {
		for _, c := range b.Changes {
			at := s.At(bar) + c.Beat*score.Tick
			if !s.Change(at) {
				continue
			}
			i := slices.IndexFunc(s.Notes, func(n score.Note) bool { return n.Start == at })
			require.GreaterOrEqual(t, i, 0, "%s: nothing on the change at %d", where, at)
			got, _ := c.Chord.ToneAt(s.Notes[i].Pitch.MIDI() % 12)
			if _, timed := w.timed(); timed && bar > 0 && w.goal(c.Chord) == s.Notes[i].Heard()%12 {
				continue // what a phrase is timed to goes before what is wished of all changes
			}
			if len(w.Targets) > 0 && slices.ContainsFunc(c.Chord.Tones, func(t harmony.Tone) bool { return slices.Contains(w.Targets, t.Degree.Role()) }) {
				require.Contains(t, w.Targets, got.Degree.Role(), "%s: %s on the change to %s", where, s.Notes[i].Pitch, c.Chord)
			}
		}
	}
}

func TestTheSameSeedWritesTheSameLine(t *testing.T) {
	s := empty(t, "quick-change", "Bb")
	w := Wish{Region: neck.Region{Low: 5, High: 9}, Palette: minorPentatonic(), Density: 3, Seed: 4, Approach: true}
	a, err := Write(t.Context(), s, w, neck.UsualHand)
	require.NoError(t, err)
	b, _ := Write(t.Context(), s, w, neck.UsualHand)
	assert.Equal(t, a, b)
	w.Seed = 5
	c, _ := Write(t.Context(), s, w, neck.UsualHand)
	assert.NotEqual(t, a, c)
}

func TestLockedBarsStay(t *testing.T) {
	s := empty(t, "quick-change", "Bb")
	w := Wish{Region: neck.Region{Low: 5, High: 9}, Palette: minorPentatonic(), Density: 4, Seed: 4, Approach: true, Phrasing: "aab"}
	first, err := Write(t.Context(), s, w, neck.UsualHand)
	require.NoError(t, err)
	s.Notes = first
	w.Seed, w.From, w.To, w.Locked = 77, 8, 12, map[int]bool{9: true}
	second, err := Write(t.Context(), s, w, neck.UsualHand)
	require.NoError(t, err)
	in := func(notes []score.Note, keep func(bar int) bool) (out []score.Note) {
		for _, n := range notes {
			if keep(s.BarOf(n.Start)) {
				n.Finger = 0
				out = append(out, n)
			}
		}
		return out
	}
	stays := func(bar int) bool { return bar < 8 || bar == 9 }
	assert.Equal(t, in(first, stays), in(second, stays))
	assert.NotEqual(t, in(first, func(b int) bool { return !stays(b) }), in(second, func(b int) bool { return !stays(b) }))
	s.Notes = second
	require.NoError(t, s.Check())
}

// price adds up the cost of one way through the candidates, by its definition.
func price(slots []slot, layers [][]candidate, way []int) float64 {
	total, mode := 0.0, afresh
	for i, j := range way {
		c := layers[i][j]
		total += c.cost
		if i == 0 {
			continue
		}
		before := layers[i-1][way[i-1]]
		step := pair(&slots[i-1], &slots[i], &before, &c)
		if slots[i-1].pause > 0 && mode != repeated {
			mode = afresh
		}
		next, more, ok := turn(mode, c.midi-before.midi, slots[i].enclosed)
		if !ok || math.IsInf(step, 1) {
			return math.Inf(1)
		}
		total += step + more
		mode = next
	}
	if layers[len(way)-1][way[len(way)-1]].class != blend.ChordTone {
		return math.Inf(1)
	}
	return total
}

func TestTheOptimumEqualsBruteForce(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 3))
	for range 60 {
		s := empty(t, form.Forms[rng.IntN(len(form.Forms))].ID, "C")
		s.Bars = s.Bars[:1]
		low := rng.IntN(10)
		w := Wish{Region: neck.Region{Low: low, High: low + 3, Strings: neck.StringsOf(2, 3)}, Palette: blend.Palettes[rng.IntN(8)],
			Rhythm: Rhythms[rng.IntN(4)].ID, Density: 1 + rng.IntN(3), Approach: rng.IntN(2) == 0, Seed: rng.Uint64(), Spice: Words[rng.IntN(len(Words))].Spice}
		slots := plan(s, w)
		slots = slots[:min(len(slots), 5)]
		layers := make([][]candidate, len(slots))
		for i, k := range slots {
			layers[i] = candidates(s, w, k)
		}
		best := math.Inf(1)
		way := make([]int, len(slots))
		var try func(i int)
		try = func(i int) {
			if i == len(slots) {
				best = min(best, price(slots, layers, way))
				return
			}
			for j := range layers[i] {
				way[i] = j
				try(i + 1)
			}
		}
		try(0)
		found, total := cheapest(t.Context(), slots, layers)
		if math.IsInf(best, 1) {
			assert.Nil(t, found)
			continue
		}
		assert.InDelta(t, best, total, 1e-9)
		assert.InDelta(t, total, price(slots, layers, found), 1e-9)
	}
}

func TestWishesRefused(t *testing.T) {
	s := empty(t, "quick-change", "C")
	good := Wish{Region: neck.Region{Low: 7, High: 11}, Palette: minorPentatonic(), Density: 3}
	for says, change := range map[string]func(*Wish){
		"density":  func(w *Wish) { w.Density = 9 },
		"rhythm":   func(w *Wish) { w.Rhythm = "polka" },
		"contour":  func(w *Wish) { w.Contour = "zigzag" },
		"phrasing": func(w *Wish) { w.Phrasing = "never" },
		"strings":  func(w *Wish) { w.Region.Strings = neck.StringsOf(8) },
		"fret":     func(w *Wish) { w.Region = neck.Region{Low: 30, High: 40} },
		"no tone":  func(w *Wish) { w.Region = neck.Region{Low: 7, High: 7, Strings: neck.StringsOf(1)} },
	} {
		w := good
		change(&w)
		_, err := Write(t.Context(), s, w, neck.UsualHand)
		assert.ErrorContains(t, err, says)
	}
}

func note(s score.Score, start, length, str, fret int) score.Note {
	p := neck.Placement{String: str, Fret: fret}
	midi := s.In.MIDI(p)
	return score.Note{Start: start, Length: length, Placement: p, Pitch: pitch.At(midi, s.Key.Spell(midi%12))}
}

func TestWhatNotesDo(t *testing.T) {
	s := empty(t, "quick-change", "C") // C7 | F7 | C7 …
	s.Notes = []score.Note{
		note(s, 0, 480, 3, 9),      // E, the third, on the first beat
		note(s, 480, 480, 3, 8),    // E flat: a fret below the E that follows
		note(s, 960, 480, 3, 9),    // E
		note(s, 1440, 480, 2, 7),   // F sharp: encloses G with the A flat
		note(s, 1920, 480, 2, 9),   // A flat
		note(s, 2400, 480, 2, 8),   // G
		note(s, 2880, 480, 3, 10),  // F, the eleventh
		note(s, 3360, 480, 3, 9),   // E
		note(s, 3840, 960, 3, 8),   // E flat, the seventh of F7: lands
		note(s, 7680, 2880, 3, 10), // F over C7: held, wants to move
		note(s, 11520, 480, 4, 7),  // A over C7: colour
	}
	r := Check(s, minorPentatonic(), Usual)
	roles := []Role{Lands, Approach, Tone, Enclosing, Enclosing, Tone, Approach, Tone, Lands, Loose}
	for i, role := range roles {
		assert.Equal(t, role, r.Notes[i].Role, "note %d: %s", i, r.Notes[i].Says)
	}
	assert.True(t, r.Notes[9].Fault)
	assert.Contains(t, r.Notes[9].Says, "wants to move to 3")
	assert.Equal(t, "lands the change on the ♭7 of F7", r.Notes[8].Says)
	require.NotEmpty(t, r.Advice)
}

func TestLandings(t *testing.T) {
	s := empty(t, "quick-change", "C") // changes at bars 1 2 3 5 7 9 10 11 12
	s.Notes = []score.Note{
		note(s, 0, 480, 3, 9),          // on time: third of C7
		note(s, 3840-480, 960, 3, 8),   // early: E flat held into F7
		note(s, 7680, 480, 3, 10),      // F over C7: wrong
		note(s, 15360+480, 480, 2, 10), // late: A over F7
	}
	r := Check(s, minorPentatonic(), Usual)
	var when []string
	for _, l := range r.Landings {
		when = append(when, l.When)
	}
	assert.Equal(t, []string{OnTime, Pushed, Wrong, Late, Silent, Silent, Silent, Silent, Silent}, when)
	assert.Equal(t, harmony.Degree("b7"), r.Landings[1].Degree)
	assert.Contains(t, r.Landings[2].Says, "on the 11 over C7 to 3")
}

func TestPhrasesThatComeBackAreNamed(t *testing.T) {
	s := empty(t, "quick-change", "C")
	idea := func(bar, str, fret int) {
		for i := range 3 {
			s.Notes = append(s.Notes, note(s, bar*3840+i*480, 480, str, fret+i))
		}
	}
	idea(0, 3, 7) // over C7
	idea(2, 3, 7) // the same over C7
	idea(4, 3, 9) // the same contour over F7
	s.Notes = append(s.Notes, note(s, 8*3840, 480, 2, 8), note(s, 8*3840+480, 960, 2, 7))
	r := Check(s, minorPentatonic(), Usual)
	var names []string
	for _, p := range r.Phrases {
		names = append(names, p.Name)
	}
	assert.Equal(t, []string{"A", "A", "A′", "B"}, names)
}

// BenchmarkWriteInWords writes a chorus of each rhythm in a blues word, and 96 bars.
func BenchmarkWriteInWords(b *testing.B) {
	word, _ := WordByID("box-blues")
	for _, r := range Rhythms {
		for _, times := range []int{1, 8} {
			s := empty(b, "jazz-blues", "Eb")
			bars := s.Bars
			for len(s.Bars) < times*len(bars) {
				s.Bars = append(s.Bars, bars...)
			}
			w := Wish{Region: neck.Region{Low: 3, High: 7}, Palette: blend.Palettes[7], Rhythm: r.ID, Density: 5, Phrasing: word.Phrasing, Approach: true, Spice: word.Spice}
			b.Run(fmt.Sprintf("%s, %d bars", r.ID, len(s.Bars)), func(b *testing.B) {
				for b.Loop() {
					w.Seed++
					if _, err := Write(b.Context(), s, w, neck.UsualHand); err != nil {
						b.Fatal(err)
					}
				}
			})
		}
	}
}

func BenchmarkWriteAChorusOfEighths(b *testing.B) {
	s := empty(b, "jazz-blues", "Eb")
	w := Wish{Region: neck.Region{Low: 3, High: 7}, Palette: blend.Palettes[7], Rhythm: "eighths", Density: 5, Phrasing: "study", Approach: true}
	for b.Loop() {
		w.Seed++
		if _, err := Write(b.Context(), s, w, neck.UsualHand); err != nil {
			b.Fatal(err)
		}
	}
}

// What is hard to read is hard to mean: no written line asks for sextuplets or
// thirty-seconds, swung eighths need no brackets, and a landing never is a blip.
func TestWrittenLinesCanBeRead(t *testing.T) {
	for _, f := range form.Forms {
		key := form.Key{Tonic: pitch.Name{Letter: 6, Alter: -1}, Minor: f.Minor}
		for seed := range uint64(60) {
			s := score.Score{Key: key, Progression: f.In(key), In: neck.Standard(), Swing: true}
			w := Wish{Region: neck.Region{Low: 5, High: 9}, Palette: blend.Palettes[0], Rhythm: Rhythms[seed%4].ID, Density: 1 + int(seed%5), Phrasing: Phrasings[seed%3].ID, Seed: seed}
			var err error
			s.Notes, err = Write(t.Context(), s, w, neck.UsualHand)
			require.NoError(t, err)
			what := fmt.Sprintf("%s, %s, seed %d", f.ID, w.Rhythm, seed)
			assert.Zero(t, score.Straighten(slices.Clone(s.Notes)), what)
			for _, m := range s.Engrave() {
				for _, k := range m.Strokes {
					assert.Less(t, k.Value.Actual, 6, what)
					assert.LessOrEqual(t, k.Value.Base, 16, what)
				}
			}
			for i, n := range s.Notes {
				if alone := i+1 == len(s.Notes) || s.Notes[i+1].Start > n.End(); alone && s.Change(n.Start) {
					assert.GreaterOrEqual(t, n.Length, score.Tick/2, "%s: a landing before a rest in bar %d", what, s.BarOf(n.Start)+1)
				}
			}
		}
	}
}

// What else a teacher would say, and does not say of what is well.
func TestHabitsAreTold(t *testing.T) {
	run := func(s score.Score, from int, frets ...int) (notes []score.Note) {
		for i, f := range frets {
			notes = append(notes, note(s, from+i*480, 480, 3-f/100, f%100))
		}
		return notes
	}
	s := empty(t, "quick-change", "C")
	for says, notes := range map[string][]score.Note{
		"runs a shape up and down": append(run(s, 0, 5, 7, 9, 106, 108, 110, 111, 113, 111, 110, 108, 106, 9, 7, 5),
			run(s, 15360, 5, 7, 9, 106, 108, 110, 111, 113, 111, 110, 108, 106, 9, 7, 5)...),
		"lies under the hand at":    {note(s, 0, 480, 2, 8), note(s, 480, 480, 1, 20), note(s, 960, 480, 2, 8), note(s, 1440, 480, 5, 22)},
		"ends a beat early":         run(s, 0, 5, 7, 9, 10, 9, 7),
		"lasts 8 beats":             {note(s, 0, 7680, 3, 9)},
		"comes back without a rest": {note(s, 0, 480, 3, 9), note(s, 480, 480, 2, 8), note(s, 960, 1920, 3, 9), note(s, 2880, 480, 3, 9), note(s, 3360, 480, 2, 8), note(s, 3840, 1920, 3, 9)},
	} {
		x := s
		x.Notes = notes
		score.Finger(x.In, x.Notes, neck.UsualHand)
		r := Check(x, minorPentatonic(), Usual)
		assert.Contains(t, strings.Join(r.Advice, " "), says)
		r.Unscolded()
		assert.Empty(t, r.Advice)
	}
	x := s
	x.Notes = []score.Note{note(s, 480, 480, 3, 9), note(s, 960, 960, 3, 8), note(s, 3840, 960, 3, 8), note(s, 7680, 960, 3, 9)}
	assert.NotContains(t, strings.Join(Check(x, minorPentatonic(), Usual).Advice, " "), "early")
}
