package crossing

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Link is what a chain plays over one chord: a tone for each voice, the highest first.
type Link struct {
	Chord int // index among the chords asked for
	Tones []Target
}

// Chain is a way through several chords at the least movement.
type Chain struct {
	Links []Link
	Cost  Cost // half steps of all voices together; the travel is that of the hand
}

// Ask says which chains are wanted.
type Ask struct {
	Region  neck.Region
	Hand    neck.Hand
	Voices  int             // 1 to 3, each on a string of its own
	Allowed []harmony.Role  // empty is any chord tone
	From    *neck.Placement // where the hand is; the way from there counts
}

// A hand that plays tones at once spans so many frets at most, and leaves so many
// strings between two of them silent.
const (
	mostFretsAtOnce   = 3
	mostSilentBetween = 1
)

// NoLink says that a chord has nothing to play in a region.
type NoLink struct {
	Chord  int
	Reason string
}

func (e *NoLink) Error() string { return e.Reason }

// Chains finds ways through chords, one for each set of degrees that they can begin on,
// each the least there is: half steps first, then how many tones are left, then the
// hand's travel. Those that move least come first; with a hand to start from, those that
// are nearest to it. N.C. is passed over. The error is a *[NoLink], a *[SizeError], or
// that of the context.
func Chains(ctx context.Context, in *neck.Instrument, chords []harmony.Chord, ask Ask) ([]Chain, error) {
	var layers [][]Link
	work := 0
	for i, c := range chords {
		if c.None {
			continue
		}
		links := voicings(in, c, ask)
		if len(links) == 0 {
			return nil, &NoLink{i, nothing(ask, c)}
		}
		for j := range links {
			links[j].Chord = i
		}
		if n := len(layers); n > 0 {
			work += len(layers[n-1]) * len(links) * ask.Voices
		}
		layers = append(layers, links)
	}
	if len(layers) == 0 {
		return nil, nil
	}
	if work > MaxWork {
		return nil, &SizeError{len(layers), work}
	}
	onward, after := least(ctx, in, layers)
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	best := map[string]Chain{}
	for i, first := range layers[0] {
		cost := onward[0][i]
		if ask.From != nil {
			cost = cost.plus(from(in, *ask.From, first))
		}
		if was, known := best[opening(first)]; known && !cost.less(was.Cost) {
			continue
		}
		chain := Chain{Cost: cost}
		for l, at := 0, i; l < len(layers); l++ {
			chain.Links = append(chain.Links, moved(chain.Links, layers[l][at]))
			at = after[l][at]
		}
		best[opening(first)] = chain
	}
	return ranked(in, best, ask), nil
}

func nothing(ask Ask, c harmony.Chord) string {
	if ask.Voices > 1 {
		return say.F("no %d tones of %s lie under one hand in %s", ask.Voices, c, ask.Region.Says())
	}
	return say.F("no such tone of %s lies in %s", c, ask.Region.Says())
}

// opening names the degrees that a link has.
func opening(l Link) string {
	names := make([]string, len(l.Tones))
	for i, t := range l.Tones {
		names[i] = string(t.Tone.Degree)
	}
	return strings.Join(names, " ")
}

// moved tells how far each voice came from the link before.
func moved(before []Link, l Link) Link {
	l.Tones = slices.Clone(l.Tones)
	if len(before) > 0 {
		for v := range l.Tones {
			l.Tones[v].Move = l.Tones[v].MIDI - before[len(before)-1].Tones[v].MIDI
		}
	}
	return l
}

// ranked puts the chains in order.
func ranked(in *neck.Instrument, best map[string]Chain, ask Ask) []Chain {
	list := make([]Chain, 0, len(best))
	for _, c := range best {
		list = append(list, c)
	}
	slices.SortFunc(list, func(a, b Chain) int {
		if ask.From != nil {
			if near := from(in, *ask.From, a.Links[0]).compare(from(in, *ask.From, b.Links[0])); near != 0 {
				return near
			}
		}
		return cmp.Or(a.Cost.compare(b.Cost), cmp.Compare(opening(a.Links[0]), opening(b.Links[0])))
	})
	return list
}

// from is the way from a place to the first link: one voice moves from its pitch, more
// are only gripped.
func from(in *neck.Instrument, hand neck.Placement, l Link) (c Cost) {
	if len(l.Tones) == 1 {
		h := l.Tones[0].MIDI - in.MIDI(hand)
		c.HalfSteps = max(h, -h)
	}
	for _, t := range l.Tones {
		c.Travel += Travel(in, hand, t.Placement) / float64(len(l.Tones))
	}
	return c
}

// least finds the least way on from every link of every layer, from the last backwards.
func least(ctx context.Context, in *neck.Instrument, layers [][]Link) (onward [][]Cost, after [][]int) {
	onward, after = make([][]Cost, len(layers)), make([][]int, len(layers))
	for l := len(layers) - 1; l >= 0; l-- {
		onward[l], after[l] = make([]Cost, len(layers[l])), make([]int, len(layers[l]))
		if l == len(layers)-1 {
			continue
		}
		for i := range layers[l] {
			if ctx.Err() != nil {
				return onward, after
			}
			best, found := Cost{}, false
			for j := range layers[l+1] {
				if c := lead(in, &layers[l][i], &layers[l+1][j]).plus(onward[l+1][j]); !found || c.less(best) {
					best, found, after[l][i] = c, true, j
				}
			}
			onward[l][i] = best
		}
	}
	return onward, after
}

// lead is the way from one link to the next, voice by voice; the hand goes as far as
// its voices on the whole.
func lead(in *neck.Instrument, a, b *Link) (c Cost) {
	for v := range a.Tones {
		h := b.Tones[v].MIDI - a.Tones[v].MIDI
		if h != 0 {
			c.Moves++
		}
		c.HalfSteps += max(h, -h)
		c.Travel += Travel(in, a.Tones[v].Placement, b.Tones[v].Placement) / float64(len(a.Tones))
	}
	return c
}

// voicings lists what the voices can play of a chord at once: different tones, each on
// a string of its own, the highest first, near enough for the hand.
func voicings(in *neck.Instrument, c harmony.Chord, ask Ask) []Link {
	single, err := candidates(in, 0, Stop{Chord: c, Allowed: ask.Allowed}, Range{Region: ask.Region})
	if err != nil {
		return nil
	}
	slices.SortStableFunc(single, func(a, b Target) int { return cmp.Compare(a.String, b.String) })
	var all []Link
	var grow func(held []Target)
	grow = func(held []Target) {
		if len(held) == ask.Voices {
			all = append(all, Link{Tones: slices.Clone(held)})
			return
		}
		for _, t := range single {
			if joins(in, held, t, ask) {
				grow(append(held, t))
			}
		}
	}
	grow(make([]Target, 0, ask.Voices))
	return all
}

// joins tells whether a tone can be held under those above it.
func joins(in *neck.Instrument, held []Target, t Target, ask Ask) bool {
	for i, h := range held {
		if t.String <= h.String || t.MIDI >= h.MIDI || t.Tone.Degree == h.Tone.Degree {
			return false
		}
		if i == len(held)-1 && apart(ask.Region.Strings, h.String, t.String) > mostSilentBetween {
			return false
		}
		if t.Fret > 0 && h.Fret > 0 && (max(t.Fret-h.Fret, h.Fret-t.Fret) > mostFretsAtOnce || in.Reach(t.Fret, h.Fret) > ask.Hand.Comfort) {
			return false
		}
	}
	return true
}

// apart counts the strings between two; those that a set of strings leaves out on
// purpose are not between them.
func apart(set neck.Strings, high, low int) (n int) {
	for s := high + 1; s < low; s++ {
		if set.Has(s) {
			n++
		}
	}
	return n
}
