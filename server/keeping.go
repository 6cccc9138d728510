package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"unicode"

	"github.com/danielgtaylor/huma/v2"

	"undaris/store"
)

// keeping is how a kind of thing is listed, made, changed, deleted and restored:
// B is what a player says of it, T what is stored, S its row in a list as it is
// stored, W and L what is answered.
type keeping[B, T, S, W, L any] struct {
	name, path string // "lick", "/api/licks"
	wire       func(T) W
	row        func(S) L
	tag        func(T) store.Tag
	stored     func(context.Context, B) (T, error)
	put        func(old *T, now T) // takes over what the player says
	list       func(store.Page) ([]S, error)
	count      func(store.Page) (int, error)

	one     func(uint) (T, error)
	create  func(*T) error
	change  func(id uint, match store.Tag, do func(*T) error) (T, error)
	remove  func(id uint, match store.Tag) error
	restore func(uint) (T, error)
}

// ByID is the path of one thing.
type ByID struct {
	ID uint `path:"id" maximum:"4294967295"`
}

// Match is the version that a change is meant for.
type Match struct {
	IfMatch string `header:"If-Match" doc:"the ETag of the version that is to be changed; * takes any"`
}

// Versioned is an answer with its version.
type Versioned[W any] struct {
	ETag string `header:"ETag"`
	Body W
}

// PageQuery is a stretch of a list.
type PageQuery struct {
	Offset int `query:"offset" minimum:"0" maximum:"1000000"`
	Limit  int `query:"limit" default:"200" minimum:"1" maximum:"1000"`
}

// ListQuery is what of a list is asked for.
type ListQuery struct {
	PageQuery
	Find  string `query:"find" maxLength:"200" doc:"words that are all in what a thing answers to, in any case"`
	Tag   string `query:"tag" maxLength:"80" doc:"of licks: that have this one"`
	Order string `query:"order" enum:",easiest,hardest,begins" doc:"of licks; else the one used last first"`
}

// Listed is a page of a list.
type Listed[L any] struct {
	Total int    `header:"Total-Count" doc:"how many there are in all"`
	Link  string `header:"Link" doc:"the next page, as rel=next"`
	Body  []L
}

func etag(t store.Tag) string { return `"` + string(t) + `"` }

// read tells the version asked for. A bare number, as older programs had them, and
// whatever else is no tag of ours match nothing.
func (m Match) read() (store.Tag, error) {
	text := strings.TrimSpace(m.IfMatch)
	if text == "" {
		return "", problem(http.StatusPreconditionRequired, "say in If-Match which version this changes: the ETag that came with it, or * for whatever is there")
	}
	if text == string(store.Any) {
		return store.Any, nil
	}
	if len(text) < 2 || text[0] != '"' || text[len(text)-1] != '"' || text == `"*"` {
		return "", nil
	}
	return store.Tag(text[1 : len(text)-1]), nil
}

// changedSince refuses a change of an old version.
func changedSince(name string, now any) error {
	doc := problem(http.StatusPreconditionFailed, "this "+name+" was changed elsewhere since it was read; nothing was saved").(*huma.ErrorModel)
	return &stale{doc, now}
}

func (k keeping[B, T, S, W, L]) versioned(t T) Versioned[W] {
	return Versioned[W]{etag(k.tag(t)), k.wire(t)}
}

// outcome is the answer to a change.
func (k keeping[B, T, S, W, L]) outcome(t T, failed error) (_ Versioned[W], err error) {
	switch {
	case errors.Is(failed, store.ErrStale):
		return Versioned[W]{}, changedSince(k.name, k.wire(t))
	case failed != nil:
		return Versioned[W]{}, missing(k.name, failed)
	}
	defer func() {
		if fault := recover(); fault != nil { // what was kept here can be written; somebody else wrote this
			err = spoilt(k.name, fmt.Errorf("%v", fault))
		}
	}()
	return k.versioned(t), nil
}

// serve registers the operations.
func (k keeping[B, T, S, W, L]) serve(s *server, api huma.API) {
	register(s, api, operation(http.MethodGet, k.path, k.name+"s", "The "+k.name+"s in pages, the one used last first; each in short", 0),
		func(_ context.Context, in *ListQuery) (Listed[L], error) {
			page := store.Page{Offset: in.Offset, Limit: in.Limit, Words: in.Find, Tag: in.Tag, Order: in.Order}
			all, err := k.list(page)
			if err != nil {
				return Listed[L]{}, err
			}
			list := Listed[L]{Body: make([]L, len(all))}
			for i, t := range all {
				list.Body[i] = k.row(t)
			}
			if list.Total, err = k.count(page); err == nil && in.Offset+len(all) < list.Total && len(all) > 0 {
				next := url.Values{"offset": {strconv.Itoa(in.Offset + len(all))}, "limit": {strconv.Itoa(in.Limit)}}
				for name, v := range map[string]string{"find": in.Find, "tag": in.Tag, "order": in.Order} {
					if v != "" {
						next.Set(name, v)
					}
				}
				list.Link = fmt.Sprintf("<%s?%s>; rel=\"next\"", k.path, next.Encode())
			}
			return list, err
		})
	register(s, api, operation(http.MethodGet, k.path+"/{id}", k.name, "One "+k.name, 0),
		func(_ context.Context, in *ByID) (Versioned[W], error) {
			t, err := k.one(in.ID)
			return k.outcome(t, err)
		})
	register(s, api, operation(http.MethodPost, k.path, "create-"+k.name, "Keep a new "+k.name, http.StatusCreated),
		queued(s, func(ctx context.Context, in *struct{ Body B }) (Versioned[W], error) {
			t, err := k.stored(ctx, in.Body)
			if err == nil {
				err = k.create(&t)
			}
			return k.outcome(t, err)
		}))
	register(s, api, operation(http.MethodPut, k.path+"/{id}", "update-"+k.name, "Change a "+k.name, 0),
		queued(s, func(ctx context.Context, in *struct {
			ByID
			Match
			Body B
		}) (none Versioned[W], err error) {
			match, err := in.read()
			if err != nil {
				return none, err
			}
			t, err := k.stored(ctx, in.Body)
			if err != nil {
				return none, err
			}
			return k.outcome(k.change(in.ID, match, func(old *T) error {
				k.put(old, t)
				return nil
			}))
		}))
	register(s, api, operation(http.MethodDelete, k.path+"/{id}", "delete-"+k.name, "Delete a "+k.name+"; it can be restored", http.StatusNoContent),
		func(_ context.Context, in *struct {
			ByID
			Match
		}) (struct{}, error) {
			match, err := in.read()
			if err != nil {
				return struct{}{}, err
			}
			if err = k.remove(in.ID, match); errors.Is(err, store.ErrStale) {
				now, _ := k.one(in.ID)
				return struct{}{}, changedSince(k.name, k.wire(now))
			}
			return struct{}{}, missing(k.name, err)
		})
	register(s, api, operation(http.MethodPost, k.path+"/{id}/restore", "restore-"+k.name, "Take a deletion back", 0),
		func(_ context.Context, in *ByID) (Versioned[W], error) {
			return k.outcome(k.restore(in.ID))
		})
}

// clean is a title as it is kept: on one line, without characters that steer
// text instead of showing.
func clean(title string) string {
	return strings.Join(strings.Fields(strings.Map(func(r rune) rune {
		switch {
		case unicode.IsSpace(r):
			return ' '
		case unicode.IsControl(r), unicode.In(r, unicode.Cf, unicode.Co, unicode.Cs), r == unicode.ReplacementChar:
			return -1
		}
		return r
	}, title)), " ")
}
