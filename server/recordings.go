package server

import (
	"context"
	"errors"
	"fmt"
	"mime"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"undaris/core/form"
	"undaris/core/record"
	"undaris/core/say"
	"undaris/store"
)

// RecordingBody is what a player says of a recording.
type RecordingBody struct {
	Title   string        `json:"title" maxLength:"120"`
	Remark  string        `json:"remark,omitempty" maxLength:"1000" doc:"the player's own"`
	Seconds float64       `json:"seconds" minimum:"0" maximum:"86400" doc:"that it lasts; 0 is not known yet"`
	Chart   uint          `json:"chart,omitempty" maximum:"4294967295" doc:"number of the chart that it plays"`
	Key     string        `json:"key,omitempty" maxLength:"10" doc:"that it is in, where no chart says so"`
	Hearing store.Hearing `json:"hearing"`
}

// Recording is a stored recording.
type Recording struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version" doc:"its ETag, without the quotes"`
	RecordingBody
	Bytes   int64     `json:"bytes" doc:"of its file; 0 where there is none"`
	Media   string    `json:"media" doc:"media type of its file"`
	Hash    string    `json:"hash,omitempty" doc:"SHA-256 of its file"`
	Updated time.Time `json:"updated"`
}

// RecordingRow is a recording in the list.
type RecordingRow struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version"`
	Title   string    `json:"title"`
	Bytes   int64     `json:"bytes"`
	Media   string    `json:"media"`
	Seconds float64   `json:"seconds"`
	Chart   uint      `json:"chart,omitempty" doc:"that it plays"`
	Tempo   float64   `json:"tempo,omitempty"`
	Key     string    `json:"key,omitempty"`
	Settled int       `json:"settled" doc:"notes that are"`
	Updated time.Time `json:"updated"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

func wireRecording(r store.Recording) Recording {
	return Recording{r.ID, r.Tag, RecordingBody{r.Title, r.Remark, r.Seconds, r.Chart, r.Key, r.Hearing}, r.Bytes, r.Media, r.Hash, r.UpdatedAt}
}

// gridOf is the grid of a hearing.
func gridOf(h store.Hearing) record.Grid {
	return record.Grid{PerBar: h.Beats, Anchors: each(h.Anchors, func(a store.Anchor) record.Anchor { return record.Anchor(a) })}
}

func (b RecordingBody) stored() (store.Recording, error) {
	r := store.Recording{Title: clean(b.Title), Remark: b.Remark, Seconds: b.Seconds, Chart: b.Chart, Key: b.Key, Hearing: b.Hearing}
	if r.Title == "" {
		return r, at("body.title", b.Title, errors.New("a recording needs a title"))
	}
	h := &r.Hearing
	key := form.Key{}
	if b.Key != "" {
		var err error
		if key, err = readKey("body.key", b.Key); err != nil {
			return r, err
		}
		r.Key = key.String()
	}
	if err := gridOf(*h).Check(); err != nil {
		return r, at("body.hearing.anchors", nil, err)
	}
	if h.Feel != "" {
		if _, ok := form.FeelByID(h.Feel); !ok {
			return r, at("body.hearing.feel", h.Feel, say.Errorf("there is no feel %q", h.Feel))
		}
	}
	if h.Chords != "" {
		if _, err := form.Read(h.Chords, max(form.MinBeats, min(h.Beats, form.MaxBeats)), key); err != nil {
			return r, at("body.hearing.chords", h.Chords, err)
		}
	}
	if h.High < h.Low {
		return r, at("body.hearing.high", h.High, errors.New("the position ends before it begins"))
	}
	known := map[int]bool{}
	for i, n := range h.Notes {
		if known[n.ID] {
			return r, at(fmt.Sprintf("body.hearing.notes[%d].id", i), n.ID, errors.New("two notes have this number"))
		}
		known[n.ID] = true
	}
	h.Notes = slices.Clone(h.Notes)
	slices.SortStableFunc(h.Notes, func(a, b store.NoteByEar) int {
		switch {
		case a.At < b.At:
			return -1
		case a.At > b.At:
			return 1
		}
		return 0
	})
	h.Markers = each(h.Markers, func(m store.Marker) store.Marker { return store.Marker{At: m.At, Title: clean(m.Title)} })
	return r, nil
}

// medias are the kinds of files that are kept as what they are said to be. Any other is only bytes: nobody's browser is to
// take one for a page.
var medias = []string{"audio/wav", "audio/x-wav", "audio/wave", "audio/mpeg", "audio/mp3", "audio/ogg", "audio/opus", "audio/flac", "audio/x-flac", "audio/mp4", "audio/x-m4a",
	"audio/aac", "audio/webm", "audio/x-matroska", "video/mp4", "video/webm", "video/ogg", "video/quicktime", "video/x-matroska"}

const bytesAlone = "application/octet-stream"

// mediaOf is the media type that a file is kept as.
func mediaOf(said string) string {
	kind, _, err := mime.ParseMediaType(said)
	if err != nil || !slices.Contains(medias, kind) {
		return bytesAlone
	}
	return kind
}

// recordings registers the recordings, their files, and what is asked of them.
func (s *server) recordings(api huma.API, engine *gin.Engine) {
	keeping[RecordingBody, store.Recording, store.RecordingSummary, Recording, RecordingRow]{
		name: "recording", path: "/api/recordings", wire: wireRecording, tag: func(r store.Recording) store.Tag { return r.Tag },
		row: func(r store.RecordingSummary) RecordingRow {
			return RecordingRow{r.ID, r.Tag, r.Title, r.Bytes, r.Media, r.Seconds, r.Chart, r.Tempo, r.Key, r.Settled, r.UpdatedAt, r.Problem}
		},
		stored: func(_ context.Context, b RecordingBody) (store.Recording, error) { return b.stored() },
		put: func(old *store.Recording, now store.Recording) {
			now.Kept, now.Hash, now.Bytes, now.Media = old.Kept, old.Hash, old.Bytes, old.Media
			*old = now
		},
		list: s.store.Recordings, count: s.store.CountRecordings, one: s.store.Recording, create: s.store.CreateRecording,
		change: s.store.ChangeRecording, remove: s.store.DeleteRecording, restore: s.store.RestoreRecording,
	}.serve(s, api)
	s.hearings(api)
	// Files are streamed in and out and asked for in ranges, which is nothing for Huma.
	engine.PUT("/api/recordings/:id/file", s.keepRecording)
	engine.GET("/api/recordings/:id/file", s.recordingFile)
	engine.HEAD("/api/recordings/:id/file", s.recordingFile)
}

// numbered is the number in the path of a request outside of Huma; 0 is none.
func numbered(c *gin.Context) (id uint) {
	if n, err := fmt.Sscanf(c.Param("id"), "%d", &id); n != 1 || err != nil || fmt.Sprint(id) != c.Param("id") || id > 1<<32-1 {
		return 0
	}
	return id
}

func (s *server) keepRecording(c *gin.Context) {
	_ = http.NewResponseController(c.Writer).SetWriteDeadline(time.Time{}) // to put half a gigabyte on a disk takes its time
	r, err := s.store.KeepRecording(numbered(c), mediaOf(c.GetHeader("Content-Type")), c.Request.Body)
	if err != nil {
		s.refused(c, missing("recording", err))
		return
	}
	c.Header("ETag", etag(r.Tag))
	c.JSON(http.StatusOK, wireRecording(r))
}

func (s *server) recordingFile(c *gin.Context) {
	f, r, err := s.store.RecordingFile(numbered(c))
	if err != nil {
		s.refused(c, missing("file of a recording", err))
		return
	}
	defer f.Close()
	h := c.Writer.Header()
	h.Set("Content-Type", r.Media)
	h.Set("Content-Security-Policy", "default-src 'none'; sandbox") // whatever it holds, it is no page of ours
	h.Set("Cache-Control", "private, no-cache")
	h.Set("ETag", `"`+r.Hash+`"`)
	h.Set("Content-Disposition", fmt.Sprintf("inline; filename=%q", fileName(r.Title)+ending(r.Media)))
	http.ServeContent(patient{c.Writer, http.NewResponseController(c.Writer)}, c.Request, "", r.UpdatedAt, f)
}

// ending is how the name of a file of a media type ends.
func ending(media string) string {
	_, kind, _ := strings.Cut(media, "/")
	switch kind = strings.TrimPrefix(kind, "x-"); kind {
	case "mpeg":
		return ".mp3"
	case "octet-stream":
		return ""
	case "wave":
		return ".wav"
	case "quicktime":
		return ".mov"
	case "matroska":
		return ".mkv"
	}
	return "." + kind
}
