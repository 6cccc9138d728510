package songbook_test

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/call"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/learner"
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
		play(g.Feel, g, band.Options{Choruses: 1, Seed: uint64(i), Intensity: 1 + i%5, CountIn: i%2 == 0, Ending: band.Endings[i%len(band.Endings)].ID})
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
	taught, m := learner.NewHalving(4), planner.New(planner.Fitted)
	counted := &planner.Tally{}
	for day := range 24 {
		now := at.AddDate(0, 0, day)
		for i, a := range m.Choose(planner.Everything(), 12, now, uint64(day)) {
			success := 0.0
			if taught.Try(a, now) {
				success = 1
			}
			m.Learn(a, success, now)
			counted.Add(planner.Played{Trials: []planner.Trial{{Ask: a, At: now.Add(time.Duration(i) * time.Minute), Entry: uint(day*12 + i + 1), Chart: 1, Chord: "F7", From: "C7", String: 1 + i%6, Bar: 1 + i, Met: "landed", On: "3", Success: success, Ms: float64(100 * i), Timed: i%2 == 0}}})
		}
	}
	end := at.AddDate(0, 0, 30)
	tunes := []planner.Tune{{ID: 1, Title: "Slipway Shuffle", Key: 0, Tempo: 96, Changes: [][2]string{{"C7", "F7"}, {"F7", "C7"}, {"G7", "F7"}}}, {ID: 2, Title: "Low Water", Key: 4, Tempo: 60, Beats: 48, Changes: [][2]string{{"Em7", "Am7"}, {"Am7", "Em7"}, {"Em7", "B7"}, {"B7", "Em7"}}, Arrives: [][]int{{5}, {7}, {9}, {11}}, By: end.AddDate(0, 0, 2)}}
	pieces := []planner.Written{{ID: 3, Title: "Low Water, in threes", Tempo: 60}, {ID: 4, Title: "Up and down", Exercise: true, Tempo: 80}}
	licks := []planner.Written{{ID: 5, Title: "Two Lanterns", Tempo: 90}}
	for _, minutes := range []int{5, 10, 20, 45, 60} {
		for seed := range uint64(3) {
			p.head("%d minutes, seed %d", minutes, seed)
			for _, item := range m.Plan(planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: minutes, Tunes: tunes, Pieces: pieces, Licks: licks, Seed: seed}, counted, end) {
				p.say(" ", item)
			}
		}
	}
	p.say("maps", planner.Draw(counted, m, end))
	p.say("ready", planner.Evening(tunes, counted))
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
