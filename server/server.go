package server

import (
	"io"

	"github.com/segmentio/encoding/json"

	"io/fs"
	"log/slog"
	"net/http"
	"runtime"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"

	"undaris/network"
	"undaris/store"
)

// Version of the program and its API.
const Version = "0.4.0"

// How the command lets its heap grow between collections: freely while it is
// small, which halves the slowest answers, and hardly beyond the limit in bytes.
const (
	GCPercent   = 1000
	MemoryLimit = 64 << 20
)

// server answers for one store.
type server struct {
	store     *store.Store
	log       *slog.Logger
	hard      chan struct{} // a place for each hard question that is worked on
	maps      recent[mapKey, []byte]
	restoring sync.Mutex // one at a time

	journal journal
	shapes  *shapeMaker
}

// quickJSON reads and writes as encoding/json does, in less of its time.
var quickJSON = huma.Format{
	Marshal: func(w io.Writer, v any) error {
		out, err := json.Marshal(v)
		if err == nil {
			_, err = w.Write(out)
		}
		return err
	},
	Unmarshal: json.Unmarshal,
}

// New returns the handler of the whole application. front is the built front
// end; log gets a line for each request.
func New(s *store.Store, front fs.FS, log *slog.Logger) http.Handler {
	return On(nil, s, front, log)
}

// On is the same where devices of a network can be let in.
func On(n *network.Network, s *store.Store, front fs.FS, log *slog.Logger) http.Handler {
	handler, _ := assemble(n, s, front, log)
	return handler
}

func assemble(n *network.Network, s *store.Store, front fs.FS, log *slog.Logger) (http.Handler, huma.API) {
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	engine.Use(logged(log))
	srv := &server{store: s, log: log, hard: make(chan struct{}, max(1, runtime.GOMAXPROCS(0)))}
	engine.Use(srv.sameDatabase, atTheLaptop)
	config := huma.DefaultConfig("Undaris", Version)
	config.OpenAPIPath = "/api/openapi"
	config.DocsPath = "" // its page would load from elsewhere
	config.SchemasPath = ""
	config.CreateHooks = nil          // no $schema links in bodies
	huma.DefaultArrayNullable = false // lists are empty, never null
	huma.ValidateStrictCasing = true  // a field has one name; else every absent one is looked for in every case
	config.Formats = map[string]huma.Format{"application/json": quickJSON, "json": quickJSON}
	huma.NewError = problem
	api := humagin.New(engine, config)
	srv.shapes = &shapeMaker{api.OpenAPI().Components.Schemas, map[string]*shape{}}
	srv.questions(api)
	srv.crossings(api)
	srv.chains(api)
	srv.regions(api)
	srv.blends(api)
	srv.threads(api)
	srv.catalogue(api)
	srv.charts(api)
	srv.readings(api)
	srv.chartMaps(api)
	srv.layers(api)
	srv.bands(api)
	srv.papers(api)
	srv.calls(api)
	srv.practice(api)
	srv.logs(api)
	srv.today(api)
	srv.lessons(api)
	srv.licks(api)
	srv.lines(api)
	srv.brings(api)
	srv.player(api)
	srv.backups(engine)
	srv.sets(api)
	srv.recordings(api, engine)
	srv.ears(engine)
	srv.first(engine)
	srv.network(api, n)
	srv.follows(engine)
	leadOn(engine)
	// The log is read while nobody waits for it yet; what goes wrong is told when it is asked for.
	s.Beside(srv.follow)
	engine.NoRoute(site(front))
	return guarded(engine), api
}

// logged writes a line for each request and turns a panic into a 500.
func logged(log *slog.Logger) gin.HandlerFunc {
	return func(c *gin.Context) {
		start := time.Now()
		defer func() {
			if fault := recover(); fault == http.ErrAbortHandler {
				panic(fault)
			} else if fault != nil {
				stack := make([]byte, 8<<10)
				log.Error("fault", "path", c.Request.URL.Path, "fault", fault, "stack", string(stack[:runtime.Stack(stack, false)]))
				refuse(c.Writer, http.StatusInternalServerError, "Undaris made a mistake here; it was noted in its log, and nothing was saved")
			}
			log.Info("request", "method", c.Request.Method, "path", c.Request.URL.Path,
				"status", c.Writer.Status(), "bytes", c.Writer.Size(), "ms", float64(time.Since(start).Microseconds())/1000)
		}()
		c.Next()
	}
}
