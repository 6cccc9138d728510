package server

import (
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"io"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
)

func init() { _ = mime.AddExtensionType(".webmanifest", "application/manifest+json") }

// codings are how a file of text is kept, the smallest first: see web/scripts/pack.mjs.
var codings = []struct{ name, ending string }{{"br", ".br"}, {"gzip", ".gz"}}

// site serves the built front end. Paths that are no file belong to the
// application's own addresses and get its page.
func site(front fs.FS) gin.HandlerFunc {
	f := built{front: front}
	return func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		if strings.HasPrefix(name, "api/") || name == "api" {
			refuse(c.Writer, http.StatusNotFound, "there is nothing at this address; /api/openapi.json lists what there is")
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			refuse(c.Writer, http.StatusMethodNotAllowed, "pages can only be read")
			return
		}
		accepts := accepted(c.GetHeader("Accept-Encoding"))
		file, ok := f.find(name, accepts)
		switch {
		case ok && strings.HasPrefix(name, "assets/"): // their names change with their contents
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		case ok:
			c.Header("Cache-Control", "no-cache")
		case strings.HasPrefix(name, "assets/"), path.Ext(name) != "": // no address of the application ends like a file
			refuse(c.Writer, http.StatusNotFound, "this file is not part of the program")
			return
		default:
			name = "index.html"
			c.Header("Cache-Control", "no-cache")
			if file, ok = f.find(name, accepts); !ok {
				refuse(c.Writer, http.StatusNotFound, "the front end was not built into this program; run make build")
				return
			}
		}
		c.Header("ETag", file.tag)
		if file.coded {
			c.Header("Vary", "Accept-Encoding")
		}
		if file.coding != "" {
			c.Header("Content-Encoding", file.coding)
		}
		if kind := mime.TypeByExtension(path.Ext(name)); kind != "" {
			c.Header("Content-Type", kind)
		}
		c.Status(http.StatusOK)
		http.ServeContent(c.Writer, c.Request, name, time.Time{}, bytes.NewReader(file.data))
	}
}

// accepted tells which codings a browser takes: those that are named and not at q=0.
func accepted(header string) func(coding string) bool {
	return func(coding string) bool {
		for part := range strings.SplitSeq(header, ",") {
			name, weight, _ := strings.Cut(strings.TrimSpace(part), ";")
			if name = strings.TrimSpace(name); name == coding || name == "*" {
				weight = strings.ReplaceAll(weight, " ", "")
				return weight == "" || strings.Trim(weight, "q=0.") != ""
			}
		}
		return false
	}
}

// found is a file as it is sent.
type found struct {
	data   []byte
	coding string // as which it is sent; plain where none is said
	coded  bool   // it is kept in more than one
	tag    string // of its bytes
}

// built is the front end, with the tags of its files once they were asked for.
type built struct {
	front fs.FS
	tags  sync.Map // by name
}

// find is a file in the smallest coding that is taken. A browser that takes none gets it unpacked.
func (f *built) find(name string, takes func(coding string) bool) (found, bool) {
	for _, k := range codings {
		if data, err := fs.ReadFile(f.front, name+k.ending); err == nil && takes(k.name) {
			return found{data, k.name, true, f.tag(name+k.ending, data)}, true
		}
	}
	if data, err := fs.ReadFile(f.front, name); err == nil {
		_, err := fs.Stat(f.front, name+".gz")
		return found{data, "", err == nil, f.tag(name, data)}, true
	}
	packed, err := fs.ReadFile(f.front, name+".gz")
	if err != nil {
		return found{}, false
	}
	unpack, err := gzip.NewReader(bytes.NewReader(packed))
	if err != nil {
		return found{}, false
	}
	data, err := io.ReadAll(unpack)
	return found{data, "", true, f.tag(name, data)}, err == nil
}

func (f *built) tag(name string, data []byte) string {
	if tag, ok := f.tags.Load(name); ok {
		return tag.(string)
	}
	sum := sha256.Sum256(data)
	tag := `"` + hex.EncodeToString(sum[:12]) + `"`
	f.tags.Store(name, tag)
	return tag
}
