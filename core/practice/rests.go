package practice

import (
	"cmp"
	"context"
	"math"
	"slices"

	"undaris/core/arpeggio"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/say"
	"undaris/core/score"
)

// restsOn are rested on in this order; the band has two bars for each, then the player.
var restsOn = []harmony.Role{harmony.Root, harmony.Third, harmony.Fifth, harmony.Seventh}

const restBars = 2

// looped is the first chord of a chart, over and over.
func looped(p form.Progression, _ form.Key) form.Progression {
	i := slices.IndexFunc(p.Places(), func(x form.Place) bool { return !x.Chord.None })
	if i < 0 {
		return p
	}
	return Vamp(p.Beats, p.Places()[i].Chord, 2*restBars*len(restsOn))
}

// Vamp is one chord for some bars.
func Vamp(beats int, c harmony.Chord, bars int) form.Progression {
	out := form.Progression{Beats: beats}
	for range bars {
		out.Bars = append(out.Bars, form.Bar{Changes: []form.Change{{Chord: c}}})
	}
	return out
}

// restful walks up the chord to each of its tones and rests there: the band first,
// and the same two bars later for whoever wants to play it so.
func restful(_ context.Context, over edit.Line, _ Ask) (part Part, err error) {
	chord, sounds := over.ChordAt(0)
	if !sounds {
		return part, say.Errorf("the band is silent; there is no chord to rest on")
	}
	run := arpeggio.Make(over.In, chord, over.Region, over.Hand, nil).Notes
	for i, role := range restsOn {
		k := -1
		for j, n := range run { // the middle of the neck sounds best
			if is(chord, n.Pitch.MIDI(), role) && n.Fret > 0 && (k < 0 || j >= 3 && k < 3) {
				k = j
			}
		}
		if k < 0 {
			continue // a chord without that tone
		}
		at := 2 * restBars * over.At(i)
		rest := at + over.BarTicks(0)
		for j := max(0, k-3); j < k; j++ {
			part.Band = append(part.Band, score.Note{Start: rest - (k-j)*score.Tick/2, Length: score.Tick / 2, Pitch: run[j].Pitch, Placement: run[j].Placement})
		}
		part.Band = append(part.Band, score.Note{Start: rest, Length: over.BarTicks(0) - score.Tick, Pitch: run[k].Pitch, Placement: run[k].Placement, Ornaments: score.Ornaments{Vibrato: true}})
	}
	if len(part.Band) == 0 {
		return part, say.Errorf("no tone of %s lies in %s", chord, over.Region.Says())
	}
	for _, n := range part.Band {
		n.Start += over.At(restBars)
		part.Own = append(part.Own, n)
	}
	return part, nil
}

// is tells that a pitch is a chord's tone of a role.
func is(chord harmony.Chord, midi int, role harmony.Role) bool {
	tone, ok := chord.ToneAt(midi % 12)
	return ok && Stage{Land: []harmony.Role{role}}.counts(chord, tone.Degree)
}

// rests judges on which tone each of the player's stretches came to rest: its
// longest note, the last of those that are about as long.
func rests(l edit.Line, heard []judge.Heard, swing float64) (Free, error) {
	f := Free{}
	own := slices.DeleteFunc(judge.InOrder(heard), func(h judge.Heard) bool { return int(h.At)/(l.At(restBars))%2 == 0 && h.At >= 0 })
	written, err := Written(l, own, swing)
	if err != nil {
		return f, err
	}
	f.Line = written
	chord, _ := l.ChordAt(0)
	for i, role := range restsOn {
		if !slices.ContainsFunc(chord.Tones, func(t harmony.Tone) bool { return Stage{Land: []harmony.Role{role}}.counts(chord, t.Degree) }) {
			continue
		}
		from := (2*i + 1) * l.At(restBars)
		landing := Landing{Landing: line.Landing{At: from, Chord: chord, Note: -1, When: line.Silent, Says: "nothing was heard"}, End: from + l.At(restBars)}
		var rest *judge.Heard
		for k := range own {
			h := &own[k]
			if h.At >= float64(from)-score.Tick/2 && h.At < float64(landing.End)-score.Tick/2 && (rest == nil || h.Length >= 0.8*rest.Length) {
				rest = h
			}
		}
		if rest != nil {
			midi := int(math.Round(rest.Pitch))
			if tone, ok := chord.ToneAt(midi % 12); ok {
				landing.Degree = tone.Degree
			}
			landing.Counts = is(chord, midi, role)
			landing.When, landing.Says = line.OnTime, say.F("it rests on the %s", cmp.Or(landing.Degree, "wrong note"))
			switch {
			case !landing.Counts:
				landing.When, landing.Says = line.Wrong, say.F("it comes to rest elsewhere than on the %s", role)
			case !rest.Sways():
				f.Still++
				landing.Says += ", without vibrato"
			case rest.Fault() != "":
				landing.Says += "; its vibrato " + rest.Fault()
			}
		}
		f.Landings = append(f.Landings, landing)
	}
	f.tell(Stage{Play: Anything})
	if n := len(f.Landings); len(f.Line.Notes) > 0 {
		counts := 0
		for _, l := range f.Landings {
			if l.Counts {
				counts++
			}
		}
		f.Good = say.F("%d of %d rests are on their tone", counts, n)
		switch {
		case f.Still > 0 && counts == n:
			f.Try = say.F("let each rest sway: %d stood still", f.Still)
		case counts < n:
			f.Try = "hear the band's last note out, then look for it before you play"
		}
	}
	return f, nil
}
