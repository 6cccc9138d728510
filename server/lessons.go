package server

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/segmentio/encoding/json"

	"undaris/core/planner"
	"undaris/core/say"
	"undaris/store"
)

// Lesson is an assignment as a player sees it: made or given, with how far it is.
type Lesson struct {
	ID        uint            `json:"id"`
	Given     bool            `json:"given" doc:"it came as a file; else it was made here"`
	Title     string          `json:"title"`
	From      string          `json:"from"`
	Words     string          `json:"words"`
	Made      time.Time       `json:"made"`
	Since     time.Time       `json:"since" doc:"that it is here"`
	Charts    []LessonThing   `json:"charts"`
	Licks     []LessonThing   `json:"licks"`
	Lines     []LessonThing   `json:"lines"`
	Exercises []LessonThing   `json:"exercises" doc:"the lines that they became"`
	Aims      []LessonAim     `json:"aims"`
	Said      []string        `json:"said" doc:"what was left out when it was opened, and why"`
	Results   []LessonResults `json:"results" doc:"that came back, the newest first"`
}

// LessonThing is a chart, lick or line of an assignment.
type LessonThing struct {
	ID    uint   `json:"id"`
	Title string `json:"title"`
	Gone  bool   `json:"gone" doc:"it was left out, or deleted since"`
}

// LessonAim is an aim with how far it is.
type LessonAim struct {
	AimBody
	Says  string `json:"says" doc:"the aim in a sentence"`
	Thing uint   `json:"thing,omitempty" doc:"the chart or line it is about, by its number here"`
	AimProgress
}

// AimProgress is how far an aim is.
type AimProgress struct {
	Reached bool       `json:"reached"`
	Tries   int        `json:"tries"`
	Best    float64    `json:"best" doc:"of 1; of minutes, how many"`
	Row     int        `json:"row" doc:"the longest run in a row that reached it"`
	Last    *time.Time `json:"last,omitempty" doc:"of the tries"`
}

func progressOf(p planner.Progress) AimProgress {
	out := AimProgress{Reached: p.Reached, Tries: p.Tries, Best: p.Best, Row: p.Row}
	if p.Tries > 0 {
		out.Last = &p.Last
	}
	return out
}

// LessonResults are results that came back.
type LessonResults struct {
	ID uint `json:"id"`
	Results
}

// LessonRow is an assignment in a list.
type LessonRow struct {
	ID      uint      `json:"id"`
	Given   bool      `json:"given"`
	Title   string    `json:"title"`
	From    string    `json:"from"`
	Since   time.Time `json:"since"`
	Aims    int       `json:"aims"`
	Reached int       `json:"reached"`
	Results int       `json:"results" doc:"that came back"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

// LessonBody is what a teacher says of an assignment.
type LessonBody struct {
	Title     string             `json:"title" maxLength:"120"`
	Words     string             `json:"words,omitempty" maxLength:"4000"`
	Charts    []uint             `json:"charts,omitempty" maxItems:"60" doc:"by number"`
	Licks     []uint             `json:"licks,omitempty" maxItems:"200"`
	Lines     []uint             `json:"lines,omitempty" maxItems:"60"`
	Exercises []AssignedExercise `json:"exercises,omitempty" maxItems:"60"`
	Aims      []AimBody          `json:"aims,omitempty" maxItems:"60"`
}

// compose makes the document of what a teacher says.
func (s *server) compose(b LessonBody, from string) (d Assignment, err error) {
	d = Assignment{Kind: assignmentKind, Version: documentVersion, Ref: reference(), Title: clean(b.Title), From: from, Words: b.Words, Made: time.Now().UTC().Truncate(time.Second), Exercises: b.Exercises, Aims: b.Aims}
	if d.Title == "" {
		return d, at("body.title", b.Title, errors.New("an assignment needs a title"))
	}
	for _, id := range b.Charts {
		c, err := s.chart(id)
		if err != nil {
			return d, err
		}
		d.Charts = append(d.Charts, wireChart(c).ChartBody)
	}
	for _, id := range b.Licks {
		l, err := s.store.Lick(id)
		if err != nil {
			return d, missing("lick", err)
		}
		d.Licks = append(d.Licks, lickBody(l))
	}
	for _, id := range b.Lines {
		l, err := s.store.Line(id)
		if err != nil {
			return d, missing("line", err)
		}
		d.Lines = append(d.Lines, wireLine(l).LineBody)
	}
	return d, nil
}

// keep keeps an assignment of whose turn it is.
func (s *server) keep(ctx context.Context, d Assignment, text []byte, given bool, said []string) (Lesson, error) {
	known, err := json.Marshal(d)
	if err != nil {
		return Lesson{}, err
	}
	player, err := s.store.Player()
	if err != nil {
		return Lesson{}, err
	}
	here, left := s.put(ctx, d)
	here.Said = append(said, left...)
	for i, b := range d.Aims {
		if b.Kind == "" {
			continue
		}
		if _, _, err := d.aim(b, here); err != nil {
			here.Said = append(here.Said, say.F("aim %d is left out: %v", i+1, err))
		}
	}
	if !given && len(here.Said) > 0 {
		return Lesson{}, at("body", nil, errors.New(here.Said[0]))
	}
	a := store.Assignment{Player: player.ID, Given: given, Ref: d.Ref, Document: string(text), Known: string(known), Things: here}
	if err := s.store.CreateAssignment(&a); err != nil {
		return Lesson{}, err
	}
	return s.lesson(a)
}

// open takes in an assignment that came as a file.
func (s *server) open(ctx context.Context, api huma.API, data []byte) (Lesson, error) {
	d, said, err := document[Assignment](api, data, assignmentKind)
	if err != nil {
		return Lesson{}, err
	}
	player, err := s.store.Player()
	if err != nil {
		return Lesson{}, err
	}
	known, err := s.store.AssignmentsOf(d.Ref)
	if err != nil {
		return Lesson{}, err
	}
	for _, a := range known {
		if a.Player == player.ID {
			l, err := s.lesson(a)
			l.Said = append([]string{say.F("%s has it already, since %s", player.Name, a.CreatedAt.Format("2 January 2006"))}, l.Said...)
			return l, err
		}
	}
	return s.keep(ctx, d, data, true, said)
}

// written is the document of an assignment, as far as it is known.
func written(a store.Assignment) (d Assignment, err error) {
	return d, json.Unmarshal([]byte(a.Known), &d)
}

// aims are those of an assignment that can be used, with how far they are by the log of whose turn it is.
func (s *server) aims(d Assignment, a store.Assignment) (list []LessonAim, err error) {
	list = []LessonAim{}
	err = s.picture(func(*planner.Picture) error {
		for _, b := range d.Aims {
			aim, says, err := d.aim(b, a.Things)
			if b.Kind == "" || err != nil {
				continue // said when it was opened
			}
			far, err := s.progress(aim, a.Since)
			if err != nil {
				return err
			}
			list = append(list, LessonAim{b, says, cmp.Or(aim.Chart, aim.Line), progressOf(far)})
		}
		return nil
	})
	return list, err
}

// lesson is an assignment as it is seen.
func (s *server) lesson(a store.Assignment) (Lesson, error) {
	d, err := written(a)
	if err != nil {
		return Lesson{}, problem(http.StatusConflict, "this assignment cannot be read any more")
	}
	aims, err := s.aims(d, a)
	if err != nil {
		return Lesson{}, err
	}
	l := Lesson{ID: a.ID, Given: a.Given, Title: d.Title, From: d.From, Words: d.Words, Made: d.Made, Since: a.CreatedAt, Aims: aims, Said: words(a.Things.Said), Results: []LessonResults{}}
	things := func(ids []uint, title func(int) string, there func(uint) error) []LessonThing {
		list := []LessonThing{}
		for i, id := range ids {
			list = append(list, LessonThing{id, title(i), id == 0 || there(id) != nil})
		}
		return list
	}
	line := func(id uint) error { _, err := s.store.Line(id); return err }
	l.Charts = things(a.Things.Charts, func(i int) string { return d.Charts[i].Title }, func(id uint) error { _, err := s.store.Chart(id); return err })
	l.Licks = things(a.Things.Licks, func(i int) string { return d.Licks[i].Title }, func(id uint) error { _, err := s.store.Lick(id); return err })
	l.Lines = things(a.Things.Lines, func(i int) string { return d.Lines[i].Title }, line)
	l.Exercises = things(a.Things.Exercises, func(i int) string { return d.Exercises[i].Title }, line)
	results, err := s.store.ResultsOf(a.ID)
	if err != nil {
		return l, err
	}
	for _, r := range results {
		var doc Results
		if json.Unmarshal([]byte(r.Document), &doc) == nil {
			l.Results = append(l.Results, LessonResults{r.ID, doc})
		}
	}
	return l, nil
}

// mine finds an assignment of whose turn it is.
func (s *server) mine(id uint) (store.Assignment, error) {
	player, err := s.store.Player()
	if err != nil {
		return store.Assignment{}, err
	}
	a, err := s.store.Assignment(id)
	if err == nil && a.Player != player.ID {
		err = store.ErrNotFound
	}
	return a, missing("assignment", err)
}

func (s *server) lessons(api huma.API) {
	get(s, api, "/api/assignments", "assignments", "What a player was set, and set others; the newest first",
		func(context.Context, *struct{}) ([]LessonRow, error) {
			player, err := s.store.Player()
			if err != nil {
				return nil, err
			}
			all, err := s.store.Assignments(player.ID)
			if err != nil {
				return nil, err
			}
			return each(all, func(a store.Assignment) LessonRow {
				row := LessonRow{ID: a.ID, Given: a.Given, Since: a.CreatedAt}
				l, err := s.lesson(a)
				if err != nil {
					row.Problem = err.Error()
					return row
				}
				row.Title, row.From, row.Aims, row.Results = l.Title, l.From, len(l.Aims), len(l.Results)
				for _, aim := range l.Aims {
					if aim.Reached {
						row.Reached++
					}
				}
				return row
			}), nil
		})
	get(s, api, "/api/assignments/{id}", "assignment", "One assignment, with how far it is",
		func(_ context.Context, in *ByID) (Lesson, error) {
			a, err := s.mine(in.ID)
			if err != nil {
				return Lesson{}, err
			}
			return s.lesson(a)
		})
	register(s, api, operation(http.MethodPost, "/api/assignments", "make-assignment", "Make an assignment", http.StatusCreated),
		body(queued(s, func(ctx context.Context, in *struct{ Body LessonBody }) (Lesson, error) {
			player, err := s.store.Player()
			if err != nil {
				return Lesson{}, err
			}
			d, err := s.compose(in.Body, player.Name)
			if err != nil {
				return Lesson{}, err
			}
			text, err := json.Marshal(d)
			if err != nil {
				return Lesson{}, err
			}
			return s.keep(ctx, d, text, false, nil)
		})))
	register(s, api, operation(http.MethodPost, "/api/assignments/open", "open-assignment", "Take in an assignment that came as a file", http.StatusCreated),
		body(queued(s, func(ctx context.Context, in *struct {
			RawBody []byte `contentType:"application/octet-stream"`
		}) (Lesson, error) {
			return s.open(ctx, api, in.RawBody)
		})))
	deliver(s, api, "/api/assignments/{id}/file", "assignment-file", "An assignment as a file", "application/json",
		func(_ context.Context, in *ByID) (download, error) {
			a, err := s.mine(in.ID)
			if err != nil {
				return download{}, err
			}
			d, err := written(a)
			if err != nil {
				return download{}, err
			}
			return file("application/json", d.Title, "undaris.json", readable([]byte(a.Document))), nil
		})
	deliver(s, api, "/api/assignments/{id}/results", "results-file", "What came of an assignment, as a file", "application/json",
		func(_ context.Context, in *struct {
			ByID
			Words string `query:"words" maxLength:"2000" doc:"of the pupil"`
		}) (download, error) {
			a, err := s.mine(in.ID)
			if err != nil {
				return download{}, err
			}
			r, err := s.results(a, in.Words)
			if err != nil {
				return download{}, err
			}
			text, err := json.Marshal(r)
			return file("application/json", r.Title+" results", "undaris.json", readable(text)), err
		})
	register(s, api, operation(http.MethodPost, "/api/assignments/results", "read-results", "Read results that came back as a file", http.StatusCreated),
		body(queued(s, func(_ context.Context, in *struct {
			RawBody []byte `contentType:"application/octet-stream"`
		}) (Lesson, error) {
			return s.readResults(api, in.RawBody)
		})))
	register(s, api, operation(http.MethodDelete, "/api/assignments/{id}", "delete-assignment", "Delete an assignment; it can be restored", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) {
			if _, err := s.mine(in.ID); err != nil {
				return struct{}{}, err
			}
			return struct{}{}, missing("assignment", s.store.DeleteAssignment(in.ID))
		})
	register(s, api, operation(http.MethodPost, "/api/assignments/{id}/restore", "restore-assignment", "Take a deletion back", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) {
			player, err := s.store.Player()
			if err != nil {
				return struct{}{}, err
			}
			return struct{}{}, missing("assignment", s.store.RestoreAssignment(player.ID, in.ID))
		})
}

// set are parts of a plan: what is asked of whose turn it is, and not reached yet.
func (s *server) set(now *planner.Picture) ([]planner.Item, error) {
	all, err := s.store.Assignments(s.journal.player)
	if err != nil {
		return nil, err
	}
	var list []planner.Item
	for _, a := range slices.Backward(all) { // what was set first comes first
		d, err := written(a)
		if err != nil || !a.Given {
			continue
		}
		for i, b := range d.Aims {
			aim, says, err := d.aim(b, a.Things)
			if b.Kind == "" || err != nil {
				continue
			}
			far, err := s.progress(aim, a.Since)
			if err != nil {
				return nil, err
			}
			if item, ok := now.Model.Set(aim, far, say.F("set %d %d", a.ID, i+1), says, d.From, time.Now()); ok {
				list = append(list, item)
			}
		}
	}
	return list, nil
}
