package record

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Tones is how much of each pitch class sounds, so many times a second: in all of the sound, and in the bass.
type Tones struct {
	Rate      float64
	All, Bass [][12]float64
}

type sums struct{ all, bass [12]float64 }

// sum adds up what sounds between two seconds; each frame counts as much as it is loud, softly.
func (t Tones) sum(from, to float64) (s sums) {
	a, b := max(0, int(math.Ceil(from*t.Rate))), min(len(t.All), int(math.Ceil(to*t.Rate)))
	for i := a; i < b; i++ {
		for c := range 12 {
			s.all[c] += t.All[i][c]
			s.bass[c] += t.Bass[i][c]
		}
	}
	return s
}

// like is the cosine of what sounds: 1 where it is the same, 0 where nothing is in common, or nothing sounds.
func like(a, b [12]float64) float64 {
	var ab, aa, bb float64
	for i := range a {
		ab, aa, bb = ab+a[i]*b[i], aa+a[i]*a[i], bb+b[i]*b[i]
	}
	if aa == 0 || bb == 0 {
		return 0
	}
	return ab / math.Sqrt(aa*bb)
}

// Rival is a chord that it may be too.
type Rival struct {
	Chord harmony.Chord
	Sure  float64
}

// ChordGuess is what may sound from a beat of a bar on.
type ChordGuess struct {
	Bar, Beat int // the bar from that of beat 0, the beat in it
	Chord     harmony.Chord
	Sure      float64 // 0 to 1
	Rivals    []Rival // two at most, the likelier first
	Says      string
}

// kinds are the chords that are looked for, by their suffix: how usual each is in blues and rock, compared with others.
var kinds = []struct {
	suffix string
	usual  float64
}{{"7", 0.05}, {"", 0.02}, {"m7", 0.015}, {"m", 0.02}, {"maj7", -0.03}, {"dim7", -0.04}, {"m7b5", -0.05}}

// What of a tone sounds beside it, in the voice of a string: its third partial is a twelfth above, its fifth a third.
const (
	fundamental = 1.0
	twelfth     = 0.35
	seventeenth = 0.18
)

// weightOf is how strongly a tone of a chord is played, as a rule.
func weightOf(d harmony.Degree) float64 {
	switch d {
	case "R":
		return 1
	case "3", "b3":
		return 0.85
	case "5", "b5", "#5":
		return 0.65
	}
	return 0.6
}

// template is what of each pitch class sounds where a chord is played, counted from its root.
type template struct {
	chord harmony.Chord
	shape [12]float64
	usual float64
}

var templates = func() (out []template) {
	for root := range 12 {
		for _, k := range kinds {
			chord := harmony.MustParse(form.Key{}.Spell(root).String() + k.suffix)
			t := template{chord: chord, usual: k.usual}
			for _, tone := range chord.Tones {
				c, w := tone.Name.Class(), weightOf(tone.Degree)
				t.shape[c] += w * fundamental
				t.shape[pitch.Class(c+7)] += w * twelfth
				t.shape[pitch.Class(c+4)] += w * seventeenth
			}
			out = append(out, t)
		}
	}
	return out
}()

// How much the bass and the key say, beside what sounds in all.
const (
	byBass    = 0.22
	byKey     = 0.09
	sharpness = 26.0 // of what is likelier, how much
	splits    = 0.13 // by how much two halves have to fit better than a whole bar
	least     = 0.02 // of the loudest bar, that anything sounds
)

// worthOf is how much speaks for each template.
func worthOf(s sums, key *form.Key) []float64 {
	out := make([]float64, len(templates))
	bass := 0.0
	for _, v := range s.bass {
		bass = max(bass, v)
	}
	for i, t := range templates {
		out[i] = like(s.all, t.shape) + t.usual
		if bass > 0 {
			out[i] += byBass * s.bass[t.chord.Root.Class()] / bass
		}
		if key != nil {
			out[i] += byKey * form.Belongs(t.chord, *key)
		}
	}
	return out
}

func best(worth []float64) int {
	at := 0
	for i, w := range worth {
		if w > worth[at] {
			at = i
		}
	}
	return at
}

// Chords guesses what sounds in the bars of a grid, from one beat to another; key is nil where it is not known: then it is
// guessed from the chords themselves, and told. Where nothing sounds there is no chord.
func (t Tones) Chords(g Grid, from, to int, key *form.Key) (out []ChordGuess, keys []form.Guess) {
	if !g.Known() || to <= from || len(t.All) == 0 {
		return nil, nil
	}
	bars := t.bars(g, from, to)
	guess := func(key *form.Key) (list []ChordGuess) {
		for i, b := range bars {
			list = append(list, b.guess(g.Bar(float64(from))+i, g.PerBar, key)...)
		}
		return list
	}
	out = guess(key)
	if key == nil {
		if keys = form.GuessKeys(progression(out, g.PerBar)); len(keys) > 0 {
			key = &keys[0].Key
			out = guess(key)
			keys = form.GuessKeys(progression(out, g.PerBar))
		}
	}
	if key != nil {
		for i := range out {
			out[i].spell(*key)
		}
	}
	for i := range out {
		out[i].Says = out[i].says()
	}
	return out, keys
}

// What sounds beside the strongest pitch class, compared with it, where one note sounds alone and where chords do.
const (
	loneTone = 2.4
	chordal  = 3.6
)

// full is how much of what sounds is chords, 0 to 1: of a line that is played alone bars hold no chord to go by.
func (t Tones) full() float64 {
	sum, n := 0.0, 0.0
	for _, frame := range t.All {
		all, most := 0.0, 0.0
		for _, v := range frame {
			all, most = all+v, max(most, v)
		}
		if most > 8 {
			sum, n = sum+all/most, n+1
		}
	}
	return max(0, min(1, (sum/max(1, n)-loneTone)/(chordal-loneTone)))
}

// fit is how well so many bars of a grid hold one chord each, in the middle; 1 where nothing sounds.
func (t Tones) fit(g Grid, bars int) float64 {
	sum, n := 0.0, 0
	for _, b := range t.bars(g, 0, bars*g.PerBar) {
		if b.sounds {
			worth := worthOf(b.whole, nil)
			sum += worth[best(worth)]
			n++
		}
	}
	if n == 0 {
		return 1
	}
	return sum / float64(n)
}

// bar is what sounds in one: in all, and in each half.
type bar struct {
	whole, first, second sums
	halves, sounds       bool
}

func (t Tones) bars(g Grid, from, to int) (out []bar) {
	loudest := 0.0
	size := func(s sums) (n float64) {
		for _, v := range s.all {
			n += v
		}
		return n
	}
	for i := from; i < to; i += g.PerBar {
		at := func(beat float64) float64 { return g.At(float64(i) + beat) }
		half := float64(g.PerBar) / 2
		b := bar{whole: t.sum(at(0), at(float64(g.PerBar))), halves: g.PerBar%2 == 0}
		b.first, b.second = t.sum(at(0), at(half)), t.sum(at(half), at(float64(g.PerBar)))
		loudest = max(loudest, size(b.whole))
		out = append(out, b)
	}
	for i := range out {
		out[i].sounds = size(out[i].whole) > least*loudest && loudest > 0
	}
	return out
}

// guess tells what sounds in a bar: one chord, or one in each half where that fits clearly better.
func (b bar) guess(number, perBar int, key *form.Key) []ChordGuess {
	if !b.sounds {
		return []ChordGuess{{Bar: number, Chord: harmony.Chord{None: true}, Sure: 1}}
	}
	whole := worthOf(b.whole, key)
	if b.halves {
		first, second := worthOf(b.first, key), worthOf(b.second, key)
		f, s, w := best(first), best(second), best(whole)
		if templates[f].chord.Root != templates[s].chord.Root && (first[f]+second[s])/2 > (first[w]+second[w])/2+splits {
			return []ChordGuess{guessOf(number, 0, first), guessOf(number, perBar/2, second)}
		}
	}
	return []ChordGuess{guessOf(number, 0, whole)}
}

func guessOf(number, beat int, worth []float64) ChordGuess {
	order := make([]int, len(worth))
	all, most := 0.0, worth[best(worth)]
	for i, w := range worth {
		order[i] = i
		all += math.Exp(sharpness * (w - most))
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(worth[b], worth[a]) })
	sure := func(i int) float64 { return math.Exp(sharpness*(worth[i]-most)) / all }
	c := ChordGuess{Bar: number, Beat: beat, Chord: templates[order[0]].chord, Sure: sure(order[0])}
	for _, i := range order[1:3] {
		if s := sure(i); s > 0.05 {
			c.Rivals = append(c.Rivals, Rival{templates[i].chord, s})
		}
	}
	return c
}

// spell names the roots as a key does.
func (c *ChordGuess) spell(key form.Key) {
	in := func(chord harmony.Chord) harmony.Chord {
		if chord.None {
			return chord
		}
		return chord.On(key.Spell(chord.Root.Class()))
	}
	c.Chord = in(c.Chord)
	for i := range c.Rivals {
		c.Rivals[i].Chord = in(c.Rivals[i].Chord)
	}
}

// says tells how sure it is, and what else it may be.
func (c ChordGuess) says() string {
	if c.Chord.None {
		return "nothing sounds"
	}
	how := "heard"
	if c.Sure < 0.5 {
		how = "perhaps"
	}
	if len(c.Rivals) == 0 {
		return how
	}
	return say.F("%s; %s is less likely", how, c.Rivals[0].Chord)
}

// progression is guesses as bars; those before, between and after are silent.
func progression(guesses []ChordGuess, perBar int) form.Progression {
	p := form.Progression{Beats: perBar}
	for _, g := range guesses {
		if g.Beat > 0 && len(p.Bars) > 0 {
			last := &p.Bars[len(p.Bars)-1]
			last.Changes = append(last.Changes, form.Change{Beat: g.Beat, Chord: g.Chord})
			continue
		}
		p.Bars = append(p.Bars, form.Bar{Changes: []form.Change{{Beat: 0, Chord: g.Chord}}})
	}
	return p
}

// Text writes guesses as a chart is written; a chord that goes on is not written again.
func Text(guesses []ChordGuess, perBar int) string {
	return progression(guesses, perBar).Text()
}

// Agrees tells whether a guess is a chord that is written: the same root and third, whatever stands above.
func (c ChordGuess) Agrees(written harmony.Chord) bool {
	if c.Chord.None || written.None {
		return c.Chord.None == written.None
	}
	return c.Chord.Root.Class() == written.Root.Class() && c.Chord.Minor() == written.Minor()
}
