package server

import (
	"cmp"
	"context"
	"fmt"
	"io"
	"net/http"
	"strings"
	"unicode"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/say"
	"undaris/formats/midi"
)

// BandQuery is how the band is asked to play.
type BandQuery struct {
	Choruses   int      `query:"choruses" default:"3" minimum:"1" maximum:"32" doc:"1 to 32"`
	Seed       uint64   `query:"seed" default:"1" doc:"the same seed gives the same file"`
	CountIn    string   `query:"countIn" enum:"true,false" default:"true" doc:"a bar of sticks first; a pickup brings it along in any case"`
	Metronome  bool     `query:"metronome" doc:"a click on every beat, on a track of its own"`
	Comp       string   `query:"comp" default:"guitar" maxLength:"20" doc:"who plays the chords: guitar, organ or piano"`
	DropChords bool     `query:"dropChords" doc:"no chords in every second chorus"`
	Intensity  int      `query:"intensity" default:"3" minimum:"1" maximum:"5" doc:"1 to 5"`
	Swing      float64  `query:"swing" minimum:"0" maximum:"0.75" doc:"where the second eighth falls in its beat, 0.5 to 0.75; 0 is the groove's own"`
	Tempo      int      `query:"tempo" minimum:"0" maximum:"300" doc:"beats a minute, 30 to 300; 0 is the chart's own"`
	Without    []string `query:"without,explode" maxItems:"10" doc:"players who rest: drums, bass, chords"`
	Ending     string   `query:"ending" maxLength:"20" doc:"how it stops after the last chorus, of the catalogue's; own is as the chart or the line has it, or a held last chord; none where it is not said"`
	Intro      string   `query:"intro" maxLength:"20" doc:"how it leads into the first chorus, of the catalogue's; own is as the chart has it; none where it is not said"`
	Course     string   `query:"course" maxLength:"20" doc:"what becomes of the choruses, of the catalogue's"`
	Bass       string   `query:"bass" maxLength:"20" doc:"how the bass plays, of the catalogue's; none is as the feel has it"`
	Click      string   `query:"click" maxLength:"20" doc:"what the metronome marks, of the catalogue's; none is every beat"`
	Arc        string   `query:"arc" maxLength:"20" doc:"how it grows over the choruses: level, grow or wave"`
}

// play has the band play a progression and writes the file.
func (q BandQuery) play(ctx context.Context, p form.Progression, feel string, head midi.Head, lead []band.Note) (download, error) {
	head.Feel = feel
	groove, err := band.GrooveOf(feel)
	if err != nil {
		return download{}, at("query.feel", feel, err)
	}
	head.Tempo = cmp.Or(q.Tempo, head.Tempo)
	if head.Tempo < form.MinTempo || head.Tempo > form.MaxTempo {
		return download{}, at("query.tempo", head.Tempo, say.Errorf("a tempo of %d; between %d and %d beats a minute can be played", head.Tempo, form.MinTempo, form.MaxTempo))
	}
	perf, err := band.Play(ctx, p, groove, band.Options{Choruses: q.Choruses, Seed: q.Seed, CountIn: q.CountIn != "false", Metronome: q.Metronome,
		Comp: q.Comp, DropChords: q.DropChords, Intensity: q.Intensity, Swing: q.Swing, Without: q.Without, Lead: lead, Ending: q.Ending, Intro: q.Intro, Course: q.Course, Arc: q.Arc,
		Bass: q.Bass, Click: q.Click, Tempo: head.Tempo, Key: &head.Key})
	if err != nil {
		return download{}, at("query", q.Choruses, err)
	}
	return file("audio/midi", head.Title, "mid", midi.Write(perf, head)), nil
}

// as fills in what a chart or a line has of its own.
func (q *BandQuery) as(intro, ending string) {
	if q.Intro == own {
		q.Intro = intro
	}
	if q.Ending == own {
		q.Ending = cmp.Or(ending, band.Endings[1].ID)
	}
}

// own asks for what a chart or a line has itself.
const own = "own"

// download is a file for the player to keep.
type download struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func file(kind, title, ending string, body []byte) download {
	return download{kind, fmt.Sprintf("attachment; filename=%q", fileName(title)+"."+ending), body}
}

// streamed is a file that is sent as it is read.
type streamed struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        func(huma.Context)
}

// writing is a file that is sent as it is written. What fails on the way cuts it off, so that it is not
// taken for whole.
func writing(kind, title, ending string, write func(io.Writer) error) streamed {
	to := file(kind, title, ending, nil)
	return streamed{to.ContentType, to.Disposition, func(c huma.Context) {
		if write(patientBody(c)) != nil {
			panic(http.ErrAbortHandler)
		}
	}}
}

func stream(kind, title, ending string, from io.ReadCloser) streamed {
	to := file(kind, title, ending, nil)
	return streamed{to.ContentType, to.Disposition, func(c huma.Context) {
		defer from.Close()
		_, _ = io.Copy(c.BodyWriter(), from) // whoever asked may have gone
	}}
}

// delivery is an operation that is answered by a file.
func delivery(path, id, summary, kind string) huma.Operation {
	op := operation(http.MethodGet, path, id, summary, 0)
	op.Responses = map[string]*huma.Response{"200": {Description: "the file",
		Content: map[string]*huma.MediaType{kind: {Schema: &huma.Schema{Type: "string", Format: "binary"}}}}}
	return op
}

// deliver registers a question that is answered by a file.
func deliver[I any](s *server, api huma.API, path, id, summary, kind string, answer func(context.Context, *I) (download, error)) {
	register(s, api, delivery(path, id, summary, kind), queued(s, answer))
}

// chartPlayed is the band playing a chart, as a Standard MIDI File of format 1.
func (s *server) chartPlayed(ctx context.Context, in ChartFile) (none download, err error) {
	on, c, err := s.handed(in.ID)
	if err != nil {
		return none, err
	}
	var lead []band.Note
	if in.Lead == "thread" {
		w, err := in.paper().region(on.In)
		if err != nil {
			return none, err
		}
		thread, err := on.Thread(ctx, w)
		if err != nil {
			return none, at("query.lead", in.Lead, err)
		}
		lead = on.Lead(thread, in.Choruses)
	}
	in.Swing = cmp.Or(in.Swing, float64(c.Swing)/100)
	in.as(c.Intro, c.Ending)
	return in.play(ctx, on.Band, c.Feel, midi.Head{Title: c.Title, Tempo: c.Tempo, Key: on.Key}, lead)
}

func (s *server) bands(api huma.API) {
	op := delivery("/api/bands/midi", "band-midi", "The band playing any bars, with notes over them, as a Standard MIDI File", "audio/midi")
	op.Method = http.MethodPost
	register(s, api, op, queued(s, func(ctx context.Context, in *struct {
		BandQuery
		Body struct {
			Text  string     `json:"text" maxLength:"60000" doc:"| C7 | F7 |"`
			Key   string     `json:"key,omitempty" default:"C" maxLength:"10"`
			Beats int        `json:"beats,omitempty" default:"4"`
			Feel  string     `json:"feel,omitempty" default:"shuffle" maxLength:"40"`
			Lead  []LeadNote `json:"lead,omitempty" maxItems:"2000" doc:"notes one after the other"`
		}
	}) (none download, err error) {
		key, err := readKey("body.key", in.Body.Key)
		if err != nil {
			return none, err
		}
		p, err := form.Read(in.Body.Text, in.Body.Beats, key)
		if err != nil {
			return none, at("body.text", in.Body.Text, err)
		}
		in.as("", "")
		lead := band.InTurn(each(in.Body.Lead, func(n LeadNote) band.Turn { return band.Turn(n) }))
		return in.play(ctx, p, in.Body.Feel, midi.Head{Title: "band", Tempo: 100, Key: key}, lead)
	}))
}

// LeadNote is a note of a lead, or a rest.
type LeadNote struct {
	MIDI  int     `json:"midi,omitempty" minimum:"0" maximum:"127" doc:"0 rests"`
	Beats float64 `json:"beats" exclusiveMinimum:"0" maximum:"64"`
	With  []int   `json:"with,omitempty" maxItems:"7" doc:"what sounds together with it"`
}

// fileName makes a plain name of a title.
func fileName(title string) string {
	name := strings.Map(func(r rune) rune {
		switch {
		case r < unicode.MaxASCII && (unicode.IsLetter(r) || unicode.IsDigit(r)):
			return unicode.ToLower(r)
		case r == ' ' || r == '-':
			return '-'
		}
		return -1
	}, title)
	if name = strings.Trim(name, "-"); name == "" {
		return "chart"
	}
	return name
}
