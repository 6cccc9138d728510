// Package songbook_test prints what the core makes of a few tunes, to be read by a musician and kept
// whole: whatever changes there is seen, meant or not. UPDATE=1 go test ./songbook writes it anew.
package songbook_test

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/arpeggio"
	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/call"
	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/edit"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/planner"
	"undaris/core/practice"
	"undaris/core/score"
	"undaris/formats/midi"
	"undaris/formats/musicxml"
	"undaris/formats/tabtext"
)

// page is what is printed on one.
type page struct {
	*bytes.Buffer
	t *testing.T
}

func (p page) head(format string, args ...any) {
	fmt.Fprintf(p, "\n# %s\n", fmt.Sprintf(format, args...))
}
func (p page) say(name string, v any) { fmt.Fprintf(p, "%s: %s\n", name, short(v)) }

// notes prints a line of music, a bar to a line: when, how long, string:fret, and how it is played.
func (p page) notes(prog form.Progression, notes []score.Note) {
	bar := -2
	for _, n := range notes {
		b := -1
		if n.Start >= 0 && len(prog.Bars) > 0 {
			b, _ = prog.BarAt(n.Start / score.Tick)
		}
		if b != bar {
			bar = b
			fmt.Fprintf(p, "\n%3d|", b+1)
		}
		fmt.Fprintf(p, " %d+%d %d:%d", n.Start, n.Length, n.String, n.Fret)
		if n.Finger > 0 {
			fmt.Fprintf(p, "f%d", n.Finger)
		}
		if text := short(n.Ornaments); text != "{}" && text != "" {
			fmt.Fprintf(p, "(%s)", text)
		}
		if n.Named != "" {
			fmt.Fprintf(p, "“%s”", n.Named)
		}
	}
	fmt.Fprintln(p)
}

var background = context.Background()

func key(text string) form.Key {
	k, err := form.ParseKey(text)
	if err != nil {
		panic(err)
	}
	return k
}

func bars(text, k string) form.Progression {
	p, err := form.Read(text, 4, key(k))
	if err != nil {
		panic(err)
	}
	return p
}

func instrument(tuning string) *neck.Instrument {
	in, err := neck.New(tuning, 22, 648, 0)
	if err != nil {
		panic(err)
	}
	return in
}

// over is a line without notes.
func over(text, k string, in *neck.Instrument, w neck.Region, feel string) edit.Line {
	return edit.Line{Score: score.Score{Title: "Songbook", Key: key(k), Tempo: 96, Swing: band.Swings(feel), Progression: bars(text, k), In: in},
		Hand: neck.UsualHand, Region: w, Palette: blend.Palettes[0], Feel: feel}
}

const (
	twelve = "| I7 | IV7 | I7 | % |\n| IV7 | % | I7 | VI7 |\n| ii7 | V7 | I7 VI7 | ii7 V7 |"
	four   = "| C7 | F7 | Dm7b5 G7 | C7 |"
)

var (
	middle = neck.Region{Low: 7, High: 11}
	guitar = neck.Standard()
)

var pages = map[string]func(page){
	"maps":      maps,
	"runs":      runs,
	"exercises": exercises,
	"lines":     lines,
	"edits":     edits,
	"licks":     licks,
	"bands":     bands,
	"calls":     calls,
	"takes":     takes,
	"plans":     plans,
	"files":     files,
}

func TestTheSongbook(t *testing.T) {
	for name, write := range pages {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			p := page{&bytes.Buffer{}, t}
			write(p)
			path := filepath.Join("testdata", name+".txt")
			if os.Getenv("UPDATE") != "" {
				require.NoError(t, os.MkdirAll("testdata", 0o755))
				require.NoError(t, os.WriteFile(path, p.Bytes(), 0o644))
				return
			}
			want, err := os.ReadFile(path)
			require.NoError(t, err)
			was, is := strings.Split(string(want), "\n"), strings.Split(p.String(), "\n")
			for i := range min(len(was), len(is)) {
				if was[i] != is[i] {
					assert.Fail(t, "it is made otherwise now", "%s:%d\nwas %.400s\nis  %.400s", path, i+1, was[i], is[i])
					return
				}
			}
			assert.Len(t, is, len(was), path)
		})
	}
}

// maps are charts on necks: runs, crossings, threads, blends.
func maps(p page) {
	for _, c := range []struct {
		k, text, tuning, palette string
		mode                     string
		w                        []neck.Region
	}{
		{"Bb", twelve, "E2,A2,D3,G3,B3,E4", "composite", "guide-tones", []neck.Region{{Low: 5, High: 9}, {Low: 0, High: 12, Strings: strings5and2}}},
		{"Em", "| i7 | iv7 | bVI7 V7 | i7 |", "D2,A2,D3,G3,B3,E4", "minor-blues", "free", []neck.Region{{Low: 0, High: 4}, {Low: 7, High: 12}}},
		{"G", "| G7 | C7 | D7 | G7 |", "E1,A1,D2,G2", "minor-pentatonic", "root", []neck.Region{{Low: 2, High: 7}}},
	} {
		in := instrument(c.tuning)
		palette, err := blend.PaletteByID(c.palette)
		require.NoError(p.t, err)
		mode, err := crossing.ModeByID(c.mode)
		if err != nil {
			mode = crossing.Modes[0]
		}
		prog := bars(c.text, c.k)
		ch := chart.Chart{Title: "Songbook", Tempo: 96, Swing: true, In: in, Hand: neck.UsualHand, Key: key(c.k), Band: prog, Solo: prog,
			Plan: chart.Plan{Palette: palette, Weave: chart.Weave{Mode: mode}}}
		m := ch.Map(background, c.w)
		p.head("%s in %s on %s", mode.Name, c.k, c.tuning)
		p.say("spans", m.Spans)
		for _, pair := range m.Pairs {
			p.say(m.Chords[pair.From].String()+" to "+m.Chords[pair.To].String(), pair.Moves)
			p.say("  enclosed", pair.Enclosed)
		}
		for i, b := range m.Blends {
			p.say("over "+m.Chords[i].String(), b)
		}
		for i, w := range m.Windows {
			p.head("%s, window %s", c.k, short(c.w[i]))
			for j, r := range w.Runs {
				p.say(m.Chords[j].String()+" "+w.Shapes[j], r)
			}
			p.say("alike", w.Alike)
			p.say("thread", w.Thread)
			p.say("no thread", w.NoThread)
			p.say("places", m.Places(i, m.Pairs))
			for _, of := range []string{chart.OfRun, chart.OfCrossing, chart.OfThread} {
				s, err := ch.Paper(background, of, 1, c.w[i])
				p.say(of, err)
				p.notes(s.Progression, s.Notes)
			}
		}
		for _, mode := range crossing.Modes {
			ch.Plan.Weave.Mode = mode
			thread, err := ch.Thread(background, c.w[0])
			p.say(mode.ID, thread.Cost)
			p.say(mode.ID, err)
			for _, x := range thread.Targets {
				p.say("  target", x)
			}
		}
	}
}

var strings5and2 = func() neck.Strings { s, _ := neck.ParseStrings("5,2"); return s }()

// runs are chords of every kind in positions, their grips, what encloses them, and chains.
func runs(p page) {
	for _, symbol := range []string{"C", "Cm", "C7", "Cm7", "Cmaj7", "Cm7b5", "Cdim7", "C9", "C13", "C7#9", "C6", "Caug", "Csus4", "C7/E", "Am7", "F#7", "Bb7", "Eb7", "B7"} {
		c := harmony.MustParse(symbol)
		p.head("%s", symbol)
		for _, w := range []neck.Region{{Low: 0, High: 4}, middle, {Low: 10, High: 15}} {
			p.say(short(w), arpeggio.Make(guitar, c, w, neck.UsualHand, nil))
			g, ok := arpeggio.Hold(guitar, c, w, neck.UsualHand)
			p.say(fmt.Sprint("  grip ", ok), g)
			p.say("  scale", chart.ScaleIn(guitar, c, w))
		}
		for _, o := range chart.Others(guitar, neck.UsualHand, key("C"), c, middle) {
			p.say("  other", o.Other)
			p.say("   ", o.Octave)
		}
		p.say("encloses F7", crossing.Enclosures(c, harmony.MustParse("F7")))
		p.say("rubs on C7", blend.Rubs(c, harmony.MustParse("C7")))
		for _, palette := range blend.Palettes {
			p.say("  "+palette.ID, blend.Over(key("C"), palette, c))
			p.say("  slides", blend.Slides(guitar, palette, c, middle))
		}
	}
	chords := []harmony.Chord{harmony.MustParse("Dm7"), harmony.MustParse("G7"), harmony.MustParse("Cmaj7")}
	for voices := 1; voices <= 3; voices++ {
		chains, err := crossing.Chains(background, guitar, chords, crossing.Ask{Region: middle, Hand: neck.UsualHand, Voices: voices})
		require.NoError(p.t, err)
		for _, c := range chains {
			p.say(fmt.Sprint(voices, " voices"), c)
		}
	}
	for _, k := range []string{"C", "Eb", "F#", "Am"} {
		p.say("divisions in "+k, chart.Divide(guitar, key(k)))
		p.say("boxes in "+k, blend.Boxes(guitar, key(k).Tonic.Class()))
	}
}

// exercises are all of them over a few chords, and every choice of one.
func exercises(p page) {
	write := func(name string, t exercise.Task) {
		t.In, t.Hand, t.Key = guitar, neck.UsualHand, key("C")
		if t.Region == (neck.Region{}) {
			t.Region = middle
		}
		prog := exercise.Ground(bars(four, "C"), t.Drill)
		notes, said, err := exercise.Over(background, prog, t)
		p.head("%s", name)
		p.say("said", said)
		p.say("refused", err)
		p.notes(prog, notes)
	}
	for _, d := range exercise.Drills {
		for _, pace := range []string{"eighths", "triplets"} {
			write(d.ID+" in "+pace, exercise.Task{Drill: d.ID, Pace: pace})
		}
		write(d.ID+" from the third, down", exercise.Task{Drill: d.ID, Pace: "eighths", From: "3", Down: true})
		write(d.ID+" on strings 5 and 2", exercise.Task{Drill: d.ID, Pace: "eighths", Region: neck.Region{Low: 0, High: 12, Strings: strings5and2}})
	}
	for _, pace := range exercise.Paces {
		write("run at "+pace.ID, exercise.Task{Drill: "run", Pace: pace.ID})
	}
	for _, a := range exercise.Approaches {
		write("run by "+a.ID, exercise.Task{Drill: "run", Pace: "eighths", Approach: a.ID})
		write("thirds by "+a.ID, exercise.Task{Drill: "thirds", Pace: "eighths", Approach: a.ID, Offset: 2})
	}
	for order := 1; order <= 24; order++ {
		write(fmt.Sprint("order ", order), exercise.Task{Drill: "orders", Pace: "eighths", Order: order, From: []string{"", "R", "5"}[order%3]})
	}
	for _, t := range []exercise.Task{{Offset: 3}, {Double: true}, {Until: 3}, {Cell: []int{1, 2, 3, 5}}, {Offset: 1, Until: 2, Down: true}} {
		t.Drill, t.Pace = "run", "eighths"
		if t.Cell != nil {
			t.Drill = "cell"
		}
		write("with "+short(t), t)
	}
}

// lines are written in every word, rhythm, contour, phrasing and closing, and checked.
func lines(p page) {
	write := func(name string, w line.Wish) edit.Line {
		l := over(twelve, "Bb", guitar, neck.Region{Low: 5, High: 9}, "shuffle")
		w.Region, w.Palette = l.Region, l.Palette
		p.head("%s", name)
		p.say("refused", l.Write(background, w))
		p.notes(l.Progression, l.Notes)
		return l
	}
	for i, word := range line.Words {
		l := write(word.ID, line.Wish{Spice: word.Spice, Density: word.Density, Phrasing: word.Phrasing, ChordTones: word.ChordTones, Rhythm: "eighths", Seed: uint64(i)})
		st := l.Study(line.Usual)
		p.say("report", st.Report)
		for _, n := range st.Notes {
			p.say("  note", n)
		}
		p.say("engraved", st.Measures)
		for _, pick := range line.Pickings {
			q := l
			p.say(pick.ID, q.Pick(pick.ID))
			p.notes(q.Progression, q.Notes)
		}
		q := l
		q.Adorn(0.6, 7)
		p.notes(q.Progression, q.Notes)
	}
	for i, r := range line.Rhythms {
		write("rhythm "+r.ID, line.Wish{Rhythm: r.ID, Density: 1 + i%5, Approach: true, Seed: 2, Lift: i - 2})
	}
	for _, c := range line.Contours {
		write("contour "+c.ID, line.Wish{Rhythm: "eighths", Density: 3, Contour: c.ID, Seed: 3})
	}
	for _, f := range line.Phrasings {
		write("phrasing "+f.ID, line.Wish{Rhythm: "mixed", Density: 4, Phrasing: f.ID, Seed: 4})
	}
	for _, c := range line.Closings {
		write("closing "+c.ID, line.Wish{Rhythm: "eighths", Density: 3, Closing: c.ID, Seed: 5})
	}
	for _, role := range []harmony.Role{harmony.Root, harmony.Third, harmony.Fifth, harmony.Seventh} {
		write("landing on "+short(role), line.Wish{Rhythm: "eighths", Density: 3, Targets: []harmony.Role{role}, Seed: 6, From: 2, To: 9})
	}
	for _, rule := range line.Rules {
		l := over(four, "C", guitar, middle, "straight")
		require.NoError(p.t, l.Write(background, line.Wish{Region: middle, Palette: l.Palette, Rhythm: "eighths", Density: 5, Seed: 7}))
		p.say("by "+rule.ID, l.Study(rule).Report)
	}
}

// edits are what is done to lines: re-aimed, mended, led into, moved, laid elsewhere.
func edits(p page) {
	l := over(twelve, "Bb", guitar, neck.Region{Low: 5, High: 9}, "shuffle")
	require.NoError(p.t, l.Write(background, line.Wish{Region: l.Region, Palette: l.Palette, Rhythm: "mixed", Density: 4, Seed: 8}))
	l.Notes = score.Numbered(l.Notes)
	p.notes(l.Progression, l.Notes)
	for _, amount := range []float64{0.2, 0.6, 1} {
		for _, bends := range []bool{false, true} {
			q := l
			turns, err := q.Reaim(background, amount, bends)
			p.head("re-aimed by %v, bends only %t", amount, bends)
			p.say("refused", err)
			p.say("turns", turns)
			p.notes(q.Progression, q.Notes)
		}
	}
	for _, place := range l.Places() {
		at := l.At(place.Bar) + place.Beat*score.Tick
		fixes, why, err := l.Fixes(background, at)
		p.say(fmt.Sprint("fixes at ", at, " ", why), fixes)
		p.say("refused", err)
	}
	for _, n := range l.Notes {
		leads, why, err := l.Leads(background, n.ID)
		p.say(fmt.Sprint("leads into ", n.ID, " ", why), leads)
		p.say("refused", err)
	}
	for _, k := range []string{"C", "E", "F#"} {
		for _, shape := range []bool{true, false} {
			moved, err := l.Move(key(k), shape)
			p.head("moved to %s, shape %t", k, shape)
			p.say("refused", err)
			p.notes(moved.Progression, moved.Notes)
		}
	}
	for _, tuning := range []string{"D2,G2,D3,G3,B3,D4", "E1,A1,D2,G2", "B1,E2,A2,D3,G3,B3,E4"} {
		laid, done, err := edit.Lay(l, instrument(tuning), neck.UsualHand)
		p.head("laid on %s", tuning)
		p.say("refused", err)
		p.say("done", done.Says())
		p.notes(laid.Progression, laid.Notes)
	}
	p.say("phrases", l.Phrases())
	for first := 2; first < 20; first += 5 {
		k, err := l.Keep(first, first+6, first%2 == 0)
		p.say("kept", err)
		p.say("kept", k)
	}
}

// licks go through the changes, elsewhere, and are led to from each other.
func licks(p page) {
	for _, text := range []string{"R/e b3/e 11/e b5/e 11/e b3/e R/q", "5/e b7/e R'/e b3'/e 3'/q R'/q", "3/s 5/s b7/s 9/s b7/e 5/e 3/q", "5/q b7/q R'/h"} {
		notes, err := lick.Parse(text)
		p.head("%s", text)
		p.say("refused", err)
		if err != nil {
			continue
		}
		k := lick.Lick{Chord: "7", Notes: notes}
		p.say("begins", k.Begins())
		h, ok := k.Hardness()
		p.say(fmt.Sprint("hard ", ok), h)
		for _, chord := range []string{"C7", "Fm7", "Bb7", "G7", "Dm7b5"} {
			for _, follow := range []bool{false, true} {
				g := lick.Ground{In: guitar, Region: middle, Hand: neck.UsualHand, Follow: follow}
				version, err := k.Realise(harmony.MustParse(chord), 0, g)
				p.say(fmt.Sprint("over ", chord, " ", follow), err)
				p.notes(bars("| "+chord+" | % | % | % |", "C"), version)
				p.say("ways", k.Ways(version, harmony.MustParse(chord), 0, g))
			}
		}
		for _, land := range []bool{false, true} {
			prog := bars(twelve, "C")
			through, said, err := k.Through(background, prog, key("C"), lick.Aim{Land: land, Ground: lick.Ground{In: guitar, Region: middle, Hand: neck.UsualHand, Follow: true}})
			p.say(fmt.Sprint("through, landing ", land, " ", said), err)
			p.notes(prog, through)
		}
		for _, c := range line.Connectors {
			l := over(twelve, "C", guitar, middle, "shuffle")
			p.say("by "+c.ID, l.PutLicks(background, k, []int{2, 4, 6, 9}, true, c.ID))
			p.notes(l.Progression, l.Notes)
		}
		shown, err := edit.Show(k, "A lick", "Eb", guitar, neck.UsualHand)
		p.say("shown", err)
		p.notes(shown.Progression, shown.Notes)
	}
}

// bands play every groove, bass, click, comper and arc.
func bands(p page) {
	play := func(name string, groove band.Groove, o band.Options) {
		o.Key = new(form.Key)
		*o.Key = key("Bb")
		perf, err := band.Play(background, bars(twelve, "Bb"), groove, o)
		p.head("%s", name)
		p.say("refused", err)
		p.say("markers", perf.Markers)
		for _, track := range perf.Tracks {
			fmt.Fprintf(p, "%s, %d, %d:", track.Name, track.Channel, track.Program)
			for _, n := range track.Notes {
				fmt.Fprintf(p, " %s", strings.NewReplacer("Start ", "", "Length ", "+", "MIDI ", "", "Velocity ", "v", ", ", " ", "{", "", "}", "").Replace(short(n)))
			}
			fmt.Fprintln(p)
		}
	}
	for i, g := range band.Grooves {
		play(g.Feel, g, band.Options{Choruses: 1, Seed: uint64(i), Intensity: 1 + i%5, CountIn: i%2 == 0, Ending: i%2 == 1})
	}
	shuffle := band.Grooves[0]
	for _, b := range band.Basses {
		play("bass "+b.ID, shuffle, band.Options{Choruses: 1, Seed: 3, Bass: b.ID, Without: []string{"drums", "chords"}})
	}
	for _, c := range band.Clicks {
		play("click "+c.ID, shuffle, band.Options{Choruses: 1, Metronome: true, Click: c.ID, Without: []string{"drums", "chords", "bass"}})
	}
	for _, c := range band.Compers {
		play("chords by "+c.ID, shuffle, band.Options{Choruses: 2, Seed: 4, Comp: c.ID, DropChords: true, Without: []string{"drums", "bass"}})
	}
	for _, a := range band.Arcs {
		play("arc "+a.ID, shuffle, band.Options{Choruses: 3, Seed: 5, Arc: a.ID, Tempo: 140, Swing: 0.6, Without: []string{"chords"}})
	}
}

// calls are drawn of every kind, in every order, by every device, at every pace.
func calls(p page) {
	ground := call.Ground{Key: key("F"), Chords: []harmony.Chord{harmony.MustParse("F7"), harmony.MustParse("Bb7"), harmony.MustParse("Cm7"), harmony.MustParse("C7")}, Windows: []neck.Region{{Low: 5, High: 9}, {Low: 0, High: 4}}}
	draw := func(name string, w call.Wish) {
		w.In, w.Hand, w.Grounds, w.Tempo = guitar, neck.UsualHand, []call.Ground{ground}, 90
		all, err := call.Draw(background, w, 6)
		p.head("%s", name)
		p.say("refused", err)
		for _, c := range all {
			p.say("  "+c.Says()+" | "+c.Spoken(), c)
		}
	}
	for i, k := range call.Kinds {
		for _, only := range []string{"up", "down", ""} {
			draw(k.ID+" "+only, call.Wish{Kinds: []string{k.ID}, Only: only, Seed: uint64(i), Advanced: only == ""})
		}
	}
	for _, o := range call.Orders {
		draw("order "+o.ID, call.Wish{Kinds: []string{call.Tones}, Orders: []string{o.ID}, Seed: 2})
	}
	for _, d := range call.Devices {
		draw("device "+d.ID, call.Wish{Kinds: []string{call.Tones}, Devices: []string{d.ID}, Seed: 3})
	}
	for _, x := range call.Paces {
		draw("pace "+x.ID, call.Wish{Kinds: []string{call.Tones}, Paces: []string{x.ID}, Seed: 4})
	}
	draw("ends and strings", call.Wish{Kinds: []string{call.Tones}, Starts: []harmony.Role{harmony.Third}, Ends: []harmony.Role{harmony.Seventh}, Strings: []neck.Strings{strings5and2}, Seed: 5})
}

// takes are played by simulated players, along with what is written and freely in every mode.
func takes(p page) {
	l := over("| Bb7 | Eb7 | Cm7 F7 | Bb7 |", "Bb", guitar, neck.Region{Low: 5, High: 9}, "shuffle")
	require.NoError(p.t, l.Write(background, line.Wish{Region: l.Region, Palette: l.Palette, Rhythm: "eighths", Density: 4, Seed: 9}))
	l.Notes = score.Numbered(l.Notes)
	players := []judge.Player{{}, {Wrong: 0.3, Late: 0.3, Missed: 0.2, Spread: 20, Tendency: 30, Seed: 1}, {Bad: 1, Drift: 40, Lost: 0.6, Seed: 2}, {Inaudible: true}}
	for i, player := range players {
		heard, erred := player.Play(l.Score, 96, 0.62)
		p.head("player %d", i)
		p.say("heard", heard)
		p.say("erred", erred)
		take := judge.Prescribed(l.Score, heard, 96, 0.62)
		p.say("take", take)
		for _, v := range take.Verdicts {
			p.say("  "+v.Says(), v)
		}
		f, err := practice.Prescribed(l, heard, 96, 0.62)
		p.say("landings", f.Landings)
		p.say(f.Good+" | "+f.Try, err)
		p.say("trials", planner.FromTake(take, l, 96))
		p.say("swing", judge.Swing(heard))
		written, err := practice.Written(l, heard, 0.62)
		p.say("written", err)
		p.say("said", written.Said)
		p.notes(written.Progression, written.Notes)
	}
	notes, err := lick.Parse("R/e b3/e 11/e 5/e b7/q")
	require.NoError(p.t, err)
	for _, m := range practice.Modes {
		ask := practice.Ask{Seed: 3, Lick: lick.Lick{Chord: "7", Notes: notes}, Tune: l.Notes}
		bare := l
		bare.Notes = nil
		p.head("%s", m.ID)
		own := bare
		if m.Writes() {
			var bandPart edit.Line
			var err error
			bandPart, own, err = m.Line(background, bare, ask)
			p.say("refused", err)
			p.notes(bandPart.Progression, bandPart.Notes)
			p.notes(own.Progression, own.Notes)
		}
		ground := m.Over(l.Progression, l.Key)
		p.say("over", ground.Text())
		played := own
		if len(own.Notes) == 0 {
			played, own = l, bare
		}
		for pass := range len(m.Stages) {
			p.say("stage", m.Stage(pass).Says)
			heard, _ := players[1].Play(played.Score, 96, 0.62)
			f, err := m.Judge(own, pass, heard, 96, 0.62)
			p.say("refused", err)
			p.say(f.Good+" | "+f.Try, f.Landings)
			p.say("lost", f.Lost)
			p.say("trials", planner.FromFree(f, m, pass, heard, 96))
		}
	}
}

// plans are made for a learner that a few weeks taught.
func plans(p page) {
	at := time.Date(2026, 3, 2, 18, 0, 0, 0, time.UTC)
	learner, m := planner.NewLearner(4), planner.New(planner.Fitted)
	var trials []planner.Trial
	for day := range 24 {
		now := at.AddDate(0, 0, day)
		for i, a := range m.Choose(planner.Everything(), 12, now, uint64(day)) {
			success := 0.0
			if learner.Try(a, now) {
				success = 1
			}
			m.Learn(a, success, now)
			trials = append(trials, planner.Trial{Ask: a, At: now.Add(time.Duration(i) * time.Minute), Entry: uint(day*12 + i + 1), Chart: 1, Chord: "F7", From: "C7", String: 1 + i%6, Bar: 1 + i, Met: "landed", On: "3", Success: success, Ms: float64(100 * i), Timed: i%2 == 0})
		}
	}
	end := at.AddDate(0, 0, 30)
	tunes := []planner.Tune{{ID: 1, Title: "Slipway Shuffle", Key: 0, Tempo: 96, Changes: [][2]string{{"C7", "F7"}, {"F7", "C7"}, {"G7", "F7"}}}, {ID: 2, Title: "Low Water", Key: 4, Tempo: 60, By: end.AddDate(0, 0, 2)}}
	pieces := []planner.Written{{ID: 3, Title: "Low Water, in threes", Tempo: 60}, {ID: 4, Title: "Up and down", Exercise: true, Tempo: 80}}
	licks := []planner.Written{{ID: 5, Title: "Two Lanterns", Tempo: 90}}
	for _, minutes := range []int{5, 10, 20, 45, 60} {
		for seed := range uint64(3) {
			p.head("%d minutes, seed %d", minutes, seed)
			for _, item := range m.Plan(planner.Order{Minutes: minutes, Tunes: tunes, Pieces: pieces, Licks: licks, Seed: seed}, trials, end) {
				p.say(" ", item)
			}
		}
	}
	p.say("maps", planner.Draw(trials, m, end, func(planner.Trial) bool { return true }))
	p.say("ready", planner.Evening(tunes, trials))
	for _, a := range planner.Everything()[:60] {
		guess, sd := m.Predict(a, end)
		p.say(short(a), []float64{guess, sd, m.Worth(a, end)})
	}
}

// files are a line with every way of playing, in the three formats, and read again.
func files(p page) {
	l := over("| Bb7 | Eb7 | Cm7 F7 | Bb7 | Eb7 | % | Bb7 | F7 |", "Bb", guitar, neck.Region{Low: 5, High: 9}, "shuffle")
	var notes []score.Note
	tick := -score.Tick
	for i, w := range score.Ways {
		n := score.Note{Start: tick, Length: []int{480, 320, 240, 960, 720}[i%5], Placement: neck.Placement{String: 1 + i%5, Fret: 5 + i%5}}
		if len(w.Values) > 0 && w.On == "" {
			value := 1
			if is, ok := w.Values[0].Is.(int); ok {
				value = is
			}
			w.Put(&n.Ornaments, value)
		}
		pitch, err := l.NameAt(tick, n.Placement)
		require.NoError(p.t, err)
		n.Pitch = pitch
		notes = append(notes, n)
		tick += n.Length
		if i%4 == 3 {
			tick += 480
		}
		if i%6 == 5 { // over the bar line
			notes[len(notes)-1].Length += 1440
			tick += 1440
		}
	}
	l.Notes = score.Numbered(slices.DeleteFunc(notes, func(n score.Note) bool { return n.End() > l.End() }))
	p.notes(l.Progression, l.Notes)
	p.head("tablature")
	p.Write(tabtext.Write(l.Score))
	p.head("MusicXML")
	p.Write(musicxml.Write(l.Score))
	p.head("MIDI")
	perf, err := band.Play(background, l.Progression, band.Grooves[0], band.Options{Choruses: 1, Lead: band.Lead(l.Score), Without: []string{"drums", "bass", "chords"}})
	require.NoError(p.t, err)
	data := midi.Write(perf, midi.Head{Title: "Songbook", Tempo: 96, Key: l.Key})
	for i := 0; i < len(data); i += 32 {
		fmt.Fprintf(p, "%x\n", data[i:min(i+32, len(data))])
	}
	for _, read := range []func() (any, error){
		func() (any, error) { return musicxml.Read(background, musicxml.Write(l.Score)) },
		func() (any, error) { return midi.Read(background, data) },
		func() (any, error) {
			s, said, err := tabtext.Read(background, tabtext.Write(l.Score), guitar)
			return []any{s, said}, err
		},
	} {
		f, err := read()
		p.say("read", err)
		p.say("read", f)
	}
}
