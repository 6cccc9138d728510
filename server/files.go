package server

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"undaris/core/say"
)

// InFormat says in which format a thing leaves.
type InFormat struct {
	Format string `path:"format" maxLength:"20"`
}

func (q InFormat) format() string { return q.Format }

// leaving is a format in which things leave that are asked for by Q, at once or bit by bit.
type leaving[Q, D any] struct {
	name, mime string
	write      func(context.Context, Q) (D, error)
}

// files registers every format in which a thing leaves, at one address that ends in its name.
func files[Q interface{ format() string }, D any](s *server, api huma.API, path, id, summary string, formats []leaving[Q, D]) {
	names := each(formats, func(f leaving[Q, D]) string { return f.name })
	op := delivery(path+"/files/{format}", id, summary+": "+say.List(names, "or"), formats[0].mime)
	for _, f := range formats {
		op.Responses["200"].Content[f.mime] = op.Responses["200"].Content[formats[0].mime]
	}
	register(s, api, op, queued(s, func(ctx context.Context, in *Q) (d D, err error) {
		for _, f := range formats {
			if f.name == (*in).format() {
				return f.write(ctx, *in)
			}
		}
		return d, huma.Error404NotFound(say.F("this leaves as %s, and not as %q", say.List(names, "or"), (*in).format()))
	}))
}

// moved are addresses that files had before, each with where it is now.
var moved = map[string]string{
	"/api/charts/:id/midi":       "/api/charts/:id/files/midi",
	"/api/charts/:id/score/midi": "/api/charts/:id/files/score-midi",
	"/api/charts/:id/text":       "/api/charts/:id/files/text",
	"/api/charts/:id/chordpro":   "/api/charts/:id/files/chordpro",
	"/api/charts/:id/musicxml":   "/api/charts/:id/files/musicxml",
	"/api/charts/:id/mxl":        "/api/charts/:id/files/mxl",
	"/api/lines/:id/midi":        "/api/lines/:id/files/midi",
	"/api/lines/:id/tab":         "/api/lines/:id/files/tab",
	"/api/lines/:id/musicxml":    "/api/lines/:id/files/musicxml",
	"/api/lines/:id/mxl":         "/api/lines/:id/files/mxl",
	"/api/licks/midi":            "/api/licks/files/midi",
	"/api/licks/tab":             "/api/licks/files/tab",
	"/api/licks/musicxml":        "/api/licks/files/musicxml",
	"/api/licks/mxl":             "/api/licks/files/mxl",
	"/api/log/csv":               "/api/log/files/csv",
	"/api/log/json":              "/api/log/files/json",
}

// leadOn answers for addresses that moved: whoever kept one is led on, with what was asked.
func leadOn(engine *gin.Engine) {
	for from, to := range moved {
		engine.GET(from, func(c *gin.Context) {
			at := *c.Request.URL
			at.Path = strings.Replace(to, ":id", c.Param("id"), 1)
			c.Redirect(http.StatusPermanentRedirect, at.RequestURI())
		})
	}
}
