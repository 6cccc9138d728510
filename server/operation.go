package server

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// out wraps a body as Huma wants it.
type out[T any] struct{ Body T }

// operation describes one; bodies were read and measured by the guard.
func operation(method, path, id, summary string, status int) huma.Operation {
	return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, DefaultStatus: status, MaxBodyBytes: -1}
}

// register adds an operation. Whatever goes wrong is told in words.
func register[I, O any](s *server, api huma.API, op huma.Operation, answer func(context.Context, *I) (O, error)) {
	enter(s, api, op, func(ctx context.Context, in *I) (*O, error) {
		o, err := answer(ctx, in)
		if err != nil {
			return nil, s.told(err)
		}
		return &o, nil
	})
}

// get registers a plain question.
func get[I, O any](s *server, api huma.API, path, id, summary string, answer func(context.Context, *I) (O, error)) {
	register(s, api, operation(http.MethodGet, path, id, summary, 0), body(answer))
}

// post registers a hard question that is posted and stores nothing.
func post[I, O any](s *server, api huma.API, path, id, summary string, answer func(context.Context, *I) (O, error)) {
	register(s, api, operation(http.MethodPost, path, id, summary, 0), body(queued(s, answer)))
}

func body[I, O any](answer func(context.Context, *I) (O, error)) func(context.Context, *I) (out[O], error) {
	return func(ctx context.Context, in *I) (out[O], error) {
		o, err := answer(ctx, in)
		return out[O]{o}, err
	}
}

// patience is how long a hard question waits for its turn.
const patience = 10 * time.Second

// queued has a hard question wait for its turn, so that only as many are worked
// on at once as the machine has cores.
func queued[I, O any](s *server, answer func(context.Context, *I) (O, error)) func(context.Context, *I) (O, error) {
	return func(ctx context.Context, in *I) (o O, err error) {
		err = s.inTurn(ctx, func() error { o, err = answer(ctx, in); return err })
		if err == nil {
			err = ctx.Err() // what was cut short is no answer
		}
		return o, err
	}
}

// inTurn does hard work when it is its turn.
func (s *server) inTurn(ctx context.Context, work func() error) error {
	late := time.NewTimer(patience)
	defer late.Stop()
	select {
	case s.hard <- struct{}{}:
		defer func() { <-s.hard }()
	case <-ctx.Done():
		return ctx.Err()
	case <-late.C:
		return problem(http.StatusServiceUnavailable, "Undaris is busy with other questions; ask again in a moment")
	}
	return work()
}
