package judge

import (
	"cmp"
	"math"

	"undaris/core/say"
	"undaris/core/score"
)

// Limits of a vibrato. What a player is heard to do is compared with what is written by ratios: twice as wide is as far off as half.
const (
	sways       = 0.07 // half steps either way that are heard as vibrato at all
	swaysLast   = 600  // milliseconds that a note must last, so that anybody can tell
	slowest     = 2.5  // sways a second: what is to be slower cannot be told from a bend
	offRate     = 1.35 // times as fast, or as slow, as it is written
	offWidth    = 1.8  // the same of its width
	usualSlow   = 3.2  // sways a second, where nothing is written
	usualFast   = 8.0
	usualNarrow = 0.07 // half steps either way, likewise
	usualWide   = 0.6
	uneven      = 0.3  // of the length of a sway, that they may differ
	away        = 0.25 // half steps above the pitch that every sway may stay: the finger comes back to it
)

// What a vibrato is written as: cents either way and sways a second, 0 where the player chooses.
type asked struct{ width, speed int }

func vibratoOf(n score.Note) asked { return asked{n.Width, n.Speed} }

// Usual vibrato is played so where nothing else is written.
const (
	usualCents = 18
	usualSpeed = 5
)

// plays gives a note its vibrato as it is written.
func (a asked) plays(h *Heard) {
	h.Sway, h.Rate = float64(cmp.Or(a.width, usualCents))/100, float64(cmp.Or(a.speed, usualSpeed))
	h.Low = h.Pitch - h.Sway
}

// Sways tells that a note was heard with vibrato.
func (h Heard) Sways() bool { return h.Sway >= sways }

// fault is what is wrong with a vibrato that was to be so, in words that go behind "its vibrato"; "" where nothing is.
// The gravest fault is told alone: that it does not come back, then that it is uneven, then its rate, then its width.
func (a asked) fault(h Heard) string {
	slow, fast, narrow, wide := usualSlow, usualFast, usualNarrow, usualWide
	if a.speed > 0 {
		slow, fast = float64(a.speed)/offRate, float64(a.speed)*offRate
	}
	if a.width > 0 {
		narrow, wide = max(sways, float64(a.width)/100/offWidth), float64(a.width)/100*offWidth
	}
	// A string that rings on is heard an octave higher now and then.
	above := h.Low - h.Pitch
	above -= 12 * math.Round(above/12)
	switch {
	case h.Low > 0 && above > away:
		return say.F("stays %.0f cents above the note", 100*above)
	case h.Uneven > uneven:
		return "is uneven"
	case h.Rate > 0 && h.Rate < slow:
		return say.F("is slow: %.1f sways a second", h.Rate)
	case h.Rate > fast:
		return say.F("is fast: %.1f sways a second", h.Rate)
	case h.Sway < narrow:
		return say.F("is narrow: %.0f cents either way", 100*h.Sway)
	case h.Sway > wide:
		return say.F("is wide: %.0f cents either way", 100*h.Sway)
	}
	return ""
}

// told is what a note's vibrato is said to be, of one that lasts so many milliseconds: "" where nothing is to be said.
func (a asked) told(h Heard, lasts float64) (fault string) {
	switch {
	case lasts < swaysLast || a.speed > 0 && float64(a.speed) < slowest:
		return ""
	case !h.Sways():
		return still
	}
	return a.fault(h)
}

// still is the fault of what does not sway.
const still = "is missing"

// Fault is what is wrong with the vibrato of a held note on which the player chooses how it sways: "" where nothing is.
func (h Heard) Fault() string {
	if !h.Sways() {
		return still
	}
	return asked{}.fault(h)
}
