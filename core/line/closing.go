package line

import (
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Closing is a way a line goes through its last two bars: in eighths, a degree begins a note,
// - holds it, . is silence, and * is left to the search; s before a degree slides into it.
// Degrees are of the key. An ending goes home: it is for a chart whose last bar holds the one.
type Closing struct {
	Option
	ends  bool
	steps string
	chord string // what an ending makes of its last chord, where that is a triad or a seventh: "6/9"
}

// Closings lists them: none, turnarounds, endings. Where the chart has a change that a
// figure does not meet, the figure gives way there.
var Closings = []Closing{
	{Option{"none", "as it comes", "the last two bars are written as the others"}, false, "", ""},
	{Option{"walk-down", "turnaround: walking down", "R ♭7 6 ♭6 5, into the five"}, false,
		"R - . b7 - 6 - b13   5 - - - . . . .", ""},
	{Option{"walk-up", "turnaround: walking up", "R 3 4 ♯4 5, into the five"}, false,
		"R - . 3 - 11 - #11   5 - - - . . . .", ""},
	{Option{"box-turn", "turnaround: up through the box", "♭3 slid into 3, 5, 6 and the root; the five's third answers"}, false,
		"R . . b3 s3 5 6 R   7 - 5 - - . . .", ""},
	{Option{"from-six", "turnaround: from the sixth", "down 6 5 ♭3 3 R, then round the five"}, false,
		"R 6 5 b3 3 - R -   5 9 7 - 5 - . .", ""},
	{Option{"half-step-above", "ending: from a half step above", "the root, approached from a half step above"}, true,
		"* * * * . R - b9   R - - - - - . .", ""},
	{Option{"walk-home", "ending: walking home", "♭7 6 ♭6 5 down to the one, then its root"}, true,
		"* * * * b7 6 - b13   5 . R - - - - -", ""},
	{Option{"held-sixth", "ending: a held sixth", "up the one, and its 6 held over the sixth chord"}, true,
		"* * * * * * * *   R 3 5 6 - - - -", "6"},
	{Option{"held-ninth", "ending: a held ninth", "R 5 ♭7, and the 9 held over the ninth chord"}, true,
		"* * * * * * * *   R 5 b7 9 - - - -", "9"},
	{Option{"held-six-nine", "ending: a held sixth with the ninth", "R 3 6, and the 9 held over the chord of both"}, true,
		"* * * * * * * *   R 3 6 9 - - - -", "6/9"},
}

// ClosingByID finds a closing; as it comes by no name.
func ClosingByID(id string) (Closing, error) {
	if id == "" {
		return Closings[0], nil
	}
	i := slices.IndexFunc(Closings, func(c Closing) bool { return c.ID == id })
	if i < 0 {
		return Closing{}, say.Errorf("there is no closing %q", id)
	}
	return Closings[i], nil
}

// closingIdea is the idea of a closing's notes.
const closingIdea = uint64(1) << 50

// asked is what a slot asks for: one pitch class, over any rule of what may stand where.
type asked struct {
	class int
	is    bool
}

func ask(class int) asked { return asked{pitch.Class(class), true} }

// shuts tells that a closing is wished.
func (w Wish) shuts() bool { return w.Closing != "" && w.Closing != Closings[0].ID }

// ending tells that the closing that is wished is an ending.
func (w Wish) ending() bool {
	c, err := ClosingByID(w.Closing)
	return err == nil && c.ends
}

// Closes tells that a line has room for its closing: whole bars of four beats, unlocked, and
// as many as it needs.
func (w Wish) Closes(s score.Score) bool {
	c, err := ClosingByID(w.Closing)
	n := len(s.Bars)
	return err == nil && c.steps != "" && n >= 4 && (!c.ends || atHome(s)) && closable(s) && !w.Locked[n-1] && !w.Locked[n-2] && (w.To == 0 || w.To == n) && w.From <= n-2
}

// atHome tells that the last bar holds the one of the key.
func atHome(s score.Score) bool {
	last, sounds := s.ChordAt(s.End() - 1)
	return sounds && last.Root.Class() == s.Key.Tonic.Class()
}

// Closed is the chart with the chord that an ending closes on, and what was done to it; a triad or a seventh of the one becomes it.
func (w Wish) Closed(s score.Score) (form.Progression, string) {
	c, err := ClosingByID(w.Closing)
	if err != nil || c.chord == "" || !w.Closes(s) {
		return s.Progression, ""
	}
	last := len(s.Bars) - 1
	changes := slices.Clone(s.Bars[last].Changes)
	if len(changes) == 0 { // it goes on from the bar before
		return s.Progression, ""
	}
	old := changes[len(changes)-1].Chord
	minor, plain := strings.CutPrefix(old.Suffix(), "m")
	if old.Slash() || !slices.Contains([]string{"", "6", "7", "9"}, minor) {
		return s.Progression, ""
	}
	to, err := harmony.Parse(old.Root.String() + map[bool]string{true: "m"}[plain] + c.chord)
	if err != nil || to.String() == old.String() {
		return s.Progression, ""
	}
	changes[len(changes)-1].Chord = to
	p := s.Progression
	p.Bars = slices.Clone(p.Bars)
	p.Bars[last].Changes = changes
	return p, say.F("the last chord is %s now, which the ending closes on", to)
}

// closable tells that the last two bars have four beats each, as the figures have.
func closable(s score.Score) bool {
	n := len(s.Bars)
	return s.BeatsOf(n-1) == 4 && s.BeatsOf(n-2) == 4
}

// close puts the closing into the last two bars.
func (w Wish) close(s score.Score, slots []slot) []slot {
	if !w.Closes(s) {
		return slots
	}
	c, _ := ClosingByID(w.Closing)
	const step = score.Tick / 2
	top := s.At(len(s.Bars) - 2)
	root := s.Key.Tonic.Class()
	tokens := strings.Fields(c.steps)
	free := func(at int) bool { return at < top || tokens[(at-top)/step] == "*" }
	kept := slots[:0:0]
	for _, k := range slots {
		if !free(k.start) {
			continue
		}
		for k.length > step && !free(k.start+k.length-1) {
			k.length -= step
		}
		kept = append(kept, k)
	}
	for i := 0; i < len(tokens); i++ {
		at := top + i*step
		held := tokens[i] == "-" && s.Change(at) // a change within a held note is met anew
		if !held && strings.Contains("*-.", tokens[i]) {
			continue
		}
		j := i + 1
		for j < len(tokens) && tokens[j] == "-" && !s.Change(top+j*step) {
			j++
		}
		chord, sounds := s.ChordAt(at)
		if !sounds {
			continue
		}
		k := slot{start: at, length: (j - i) * step, chord: chord, change: s.Change(at), height: 0.5, key: closingIdea + uint64(i)}
		k.strong = k.change || s.InBar(at)%(2*score.Tick) == 0
		if !held {
			degree, slid := strings.CutPrefix(tokens[i], "s")
			up, _ := harmony.Degree(degree).Interval()
			k.slid = slid
			k.asks = ask(root + up.HalfSteps)
		}
		if _, tone := chord.ToneAt(k.asks.class); k.change && !tone {
			k.asks = asked{} // the chart goes before the figure
		}
		kept = append(kept, k)
	}
	// A change that the figure is silent at is met.
	for at := top; at < s.End(); at += score.Tick {
		covered := slices.ContainsFunc(kept, func(k slot) bool { return k.start == at || k.start < at && at < k.start+k.length && free(k.start) })
		if chord, sounds := s.ChordAt(at); sounds && s.Change(at) && !covered {
			kept = append(kept, slot{start: at, length: step, chord: chord, change: true, strong: true, height: 0.5, key: closingIdea + 1<<10 + uint64(at)})
		}
	}
	slices.SortFunc(kept, func(a, b slot) int { return a.start - b.start })
	return kept
}
