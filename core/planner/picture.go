package planner

import (
	"encoding/json"
	"slices"
	"time"

	"undaris/core/say"
)

// Picture is what a log tells of a player: the model that learned from it, what its lines add up
// to, and how each line of music went lately. It is advanced line by line, in the order of their
// numbers, and can be kept in between.
type Picture struct {
	Model *Model
	Tally *Tally
	Read  uint // the number of the last line that is in it
	Lost  int  // lines that could not be read
	Day   int  // the latest day of any line
	takes map[uint][]went
	licks map[uint][]went
}

// went is how a take of a line of music went, or of a lick.
type went struct {
	At    time.Time
	Part  float64 // of its notes that were right; of a lick, of the changes that were met
	Chart uint    `json:",omitempty"` // of a lick: over which it was played
}

// lately is how many takes of a line of music are looked at.
const lately = 5

// NewPicture is one in which nothing is known.
func NewPicture(p Params) *Picture {
	return &Picture{Model: New(p), Tally: &Tally{}, takes: map[uint][]went{}, licks: map[uint][]went{}}
}

// Add takes in a line of the log.
func (x *Picture) Add(p Played) {
	x.Read = max(x.Read, p.Entry)
	x.Day = max(x.Day, Day(p.At))
	for _, t := range p.Trials {
		x.Model.Learn(t.Ask, t.Success, t.At)
	}
	x.Tally.Add(p)
	if p.Line != 0 && p.Notes > 0 {
		last := append(x.takes[p.Line], went{At: p.At, Part: float64(p.Good) / float64(p.Notes)})
		x.takes[p.Line] = last[max(0, len(last)-lately):]
	}
	if p.Lick != 0 && len(p.Trials) > 0 {
		met := 0
		for _, t := range p.Trials {
			if t.Success == 1 {
				met++
			}
		}
		last := append(x.licks[p.Lick], went{p.At, float64(met) / float64(len(p.Trials)), p.Chart})
		x.licks[p.Lick] = last[max(0, len(last)-lately):]
	}
}

// Lick is how the last passes of a lick through the changes went, and over which chart the last of them was.
func (x *Picture) Lick(lick uint) (c Count, chart uint) {
	for _, t := range x.licks[lick] {
		c.Trials++
		c.Success += (t.Part - c.Success) / float64(c.Trials)
		c.Last, chart = t.At, t.Chart
	}
	return c, chart
}

// Takes is how the last takes of a line of music went.
func (x *Picture) Takes(line uint) (c Count) {
	for _, t := range x.takes[line] {
		c.Trials++
		c.Success += (t.Part - c.Success) / float64(c.Trials)
		c.Last = t.At
	}
	return c
}

// version changes whenever a line of the log tells a picture something else than before, so that
// what was kept before is made anew.
const version = 3

// known is a skill with what is known of it.
type known struct {
	Skill    Skill
	Strength Strength
}

type keptPicture struct {
	Version int
	Params  Params
	Skills  []known
	Tally   []byte
	Read    uint
	Lost    int
	Day     int
	Takes   map[uint][]went
	Licks   map[uint][]went
}

// MarshalJSON writes a picture with the parameters that made it.
func (x *Picture) MarshalJSON() ([]byte, error) {
	k := keptPicture{Version: version, Params: x.Model.p, Read: x.Read, Lost: x.Lost, Day: x.Day, Takes: x.takes, Licks: x.licks}
	for skill, strength := range x.Model.skills {
		k.Skills = append(k.Skills, known{skill, *strength})
	}
	k.Tally, _ = x.Tally.MarshalBinary() // which writes anything
	return json.Marshal(k)
}

// ErrOther is a picture that was made otherwise than one would be now.
var ErrOther = say.Errorf("this picture was made by another model")

// ReadPicture reads what [Picture.MarshalJSON] wrote. One that other parameters made, or another
// version, is [ErrOther].
func ReadPicture(data []byte, p Params) (*Picture, error) {
	var k keptPicture
	if err := json.Unmarshal(data, &k); err != nil {
		return nil, err
	}
	if k.Version != version || k.Params != p {
		return nil, ErrOther
	}
	x := NewPicture(p)
	if err := x.Tally.UnmarshalBinary(k.Tally); err != nil {
		return nil, err
	}
	for _, s := range k.Skills {
		x.Model.skills[s.Skill] = &s.Strength
	}
	x.Read, x.Lost, x.Day = k.Read, k.Lost, k.Day
	for line, list := range k.Takes {
		x.takes[line] = slices.Clone(list)
	}
	for lick, list := range k.Licks {
		x.licks[lick] = slices.Clone(list)
	}
	return x, nil
}
