package songbook_test

import (
	"fmt"

	"github.com/stretchr/testify/require"

	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/neck"
)

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
