package score

import "undaris/core/say"

// Join is how a note is reached from the one before it on its string.
type Join string

// The joins; a note without one is picked.
const (
	Picked  Join = ""
	Slide   Join = "slide"
	Hammer  Join = "hammer-on"
	PullOff Join = "pull-off"
)

// PickingHand is what strikes a note.
type PickingHand string

// The strokes of the picking hand; where none is said, the player chooses.
const (
	DownStroke PickingHand = "down"
	UpStroke   PickingHand = "up"
	ByFinger   PickingHand = "finger"
	ByThumb    PickingHand = "thumb"
)

// Ornaments are the ways a note is played. What each means, needs, sounds and
// looks like is its entry in [Ways].
type Ornaments struct {
	Join      Join // how it is reached from the note before
	Scoop     int  // slid into from so many frets below, or above when negative
	SlideBack int  // slid on by so many frets and back, under one stroke
	SlideOut  int  // left by a slide to nowhere, of so many frets
	Bend      int  // bent up, in quarter tones: 1 is a curl, 2 a half step, 4 a whole step
	PreBend   bool // bent before it is struck
	Again     bool // struck while the string is still bent from the note before
	Release   bool // the bend is let down again
	ReleaseTo int  // how much of the bend stays when it is let down, in quarter tones
	Vibrato   bool
	Width     int  // of the vibrato, in cents either way; 0 is usual
	Speed     int  // of the vibrato, in sways a second; 0 is usual
	Trill     int  // half steps up to the other note
	Turn      int  // half steps up to the upper neighbour and down to the lower, at its end
	Double    int  // hammered double: half steps up and back at its beginning
	Rake      int  // muted strings struck on the way to it
	PalmMute  bool // damped by the picking hand
	Staccato  bool
	Accent    bool
	Dead      bool        // muted, without pitch
	Stroke    PickingHand // of the picking hand
}

// Check says what of it is beyond a hand.
func (o Ornaments) Check() error {
	if o == (Ornaments{}) {
		return nil
	}
	for _, w := range Ways {
		if v := w.Of(o); v < w.Least || v > w.most() {
			return say.Errorf("%s: %d; %d to %d can be", w.Name, v, w.Least, w.most())
		}
	}
	if o.Join != Picked && !known(o.Join) {
		return say.Errorf("%q is no way to join notes; there are slide, hammer-on and pull-off", o.Join)
	}
	if o.Stroke != "" && WayByID("stroke").Of(o) == 0 {
		return say.Errorf("%q is no stroke; there are down, up, finger and thumb", o.Stroke)
	}
	return nil
}

func known(j Join) bool { return j == Slide || j == Hammer || j == PullOff }
