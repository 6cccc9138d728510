package songbook_test

import (
	"fmt"
	"slices"

	"github.com/stretchr/testify/require"

	"undaris/core/approach"
	"undaris/core/edit"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/score"
)

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
	for _, d := range exercise.Drills {
		offers := func(choice string) bool { return slices.Contains(d.Offers(), choice) }
		if offers("together") {
			write(d.ID+" struck at once", exercise.Task{Drill: d.ID, Pace: "quarters", Together: true})
		}
		if offers("octave") {
			write(d.ID+" in one octave", exercise.Task{Drill: d.ID, Pace: "eighths", Octave: true, Region: neck.Region{Low: 3, High: 8}})
		}
		if offers("land") {
			write(d.ID+" timed to the third from beat 3", exercise.Task{Drill: d.ID, Pace: "eighths", Land: []harmony.Role{harmony.Third}, Beat: 3})
		}
		if offers("burst") {
			write(d.ID+" in bursts", exercise.Task{Drill: d.ID, Pace: "sixteenths", Burst: 5})
		}
	}
	for _, a := range approach.Ways {
		write("run by "+a.ID, exercise.Task{Drill: "run", Pace: "eighths", Approach: a.ID})
		write("thirds by "+a.ID, exercise.Task{Drill: "thirds", Pace: "eighths", Approach: a.ID, Offset: 2})
	}
	for order := 1; order <= 24; order++ {
		write(fmt.Sprint("order ", order), exercise.Task{Drill: "orders", Pace: "eighths", Order: order, From: []string{"", "R", "5"}[order%3]})
	}
	for _, t := range []exercise.Task{{Offset: 3}, {Double: true}, {Until: 3}, {Cell: []int{1, 2, 3, 5}}, {Offset: 1, Until: 2, Down: true}} {
		t.Drill, t.Pace = "run", "eighths"
		if t.Cell != nil {
			t.Drill = "scale-cell"
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
		st := l.Study()
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
		l.Rule = rule
		p.say("by "+rule.ID, l.Study().Report)
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
		k, _, err := l.Keep(first, first+6, first%2 == 0)
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
			laid, err := k.Through(background, prog, key("C"), lick.Aim{Land: land, Ground: lick.Ground{In: guitar, Region: middle, Hand: neck.UsualHand, Follow: true}})
			through, said := laid.Notes, laid.Said
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
