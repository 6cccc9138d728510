package record

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/blend"
	"undaris/core/ear"
	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// solo is a line that the core writes over a form.
func solo(t require.TestingT, f form.Form, tonic pitch.Name, position int, rhythm string, seed uint64) score.Score {
	in := neck.Standard()
	key := form.Key{Tonic: tonic, Minor: f.Minor}
	s := score.Score{Key: key, Tempo: 96, Progression: f.In(key), In: in}
	notes, err := line.Write(context.Background(), s, line.Wish{Region: in.Positions(tonic.Class())[position].Region, Palette: blend.Palettes[0], Rhythm: rhythm, Density: 3, Seed: seed}, neck.UsualHand)
	require.NoError(t, err)
	s.Notes = score.Numbered(notes)
	return s
}

// heard is a line as it is heard: in seconds, on a grid.
func heard(s score.Score, g Grid, swing float64, off func() float64) (out []Guess) {
	var starts []int
	for _, n := range s.Notes {
		starts = append(starts, n.Start)
	}
	swings := score.Swings(starts, swing)
	for _, n := range s.Notes {
		at := g.At(swings.At(n.Start) / score.Tick)
		out = append(out, Guess{ID: n.ID, At: at + off(), Length: g.At(swings.At(n.End())/score.Tick) - at, Pitch: n.Pitch.MIDI(), Bend: float64(n.Bend) / 2, Join: n.Join, Sure: 0.9})
	}
	return out
}

func ground(s score.Score, g Grid) Ground {
	return Ground{Grid: g, Chords: s.Progression, Rounds: true, Key: s.Key, Feel: "shuffle", In: s.In, Hand: neck.UsualHand}
}

// What a player plays who keeps time within so many seconds is written as it was: every note, its pitch, its beat, over the
// chart's chords, in any key, position and tempo, straight or swung, with a tape that drifts; each keeps its number.
func TestWhatIsPlayedIsWritten(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rhythm := rapid.SampledFrom([]string{"eighths", "triplets"}).Draw(t, "rhythm")
		swing := 0.5
		if rhythm == "eighths" && rapid.Bool().Draw(t, "swung") {
			swing = 0.64
		}
		s := solo(t, form.Forms[0], rapid.SampledFrom(pitch.Roots).Draw(t, "tonic"), rapid.IntRange(0, 4).Draw(t, "position"), rhythm, rapid.Uint64Range(1, 500).Draw(t, "seed"))
		tempo := rapid.Float64Range(60, 150).Draw(t, "tempo")
		first := rapid.Float64Range(0.2, 20).Draw(t, "first")
		g := Grid{4, []Anchor{{0, first}, {24, first + 24*60/tempo}, {48, first + 24*60/tempo + 24*60/(tempo*rapid.Float64Range(0.95, 1.05).Draw(t, "drift"))}}}
		apart := rapid.Float64Range(0, 0.018).Draw(t, "seconds off")
		i := 0
		off := func() float64 { i++; return apart * math.Sin(float64(i)*2.4) }
		guesses := heard(s, g, swing, off)
		l, bars, err := ground(s, g).Line("Take", g.At(0), g.At(48), guesses)
		require.NoError(t, err)
		require.Len(t, bars, 12)
		require.Equal(t, strings.ReplaceAll(s.Progression.Text(), "\n|", ""), l.Progression.Text())
		// Eighths that swing and the outer two of three triplets are the same to the ear: where they sound is compared.
		second := swing
		if rhythm == "triplets" {
			second = 2.0 / 3
		}
		sounds := func(notes []score.Note, second float64) func(score.Note) float64 {
			var starts []int
			for _, n := range notes {
				starts = append(starts, n.Start)
			}
			swings := score.Swings(starts, second)
			return func(n score.Note) float64 { return swings.At(n.Start) }
		}
		was, is := sounds(s.Notes, swing), sounds(l.Notes, 0.5)
		if l.Swing {
			is = sounds(l.Notes, second)
		}
		right := 0
		for _, n := range s.Notes {
			at := slices.IndexFunc(l.Notes, func(m score.Note) bool { return m.ID == n.ID })
			if at >= 0 && math.Abs(is(l.Notes[at])-was(n)) < score.Tick/10 && l.Notes[at].Heard() == n.Heard() {
				right++
			}
		}
		assert.GreaterOrEqual(t, float64(right), 0.95*float64(len(s.Notes)), "of %d", len(s.Notes))
		require.NoError(t, l.Check())
	})
}

// A hand that plays in the position that it is said to be in takes the notes where they were played; a place that its
// player fixes stands.
func TestTheHandIsWhereItIsSaidToBe(t *testing.T) {
	same, all := 0, 0
	for k, tonic := range pitch.Roots {
		for position := range 5 {
			s := solo(t, form.Forms[0], tonic, position, "eighths", uint64(k+1))
			g := Even(4, 1, 96, 60)
			on := ground(s, g)
			on.Region = s.In.Positions(tonic.Class())[position].Region
			guesses := heard(s, g, 0.5, func() float64 { return 0 })
			l, _, err := on.Line("Take", g.At(0), g.At(48), guesses)
			require.NoError(t, err)
			for _, n := range s.Notes {
				if at := slices.IndexFunc(l.Notes, func(m score.Note) bool { return m.ID == n.ID }); at >= 0 {
					all++
					if l.Notes[at].Placement == n.Placement {
						same++
					}
				}
			}
			// Another place of a note, fixed.
			others := s.In.Find(s.Notes[0].Pitch.MIDI(), neck.Region{Low: 0, High: s.In.Last()})
			for _, p := range others {
				guesses[0].Placement = p
				l, _, err := on.Line("Take", g.At(0), g.At(48), guesses)
				require.NoError(t, err)
				at := slices.IndexFunc(l.Notes, func(m score.Note) bool { return m.ID == guesses[0].ID })
				if at >= 0 && on.Region.Has(p) {
					assert.Equal(t, p, l.Notes[at].Placement, "%s, position %d", tonic, position)
				}
			}
		}
	}
	assert.GreaterOrEqual(t, float64(same), 0.85*float64(all), "%d of %d", same, all)
}

// The chart goes round under a recording from the bar that is said; chords by ear do not.
func TestBarsOfARecording(t *testing.T) {
	key, _ := form.ParseKey("C")
	chords, err := form.Read("| C7 | F7 | G7 |", 4, key)
	require.NoError(t, err)
	on := Ground{Grid: Even(4, 2, 120, 60), Chords: chords, First: 1, Rounds: true, Key: key, In: neck.Standard(), Hand: neck.UsualHand}
	var of []int
	for _, b := range on.Bars(2, 2+5*2) {
		of = append(of, b.Of)
	}
	assert.Equal(t, []int{1, 2, 0, 1, 2}, of)
	assert.Equal(t, 0, on.Bars(0.1, 1)[0].Of, "before bar 1 the chart goes on backwards")
	on.Rounds, on.First = false, 0
	of = nil
	for _, b := range on.Bars(0, 2+4*2) {
		of = append(of, b.Of)
		assert.NotEmpty(t, b.Changes)
	}
	assert.Equal(t, []int{-1, 0, 1, 2, -1}, of)
	assert.Empty(t, on.Bars(5, 5))
	assert.Empty(t, Ground{}.Bars(0, 5))
	for range 2 { // a chart of bars that are longer than the recording's
		on.Grid.PerBar = 2
		for _, b := range on.Bars(2, 20) {
			for _, c := range b.Changes {
				assert.Less(t, c.Beat, 2)
			}
		}
	}
}

// Why nothing can be written is said.
func TestWhatCannotBeWrittenIsSaid(t *testing.T) {
	key, _ := form.ParseKey("C")
	on := Ground{Grid: Grid{PerBar: 4}, Key: key, In: neck.Standard(), Hand: neck.UsualHand, Feel: "shuffle"}
	_, _, err := on.Line("Take", 0, 4, nil)
	assert.ErrorIs(t, err, ErrNoBeat)
	on.Grid = Even(4, 0, 120, 900)
	_, _, err = on.Line("Take", 0, 600, nil)
	assert.ErrorIs(t, err, ErrTooLong)
	_, _, err = on.Line("Take", 3, 3, nil)
	assert.Error(t, err)
	l, _, err := on.Line("Take", 0, 4, []Guess{{ID: 1, At: 0, Length: 1, Pitch: 20}, {ID: 2, At: 1, Length: 1, Pitch: 60}})
	require.NoError(t, err)
	assert.Len(t, l.Notes, 1)
	assert.Contains(t, fmt.Sprint(l.Said), "left out")
}

// Anything that can be asked is answered by a line that can be written: notes of any pitch at any moment, together and over
// each other, bent, joined, with places that they do not have.
func TestAnyGuessesMakeALine(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		key, _ := form.ParseKey(rapid.SampledFrom([]string{"C", "Am", "Gb", "F#m"}).Draw(t, "key"))
		tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
		in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		on := Ground{Grid: drawn(t), Key: key, In: in, Hand: neck.UsualHand, Feel: rapid.SampledFrom(form.Feels).Draw(t, "feel").ID, Rounds: rapid.Bool().Draw(t, "round"), First: rapid.IntRange(-5, 20).Draw(t, "first")}
		if rapid.Bool().Draw(t, "with chords") {
			on.Chords = form.Forms[0].In(key)
		}
		if rapid.Bool().Draw(t, "in a position") {
			on.Region = in.Positions(key.Tonic.Class())[0].Region
		}
		from := on.Grid.Anchors[0].At + rapid.Float64Range(0, 10).Draw(t, "from")
		to := from + rapid.Float64Range(0.5, 12).Draw(t, "long")
		var guesses []Guess
		for i := range rapid.IntRange(0, 24).Draw(t, "notes") {
			guesses = append(guesses, Guess{ID: i + 1, At: from + rapid.Float64Range(-1, 13).Draw(t, "at"), Length: rapid.Float64Range(0, 5).Draw(t, "length"), Pitch: rapid.IntRange(0, 127).Draw(t, "pitch"),
				Bend: rapid.SampledFrom([]float64{0, 0, 0.5, 1, 2, 3, 5}).Draw(t, "bend"), Join: rapid.SampledFrom([]score.Join{"", score.Hammer, score.PullOff, score.Slide}).Draw(t, "join"), Vibrato: rapid.Bool().Draw(t, "sways"),
				Placement: neck.Placement{String: rapid.IntRange(0, 8).Draw(t, "string"), Fret: rapid.IntRange(0, 30).Draw(t, "fret")}})
		}
		l, bars, err := on.Line("Take", from, to, guesses)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		require.NoError(t, l.Check())
		for _, told := range Tell(l, bars, guesses) {
			assert.NotEmpty(t, told.Where)
			assert.NotEmpty(t, told.Why)
		}
	})
}

// Notes of a simulated player come back as they were: pitch, bend, and that they were joined; a recording that is out of
// tune is set right; what is settled is not told again.
func TestNotesOfAnEar(t *testing.T) {
	bends, found := 0, 0
	for k, tonic := range pitch.Roots {
		s := solo(t, form.Forms[0], tonic, k%5, "eighths", uint64(k+7))
		for i := range s.Notes {
			if i%5 == 2 && s.In.Bends(s.Notes[i].Placement) >= 4 {
				s.Notes[i].Bend, s.Notes[i].Join = 4, score.Picked
			}
		}
		played, _ := judge.Player{Seed: 3}.Play(s, 120, 0.5)
		noticed := ear.Noticed(played, judge.Sounding(s, 0.5))
		for i := range noticed {
			noticed[i].Tick /= second
			if noticed[i].MIDI > 0 {
				noticed[i].MIDI -= 0.3
			}
		}
		low, high := s.In.Compass()
		l := Listening{Cents: -30, Lowest: low, Highest: high}
		notes := l.Notes(noticed)
		require.Len(t, notes, len(s.Notes))
		for i, n := range s.Notes {
			g := notes[i]
			assert.InDelta(t, float64(n.Heard()), float64(g.Pitch)+g.Bend, 0.01)
			assert.Equal(t, i+1, g.ID)
			assert.Greater(t, g.Length, 0.0)
			assert.True(t, g.Sure > 0 && g.Sure <= 1)
			if n.Bend == 4 {
				bends++
				if g.Bend == 2 && g.Pitch == n.Pitch.MIDI() {
					found++
				}
			}
		}
		l.Settled = notes[:3]
		assert.Len(t, l.Notes(noticed), len(notes)-3)
	}
	require.Greater(t, bends, 20)
	assert.GreaterOrEqual(t, float64(found), 0.85*float64(bends))
}

// In mixed sound what both hear is surer, what the model hears clearly is added once, and its doubts are not.
func TestMixedSound(t *testing.T) {
	l := Listening{Lowest: 40, Highest: 86}
	ear := []Guess{{ID: 1, At: 1, Pitch: 60, Sure: 0.5}, {ID: 2, At: 2, Pitch: 62, Sure: 0.5}, {ID: 3, At: 3, Pitch: 64, Sure: 0.95}, {ID: 4, At: 5, Pitch: 65, Bend: 2, Sure: 0.7}}
	model := []Sounded{
		{At: 1.02, MIDI: 60, Strength: 0.7, Onset: 0.9}, // both
		{At: 4, MIDI: 67, Strength: 0.7, Onset: 0.95},   // the model alone, clearly
		{At: 4.02, MIDI: 79, Strength: 0.6, Onset: 0.5}, // its partial
		{At: 4.5, MIDI: 70, Strength: 0.3, Onset: 0.6},  // in doubt
		{At: 5.01, MIDI: 67, Strength: 0.8, Onset: 0.9}, // where the bend comes to rest
		{At: 6, MIDI: 30, Strength: 0.9, Onset: 0.95},   // beyond the neck
	}
	var said []string
	for _, g := range l.Mixed(ear, model) {
		said = append(said, fmt.Sprintf("%.0f:%d+%.0f %.2f", g.At, g.Pitch, g.Bend, g.Sure))
	}
	assert.Equal(t, []string{"1:60+0 0.75", "3:64+0 0.95", "4:67+0 0.91", "5:65+2 0.95"}, said)
	assert.Empty(t, l.Mixed(nil, nil))
}

// Of a lead above a band what lies more than a sixth under the line about it is left out, an octave that is played at once stays;
// where strings ring, and of what is settled, nothing is.
func TestALeadLiesAboveTheBand(t *testing.T) {
	var ear []Guess
	for i, p := range []int{67, 70, 72, 55, 69, 43, 67, 74, 62, 72, 64} {
		ear = append(ear, Guess{ID: i + 1, At: 1 + 0.3*float64(i), Pitch: p, Sure: 0.95})
	}
	ear = append(ear, Guess{ID: 12, At: 1.3, Pitch: 58, Sure: 0.95}) // an octave under the 70 that begins with it
	pitches := func(l Listening) (out []int) {
		for _, g := range l.Mixed(ear, nil) {
			out = append(out, g.Pitch)
		}
		return out
	}
	l := Listening{Lowest: 40, Highest: 86}
	assert.Len(t, pitches(l), 12)
	l.Lead = true
	assert.Equal(t, []int{67, 58, 70, 72, 69, 67, 74, 62, 72, 64}, pitches(l))
	assert.Equal(t, []int{50}, func() (out []int) { // nothing about it says where the line is
		for _, g := range l.Mixed([]Guess{{At: 1, Pitch: 50, Sure: 0.95}}, nil) {
			out = append(out, g.Pitch)
		}
		return out
	}())
}

// What is said of a note names it, its chord, its place in the bar, and how it is played.
func TestNotesAreToldInWords(t *testing.T) {
	key, _ := form.ParseKey("C")
	chords, err := form.Read("| F7 | C7 |", 4, key)
	require.NoError(t, err)
	on := Ground{Grid: Even(4, 0, 120, 60), Chords: chords, Rounds: true, Key: key, In: neck.Standard(), Hand: neck.UsualHand, Feel: "straight"}
	guesses := []Guess{{ID: 7, At: 0.75, Length: 0.4, Pitch: 67, Bend: 2, Sure: 0.7}, {ID: 8, At: 2, Length: 0.5, Pitch: 64, Settled: true}, {ID: 9, At: 2.5, Length: 0.5, Pitch: 67, Sure: 0.9}, {ID: 10, At: 3, Length: 0.5, Pitch: 70, Sure: 0.3}}
	l, bars, err := on.Line("Take", 0, 4, guesses)
	require.NoError(t, err)
	told := Tell(l, bars, guesses)
	require.Len(t, told, 4)
	assert.Equal(t, Told{7, 1, 2.5, "3", "A over F7, bar 1, beat 2½", "the 3, bent up from G, a whole step", "Fairly sure. It could be struck where it comes to rest, without a bend."}, told[0])
	assert.Equal(t, "E over C7, bar 2, beat 1", told[1].Where)
	assert.Equal(t, "You settled it.", told[1].Why)
	assert.Contains(t, told[2].Why, "Sure:")
	assert.Contains(t, told[3].Why, "octave")
	assert.Equal(t, "b7", told[3].Degree)
}
