package band

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
)

// jobs are four charts that a band is tried on.
func jobs(t *testing.T) (out []job) {
	for _, c := range []struct{ form, key string }{{"quick-change", "A"}, {"jazz-blues", "F"}, {"minor-blues", "Bm"}, {"eight-bar", "E"}} {
		f, known := form.FormByID(c.form)
		require.True(t, known, c.form)
		key, err := form.ParseKey(c.key)
		require.NoError(t, err)
		key.Minor = f.Minor
		out = append(out, job{c.form, key, f.In(key)})
	}
	return out
}

type job struct {
	name string
	key  form.Key
	p    form.Progression
}

func tries() uint64 {
	if os.Getenv("EVERY") != "" {
		return 12
	}
	return 4
}

// bassOf is the bass of a performance of two choruses, with the place that each note is played under.
func bassOf(t *testing.T, j job, feel, bass string, seed uint64) (notes []Note, under []*form.Place, g Groove) {
	g, err := GrooveOf(feel)
	require.NoError(t, err)
	perf, err := Play(t.Context(), j.p, g, Options{Choruses: 2, Seed: seed, Bass: bass, Key: &j.key, Tempo: 100})
	require.NoError(t, err)
	places := j.p.Places()
	for _, n := range perf.Tracks[1].Notes {
		at := (n.Start + MaxShift) % (perf.Ticks / 2)
		for i := len(places) - 1; i >= 0; i-- {
			if from := places[i].Bar*4*Tick + places[i].Beat*Tick; from <= at {
				notes, under = append(notes, n), append(under, &places[i])
				break
			}
		}
	}
	return notes, under, g
}

// No figure of a bass is broken, in no feel, over no chart: from its root every tone lies where the figure has it, above it.
func TestFiguresOfABassAreWhole(t *testing.T) {
	counted := 0
	for _, bass := range Basses[1:] {
		if bass.ID == "walking" {
			continue
		}
		for _, g := range Grooves {
			for _, j := range jobs(t) {
				for seed := range tries() {
					notes, under, _ := bassOf(t, j, g.Feel, bass.ID, seed)
					root := 0
					for i, n := range notes {
						if i == 0 || under[i] != under[i-1] {
							if c := under[i].Chord; !bass.inTurn || i == 0 || c.Root != under[i-1].Chord.Root || n.MIDI%12 == c.Root.Class() && distance(n.MIDI, root)%12 != 0 {
								root = n.MIDI
							}
							continue
						}
						if i+1 == len(notes) || under[i+1] != under[i] { // it may lead into the next chord
							require.LessOrEqual(t, distance(n.MIDI, notes[i-1].MIDI), 12, "%s, %s over %s", bass.ID, g.Feel, j.name)
							continue
						}
						counted++
						require.True(t, n.MIDI >= root && n.MIDI <= root+12, "%s, %s over %s, seed %d: %d over a root of %d", bass.ID, g.Feel, j.name, seed, n.MIDI, root)
					}
				}
			}
		}
	}
	t.Log(counted, "tones of figures")
}

// A walking bass knows where it goes: it keeps its direction, is on a chord tone on the third beat, leaps no further than a sixth
// or an octave, comes to each change from a step away or from the fifth, and plays no major seventh over a dominant but on its way
// by half steps.
func TestWalkingKnowsWhereItGoes(t *testing.T) {
	for _, g := range Grooves {
		var steps, turns, thirds, tones, leaps, leads, led, sevenths, same int
		for _, j := range jobs(t) {
			for seed := range 3 * tries() {
				notes, under, _ := bassOf(t, j, g.Feel, "walking", seed)
				dir := 0
				for i := 1; i < len(notes); i++ {
					d := notes[i].MIDI - notes[i-1].MIDI
					steps++
					switch way := sign(d); {
					case d == 0:
						same++
					case way == -dir:
						turns++
						dir = way
					default:
						dir = way
					}
					if size := distance(d, 0); size > 9 && size != 12 {
						leaps++
					}
					if under[i] != under[i-1] && under[i].Chord.Bass != under[i-1].Chord.Bass {
						leads++
						if size := distance(d, 0); size <= 2 || size == 5 || size == 7 {
							led++
						}
					}
					_, tone := under[i].Chord.ToneAt(notes[i].MIDI % 12)
					chromatic := i+1 < len(notes) && distance(d, 0) == 1 && notes[i+1].MIDI-notes[i].MIDI == d
					if (notes[i].Start+MaxShift)/Tick%4 == 2 && under[i].Length == 4 && !chromatic {
						thirds++
						if tone {
							tones++
						}
					}
					if c := under[i].Chord; c.Dominant() && c.Above(notes[i].MIDI) == 11 && i+1 < len(notes) && distance(notes[i+1].MIDI, notes[i].MIDI) != 1 {
						sevenths++
					}
				}
			}
		}
		part := func(n, of int) float64 { return float64(n) / float64(max(1, of)) }
		t.Logf("%s: turns %.2f, third beats on chord tones %.2f, changes led into %.2f, notes again %.2f", g.Feel, part(turns, steps), part(tones, thirds), part(led, leads), part(same, steps))
		assert.LessOrEqual(t, part(turns, steps), 0.35, g.Feel)
		assert.GreaterOrEqual(t, part(turns, steps), 0.1, "%s: a scale is no bass line", g.Feel)
		assert.GreaterOrEqual(t, part(tones, thirds), 0.92, g.Feel)
		assert.Zero(t, leaps, g.Feel)
		assert.GreaterOrEqual(t, part(led, leads), 0.9, g.Feel)
		assert.Zero(t, sevenths, g.Feel)
		assert.LessOrEqual(t, part(same, steps), 0.03, g.Feel)
	}
}

func sign(n int) int { return min(1, max(-1, n)) }

// In rock the last eighth leads into the next chord by the key.
func TestRockLeadsInByTheKey(t *testing.T) {
	in, all := 0, 0
	for _, bass := range []string{"own", "driving"} {
		for _, j := range jobs(t) {
			for seed := range 3 * tries() {
				notes, under, _ := bassOf(t, j, "straight", bass, seed)
				for i := 1; i < len(notes); i++ {
					if under[i] == under[i-1] || under[i].Chord.Bass == under[i-1].Chord.Bass {
						continue
					}
					all++
					for _, n := range j.key.Scale() {
						if n.Class() == notes[i-1].MIDI%12 {
							in++
							break
						}
					}
				}
			}
		}
	}
	t.Logf("%d of %d", in, all)
	assert.Greater(t, all, 100)
	assert.GreaterOrEqual(t, 10*in, 9*all)
}

// strokes are the chords that are struck, with the classes of each.
type stroke struct {
	at      int
	classes map[int]bool
	notes   []int
}

func strokesOf(tr Track) (out []stroke) {
	for _, n := range tr.Notes {
		if k := len(out) - 1; k < 0 || n.Start-out[k].at > Tick/8 {
			out = append(out, stroke{n.Start, map[int]bool{}, nil})
		}
		k := len(out) - 1
		out[k].classes[n.MIDI%12] = true
		out[k].notes = append(out[k].notes, n.MIDI)
	}
	return out
}

// belongs tells that all that is struck is of a chord, or may be added to it.
func belongs(k stroke, c harmony.Chord, j job) bool {
	for class := range k.classes {
		_, tone := c.ToneAt(class)
		added := false
		for _, more := range colour(c, &j.key, j.p) {
			added = added || more == class
		}
		if !tone && !added {
			return false
		}
	}
	return true
}

// Where the feel pushes, the last stroke before a change belongs to the next chord as a rule; a chord of two bars or more is voiced
// in two ways at least in each chorus.
func TestChordsAreCompedByWhatComes(t *testing.T) {
	for _, g := range Grooves {
		pushed, all, alike, chords := 0, 0, 0, 0
		for _, j := range jobs(t) {
			places := j.p.Places()
			for _, comper := range Compers {
				for seed := range tries() {
					perf, err := Play(t.Context(), j.p, g, Options{Choruses: 2, Seed: seed, Comp: comper.ID, Key: &j.key, Tempo: 100})
					require.NoError(t, err)
					voiced, lasts := map[string]map[string]bool{}, map[string]int{}
					for _, k := range strokesOf(perf.Tracks[2]) {
						at := (k.at + MaxShift) % (perf.Ticks / 2)
						now := len(places) - 1
						for places[now].Bar*4*Tick+places[now].Beat*Tick > at {
							now--
						}
						here, next := places[now], places[(now+1)%len(places)]
						end := here.Bar*4*Tick + (here.Beat+here.Length)*Tick
						if last := Tick - g.at(map[int]int{2: 1, 3: 2, 4: 2}[g.Steps]) + MaxShift + 1; at >= end-last && here.Chord.String() != next.Chord.String() && at > end-Tick {
							all++
							if belongs(k, next.Chord, j) && !belongs(k, here.Chord, j) || belongs(k, next.Chord, j) && here.Chord.Root == next.Chord.Root {
								pushed++
							}
							continue
						}
						if k.at < perf.Ticks/2 {
							name := here.Chord.String()
							if voiced[name] == nil {
								voiced[name] = map[string]bool{}
							}
							voiced[name][classesText(k.notes)] = true
						}
					}
					for _, p := range places {
						lasts[p.Chord.String()] += p.Length
					}
					for name, ways := range voiced {
						if lasts[name] >= 8 {
							chords++
							if len(ways) < 2 {
								alike++
								t.Logf("%s by %s over %s, %d: %s is always %v", g.Feel, comper.ID, j.name, seed, name, ways)
							}
						}
					}
				}
			}
		}
		t.Logf("%s: %d of %d last strokes belong to the next chord; %d of %d chords are voiced in one way", g.Feel, pushed, all, alike, chords)
		assert.Zero(t, alike, g.Feel)
		if g.pushes {
			assert.GreaterOrEqual(t, 10*pushed, 6*all, g.Feel)
			assert.Greater(t, all, 20, g.Feel)
		}
	}
}

func classesText(notes []int) (out string) {
	for _, n := range notes {
		out += form.Key{}.Spell(n%12).String() + " "
	}
	return out
}
