package score

import "undaris/core/form"

// At is the tick on which a bar begins, from 0; of the bar behind the last it is where the line
// ends, before the first it is negative.
func (s Score) At(bar int) int { return s.StartOf(bar) * Tick }

// End is the tick on which the line ends.
func (s Score) End() int { return s.Length() * Tick }

// BarOf is the bar in which a tick lies, from 0; -1 in a pickup.
func (s Score) BarOf(tick int) int {
	bar, _ := s.BarAt(floor(tick, Tick))
	return bar
}

// InBar is how many ticks of its bar are over at a tick.
func (s Score) InBar(tick int) int { return tick - s.At(s.BarOf(tick)) }

// BarTicks is how long a bar is.
func (s Score) BarTicks(bar int) int { return s.BeatsOf(bar) * Tick }

// MostPickup is how far before the first bar a line may begin: by a bar.
func (s Score) MostPickup() int { return s.Beats * Tick }

// Changes are those of a bar, from 0; before the first those of the pickup.
func (s Score) Changes(bar int) []form.Change {
	if bar < 0 {
		return s.Progression.Pickup.Changes
	}
	return s.Bars[bar].Changes
}
