package store

import (
	"database/sql/driver"
	"fmt"

	"github.com/segmentio/encoding/json"

	"undaris/core/planner"
)

// Trial is planner.Trial as it is kept, without what its entry says.
type Trial struct {
	Key      int     `json:"key"`
	Position int     `json:"position"`
	Quality  string  `json:"quality"`
	Degree   string  `json:"degree"`
	Down     bool    `json:"down,omitempty"`
	Device   string  `json:"device"`
	Chord    string  `json:"chord"`
	From     string  `json:"from,omitempty"`
	String   int     `json:"string,omitempty"`
	Bar      int     `json:"bar,omitempty"`
	Met      string  `json:"met,omitempty"`
	On       string  `json:"on,omitempty"`
	Success  float64 `json:"success"`
	Ms       float64 `json:"ms,omitempty"`
	Timed    bool    `json:"timed,omitempty"`
	By       string  `json:"by,omitempty"`     // of a call: how it was answered
	Wanted   string  `json:"wanted,omitempty"` // of a call that something else was answered to first: the degree that was asked for
	Said     string  `json:"said,omitempty"`   // and what was taken for it
}

// TrialOf is a trial as it is kept.
func TrialOf(t planner.Trial) Trial {
	return Trial{Key: t.Key, Position: t.Position, Quality: t.Quality, Degree: t.Degree, Down: t.Down, Device: t.Device, Chord: t.Chord, From: t.From, String: t.String, Bar: t.Bar,
		Met: t.Met, On: t.On, Success: t.Success, Ms: t.Ms, Timed: t.Timed, By: t.By, Wanted: t.Wanted, Said: t.Said}
}

// Asked are the trials of an entry, with what it says of all of them.
func (e Entry) Asked() []planner.Trial {
	asked := make([]planner.Trial, len(e.Trials))
	for i, t := range e.Trials {
		asked[i] = planner.Trial{Ask: planner.Ask{Key: t.Key, Position: t.Position, Quality: t.Quality, Degree: t.Degree, Down: t.Down, Device: t.Device, Tempo: e.Tempo},
			At: e.At, Entry: e.ID, Chart: e.Chart, Tuning: e.Tuning, Chord: t.Chord, From: t.From, String: t.String, Bar: t.Bar, Met: t.Met, On: t.On, Success: t.Success, Ms: t.Ms, Timed: t.Timed, By: t.By, Wanted: t.Wanted, Said: t.Said}
	}
	return asked
}

// Played is an entry as far as aims are concerned.
func (e Entry) Played() planner.Played {
	return planner.Played{Entry: e.ID, At: e.At, Chart: e.Chart, Line: e.Line, Lick: e.Lick, Call: e.Kind == LoggedCall, Tempo: e.Tempo, Seconds: e.Seconds, Notes: e.Notes, Good: e.Good, Trials: e.Asked()}
}

// Trials are those of a line of the log. They are kept as lists of what they hold, in the order of
// Trial's fields, since names would be two thirds of a log; named ones, as they were kept before, are read too.
type Trials []Trial

func (t *Trial) fields() []any {
	return []any{&t.Key, &t.Position, &t.Quality, &t.Degree, &t.Down, &t.Device, &t.Chord, &t.From, &t.String, &t.Bar, &t.Met, &t.On, &t.Success, &t.Ms, &t.Timed, &t.By, &t.Wanted, &t.Said}
}

// fewer are the fields of a trial as it was kept before it told how a call was answered.
const fewer = 15

// Value is how trials are kept.
func (ts Trials) Value() (driver.Value, error) {
	list := make([][]any, len(ts))
	for i := range ts {
		list[i] = ts[i].fields()
	}
	text, err := json.Marshal(list)
	return string(text), err
}

// Scan reads trials as they are kept.
func (ts *Trials) Scan(from any) error {
	var text []byte
	switch from := from.(type) {
	case string:
		text = []byte(from)
	case []byte:
		text = from
	default:
		return fmt.Errorf("trials are kept as text, not as %T", from)
	}
	var list []json.RawMessage
	if err := json.Unmarshal(text, &list); err != nil {
		return err
	}
	*ts = make(Trials, len(list))
	for i, raw := range list {
		t := &(*ts)[i]
		if len(raw) > 0 && raw[0] == '{' {
			if err := json.Unmarshal(raw, t); err != nil {
				return err
			}
			continue
		}
		into := t.fields()
		if n := len(into); json.Unmarshal(raw, &into) != nil || len(into) != n && len(into) != fewer {
			return fmt.Errorf("a trial cannot be read: %s", raw)
		}
	}
	return nil
}
