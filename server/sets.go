package server

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/store"
)

// SetBody is what a player says of a set.
type SetBody struct {
	Title string          `json:"title" maxLength:"120"`
	Items []store.SetItem `json:"items" maxItems:"200" doc:"charts in the order they are played"`
}

// Set is a stored set.
type Set struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version" doc:"its ETag, without the quotes"`
	SetBody
	Updated time.Time `json:"updated"`
}

// SetRow is a set in the list.
type SetRow struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version"`
	Title   string    `json:"title"`
	Charts  int       `json:"charts" doc:"how many"`
	Updated time.Time `json:"updated"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

func wireSet(c store.Set) Set {
	return Set{c.ID, c.Tag, SetBody{c.Title, append([]store.SetItem{}, c.Items...)}, c.UpdatedAt}
}

func (b SetBody) stored() (store.Set, error) {
	c := store.Set{Title: clean(b.Title), Items: b.Items}
	if c.Title == "" {
		return c, at("body.title", b.Title, errors.New("a set needs a title"))
	}
	if c.Items == nil {
		c.Items = []store.SetItem{}
	}
	for i, item := range c.Items {
		if item.Choruses < 1 || item.Choruses > 32 {
			return c, at(fmt.Sprintf("body.items[%d].choruses", i), item.Choruses, errors.New("a chart is played 1 to 32 times"))
		}
	}
	return c, nil
}

func (s *server) sets(api huma.API) {
	keeping[SetBody, store.Set, store.SetSummary, Set, SetRow]{
		name: "set", path: "/api/sets", wire: wireSet, tag: func(c store.Set) store.Tag { return c.Tag },
		row: func(c store.SetSummary) SetRow {
			return SetRow{c.ID, c.Tag, c.Title, c.Charts, c.UpdatedAt, c.Problem}
		},
		stored: func(_ context.Context, b SetBody) (store.Set, error) { return b.stored() },
		put:    func(old *store.Set, now store.Set) { now.Kept, *old = old.Kept, now },
		list:   s.store.Sets, count: s.store.CountSets, one: s.store.Set, create: s.store.CreateSet,
		change: s.store.ChangeSet, remove: s.store.DeleteSet, restore: s.store.RestoreSet,
	}.serve(s, api)
}
