package planner

import (
	"fmt"
	"slices"
)

// Ask is what a player was asked for, or is going to be, as far as skill is concerned.
type Ask struct {
	Key      int    // pitch class of the tonic, 0 is C
	Position int    // of the key's five, from 0; −1 where it was anywhere
	Quality  string // of the chord, as a symbol without its root: "7", "m7"
	Degree   string // root, third, fifth, seventh, extension: to start from or to land on
	Down     bool
	Device   string // an ID: of a kind of call, or of a mode
	Tempo    int    // beats a minute; 0 where there was no time to keep
}

// Positions is how many each key has.
const Positions = 5

// Degrees are those that are planned for.
var Degrees = []string{"root", "third", "fifth", "seventh"}

// Skill is one of the things that an ask draws on.
type Skill struct {
	Kind  Kind
	Value string
	// Of a Place, and of a Whole.
	Key, Position int
}

// Kind is a kind of skill.
type Kind string

// The kinds of skills.
const (
	Whole  Kind = "whole"  // a degree in a direction, in a key in a position: what is asked to the letter
	Place  Kind = "place"  // a key in a position
	Degree Kind = "degree" // a degree in a direction
	Chord  Kind = "chord"  // a kind of chord
	Device Kind = "device"
	Tempo  Kind = "tempo" // a band of twenty beats a minute
)

// Skills lists what an ask draws on.
func (a Ask) Skills() []Skill {
	way := "up"
	if a.Down {
		way = "down"
	}
	skills := []Skill{{Kind: Place, Key: a.Key, Position: a.Position}, {Kind: Degree, Value: a.Degree + " " + way}, {Kind: Chord, Value: a.Quality}, {Kind: Device, Value: a.Device}, a.Whole()}
	if a.Tempo > 0 {
		skills = append(skills, Skill{Kind: Tempo, Value: fmt.Sprint(a.Tempo / 20 * 20)})
	}
	return skills
}

// Whole is an ask to the letter.
func (a Ask) Whole() Skill {
	way := " up"
	if a.Down {
		way = " down"
	}
	return Skill{Kind: Whole, Key: a.Key, Position: a.Position, Value: a.Degree + way}
}

// Neighbours are the places that borrow from one: the same shape in the next keys
// round the circle, the same key in the next positions.
func (s Skill) Neighbours() []Skill {
	if s.Kind != Place || s.Position < 0 {
		return nil
	}
	out := []Skill{
		{Kind: Place, Key: (s.Key + 5) % 12, Position: s.Position}, {Kind: Place, Key: (s.Key + 7) % 12, Position: s.Position},
		{Kind: Place, Key: s.Key, Position: s.Position - 1}, {Kind: Place, Key: s.Key, Position: s.Position + 1},
	}
	return slices.DeleteFunc(out, func(s Skill) bool { return s.Position < 0 || s.Position >= Positions })
}

// Everything is what learners are to learn: every key in every position, from every
// degree, up and down.
func Everything() (asks []Ask) {
	for key := range 12 {
		for p := range Positions {
			for _, d := range Degrees {
				for _, down := range []bool{false, true} {
					asks = append(asks, Ask{Key: key, Position: p, Quality: "7", Degree: d, Down: down, Device: "tones", Tempo: 80})
				}
			}
		}
	}
	return asks
}
