package server

import (
	"cmp"
	"context"
	"slices"
	"time"

	"github.com/segmentio/encoding/json"

	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/planner"
	"undaris/core/practice"
	"undaris/core/say"
	"undaris/store"
)

// Assignment is what a teacher sets a pupil, as it travels in a file.
type Assignment struct {
	Kind      string             `json:"kind" enum:"undaris assignment"`
	Version   int                `json:"version"`
	Ref       string             `json:"ref" minLength:"1" maxLength:"64" doc:"the same in its results"`
	Title     string             `json:"title" minLength:"1" maxLength:"120"`
	From      string             `json:"from" maxLength:"60"`
	Words     string             `json:"words,omitempty" maxLength:"4000"`
	Made      time.Time          `json:"made"`
	Charts    []ChartBody        `json:"charts,omitempty" maxItems:"60"`
	Licks     []LickBody         `json:"licks,omitempty" maxItems:"200"`
	Lines     []LineBody         `json:"lines,omitempty" maxItems:"60"`
	Exercises []AssignedExercise `json:"exercises,omitempty" maxItems:"60" doc:"written anew on the pupil's own instrument"`
	Aims      []AimBody          `json:"aims,omitempty" maxItems:"60"`
}

// AssignedExercise is an exercise over one of the charts of an assignment.
type AssignedExercise struct {
	Title    string    `json:"title" minLength:"1" maxLength:"120"`
	Chart    int       `json:"chart" minimum:"1" maximum:"60" doc:"which of the charts, from 1"`
	Position int       `json:"position,omitempty" minimum:"0" maximum:"5" doc:"of the key, from 1"`
	Tempo    int       `json:"tempo,omitempty" minimum:"0" maximum:"300" doc:"the chart's where it is not said"`
	Task     DrillBody `json:"task"`
}

// AimBody is what is to be reached. What is left out is not asked for.
type AimBody struct {
	Kind     string `json:"kind" maxLength:"20" doc:"of the catalogue's aims"`
	Chart    int    `json:"chart,omitempty" minimum:"0" maximum:"60" doc:"of changes: which of the charts, from 1"`
	Line     int    `json:"line,omitempty" minimum:"0" maximum:"60" doc:"of a line: which of the lines, from 1"`
	Exercise int    `json:"exercise,omitempty" minimum:"0" maximum:"60" doc:"of an exercise: which of the exercises, from 1"`
	Mode     string `json:"mode,omitempty" maxLength:"40" doc:"of changes: how they are practised"`
	Key      string `json:"key,omitempty" maxLength:"10" doc:"of calls"`
	Degree   string `json:"degree,omitempty" enum:"root,third,fifth,seventh" doc:"of calls: to start from"`
	Tempo    int    `json:"tempo,omitempty" minimum:"0" maximum:"300" doc:"beats a minute at least"`
	Percent  int    `json:"percent,omitempty" minimum:"0" maximum:"100" doc:"of the changes or notes; 100 where it is not said"`
	Times    int    `json:"times,omitempty" minimum:"0" maximum:"6000" doc:"in a row; of minutes: how many"`
	Words    string `json:"words,omitempty" maxLength:"400"`
}

// thing is one of the numbered things of an assignment, which may be left out.
func thing(ids []uint, number int, name string) (uint, error) {
	if number < 1 || number > len(ids) {
		return 0, say.Errorf("it speaks of %s %d, which is not there", name, number)
	}
	if ids[number-1] == 0 {
		return 0, say.Errorf("%s %d is left out", name, number)
	}
	return ids[number-1], nil
}

// aim makes an aim of what a document says, with what its things are here. says tells
// it in a sentence.
func (d Assignment) aim(b AimBody, here store.Things) (a planner.Aim, says string, err error) {
	kind, err := planner.AimKindByID(b.Kind)
	if err != nil {
		return a, "", at("body.aims.kind", b.Kind, err)
	}
	a = planner.Aim{Kind: kind.ID, Tempo: b.Tempo, Part: float64(b.Percent) / 100, Times: b.Times, Degree: b.Degree}
	of, mode := "", ""
	switch kind.Of {
	case "chart":
		if a.Chart, err = thing(here.Charts, b.Chart, "chart"); err != nil {
			return a, "", err
		}
		of = d.Charts[b.Chart-1].Title
	case "line":
		if a.Line, err = thing(here.Lines, b.Line, "line"); err != nil {
			return a, "", err
		}
		of = d.Lines[b.Line-1].Title
	case "exercise":
		if a.Line, err = thing(here.Exercises, b.Exercise, "exercise"); err != nil {
			return a, "", err
		}
		of = d.Exercises[b.Exercise-1].Title
	}
	if b.Mode != "" && slices.Contains(kind.Asks, "mode") {
		m, err := practice.ModeByID(b.Mode)
		if err != nil {
			return a, "", err
		}
		a.Mode, mode = m.ID, m.Name
	}
	if slices.Contains(kind.Asks, "key") {
		key, err := readKey("body.key", cmp.Or(b.Key, "C"))
		if err != nil {
			return a, "", err
		}
		a.Key = key.Tonic.Class()
	}
	return a, a.Says(of, mode), nil
}

// put takes the things of a document in: what is here already is taken as it is, what
// cannot be used is left out and said.
func (s *server) put(ctx context.Context, d Assignment) (here store.Things, said []string) {
	use := func(name string, number int, title string, take func() (uint, error)) uint {
		if title == "" { // left out already
			return 0
		}
		id, err := take()
		if err != nil {
			said = append(said, say.F("%s %d, “%s”, is left out: %v", name, number+1, title, err))
			return 0
		}
		return id
	}
	for i, b := range d.Charts {
		here.Charts = append(here.Charts, use("chart", i, b.Title, func() (uint, error) { return s.putChart(b) }))
	}
	for i, b := range d.Licks {
		here.Licks = append(here.Licks, use("lick", i, b.Title, func() (uint, error) { return s.putLick(b) }))
	}
	for i, b := range d.Lines {
		here.Lines = append(here.Lines, use("line", i, b.Title, func() (uint, error) { return s.putLine(ctx, b) }))
	}
	for i, b := range d.Exercises {
		here.Exercises = append(here.Exercises, use("exercise", i, b.Title, func() (uint, error) { return s.putExercise(ctx, d, b, here) }))
	}
	return here, said
}

// same finds what is kept already and is written the same.
func same[S any](list func(store.Page) ([]S, error), named func(S) (id uint, title string), whole func(uint) (any, error), title string, want any) (uint, error) {
	rows, err := list(store.All)
	if err != nil {
		return 0, err
	}
	text, err := json.Marshal(want)
	if err != nil {
		return 0, err
	}
	for _, r := range rows {
		id, name := named(r)
		if name != title {
			continue
		}
		is, err := whole(id)
		if err != nil {
			continue // what cannot be read is not the same
		}
		if other, err := json.Marshal(is); err == nil && string(other) == string(text) {
			return id, nil
		}
	}
	return 0, nil
}

func (s *server) putChart(b ChartBody) (uint, error) {
	c, err := b.stored()
	if err != nil {
		return 0, err
	}
	id, err := same(s.store.Charts, func(r store.ChartSummary) (uint, string) { return r.ID, r.Title }, func(id uint) (any, error) {
		c, err := s.store.Chart(id)
		return wireChart(c).ChartBody, err
	}, c.Title, wireChart(c).ChartBody)
	if err != nil || id != 0 {
		return id, err
	}
	err = s.store.CreateChart(&c)
	return c.ID, err
}

func (s *server) putLick(b LickBody) (uint, error) {
	l, err := b.stored()
	if err != nil {
		return 0, err
	}
	id, err := same(s.store.Licks, func(r store.LickSummary) (uint, string) { return r.ID, r.Title }, func(id uint) (any, error) {
		l, err := s.store.Lick(id)
		return lickBody(l), err
	}, l.Title, lickBody(l))
	if err != nil || id != 0 {
		return id, err
	}
	err = s.store.CreateLick(&l)
	return l.ID, err
}

func (s *server) putLine(ctx context.Context, b LineBody) (uint, error) {
	l, err := s.stored(ctx, b)
	if err != nil {
		return 0, err
	}
	id, err := same(s.store.Lines, func(r store.LineSummary) (uint, string) { return r.ID, r.Title }, func(id uint) (any, error) {
		l, err := s.store.Line(id)
		return wireLine(l).LineBody, err
	}, l.Title, wireLine(l).LineBody)
	if err != nil || id != 0 {
		return id, err
	}
	err = s.store.CreateLine(&l)
	return l.ID, err
}

// putExercise writes an exercise over a chart, on the player's own instrument.
func (s *server) putExercise(ctx context.Context, d Assignment, b AssignedExercise, here store.Things) (uint, error) {
	if _, err := thing(here.Charts, b.Chart, "chart"); err != nil {
		return 0, err
	}
	c := d.Charts[b.Chart-1]
	o, err := s.read(LineBody{LineHead: LineHead{Title: b.Title, Key: c.Key, Feel: c.Feel, Tempo: cmp.Or(b.Tempo, c.Tempo), Beats: c.Beats, Text: c.Text}})
	if err != nil {
		return 0, err
	}
	for _, p := range o.In.Positions(o.Key.Tonic.Class()) {
		if p.Number == b.Position {
			o.Region = p.Region
			break
		}
	}
	task, err := b.Task.task()
	if err != nil {
		return 0, err
	}
	if err := o.Drill(ctx, task); err != nil {
		return 0, err
	}
	return s.putLine(ctx, wireBody(o.Line))
}

// task is the exercise that is asked for. It is an error when a tone to lead into or to land on has no such name.
func (t DrillBody) task() (exercise.Task, error) {
	on := t.Strings
	for s := t.HighStr; len(t.Strings) == 0 && s > 0 && s <= t.LowStr; s++ {
		on = append(on, s)
	}
	into, err := harmony.ParseRoles(t.Into)
	if err != nil {
		return exercise.Task{}, err
	}
	land, err := harmony.ParseRoles(t.Land)
	return exercise.Task{Region: neck.Region{Strings: neck.StringsOf(on...)}, Cell: t.Cell, Drill: t.Drill, Pace: t.Pace,
		From: t.From, Order: t.Order, Down: t.Down, Approach: t.Approach, Into: into, Together: t.Together, Octave: t.Octave, Roots: t.Roots,
		Land: land, Beat: t.Beat, Route: t.Route, Burst: t.Burst, Offset: t.Offset, Double: t.Double, Until: t.Until}, err
}
