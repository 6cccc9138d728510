package server

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/store"
)

// keeping is how a kind of thing is listed, made, changed, deleted and restored:
// B is what a player says of it, T what is stored, W what is answered.
type keeping[B, T, W any] struct {
	name, path string // "lick", "/api/licks"
	wire       func(T) W
	stored     func(B) (T, error)
	number     func(*T, uint) // gives it the ID of the one it takes the place of
	all        func() ([]T, error)
	one        func(uint) (T, error)
	create     func(*T) error
	update     func(*T) error
	remove     func(uint) error
	restore    func(uint) (T, error)
}

// ID is the path of one thing.
type ID struct {
	ID uint `path:"id"`
}

func (k keeping[B, T, W]) missing(err error) error {
	if errors.Is(err, store.ErrNotFound) {
		return huma.Error404NotFound("there is no such " + k.name + "; it may have been deleted")
	}
	return err
}

// serve registers the operations.
func (k keeping[B, T, W]) serve(api huma.API) {
	op := func(method, path, id, summary string, status int) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: k.path + path, Summary: summary, DefaultStatus: status, MaxBodyBytes: 8 << 20}
	}
	type body struct {
		ID
		Body B
	}
	get(api, k.path, k.name+"s", "All "+k.name+"s, the one changed last first", func(*struct{}) ([]W, error) {
		all, err := k.all()
		list := make([]W, len(all))
		for i, t := range all {
			list[i] = k.wire(t)
		}
		return list, err
	})
	get(api, k.path+"/{id}", k.name, "One "+k.name, func(in *ID) (W, error) {
		t, err := k.one(in.ID)
		return k.wire(t), k.missing(err)
	})
	huma.Register(api, op(http.MethodPost, "", "create-"+k.name, "Keep a new "+k.name, http.StatusCreated),
		handler(func(in *struct{ Body B }) (w W, err error) {
			t, err := k.stored(in.Body)
			if err == nil {
				err = k.create(&t)
			}
			if err != nil {
				return w, err
			}
			return k.wire(t), nil
		}))
	huma.Register(api, op(http.MethodPut, "/{id}", "update-"+k.name, "Change a "+k.name, http.StatusOK),
		handler(func(in *body) (w W, err error) {
			t, err := k.stored(in.Body)
			if err != nil {
				return w, err
			}
			k.number(&t, in.ID.ID)
			if err := k.update(&t); err != nil {
				return w, k.missing(err)
			}
			return k.wire(t), nil
		}))
	huma.Register(api, op(http.MethodDelete, "/{id}", "delete-"+k.name, "Delete a "+k.name+"; it can be restored", http.StatusNoContent),
		func(_ context.Context, in *ID) (*struct{}, error) { return nil, k.missing(k.remove(in.ID)) })
	huma.Register(api, op(http.MethodPost, "/{id}/restore", "restore-"+k.name, "Take a deletion back", http.StatusOK),
		handler(func(in *ID) (W, error) {
			t, err := k.restore(in.ID)
			return k.wire(t), k.missing(err)
		}))
}
