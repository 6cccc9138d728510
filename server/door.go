package server

import (
	"bytes"
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
)

// heldBody is a body that was read to its end.
type heldBody struct {
	*bytes.Reader
	all []byte
}

func (heldBody) Close() error { return nil }

func held(all []byte) heldBody { return heldBody{bytes.NewReader(all), all} }

// caught stands for an API while an operation is registered, and keeps how it would be answered.
type caught struct {
	huma.API
	answer *func(huma.Context)
}

func (c caught) Adapter() huma.Adapter { return catching{c.API.Adapter(), c.answer} }

type catching struct {
	huma.Adapter
	answer *func(huma.Context)
}

func (c catching) Handle(_ *huma.Operation, answer func(huma.Context)) { *c.answer = answer }

// enter registers an operation. A body that has the operation's shape goes straight to it; any other is looked at by
// Huma first, which reads it as it likes, and says what is wrong.
func enter[I, O any](s *server, api huma.API, op huma.Operation, handler func(context.Context, *I) (*O, error)) {
	if body, ok := reflect.TypeFor[I]().FieldByName("Body"); !ok || body.Type.Kind() == reflect.Func {
		huma.Register(api, op, handler)
		return
	}
	var slow, quick func(huma.Context)
	said := op
	huma.Register(caught{api, &slow}, op, handler)
	op.Hidden, op.SkipValidateBody = true, true
	huma.Register(caught{api, &quick}, op, handler)
	of := &shape{}
	if found := operationOf(api.OpenAPI().Paths[said.Path], said.Method); found != nil && found.RequestBody != nil {
		if media := found.RequestBody.Content["application/json"]; media != nil {
			of = s.shapes.of(media.Schema)
		}
	}
	api.Adapter().Handle(&said, func(ctx huma.Context) {
		body, ok := humagin.Unwrap(ctx).Request.Body.(heldBody)
		if ok && ctx.Header("Content-Type") == "application/json" && of.takes(body.all) {
			quick(ctx)
			return
		}
		slow(ctx)
	})
}

func operationOf(path *huma.PathItem, method string) *huma.Operation {
	if path == nil {
		return nil
	}
	return map[string]*huma.Operation{http.MethodPost: path.Post, http.MethodPut: path.Put, http.MethodDelete: path.Delete, http.MethodPatch: path.Patch}[method]
}
