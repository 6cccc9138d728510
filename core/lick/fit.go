package lick

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Proposal is a way to make a landing come true.
type Proposal struct {
	Says  []string // the edits, one or two, in words
	Cost  float64  // the smaller the edit, the less
	Notes []score.Note
}

// Landing is the place a phrase should come to rest on.
type Landing struct {
	At     int           // tick of the change, or of another strong beat
	Chord  harmony.Chord // that sounds there
	Key    func(class int) pitch.Name
	Ground // what a new note may lie on
}

// Landed tells whether a phrase's last note falls on the beat, on a chord tone.
func (l Landing) Landed(notes []score.Note) bool {
	if len(notes) == 0 {
		return false
	}
	n := notes[len(notes)-1]
	_, tone := l.Chord.ToneAt(n.Heard() % 12)
	return n.Start == l.At && tone && !n.Dead
}

// maxProposals is how many are worth reading.
const maxProposals = 8

// Fit lists the smallest edits that make a phrase land, the smallest first: start
// it earlier or later, hold its last note back or bring it forward, drop it, add
// a passing note, change the last one or two pitches, bend instead of fretting.
// One edit or two are tried. A phrase that lands already needs none. why is the
// reason when there is no proposal.
func (l Landing) Fit(ctx context.Context, phrase []score.Note) (proposals []Proposal, why string) {
	switch {
	case len(phrase) == 0:
		return nil, "there is no note that could land"
	case l.Chord.None:
		return nil, "the band is silent there; there is no chord to land on"
	case l.Landed(phrase):
		return nil, "it lands already"
	}
	first := l.edits(phrase)
	seen := map[string]bool{}
	add := func(p Proposal) {
		// The same edits in another order are the same proposal.
		key := strings.Join(slices.Sorted(slices.Values(p.Says)), "; ")
		if !l.Landed(p.Notes) || seen[key] || slices.ContainsFunc(proposals, func(q Proposal) bool { return slices.Equal(q.Notes, p.Notes) }) {
			return
		}
		seen[key] = true
		if l.playable(p.Notes, phrase) {
			proposals = append(proposals, p)
		}
	}
	for _, p := range first {
		add(p)
	}
	for _, p := range first {
		if ctx.Err() != nil {
			break
		}
		if l.Landed(p.Notes) {
			continue
		}
		for _, q := range l.edits(p.Notes) {
			add(Proposal{append(slices.Clone(p.Says), q.Says...), p.Cost + q.Cost + 0.5, q.Notes})
		}
	}
	slices.SortStableFunc(proposals, func(a, b Proposal) int { return cmp.Compare(a.Cost, b.Cost) })
	proposals = proposals[:min(len(proposals), maxProposals)]
	if len(proposals) == 0 {
		return nil, say.F("no tone of %s lies in %s where the last notes could reach it in time", l.Chord, l.Region.Says())
	}
	return proposals, ""
}

// playable finds places for the changed notes and fingers for all.
func (l Landing) playable(notes, old []score.Note) bool {
	prefer := make([]int, len(notes))
	for i, n := range notes {
		prefer[i] = n.String
	}
	low, high := l.Region.Low, l.Region.High
	for _, n := range old { // what lies outside already may stay
		low, high = min(low, n.Fret), max(high, n.Fret)
	}
	w := l.Region
	w.Low, w.High = low, high
	if _, _, ok := score.Place(l.In, notes, w, l.Hand, prefer); !ok {
		return false
	}
	return score.Done(l.In, notes, l.Hand) || !score.Done(l.In, old, l.Hand) // what the player asked for may stay
}

// edits are all single edits of a phrase.
func (l Landing) edits(notes []score.Note) (out []Proposal) {
	edit := func(cost float64, says string, change func(n []score.Note) []score.Note) {
		changed := change(slices.Clone(notes))
		if len(changed) == 0 || changed[0].Start < -16*score.Tick {
			return
		}
		out = append(out, Proposal{[]string{says}, cost, changed})
	}
	k := len(notes) - 1
	last := notes[k]
	if d := l.At - last.Start; d != 0 {
		beats := math.Abs(float64(d)) / score.Tick
		if beats <= 4 {
			edit(0.6+beats*0.4, say.F("start %s %s", beatsIn(d), map[bool]string{true: "later", false: "earlier"}[d > 0]), func(n []score.Note) []score.Note {
				for i := range n {
					n[i].Start += d
				}
				return n
			})
			if k == 0 || l.At > notes[k-1].Start {
				edit(0.9+beats*0.5, say.F("%s the last note %s", map[bool]string{true: "hold back", false: "bring forward"}[d > 0], beatsIn(d)), func(n []score.Note) []score.Note {
					n[k].Start = l.At
					if k > 0 {
						n[k-1].Length = max(1, min(l.At-n[k-1].Start, max(n[k-1].Length, n[k-1].Length+d)))
					}
					return n
				})
			}
		}
		if d >= score.Tick/2 && d <= 2*score.Tick {
			l.addPassing(notes, edit)
		}
		if d > 0 && d <= score.Tick/2 {
			l.squeeze(notes, d, edit)
		}
	}
	if last.Start < l.At && l.At-last.End() <= 2*score.Tick {
		for _, tone := range l.near(last, 5) {
			edit(1+0.15*math.Abs(float64(tone.midi-last.Pitch.MIDI())), say.F("add %s, the %s, on the change", tone.Name, tone.Degree), func(n []score.Note) []score.Note {
				end := retuned(last, tone.midi, tone.Tone)
				end.ID, end.Start, end.Length, end.Ornaments = 0, l.At, score.Tick, score.Ornaments{}
				n[k].Length = min(n[k].Length, l.At-last.Start)
				return append(n, end)
			})
		}
	}
	if k > 0 && notes[k-1].Start < last.Start {
		edit(1.3, "drop the last note", func(n []score.Note) []score.Note {
			n[k-1].Length = max(n[k-1].Length, last.End()-n[k-1].Start)
			return n[:k]
		})
	}
	for _, tone := range l.near(last, 5) {
		by := tone.midi - last.Pitch.MIDI()
		if by == 0 {
			if last.Bend > 0 {
				edit(0.8, "leave the last note unbent", func(n []score.Note) []score.Note {
					n[k].Bend, n[k].Release = 0, false
					return n
				})
			}
			continue
		}
		edit(0.8+0.25*math.Abs(float64(by)), say.F("end on %s, the %s", tone.Name, tone.Degree), func(n []score.Note) []score.Note {
			n[k] = retuned(n[k], tone.midi, tone.Tone)
			return n
		})
		if by > 0 && by <= 2 {
			edit(0.9+0.2*float64(by), say.F("bend the last note to %s, the %s", tone.Name, tone.Degree), func(n []score.Note) []score.Note {
				n[k].Bend, n[k].Release, n[k].Scoop = 2*by, false, 0
				return n
			})
		}
		if k > 0 && notes[k-1].Start < last.Start {
			side := -1
			if notes[k-1].Pitch.MIDI() > tone.midi {
				side = 1
			}
			approach := tone.midi + side
			if approach != notes[k-1].Pitch.MIDI() && len(l.In.Find(approach, l.Region)) > 0 {
				edit(1.4+0.25*math.Abs(float64(by))+0.1*math.Abs(float64(approach-notes[k-1].Pitch.MIDI())),
					say.F("approach %s, the %s, from a fret %s", tone.Name, tone.Degree, map[bool]string{true: "above", false: "below"}[side > 0]),
					func(n []score.Note) []score.Note {
						n[k] = retuned(n[k], tone.midi, tone.Tone)
						n[k-1] = respelled(n[k-1], approach, l.Key)
						return n
					})
			}
		}
	}
	return out
}

// addPassing puts a passing note where the last one was and moves the last to
// the beat.
func (l Landing) addPassing(notes []score.Note, edit func(float64, string, func([]score.Note) []score.Note)) {
	k := len(notes) - 1
	for _, tone := range l.near(notes[k], 4) {
		gap := tone.midi - notes[k].Pitch.MIDI()
		if abs(gap) < 1 || abs(gap) > 4 {
			continue
		}
		passing := notes[k].Pitch.MIDI() + gap/2
		if gap == 1 || gap == -1 {
			passing = tone.midi + gap
		}
		if len(l.In.Find(passing, l.Region)) == 0 {
			continue
		}
		edit(1.2+0.15*math.Abs(float64(gap)), say.F("add a passing note and land on %s, the %s", tone.Name, tone.Degree), func(n []score.Note) []score.Note {
			from := n[k]
			half := max(score.Tick/4, (l.At-from.Start)/2/(score.Tick/4)*(score.Tick/4))
			n[k].Length = half
			between := respelled(from, passing, l.Key)
			between.Ornaments = score.Ornaments{}
			between.Start, between.Length = from.Start+half, l.At-from.Start-half
			end := retuned(from, tone.midi, tone.Tone)
			end.Start, end.Length = l.At, max(from.Length, score.Tick)
			return append(n, between, end)
		})
	}
}

// squeezes is before how many of the last notes a passing note is squeezed in.
const squeezes = 4

// squeeze makes up for a run that comes to the right tone a little too early: a note as long as what is missing passes before one
// of its last notes, and what follows comes so much later. It is heard the less the nearer it lies to both its neighbours and the
// further from a beat, and the more if it is of the key.
func (l Landing) squeeze(notes []score.Note, d int, edit func(float64, string, func([]score.Note) []score.Note)) {
	k := len(notes) - 1
	if _, tone := l.Chord.ToneAt(pitch.Class(notes[k].Heard())); !tone {
		return
	}
	for j := k; j > max(0, k-squeezes); j-- {
		from, to := notes[j-1].Heard(), notes[j].Heard()
		if notes[j-1].Start == notes[j].Start || j > 1 && notes[j-2].Start == notes[j-1].Start {
			return // what sounds together is no run
		}
		for passing := to - 2; passing <= to+2; passing++ {
			way := abs(passing-from) + abs(passing-to)
			if passing == from || passing == to || abs(passing-from) > 3 || len(l.In.Find(passing, l.Region)) == 0 {
				continue
			}
			name := l.Key(pitch.Class(passing))
			cost := 0.7 + 0.1*float64(way) + 0.15*float64(k-j)
			if between := (passing-from)*(to-passing) > 0; !between {
				cost += 0.2
			}
			if notes[j].Start%score.Tick == 0 {
				cost += 0.4
			}
			if name.Alter != 0 {
				cost += 0.05
			}
			edit(cost, say.F("squeeze in %s before %s, for %s", name.Printed(), notes[j].Pitch.Name.Printed(), beatsIn(d)), func(n []score.Note) []score.Note {
				between := respelled(n[j], passing, l.Key)
				between.ID, between.Ornaments, between.Length = 0, score.Ornaments{}, d
				for i := j; i <= k; i++ {
					n[i].Start += d
				}
				if n[j].Join != score.Picked && n[j].Join != score.Slide {
					n[j].Join = score.Picked // it came from another note
				}
				n[j-1].Length = min(n[j-1].Length, between.Start-n[j-1].Start)
				return slices.Insert(n, j, between)
			})
		}
	}
}

type nearTone struct {
	harmony.Tone
	midi int
}

// near are the chord's tones around a note that lie in the window.
func (l Landing) near(n score.Note, within int) (out []nearTone) {
	for midi := n.Pitch.MIDI() - within; midi <= n.Pitch.MIDI()+within; midi++ {
		if tone, ok := l.Chord.ToneAt(pitch.Class(midi)); ok && len(l.In.Find(midi, l.Region)) > 0 {
			out = append(out, nearTone{tone, midi})
		}
	}
	return out
}

// retuned gives a note another pitch, plainly fretted.
func retuned(n score.Note, midi int, tone harmony.Tone) score.Note {
	n.Pitch, n.Degree = pitch.At(midi, tone.Name), string(tone.Degree)
	n.Bend, n.Release, n.Scoop, n.String = 0, false, 0, 0
	if n.Join != score.Slide {
		n.Join = score.Picked
	}
	return n
}

func respelled(n score.Note, midi int, name func(class int) pitch.Name) score.Note {
	n.Pitch = pitch.At(midi, name(pitch.Class(midi)))
	n.Degree, n.Bend, n.Release, n.Join, n.Scoop, n.String = "", 0, false, score.Picked, 0, 0
	return n
}

func beatsIn(ticks int) string {
	ticks = abs(ticks)
	switch {
	case ticks == score.Tick:
		return "a beat"
	case ticks == score.Tick/2:
		return "half a beat"
	case ticks == score.Tick/4:
		return "a quarter of a beat"
	case ticks == score.Tick/3:
		return "a third of a beat"
	case ticks == score.Tick*3/2:
		return "a beat and a half"
	case ticks%score.Tick == 0:
		return say.F("%d beats", ticks/score.Tick)
	}
	return say.F("%.2g beats", float64(ticks)/score.Tick)
}
