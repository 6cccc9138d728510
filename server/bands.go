package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"unicode"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/formats/midi"
	"undaris/store"
)

// BandQuery is how the band is asked to play.
type BandQuery struct {
	Choruses   int      `query:"choruses" default:"3" minimum:"1" maximum:"32" doc:"1 to 32"`
	Seed       uint64   `query:"seed" default:"1" doc:"the same seed gives the same file"`
	CountIn    bool     `query:"countIn" default:"true" doc:"a bar of sticks first"`
	Metronome  bool     `query:"metronome" doc:"a click on every beat, on a track of its own"`
	Comp       string   `query:"comp" default:"guitar" maxLength:"20" doc:"who plays the chords: guitar, organ or piano"`
	DropChords bool     `query:"dropChords" doc:"no chords in every second chorus"`
	Intensity  int      `query:"intensity" default:"3" minimum:"1" maximum:"5" doc:"1 to 5"`
	Swing      float64  `query:"swing" minimum:"0" maximum:"0.75" doc:"where the second eighth falls in its beat, 0.5 to 0.75; 0 is the groove's own"`
	Tempo      int      `query:"tempo" minimum:"0" maximum:"300" doc:"beats a minute, 30 to 300; 0 is the chart's own"`
	Without    []string `query:"without,explode" maxItems:"10" doc:"players who rest: drums, bass, chords"`
}

// play has the band play a progression and writes the file.
func (q BandQuery) play(ctx context.Context, p form.Progression, feel string, head midi.Head, lead []band.Note) (download, error) {
	groove, err := band.GrooveOf(feel)
	if err != nil {
		return download{}, at("query.feel", feel, err)
	}
	head.Tempo = cmp.Or(q.Tempo, head.Tempo)
	if head.Tempo < form.MinTempo || head.Tempo > form.MaxTempo {
		return download{}, at("query.tempo", head.Tempo, say.Errorf("a tempo of %d; between %d and %d beats a minute can be played", head.Tempo, form.MinTempo, form.MaxTempo))
	}
	perf, err := band.Play(ctx, p, groove, band.Options{Choruses: q.Choruses, Seed: q.Seed, CountIn: q.CountIn, Metronome: q.Metronome,
		Comp: q.Comp, DropChords: q.DropChords, Intensity: q.Intensity, Swing: q.Swing, Without: q.Without, Lead: lead})
	if err != nil {
		return download{}, at("query", q.Choruses, err)
	}
	return file("audio/midi", head.Title, "mid", midi.Write(perf, head)), nil
}

// download is a file for the player to keep.
type download struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func file(kind, title, ending string, body []byte) download {
	return download{kind, fmt.Sprintf("attachment; filename=%q", fileName(title)+"."+ending), body}
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

func (s *server) bands(api huma.API) {
	deliver(s, api, "/api/charts/{id}/midi", "chart-midi", "The band playing a chart, as a Standard MIDI File of format 1", "audio/midi",
		func(ctx context.Context, in *struct {
			ByID
			BandQuery
			Lead string `query:"lead" enum:"thread" doc:"thread: its targets are played over the band"`
			Low  int    `query:"low" minimum:"0" maximum:"27" doc:"with high: the window of the thread"`
			High int    `query:"high"`
		}) (none download, err error) {
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return download{}, missing("chart", err)
			}
			p, key, err := progression(c)
			if err != nil {
				return none, err
			}
			var lead []band.Note
			if in.Lead == "thread" {
				if lead, err = s.threadLead(ctx, c, in.Low, in.High, in.Choruses); err != nil {
					return none, err
				}
			}
			return in.play(ctx, p, c.Feel, midi.Head{Title: c.Title, Tempo: c.Tempo, Key: key}, lead)
		})

	deliver(s, api, "/api/bands/midi", "band-midi", "The band playing any bars, with notes over them, as a Standard MIDI File", "audio/midi",
		func(ctx context.Context, in *struct {
			BandQuery
			Text  string   `query:"text" required:"true" maxLength:"60000" doc:"| C7 | F7 |"`
			Key   string   `query:"key" default:"C"`
			Beats int      `query:"beats" default:"4"`
			Feel  string   `query:"feel" default:"shuffle"`
			Lead  []string `query:"lead,explode" maxItems:"2000" doc:"notes one after the other, as MIDI number:beats, such as 64:2; r:1 rests"`
		}) (none download, err error) {
			key, err := readKey("query.key", in.Key)
			if err != nil {
				return none, err
			}
			p, err := form.Read(in.Text, in.Beats, key)
			if err != nil {
				return download{}, at("query.text", in.Text, err)
			}
			lead, err := readLead(in.Lead)
			if err != nil {
				return download{}, at("query.lead", in.Lead, err)
			}
			return in.play(ctx, p, in.Feel, midi.Head{Title: "band", Tempo: 100, Key: key}, lead)
		})
}

// readLead reads notes that follow each other.
func readLead(notes []string) (lead []band.Note, err error) {
	now := 0
	for _, text := range notes {
		name, beats, _ := strings.Cut(text, ":")
		var length float64
		if n, err := fmt.Sscanf(beats, "%g", &length); err != nil || n != 1 || !(length > 0 && length <= 64) {
			return nil, say.Errorf("%q is no note of a lead; it is written MIDI number:beats, such as 64:2, with 64 beats at most", text)
		}
		ticks := int(length * band.Tick)
		if name != "r" {
			var n band.Note
			if got, err := fmt.Sscanf(name, "%d", &n.MIDI); err != nil || got != 1 {
				return nil, say.Errorf("%q is no note of a lead; it is written MIDI number:beats, such as 64:2, or r:2 for a rest", text)
			}
			n.Start, n.Length = now, max(1, ticks)
			lead = append(lead, n)
		}
		now += ticks
	}
	return lead, nil
}

// threadLead plays the thread of a window, a note as long as its chord.
func (s *server) threadLead(ctx context.Context, c store.Chart, low, high, choruses int) ([]band.Note, error) {
	player, err := s.store.Player()
	if err != nil {
		return nil, err
	}
	w := neck.Window{Low: low, High: high}
	thread, places, beats, err := threadOf(ctx, c, player.Player, w)
	if err != nil {
		return nil, err
	}
	if thread.Problem != nil {
		return nil, at("query.lead", "thread", errors.New(thread.Problem.Message))
	}
	per := 1
	for _, t := range thread.Targets {
		per = max(per, t.Chorus+1)
	}
	var lead []band.Note
	for chorus := range choruses {
		for _, t := range thread.Targets {
			if t.Chorus == chorus%per {
				p := places[t.Step]
				start := (chorus*beats + p.Beat) * band.Tick
				lead = append(lead, band.Note{Start: start, Length: p.Length*band.Tick - band.Tick/12, MIDI: t.MIDI})
			}
		}
	}
	return lead, nil
}

// threadOf ties the thread of a chart in a window. The places' beats are counted
// from the top of the form; beats is how many the form has.
func threadOf(ctx context.Context, c store.Chart, player store.Player, w neck.Window) (t Thread, places []form.Place, beats int, err error) {
	in, _, err := playerNeck(player)
	if err != nil {
		return t, nil, 0, err
	}
	if _, err := (WindowQuery{w.Low, w.High}).window(in); err != nil {
		return t, nil, 0, err
	}
	p, key, err := progression(c)
	if err != nil {
		return t, nil, 0, err
	}
	if p, err = imagined(p, key, c.Plan); err != nil {
		return t, nil, 0, err
	}
	v, err := newWeave(in, p, key, c.Plan, "body.")
	if err != nil {
		return t, nil, 0, err
	}
	t = v.tie(ctx, w, pinsIn(c.Plan.Pins, w, v.places))
	places = p.Places()
	for i := range places {
		places[i].Beat += places[i].Bar * p.Beats
	}
	return t, places, len(p.Bars) * p.Beats, nil
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
