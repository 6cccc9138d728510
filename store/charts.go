package store

import (
	"database/sql"
	"encoding/json"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"

	"undaris/core/form"
	"undaris/core/neck"
)

// Chart is a progression to play over.
type Chart struct {
	Kept
	Title    string
	Key      string // as form.ParseKey reads it
	Feel     string // an ID of form.Feels
	Tempo    int    // beats a minute
	Swing    int    // where the second eighth falls in its beat, percent; 0 follows the tempo
	Intro    string // an ID of band.Intros; none where nothing is said
	Ending   string // an ID of band.Endings
	Reading  string // an ID of form.Readings, in which pitch it is read; none where it is as it sounds
	Beats    int    // in a bar
	Text     string // as form.ReadSong reads it, in chord symbols
	Remarks  string // the player's own, for the band or for practice
	Tags     string // words to find it by, with commas between
	Bars     int    // that the text has
	Lengths  []int  `gorm:"column:bar_lengths;serializer:json"` // the beats of each, where they differ
	Chords   string // the different ones, in the order they come, for a list
	Plan     Plan   `gorm:"serializer:json"`
	OpenedAt *time.Time
}

func (c *Chart) derive() {
	p := played(c.Text, c.Beats, c.Key)
	c.Bars, c.Chords = gist(p)
	c.Lengths = listed(p.Lengths())
}

// most is how many chords a list tells.
const most = 24

// played is what a text says; nothing where it cannot be read.
func played(text string, beats int, key string) form.Progression {
	k, err := form.ParseKey(key)
	if err != nil {
		return form.Progression{}
	}
	p, _ := form.Read(text, beats, k)
	return p
}

// gist counts the bars of a progression and lists its chords.
func gist(p form.Progression) (bars int, chords string) {
	var list []string
	for _, place := range p.Places() {
		if symbol := place.Chord.String(); len(list) < most && !slices.Contains(list, symbol) {
			list = append(list, symbol)
		}
	}
	return len(p.Bars), strings.Join(list, " ")
}

// Plan is what the player has decided about a chart. Empty fields mean the
// defaults.
type Plan struct {
	Picks    []Pick              `json:"picks,omitempty" maxItems:"1000" doc:"places chosen where a pitch can be had in two"`
	Palette  string              `json:"palette,omitempty" maxLength:"40" doc:"of the catalogue"`
	Targets  []string            `json:"targets,omitempty" maxItems:"5" enum:"root,third,fifth,seventh,extension" doc:"roles, most wanted first"`
	Nearest  bool                `json:"nearest,omitempty" doc:"crossings are ranked by distance"`
	Thread   string              `json:"thread,omitempty" maxLength:"40" doc:"of the catalogue"`
	Allowed  map[string][]string `json:"allowed,omitempty" maxProperties:"100" doc:"roles by numeral (IV7: third), in place of the thread's"`
	Strings  string              `json:"strings,omitempty" maxLength:"20" doc:"that the thread lies on, such as 5,2; all where none is said"`
	Pins     []Pin               `json:"pins,omitempty" maxItems:"10000" doc:"targets chosen by hand"`
	Imagined *Imagined           `json:"imagined,omitempty" doc:"bars that only the soloist follows"`
	Boxes    []BoxTurn           `json:"boxes,omitempty" maxItems:"10000" doc:"of two joined boxes the one to be in, chosen by hand"`
}

// BoxTurn is the box to be in from a chord on, chosen by hand.
type BoxTurn struct {
	Bar  int    `json:"bar" minimum:"1" maximum:"1024" doc:"from 1"`
	Beat int    `json:"beat" minimum:"1" maximum:"12" doc:"from 1"`
	Box  string `json:"box" enum:"minor,major"`
}

// Frets are those of the window that something was chosen in.
type Frets struct {
	Low  int `json:"low" minimum:"0" maximum:"27"`
	High int `json:"high" minimum:"0" maximum:"27"`
}

// Region is the same on every string.
func (f Frets) Region() neck.Region { return neck.Region{Low: f.Low, High: f.High} }

// Spot is a place on the neck.
type Spot struct {
	String int `json:"string" minimum:"1" maximum:"8"`
	Fret   int `json:"fret" minimum:"0" maximum:"27"`
}

// Pick is a place chosen in a window.
type Pick struct {
	Frets
	Spot
}

// Pin is a target chosen in a window for the chord that begins on a beat.
type Pin struct {
	Frets
	Bar  int `json:"bar" minimum:"1" maximum:"1024" doc:"from 1"`
	Beat int `json:"beat" minimum:"1" maximum:"12" doc:"from 1"`
	Spot
}

// Imagined is a stretch of bars that the soloist thinks and the band does not play.
type Imagined struct {
	Bar  int    `json:"bar" minimum:"1" maximum:"1024"` // the first, from 1
	Text string `json:"text" maxLength:"60000"`         // as form.Read reads it
}

// ChartSummary is a chart in a list. Problem says why it cannot be read.
type ChartSummary struct {
	ID               uint
	Tag              Tag
	Title, Key, Feel string
	Chords, Tags     string
	Lengths          []int
	Tempo, Swing     int
	Beats, Bars      int
	UpdatedAt        time.Time
	Problem          string
}

// Charts lists charts, the one opened last first.
func (s *Store) Charts(p Page) ([]ChartSummary, error) {
	return summaries(s, charted, p,
		func(r *sql.Rows, c *ChartSummary) error {
			var lengths []byte
			if err := r.Scan(&c.ID, &c.Title, &c.Tag, &c.Key, &c.Feel, &c.Tempo, &c.Swing, &c.Beats, &c.Bars, &lengths, &c.Chords, &c.Tags, &c.UpdatedAt); err != nil {
				return err
			}
			return json.Unmarshal(lengths, &c.Lengths)
		},
		func(id uint, title, says string) ChartSummary {
			return ChartSummary{ID: id, Title: title, Problem: says}
		})
}

// CountCharts is how many charts there are, or are found.
func (s *Store) CountCharts(p Page) (int, error) { return s.count(charted, p) }

// Chart finds one.
func (s *Store) Chart(id uint) (Chart, error) { return one[Chart](s, id) }

// CreateChart stores a new chart and gives it its number and version.
func (s *Store) CreateChart(c *Chart) error { return create[Chart](s, c) }

// ChangeChart lets do alter what a player says of a chart, and its plan.
func (s *Store) ChangeChart(id uint, match Tag, do func(*Chart) error) (Chart, error) {
	return change(s, id, match, []any{"title", "key", "feel", "tempo", "swing", "intro", "ending", "reading", "beats", "text", "remarks", "tags", "bars", "bar_lengths", "chords", "plan"}, do)
}

// ChangePlan lets do alter the plan of a chart, and nothing else.
func (s *Store) ChangePlan(id uint, match Tag, do func(*Chart) error) (Chart, error) {
	return change(s, id, match, []any{"plan"}, do)
}

// OpenChart notes that the player opened a chart. It is no change of it.
func (s *Store) OpenChart(id uint, at time.Time) error {
	return s.write(func(tx *gorm.DB) error {
		done := tx.Model(&Chart{}).Where("id = ?", id).UpdateColumn("opened_at", at)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}

// DeleteChart marks a chart as deleted.
func (s *Store) DeleteChart(id uint, match Tag) error { return remove[Chart](s, id, match) }

// RestoreChart takes a deletion back. A chart that is not deleted stays as it is.
func (s *Store) RestoreChart(id uint) (Chart, error) { return restore[Chart](s, id) }
