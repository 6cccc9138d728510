package server

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/say"
	"undaris/store"
)

// ChartBody is what a player says of a chart.
type ChartBody struct {
	Title  string `json:"title" maxLength:"120"`
	Key    string `json:"key" maxLength:"10"`
	Feel   string `json:"feel" maxLength:"40"`
	Tempo  int    `json:"tempo" doc:"beats a minute, 30 to 300"`
	Swing  int    `json:"swing,omitempty" doc:"where the second eighth falls in its beat, in percent, 50 to 75; 0 follows the tempo"`
	Intro  string `json:"intro,omitempty" maxLength:"20" doc:"how the band leads into the first chorus, of the catalogue's; none where it is not said"`
	Ending string `json:"ending,omitempty" maxLength:"20" doc:"how the band stops, of the catalogue's"`
	Beats  int    `json:"beats" doc:"in a bar, 2 to 12"`
	// behind a capo, or for a transposing instrument
	Reading string `json:"reading,omitempty" maxLength:"20" doc:"in which pitch it is read, of the catalogue's; none is as it sounds"`
	Text    string `json:"text" maxLength:"60000" doc:"| C7 | F7 | C7 | % |"`

	Remarks string `json:"remarks,omitempty" maxLength:"4000" doc:"the player's own, for the band or for practice"`
	Tags    string `json:"tags,omitempty" maxLength:"200" doc:"words to find it by, with commas between"`
}

// Chart is a stored chart.
type Chart struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version" doc:"its ETag, without the quotes"`
	ChartBody
	Plan     store.Plan `json:"plan"`
	Bars     int        `json:"bars"`
	Lengths  []int      `json:"lengths,omitempty" doc:"the beats of each bar as it is played, where they differ"`
	ReadIn   string     `json:"readIn,omitempty" doc:"the key it is read in, where that is another than it sounds in"`
	Capo     int        `json:"capo,omitempty" doc:"the fret of the capo that it is read behind"`
	FeelName string     `json:"feelName"`
	Updated  time.Time  `json:"updated"`
}

// ChartRow is a chart in a list.
type ChartRow struct {
	ID       uint      `json:"id"`
	Version  store.Tag `json:"version"`
	Title    string    `json:"title"`
	Key      string    `json:"key"`
	Feel     string    `json:"feel"`
	FeelName string    `json:"feelName"`
	Tempo    int       `json:"tempo"`
	Swing    int       `json:"swing,omitempty"`
	Beats    int       `json:"beats"`
	Bars     int       `json:"bars"`
	Lengths  []int     `json:"lengths,omitempty" doc:"the beats of each bar as it is played, where they differ"`
	Chords   string    `json:"chords" doc:"the different ones, in the order they come; 24 at most"`
	Tags     string    `json:"tags,omitempty"`
	Updated  time.Time `json:"updated"`
	Problem  string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

func wireChart(c store.Chart) Chart {
	feel, _ := form.FeelByID(c.Feel)
	w := Chart{c.ID, c.Tag, ChartBody{c.Title, c.Key, c.Feel, c.Tempo, c.Swing, c.Intro, c.Ending, c.Beats, c.Reading, c.Text, c.Remarks, c.Tags}, c.Plan, c.Bars, c.Lengths, "", 0, feel.Name, c.UpdatedAt}
	w.ReadIn, w.Capo = readIn(c)
	return w
}

// readIn is the key that a chart is read in, where that is another than it sounds in, and the fret of its capo.
func readIn(c store.Chart) (key string, capo int) {
	as, err := form.ReadingByID(c.Reading)
	sounds, spoiled := form.ParseKey(c.Key)
	if err != nil || spoiled != nil || as.Up == 0 {
		return "", 0
	}
	return as.Key(sounds).String(), as.Capo()
}

func chartRow(c store.ChartSummary) ChartRow {
	feel, _ := form.FeelByID(c.Feel)
	return ChartRow{c.ID, c.Tag, c.Title, c.Key, c.Feel, feel.Name, c.Tempo, c.Swing, c.Beats, c.Bars, c.Lengths, c.Chords, c.Tags, c.UpdatedAt, c.Problem}
}

// progression reads a stored chart.
func progression(c store.Chart) (form.Progression, form.Key, error) {
	key, err := form.ParseKey(c.Key)
	if err != nil {
		return form.Progression{}, key, spoilt("chart", err)
	}
	p, err := form.Read(c.Text, c.Beats, key)
	return p, key, spoilt("chart", err)
}

// spoilt says of a kept thing that it is not what was kept: somebody else has written it.
func spoilt(name string, err error) error {
	if err == nil {
		return nil
	}
	return &store.Fault{Kind: store.Unreadable, Says: "this " + name + " is damaged in the database and cannot be used; it can be deleted, the others are not concerned", Cause: err}
}

// stored checks what a player says and writes the text as Undaris does, so that
// numerals become the chords they are in the key.
func (b ChartBody) stored() (store.Chart, error) {
	c := store.Chart{Title: clean(b.Title), Key: b.Key, Feel: b.Feel, Tempo: b.Tempo, Swing: b.Swing, Intro: b.Intro, Ending: b.Ending, Reading: b.Reading, Beats: b.Beats, Remarks: b.Remarks, Tags: tagWords(b.Tags)}
	if c.Title == "" {
		return c, at("body.title", b.Title, errors.New("a chart needs a title"))
	}
	key, err := readKey("body.key", b.Key)
	if err != nil {
		return c, err
	}
	c.Key = key.String()
	if err := checkPlaying(b.Feel, b.Tempo); err != nil {
		return c, err
	}
	if b.Swing != 0 && (b.Swing < form.MinSwing || b.Swing > form.MaxSwing) {
		return c, at("body.swing", b.Swing, say.Errorf("a swing of %d %%; the second eighth falls from %d %%, which is straight, to %d %%", b.Swing, form.MinSwing, form.MaxSwing))
	}
	if _, err := band.IntroByID(b.Intro); err != nil {
		return c, at("body.intro", b.Intro, err)
	}
	if _, err := band.EndingByID(b.Ending); err != nil {
		return c, at("body.ending", b.Ending, err)
	}
	if as, err := form.ReadingByID(b.Reading); err != nil {
		return c, at("body.reading", b.Reading, err)
	} else if as.Up == 0 {
		c.Reading = ""
	}
	song, _, err := form.ReadSong(b.Text, b.Beats, key)
	var problems form.Problems
	if errors.As(err, &problems) {
		details := make([]error, len(problems))
		for i, p := range problems {
			details[i] = &huma.ErrorDetail{Message: p.Message, Location: "body.text", Value: Problem(p)}
		}
		return c, huma.Error422UnprocessableEntity(problems[0].Message, details...)
	}
	c.Text = song.Text()
	return c, nil
}

// tagWords writes tags evenly: each once, with a comma and a blank between.
func tagWords(text string) string {
	var out []string
	for _, t := range strings.Split(text, ",") {
		if t = clean(t); t != "" && !slices.Contains(out, t) {
			out = append(out, t)
		}
	}
	return strings.Join(out, ", ")
}

// chart finds one.
func (s *server) chart(id uint) (store.Chart, error) {
	c, err := s.store.Chart(id)
	return c, missing("chart", err)
}

func (s *server) charts(api huma.API) {
	k := keeping[ChartBody, store.Chart, store.ChartSummary, Chart, ChartRow]{
		name: "chart", path: "/api/charts", wire: wireChart, row: chartRow, tag: func(c store.Chart) store.Tag { return c.Tag },
		stored: func(_ context.Context, b ChartBody) (store.Chart, error) { return b.stored() },
		put: func(old *store.Chart, now store.Chart) {
			now.Kept, now.Plan, now.OpenedAt = old.Kept, fitted(old.Plan, now), old.OpenedAt
			*old = now
		},
		list: s.store.Charts, count: s.store.CountCharts, one: s.store.Chart, create: s.store.CreateChart,
		change: s.store.ChangeChart, remove: s.store.DeleteChart, restore: s.store.RestoreChart,
	}
	k.serve(s, api)
	register(s, api, operation(http.MethodPut, "/api/charts/{id}/plan", "set-plan", "Save what the player decided about a chart; it is part of the chart and its version", 0),
		func(_ context.Context, in *struct {
			ByID
			Match
			Body store.Plan
		}) (none Versioned[Chart], err error) {
			match, err := in.read()
			if err != nil {
				return none, err
			}
			return k.outcome(s.store.ChangePlan(in.ID, match, func(c *store.Chart) error {
				c.Plan = in.Body
				return checkPlan(in.Body, *c)
			}))
		})
	register(s, api, operation(http.MethodPost, "/api/charts/{id}/opened", "open-chart", "Note that the player opened a chart", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) {
			return struct{}{}, missing("chart", s.store.OpenChart(in.ID, time.Now()))
		})
}
