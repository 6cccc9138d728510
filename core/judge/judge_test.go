package judge_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// written is a line over a form, some of its notes bent up to instead of fretted.
func written(t *testing.T, f form.Form, tonic pitch.Name, rhythm string, seed uint64) score.Score {
	key := form.Key{Tonic: tonic, Minor: f.Minor}
	in := neck.Standard()
	w := in.Positions(tonic.Class())[int(seed)%3].Region
	s := score.Score{Key: key, Tempo: 100, Progression: f.In(key), In: in}
	notes, err := line.Write(t.Context(), s, line.Wish{Region: w, Palette: blend.Palettes[0], Rhythm: rhythm, Density: 3, Approach: true, Seed: seed}, neck.UsualHand)
	require.NoError(t, err)
	for i := range notes {
		n := &notes[i]
		if at := (neck.Placement{String: n.String, Fret: n.Fret - 2}); i%5 == 2 && n.Fret > 3 && in.Bendable(at) >= 2 {
			n.Placement, n.Bend = at, 4
			n.Pitch = pitch.At(in.MIDI(at), key.Spell(in.MIDI(at)%12))
		}
	}
	s.Notes = notes
	return s
}

// tally counts what was found of what was done.
type tally struct{ done, found, told int }

func (c *tally) add(done, told bool) {
	if done {
		c.done++
	}
	if told {
		c.told++
	}
	if done && told {
		c.found++
	}
}

func (c tally) check(t *testing.T, what string) {
	t.Helper()
	require.Greater(t, c.done, 100, what)
	recall, precision := float64(c.found)/float64(c.done), float64(c.found)/float64(c.told)
	t.Logf("%s: %d done, recall %.4f, precision %.4f", what, c.done, recall, precision)
	assert.GreaterOrEqual(t, recall, 0.98, what)
	assert.GreaterOrEqual(t, precision, 0.98, what)
}

var (
	tempi   = []int{60, 80, 100, 120, 140, 160}
	rhythms = []string{"eighths", "triplets", "sixteenths", "mixed"}
)

// Over a thousand takes of every form at every tempo: what a simulated player got
// wrong is found, and nothing else.
func TestWhatIsPlayedOtherwiseIsFound(t *testing.T) {
	var wrong, late, bent, missed tally
	takes := 0
	for i, f := range form.Forms {
		for k := range 13 {
			s := written(t, f, pitch.Roots[(i+k)%len(pitch.Roots)], rhythms[k%len(rhythms)], uint64(k))
			for _, tempo := range tempi {
				takes++
				swing := []float64{0.5, 0.6, 0.667}[takes%3]
				p := judge.Player{Wrong: 0.06, Late: 0.15, Missed: 0.03, Bad: 0.25, Spread: 14, Tendency: float64(takes%7-3) * 10, Seed: uint64(takes)}
				heard, erred := p.Play(s, tempo, swing)
				take := judge.Prescribed(s, heard, tempo, swing)
				require.Len(t, take.Verdicts, len(s.Notes))
				for n, v := range take.Verdicts {
					wrong.add(erred.Wrong[n], v.Is == judge.Wrong || v.Is == judge.Octave)
					late.add(erred.Late[n], v.When == judge.Late)
					bent.add(erred.Bent[n], v.Bend == judge.Flat || v.Bend == judge.Sharp)
					missed.add(erred.Missed[n], v.Is == judge.Unheard)
				}
			}
		}
	}
	require.GreaterOrEqual(t, takes, 1000)
	wrong.check(t, "wrong notes")
	late.check(t, "late landings")
	bent.check(t, "bends")
	missed.check(t, "notes not played")
}

// A perfect take is perfect, and a silent one is silent, not wrong.
func TestPerfectAndSilentTakes(t *testing.T) {
	for _, f := range form.Forms {
		s := written(t, f, pitch.Roots[0], "mixed", 5)
		for _, tempo := range tempi {
			what := fmt.Sprintf("%s at %d", f.Name, tempo)
			heard, _ := judge.Player{}.Play(s, tempo, 0.667)
			take := judge.Prescribed(s, heard, tempo, 0.667)
			assert.Empty(t, take.Strangers, what)
			assert.Equal(t, len(s.Notes), take.Heard, what)
			for i, v := range take.Verdicts {
				require.Equal(t, []string{judge.Right, judge.OnTime}, []string{v.Is, v.When}, "%s, note %d", what, i)
				require.Contains(t, []string{"", judge.True}, v.Bend)
			}
			for _, l := range take.Landings {
				require.True(t, l.Landed(), what)
			}
			assert.Equal(t, "up by four beats a minute", take.Try)

			heard, _ = judge.Player{Inaudible: true}.Play(s, tempo, 0.667)
			take = judge.Prescribed(s, heard, tempo, 0.667)
			assert.Zero(t, take.Heard)
			for _, v := range take.Verdicts {
				require.Equal(t, judge.Verdict{Heard: -1, Is: judge.Unheard}, v, what)
			}
			assert.Equal(t, "nothing was heard", take.Good)
		}
	}
}

func TestSkillByRole(t *testing.T) {
	f, _ := form.FormByID("quick-change")
	s := written(t, f, pitch.Roots[0], "eighths", 2)
	heard, erred := judge.Player{WrongOf: map[harmony.Role]float64{harmony.Third: 1}}.Play(s, 100, 0.5)
	require.Len(t, heard, len(s.Notes))
	for i, n := range s.Notes {
		chord, _ := s.ChordAt(n.Start)
		tone, ok := chord.ToneAt(pitch.Class(n.Heard()))
		assert.Equal(t, ok && tone.Degree.Role() == harmony.Third && !n.Dead, erred.Wrong[i])
	}
}

// What is early as a whole is a tendency, and no note is early for it; an octave is
// told apart; so is what was not to be played.
func TestVerdictsOneByOne(t *testing.T) {
	f, _ := form.FormByID("quick-change")
	s := written(t, f, pitch.Roots[0], "eighths", 2)
	heard, _ := judge.Player{Tendency: -40}.Play(s, 120, 0.5)
	take := judge.Prescribed(s, heard, 120, 0.5)
	assert.InDelta(t, -40, take.Tendency, 0.1)
	for _, v := range take.Verdicts {
		require.Equal(t, judge.OnTime, v.When)
	}
	heard[3].Pitch += 12
	heard = append(heard, judge.Heard{At: heard[7].At + 120, Pitch: 30})
	take = judge.Prescribed(s, heard, 120, 0.5)
	assert.Equal(t, judge.Octave, take.Verdicts[3].Is)
	assert.Len(t, take.Strangers, 1)
}

// What a simulated player swings is heard as such; what is played straight, in triplets
// or in sixteenths is not taken for something else.
func TestSwingIsHeard(t *testing.T) {
	p, err := form.Read("| C7 | C7 | C7 | C7 |", 4, form.Key{Tonic: pitch.Name{}})
	require.NoError(t, err)
	s := score.Score{Tempo: 100, Progression: p, In: neck.Standard()}
	write := func(step int) {
		s.Notes = nil
		for at := 0; at < s.At(4); at += step {
			s.Notes = append(s.Notes, score.Note{Start: at, Length: step, Pitch: pitch.At(60, pitch.Name{}), Placement: neck.Placement{String: 3, Fret: 5}})
		}
	}
	for _, swing := range []float64{0.5, 0.55, 0.6, 0.667, 0.72} {
		write(480)
		for seed := range uint64(5) {
			heard, _ := judge.Player{Spread: 15, Tendency: 25, Missed: 0.1, Seed: seed}.Play(s, 100, swing)
			assert.InDelta(t, swing, judge.Swing(heard), 0.025, "seed %d", seed)
		}
	}
	for _, step := range []int{240, 320, 960} {
		write(step)
		heard, _ := judge.Player{Spread: 10, Seed: 1}.Play(s, 100, 0.5)
		assert.Zero(t, judge.Swing(heard), "notes of %d ticks", step)
	}
}

func TestSwungTicks(t *testing.T) {
	for _, c := range []struct {
		tick  int
		swing float64
		want  float64
	}{{0, 0.667, 0}, {480, 0.5, 480}, {480, 2. / 3, 640}, {960, 0.6, 960}, {720, 2. / 3, 800}, {240, 2. / 3, 320}, {-480, 2. / 3, -320}} {
		assert.InDelta(t, c.want, score.Swings(nil, c.swing).At(c.tick), 0.001, c)
	}
}

// Who loses the form is told where, by how much, and where it was found again; who
// only errs is not called lost.
func TestLostAndFoundAgain(t *testing.T) {
	var lost tally
	exact := 0
	for i, f := range form.Forms {
		for k := range 8 {
			s := written(t, f, pitch.Roots[(i+k)%len(pitch.Roots)], rhythms[k%len(rhythms)], uint64(k))
			for _, often := range []float64{0, 0.08} {
				p := judge.Player{Lost: often, Wrong: 0.06, Late: 0.1, Missed: 0.03, Spread: 14, Seed: uint64(i*100 + k)}
				heard, erred := p.Play(s, 100, 0.6)
				take := judge.Prescribed(s, heard, 100, 0.6)
				for bar := range len(s.Bars) {
					in := func(list []judge.Lost) (judge.Lost, bool) {
						for _, l := range list {
							if bar >= l.From && bar < l.To {
								return l, true
							}
						}
						return judge.Lost{}, false
					}
					was, done := in(erred.Lost)
					is, told := in(take.Lost)
					lost.add(done, told)
					if done && told && was.By == is.By {
						exact++
					}
				}
				if often == 0 {
					require.Empty(t, take.Lost)
				}
			}
		}
	}
	recall, precision := float64(lost.found)/float64(lost.done), float64(lost.found)/float64(lost.told)
	t.Logf("%d bars lost, recall %.3f, precision %.3f; %d of them by as much", lost.done, recall, precision, exact)
	assert.Greater(t, lost.done, 100)
	assert.Greater(t, recall, 0.9)
	assert.Greater(t, precision, 0.85)
}

func TestLostInWords(t *testing.T) {
	assert.Equal(t, "a bar behind from bar 5 on, found again in bar 9", judge.Lost{From: 4, To: 8, By: 4}.Says(12, 4))
	assert.Equal(t, "a beat ahead from bar 2 on", judge.Lost{From: 1, To: 12, By: -1}.Says(12, 4))
	assert.Equal(t, "2 beats behind from bar 2 on, found again in bar 4", judge.Lost{From: 1, To: 3, By: 2}.Says(12, 4))
	assert.Equal(t, "two bars ahead from bar 3 on, found again in bar 6", judge.Lost{From: 2, To: 5, By: -6}.Says(12, 3))
}

// A simulated player errs more outside the position that is home and above the tempo
// that is easy, and may drag from bar to bar.
func TestSkillByPositionAndTempo(t *testing.T) {
	f, _ := form.FormByID("quick-change")
	wrong := func(p judge.Player, tempo int) (n int) {
		for seed := range uint64(60) {
			s := written(t, f, pitch.Roots[0], "eighths", 2)
			p.Wrong, p.Seed = 0.05, seed
			_, erred := p.Play(s, tempo, 0.5)
			n += len(erred.Wrong)
		}
		return n
	}
	plain := wrong(judge.Player{}, 100)
	assert.InDelta(t, 2*plain, wrong(judge.Player{Home: neck.Region{Low: 20, High: 22}}, 100), 0.25*float64(plain))
	assert.InDelta(t, 2*plain, wrong(judge.Player{Ease: 80}, 100), 0.25*float64(plain))
	assert.Equal(t, plain, wrong(judge.Player{Ease: 120, Home: neck.Region{Low: 0, High: 22}}, 100))
	s := written(t, f, pitch.Roots[0], "eighths", 2)
	heard, _ := judge.Player{Drift: 4}.Play(s, 60, 0.5)
	last := len(heard) - 1
	bars := float64(s.BarOf(s.Notes[last].Start))
	assert.InDelta(t, 4*bars*60/60000*score.Tick, heard[last].At-judge.Sounding(s, 0.5)[last].At, 0.01)
}

// What nobody knows to be the player's is right where it is right, and else it was not heard: never wrong, nor another octave.
func TestWhatIsInDoubtIsNeverWrong(t *testing.T) {
	wrong := 0
	for k, f := range form.Forms {
		s := written(t, f, pitch.Roots[k%len(pitch.Roots)], "eighths", 2)
		heard, erred := judge.Player{Wrong: 0.3, Late: 0.2, Missed: 0.1, Spread: 10, Seed: uint64(k)}.Play(s, 100, 0.5)
		sure := judge.Prescribed(s, heard, 100, 0.5)
		for i := range heard {
			heard[i].Doubt = true
		}
		doubt := judge.Prescribed(s, heard, 100, 0.5)
		wrong += len(erred.Wrong)
		for i, v := range sure.Verdicts {
			if v.Is == judge.Right {
				assert.Equal(t, v, doubt.Verdicts[i])
			} else {
				assert.Equal(t, judge.Unheard, doubt.Verdicts[i].Is)
			}
		}
	}
	assert.Greater(t, wrong, 100)
}
