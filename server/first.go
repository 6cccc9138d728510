package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"regexp"

	"github.com/gin-gonic/gin"

	"undaris/store"
)

// First are the answers to what any place asks for first, so that a page asks once, before its scripts are there.
type First struct {
	Answers []FirstAnswer `json:"answers"`
}

// FirstAnswer is what would be answered at a path.
type FirstAnswer struct {
	Path    string            `json:"path"`
	Headers map[string]string `json:"headers"`
	Body    json.RawMessage   `json:"body"`
}

// everyPlace is what each of them asks for.
var everyPlace = []string{"/api/player", "/api/catalogue", "/api/charts?offset=0&limit=100"}

// benchAt is where a page is the Bench, of a chart or of the one opened last.
var benchAt = regexp.MustCompile(`^/(?:bench(?:/(\d{1,10}))?)?$`)

// first answers with what the place that asks will ask for: each as it would be answered alone.
func (s *server) first(engine *gin.Engine) {
	engine.GET("/api/first", func(c *gin.Context) {
		paths := everyPlace
		if from, err := url.Parse(c.Request.Referer()); err == nil && from.Query().Get("own") == "" {
			if at := benchAt.FindStringSubmatch(from.Path); at != nil {
				chart := at[1]
				if rows, err := s.store.Charts(store.Page{Limit: 1}); chart == "" && err == nil && len(rows) == 1 {
					chart = fmt.Sprint(rows[0].ID)
				}
				if chart != "" {
					paths = append(paths[:len(paths):len(paths)], "/api/charts/"+chart+"/map")
				}
			}
		}
		all := First{Answers: []FirstAnswer{}}
		for _, path := range paths {
			if a, ok := answered(engine, c.Request, path); ok {
				all.Answers = append(all.Answers, a)
			}
		}
		c.Header("Cache-Control", "no-store")
		c.JSON(http.StatusOK, all)
	})
}

// answered asks within the program; what goes wrong is left to be asked, and told, by itself.
func answered(engine *gin.Engine, from *http.Request, path string) (a FirstAnswer, ok bool) {
	to, err := url.Parse(path)
	if err != nil {
		return a, false
	}
	ask := from.Clone(from.Context())
	ask.URL, ask.RequestURI = to, path
	into := &kept{header: http.Header{}, status: http.StatusOK}
	engine.ServeHTTP(into, ask)
	if into.status != http.StatusOK || !json.Valid(into.body.Bytes()) {
		return a, false
	}
	a = FirstAnswer{path, map[string]string{}, into.body.Bytes()}
	for name := range into.header {
		a.Headers[name] = into.header.Get(name)
	}
	return a, true
}

// kept is an answer that is not sent.
type kept struct {
	header http.Header
	status int
	body   bytes.Buffer
}

func (k *kept) Header() http.Header            { return k.header }
func (k *kept) WriteHeader(status int)         { k.status = status }
func (k *kept) Write(data []byte) (int, error) { return k.body.Write(data) }
