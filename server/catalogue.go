package server

import (
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/call"
	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/planner"
	"undaris/core/practice"
	"undaris/core/score"
)

// Catalogue is the tables a chart is made from.
type Catalogue struct {
	Forms       []CatalogueForm       `json:"forms"`
	Turnarounds []CatalogueTurnaround `json:"turnarounds"`
	Feels       []CatalogueFeel       `json:"feels"`
	Tonics      []string              `json:"tonics"`
	Tunings     []CatalogueTuning     `json:"tunings"`
	Palettes    []CataloguePalette    `json:"palettes"`
	Steps       []string              `json:"steps" doc:"that a palette of one's own is made of"`
	Layers      []CatalogueChoice     `json:"layers" doc:"what a map of the neck can show over a chord"`
	Threads     []CatalogueChoice     `json:"threads"`
	Arcs        []CatalogueOption     `json:"arcs" doc:"how the band grows over the choruses"`
	Basses      []CatalogueChoice     `json:"basses" doc:"how the bass can play"`
	Clicks      []CatalogueChoice     `json:"clicks" doc:"what the metronome can mark"`
	Compers     []CatalogueChoice     `json:"compers" doc:"who can play the chords"`
	Rhythms     []CatalogueOption     `json:"rhythms" doc:"vocabularies of written lines"`
	Contours    []CatalogueOption     `json:"contours"`
	Words       []CatalogueWord       `json:"words" doc:"styles of written lines"`
	Tastes      []CatalogueOption     `json:"tastes" doc:"ways of playing that a line has more or less of, 0 to 10"`
	Phrasings   []CatalogueOption     `json:"phrasings"`
	Readings    []CatalogueOption     `json:"readings" doc:"in which pitch players read"`
	Connectors  []CatalogueOption     `json:"connectors" doc:"how one lick is led to from another"`
	Pickings    []CatalogueOption     `json:"pickings" doc:"ways of the picking hand"`
	Intros      []CatalogueOption     `json:"intros" doc:"how the band leads into the first chorus"`
	Endings     []CatalogueOption     `json:"endings" doc:"how the band stops"`
	Courses     []CatalogueOption     `json:"courses" doc:"what becomes of the choruses"`
	Closings    []CatalogueOption     `json:"closings" doc:"how a line can go through its last two bars"`
	Drills      []CatalogueDrill      `json:"drills"`
	DrillGroups []CatalogueChoice     `json:"drillGroups" doc:"kinds of exercises, as they are shown"`
	Paces       []CataloguePace       `json:"paces" doc:"notes to a beat"`
	Choices     []CatalogueAsk        `json:"choices" doc:"what of an exercise can be asked for"`
	Rests       []CatalogueChoice     `json:"rests" doc:"rules of what may rest over a chord, from strict to wide"`
	RestPlaces  []CatalogueChoice     `json:"restPlaces" doc:"chords of the key that may have a rule of their own: usual,five:wide"`
	Ways        []CatalogueWay        `json:"ways" doc:"to play a note"`
	Calls       []CatalogueOption     `json:"calls" doc:"kinds of calls"`
	CallSteps   []CatalogueStep       `json:"callSteps" doc:"how much calls ask, the easiest first"`
	CallOrders  []CatalogueChoice     `json:"callOrders" doc:"of a call's tones"`
	CallDevices []CatalogueChoice     `json:"callDevices" doc:"what leads into a call's first tone"`
	CallPaces   []CatalogueChoice     `json:"callPaces" doc:"how close a call's tones follow each other"`
	Modes       []CatalogueMode       `json:"modes" doc:"ways to practise over the band"`
	Aims        []CatalogueAim        `json:"aims" doc:"what a teacher can ask a pupil to reach"`
	Degrees     []string              `json:"degrees" doc:"that are planned for"`
}

// CatalogueDrill is an exercise.
type CatalogueDrill struct {
	CatalogueOption
	Group  string   `json:"group"`
	Words  string   `json:"words" doc:"what players call it beside its name"`
	Offers []string `json:"offers" doc:"the choices that act on it"`
	Cell   string   `json:"cell,omitempty" doc:"the steps that are played where none are given"`
}

// CatalogueAsk is a choice of exercises.
type CatalogueAsk struct {
	CatalogueChoice
	Kind    string            `json:"kind" enum:"list,switch,number,steps"`
	Options []CatalogueChoice `json:"options" doc:"of a list; the first is usual"`
	Needs   string            `json:"needs,omitempty" doc:"the choice without which it changes nothing"`
}

// CatalogueChoice is one of a list to choose from.
type CatalogueChoice struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// CataloguePace is how close the notes of an exercise follow each other.
type CataloguePace struct {
	CatalogueChoice
	Step int `json:"step" doc:"ticks from note to note"`
}

// CatalogueOption is a choice with a line on what it does.
type CatalogueOption struct {
	CatalogueChoice
	About string `json:"about"`
}

// CatalogueStep is how much is asked at once.
type CatalogueStep struct {
	Name   string `json:"name"`
	Played bool   `json:"played" doc:"it asks for a rhythm, which only playing has"`
}

// CatalogueForm is a form players know by name.
type CatalogueForm struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Minor bool   `json:"minor"`
	About string `json:"about"`
	Text  string `json:"text" doc:"in numerals"`
}

// CatalogueTurnaround fills the last two bars.
type CatalogueTurnaround struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Minor  bool   `json:"minor"`
	Ending bool   `json:"ending"`
	Text   string `json:"text" doc:"in numerals"`
}

// CataloguePalette is a stock of notes.
type CataloguePalette struct {
	CatalogueChoice
	Steps []string `json:"steps" doc:"from its root; none where they depend on the chord"`
}

// CatalogueFeel is how the band counts.
type CatalogueFeel struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Tempo int     `json:"tempo"`
	Swing float64 `json:"swing" doc:"where the second eighth falls in its beat"`
	Bass  string  `json:"bass" doc:"how its bass plays, of the basses"`
	Word  string  `json:"word" doc:"the style of a line that fits it"`

	Swings []float64 `json:"swings" doc:"the swing at 30 beats a minute, at 40 and so on: it follows the tempo"`
}

// CatalogueTuning is a known list of open strings.
type CatalogueTuning struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Open  string  `json:"open"`
	Scale float64 `json:"scale"`
	Frets int     `json:"frets"`
}

// CatalogueMode is a way to practise over the band.
type CatalogueMode struct {
	CatalogueOption
	Stages     []string `json:"stages" doc:"what each pass asks for; the last stays"`
	DropChords bool     `json:"dropChords" doc:"the band leaves the chords out in every other chorus"`
	Writes     bool     `json:"writes" doc:"what is to be played is written down"`
	With       string   `json:"with,omitempty" enum:"lick,line" doc:"it is made of one that is kept"`
	Most       int      `json:"most,omitempty" doc:"choruses one after the other that are enough for a hand"`
	Easier     string   `json:"easier,omitempty" doc:"what may be asked instead, easier on the hand"`
}

// CatalogueAim is a kind of aim.
type CatalogueAim struct {
	ID    string   `json:"id"`
	Name  string   `json:"name"`
	Of    string   `json:"of,omitempty" enum:"chart,line,exercise" doc:"what it is about; nothing that is kept where it is not said"`
	Asks  []string `json:"asks" enum:"mode,key,degree,percent,tempo" doc:"what can be asked for, beside how often"`
	Adds  bool     `json:"adds" doc:"what is done adds up; else so many tries in a row are asked for"`
	Unit  string   `json:"unit" doc:"of how often"`
	Most  int      `json:"most" doc:"of how often"`
	Usual AimBody  `json:"usual" doc:"as it begins"`
}

// CatalogueWord is a style in one word.
type CatalogueWord struct {
	CatalogueOption
	Spice      map[string]int `json:"spice" doc:"of each taste, 0 to 10"`
	Density    int            `json:"density"`
	Phrasing   string         `json:"phrasing"`
	ChordTones bool           `json:"chordTones,omitempty"`
}

// CatalogueWay is a way to play a note.
type CatalogueWay struct {
	Field  string           `json:"field" doc:"of the note, that it sets"`
	Name   string           `json:"name"`
	Key    string           `json:"key" doc:"that enters it"`
	On     string           `json:"on,omitempty" doc:"the field it is a part of"`
	Adorns bool             `json:"adorns,omitempty" doc:"the plain level of a line is without it"`
	Values []CatalogueValue `json:"values" doc:"what the key goes through"`
}

// CatalogueValue is one of the ways a way can be, and in words.
type CatalogueValue struct {
	Is   any    `json:"is" doc:"what the field is then"`
	Name string `json:"name,omitempty"`
}

func (s *server) catalogue(api huma.API) {
	all := catalogue()
	get(s, api, "/api/catalogue", "catalogue", "Forms, turnarounds, feels, keys, tunings, palettes and threads to choose from",
		func(_ context.Context, _ *struct{}) (Catalogue, error) { return all, nil })
}

func catalogue() (c Catalogue) {
	for _, f := range form.Forms {
		c.Forms = append(c.Forms, CatalogueForm{f.ID, f.Name, f.Minor, f.About, f.Text})
	}
	for _, t := range form.Turnarounds {
		c.Turnarounds = append(c.Turnarounds, CatalogueTurnaround(t))
	}
	for _, f := range form.Feels {
		g, _ := band.GrooveOf(f.ID)
		var swings []float64
		for tempo := form.MinTempo; tempo <= form.MaxTempo; tempo += 10 {
			swings = append(swings, g.SwingAt(tempo))
		}
		c.Feels = append(c.Feels, CatalogueFeel{f.ID, f.Name, f.Tempo, g.Swing, g.BassName(), line.WordFor(f.ID), swings})
	}
	for _, r := range pitch.Roots {
		c.Tonics = append(c.Tonics, r.String())
	}
	for _, p := range blend.Palettes {
		c.Palettes = append(c.Palettes, CataloguePalette{CatalogueChoice{p.ID, p.Name}, strings.Fields(p.Steps)})
	}
	c.Steps = blend.Steps
	for _, m := range crossing.Modes {
		c.Threads = append(c.Threads, CatalogueChoice{m.ID, m.Name})
	}
	c.Basses = each(band.Basses, func(b band.Bass) CatalogueChoice { return CatalogueChoice{b.ID, b.Name} })
	c.Clicks = each(band.Clicks, func(k band.Click) CatalogueChoice { return CatalogueChoice{k.ID, k.Name} })
	c.Arcs = each(band.Arcs, func(a band.Arc) CatalogueOption { return CatalogueOption{CatalogueChoice{a.ID, a.Name}, a.About} })
	c.Courses = each(band.Courses, func(a band.Course) CatalogueOption { return CatalogueOption{CatalogueChoice{a.ID, a.Name}, a.About} })
	c.Intros = each(band.Intros, func(a band.Intro) CatalogueOption { return CatalogueOption{CatalogueChoice{a.ID, a.Name}, a.About} })
	c.Endings = each(band.Endings, func(a band.Ending) CatalogueOption { return CatalogueOption{CatalogueChoice{a.ID, a.Name}, a.About} })
	for _, p := range band.Compers {
		c.Compers = append(c.Compers, CatalogueChoice{p.ID, p.Name})
	}
	option := func(o line.Option) CatalogueOption { return CatalogueOption{CatalogueChoice{o.ID, o.Name}, o.About} }
	c.Rhythms = append(c.Rhythms, CatalogueOption{CatalogueChoice{line.OwnRhythm, "as the word and the feel say"}, "short calls in a box, long lines in jazz, threes in 12/8"})
	for _, r := range line.Rhythms {
		c.Rhythms = append(c.Rhythms, option(r.Option))
	}
	for _, x := range line.Contours {
		c.Contours = append(c.Contours, option(x.Option))
	}
	for _, r := range form.Readings {
		c.Readings = append(c.Readings, CatalogueOption{CatalogueChoice{r.ID, r.Name}, r.About})
	}
	for _, k := range line.Connectors {
		c.Connectors = append(c.Connectors, option(k.Option))
	}
	for _, p := range line.Pickings {
		c.Pickings = append(c.Pickings, option(p.Option))
	}
	for _, k := range line.Closings {
		c.Closings = append(c.Closings, option(k.Option))
	}
	for _, p := range line.Phrasings {
		c.Phrasings = append(c.Phrasings, option(p))
	}
	for _, x := range line.Words {
		w := CatalogueWord{option(x.Option), map[string]int{}, x.Density, x.Phrasing, x.ChordTones}
		for _, t := range line.Tastes {
			w.Spice[t.ID] = t.Of(x.Spice)
		}
		c.Words = append(c.Words, w)
	}
	for _, x := range line.Tastes {
		c.Tastes = append(c.Tastes, CatalogueOption{CatalogueChoice{x.ID, x.Name}, x.About})
	}
	c.Layers = each(chart.Layers, func(l chart.Layer) CatalogueChoice { return CatalogueChoice{l.ID, l.Name} })
	for _, d := range exercise.Drills {
		c.Drills = append(c.Drills, CatalogueDrill{CatalogueOption{CatalogueChoice{d.ID, d.Name}, d.About}, d.Group, d.Words, d.Offers(), d.Cell})
	}
	for _, g := range exercise.Groups {
		c.DrillGroups = append(c.DrillGroups, CatalogueChoice{g.ID, g.Name})
	}
	for _, p := range exercise.Paces {
		c.Paces = append(c.Paces, CataloguePace{CatalogueChoice{p.ID, p.Name}, p.Step})
	}
	for _, x := range exercise.Choices {
		c.Choices = append(c.Choices, CatalogueAsk{CatalogueChoice{x.ID, x.Name}, x.Kind,
			each(x.Options, func(o exercise.Option) CatalogueChoice { return CatalogueChoice{o.ID, o.Name} }), x.Needs})
	}
	for _, r := range line.Rules {
		c.Rests = append(c.Rests, CatalogueChoice{r.ID, r.Name})
	}
	c.RestPlaces = each(line.Places, func(p line.Place) CatalogueChoice { return CatalogueChoice{p.ID, p.Name} })
	for _, k := range call.Kinds {
		c.Calls = append(c.Calls, CatalogueOption{CatalogueChoice{k.ID, k.Name}, k.About})
	}
	c.CallSteps = each(call.Steps, func(k call.Step) CatalogueStep { return CatalogueStep{k.Name, k.Played} })
	c.CallOrders = each(call.Orders, func(o call.Order) CatalogueChoice { return CatalogueChoice{o.ID, o.Name} })
	c.CallDevices = each(call.Devices, func(d call.Device) CatalogueChoice { return CatalogueChoice{d.ID, d.Name} })
	c.CallPaces = each(call.Paces, func(p call.Pace) CatalogueChoice { return CatalogueChoice{p.ID, p.Name} })
	for _, m := range practice.Modes {
		c.Modes = append(c.Modes, CatalogueMode{CatalogueOption{CatalogueChoice{m.ID, m.Name}, m.Says}, each(m.Stages, func(s practice.Stage) string { return s.Says }), m.DropChords, m.Writes(), string(m.With), m.Most, m.Easier})
	}
	for _, k := range planner.AimKinds {
		u := k.Usual
		c.Aims = append(c.Aims, CatalogueAim{k.ID, k.Name, k.Of, append([]string{}, k.Asks...), k.Adds, k.Unit, k.Most,
			AimBody{Kind: k.ID, Mode: u.Mode, Degree: u.Degree, Percent: int(100*u.Part + 0.5), Times: u.Times}})
	}
	c.Degrees = planner.Degrees
	for _, w := range score.Ways {
		way := CatalogueWay{Field: w.ID, Name: w.Name, Key: w.Key, On: w.On, Adorns: w.Adorns}
		for _, v := range w.Values {
			way.Values = append(way.Values, CatalogueValue{v.Is, v.Name})
		}
		c.Ways = append(c.Ways, way)
	}
	for _, t := range neck.Tunings {
		c.Tunings = append(c.Tunings, CatalogueTuning{t.ID, t.Name, t.Open, t.Scale, t.Frets})
	}
	return c
}
