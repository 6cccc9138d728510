package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/say"
)

// Arc is how the band grows and falls over the choruses.
type Arc struct{ ID, Name, About string }

// Arcs lists them; the first is as the intensity says throughout.
var Arcs = []Arc{
	{"level", "as it is throughout", "every chorus is played as hard and as busily as is set"},
	{"grow", "growing from chorus to chorus", "the first chorus is two steps softer than is set, the last two steps harder, and each between them a little harder than the one before"},
	{"wave", "down after every two choruses, and up again", "the second chorus is a step harder than is set, the third a step softer, the fourth a step harder, and so on round"},
}

// arcOf is how much more or less intensely a chorus is played, from 0.
func arcOf(id string, chorus, choruses int) int {
	switch id {
	case "grow":
		return (4*chorus+choruses/2)/max(1, choruses-1) - 2
	case "wave":
		return []int{0, 1, -1, 1}[chorus%4]
	}
	return 0
}

// scene is who plays in a bar.
type scene int

const (
	everybody  scene = iota
	stops            // beat 1 alone, all together
	tacet            // nobody: whoever leads is alone
	drumsAlone       // the drums
	rhythm           // bass and drums
)

// Course is what becomes of the choruses beside how hard they are played.
type Course struct {
	ID, Name, About string
	scene           func(p form.Progression, chorus, bar int) scene
}

// Courses lists them; in the first everybody plays throughout.
var Courses = []Course{
	{"all", "everybody throughout", "drums, bass and chords in every bar", func(form.Progression, int, int) scene { return everybody }},
	{"stop-time", "stop-time in every second chorus", "in every second chorus the first four bars are stops on 1, and the rest is yours",
		func(_ form.Progression, chorus, bar int) scene { return pick(chorus%2 == 1 && bar < fours, stops) }},
	{"breaks", "a break at the end of each chorus", "in the last bar of each chorus the band stops on 1: lead into the next alone",
		func(p form.Progression, _, bar int) scene { return pick(bar == len(p.Bars)-1 && bar > 0, stops) }},
	{"rhythm", "bass and drums alone in every third chorus", "in every third chorus the chords rest: it is told by the bass and by you",
		func(_ form.Progression, chorus, _ int) scene { return pick(chorus%3 == 2, rhythm) }},
	{"trade", "trading fours with the drums", "in every second chorus four bars of all and four of the drums take turns",
		func(_ form.Progression, chorus, bar int) scene {
			return pick(chorus%2 == 1 && bar/fours%2 == 1, drumsAlone)
		}},
	{"silence", "two bars of silence in every eight", "in every second chorus bars 7 and 8 of eight are silent: keep the time, and be there when it comes back",
		func(_ form.Progression, chorus, bar int) scene { return pick(chorus%2 == 1 && bar%8 >= 6, tacet) }},
}

// fours is how many bars players trade.
const fours = 4

func pick(when bool, s scene) scene {
	if when {
		return s
	}
	return everybody
}

// CourseByID finds a course; everybody throughout by no name.
func CourseByID(id string) (Course, error) {
	if id == "" {
		return Courses[0], nil
	}
	i := slices.IndexFunc(Courses, func(c Course) bool { return c.ID == id })
	if i < 0 {
		return Course{}, say.Errorf("there is no course %q", id)
	}
	return Courses[i], nil
}

// set leaves in a bar what its scene has: from and to are its ticks.
func (s *session) set(sc scene, from, to int) {
	if sc == everybody {
		return
	}
	const early = MaxShift + 6*spread
	within := func(n Note) bool { return n.Start >= from-early && n.Start < to-early }
	keep := func(notes []Note, plays bool) []Note {
		if plays {
			return notes
		}
		notes = slices.DeleteFunc(notes, func(n Note) bool {
			first := sc == stops && n.Start < from+Tick/4
			return within(n) && !first
		})
		for i := range notes {
			if n := &notes[i]; n.Start < to && n.Start+n.Length > from {
				until := from - n.Start
				if within(*n) {
					until = Tick / 2
				}
				n.Length = max(1, min(n.Length, until))
			}
		}
		return notes
	}
	s.drums = keep(s.drums, sc == drumsAlone || sc == rhythm)
	s.low = keep(s.low, sc == rhythm)
	s.chords = keep(s.chords, false)
}

// Intro is what comes before the first chorus, beside a count-in.
type Intro struct {
	ID, Name, About string
	from            func(p form.Progression, key *form.Key) int // the bar that it begins with, to the end of the form; its length where it has none
}

// Intros lists them; the first is none.
var Intros = []Intro{
	{"none", "none", "straight in", func(p form.Progression, _ *form.Key) int { return len(p.Bars) }},
	{"five", "from the five", "from the bar on in which the last phrase's five comes in, to the top", fromFive},
	{"turnaround", "from the turnaround", "the last two bars, to the top", func(p form.Progression, _ *form.Key) int { return max(0, len(p.Bars)-2) }},
}

// fromFive is the bar where the five comes in that is not the turnaround's; four bars before the end where there is none.
func fromFive(p form.Progression, key *form.Key) int {
	n := len(p.Bars)
	if key != nil {
		five := (key.Tonic.Class() + 7) % 12
		for bar := max(0, n-6); bar < n-2; bar++ {
			for _, c := range p.Bars[bar].Changes {
				if !c.Chord.None && c.Chord.Root.Class() == five {
					return bar
				}
			}
		}
	}
	return max(0, n-fours)
}

// IntroByID finds an intro; none by no name.
func IntroByID(id string) (Intro, error) {
	if id == "" {
		return Intros[0], nil
	}
	i := slices.IndexFunc(Intros, func(in Intro) bool { return in.ID == id })
	if i < 0 {
		return Intro{}, say.Errorf("there is no intro %q", id)
	}
	return Intros[i], nil
}
