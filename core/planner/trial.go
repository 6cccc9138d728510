package planner

import (
	"time"

	"undaris/core/say"
)

// Trial is one thing that was asked, with how it went: a call, or a change in a take.
type Trial struct {
	Ask
	At      time.Time
	Entry   uint   // of the log that it belongs to
	Chart   uint   // 0 where none was
	Tuning  string // of the instrument it was played on
	Chord   string // symbol
	From    string // the chord before, of a change
	String  int    // where it was played; 0 where that is not known
	Bar     int    // of a change: the bar it is in, from 1; 0 where that is not known
	Met     string // of a change: in a word, how it was met
	On      string // of a change: the degree that was landed on
	Success float64
	Ms      float64 // until it was answered; of a change, how late
	Timed   bool    // Ms tells how late it was
	By      string  // of a call: how it was answered; of no meaning for the model
	Wanted  string  // likewise: the degree that was asked for where another was answered first,
	Said    string  // and that one
}

// Check says what of a trial cannot be: a key that is none of twelve, a position that is none
// of the key's, a success beyond 0 to 1.
func (t Trial) Check() error {
	switch {
	case t.Key < 0 || t.Key > 11:
		return say.Errorf("key %d is none of the twelve", t.Key)
	case t.Position < -1 || t.Position >= Positions:
		return say.Errorf("position %d is none of the %d", t.Position, Positions)
	case !(t.Success >= 0 && t.Success <= 1):
		return say.Errorf("a success of %v is not within 0 to 1", t.Success)
	case t.String < 0 || t.Bar < 0 || t.Tempo < 0:
		return say.Errorf("a string, a bar or a tempo is below 0")
	}
	return nil
}
