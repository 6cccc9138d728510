package server

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"net/http"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/say"
	"undaris/core/score"
	"undaris/formats"
	"undaris/store"
)

// Brought is what a file was understood as. Nothing of it is kept yet.
type Brought struct {
	Kind  string      `json:"kind" doc:"what the file is"`
	Parts []Part      `json:"parts" doc:"what could be read of it"`
	Said  []string    `json:"said" doc:"what was guessed, moved or left out, and where"`
	Where []Where     `json:"where" doc:"of each that is said, where in the file that is"`
	Chart *ChartBody  `json:"chart,omitempty"`
	Sheet *Sheet      `json:"sheet,omitempty" doc:"the chart as it is played"`
	Order string      `json:"order,omitempty" doc:"in which order its written bars are played, where it is not as they stand"`
	Line  *LineBody   `json:"line,omitempty"`
	Score *Score      `json:"score,omitempty" doc:"the line, or the licks, as they are written"`
	Licks []LickBody  `json:"licks,omitempty"`
	Over  []Explained `json:"over,omitempty" doc:"chords over which licks make sense that come without, the best first"`

	Trouble string `json:"trouble,omitempty" doc:"why nothing could be made of the part that was read; another may do"`
}

// Where is a place in a file; 0 is none.
type Where struct {
	Bar  int `json:"bar,omitempty" doc:"from 1"`
	Line int `json:"line,omitempty" doc:"of a text, from 1"`
}

// placeTold finds the place that a sentence tells.
var placeTold = regexp.MustCompile(`\b(bar|line) (\d{1,6})\b`)

// placed tells where each is that is said.
func (w Brought) placed() Brought {
	w.Where = each(w.Said, func(said string) (at Where) {
		if m := placeTold.FindStringSubmatch(said); m != nil {
			n, _ := strconv.Atoi(m[2])
			at = map[string]Where{"bar": {Bar: n}, "line": {Line: n}}[m[1]]
		}
		return at
	})
	return w
}

// Explained is a chord over which notes make sense.
type Explained struct {
	Chord string `json:"chord"`
	Why   string `json:"why" doc:"where they land, and what rubs"`
	Read  bool   `json:"read" doc:"it is what they were read over"`
}

// Part is what can be read of a file by itself.
type Part struct {
	Name  string `json:"name"`
	Notes int    `json:"notes"`
	Read  bool   `json:"read" doc:"it is what was read"`
}

// FileQuery says what a file is to be, and what of it.
type FileQuery struct {
	Name  string `query:"name" maxLength:"300" doc:"of the file; its ending tells what it is, where its beginning does not"`
	Chart uint   `query:"chart" maximum:"4294967295" doc:"a chart to lay a line over, where the file has no chords"`
	Over  string `query:"over" maxLength:"40" doc:"the chord that licks lie over, where the file has none; else the one that explains them best"`
	Part  int    `query:"part" minimum:"0" maximum:"1000" doc:"which of its parts, from 1; 0 leaves it to the reader"`
}

func (s *server) brings(api huma.API) {
	register(s, api, operation(http.MethodPost, "/api/imports", "read-file", "What a file would be as a chart, a line or licks; nothing is kept", 0),
		body(queued(s, func(ctx context.Context, in *struct {
			FileQuery
			As      string `query:"as" enum:"chart,line,licks" default:"line"`
			Out     bool   `query:"out" doc:"a chart's repeats are written out"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (w Brought, err error) {
			switch in.As {
			case "chart":
				w, err = s.broughtChart(ctx, in.FileQuery, in.Out, in.RawBody)
			case "licks":
				w, err = s.broughtLicks(ctx, in.FileQuery, in.RawBody)
			default:
				w, err = s.broughtLine(ctx, in.FileQuery, in.RawBody)
			}
			return w.placed(), err
		})))
}

// broughtLine reads a file as a line.
func (s *server) broughtLine(ctx context.Context, q FileQuery, data []byte) (Brought, error) {
	found, o, err := s.imported(ctx, q, data)
	if err != nil {
		return otherParts(found, err)
	}
	w := brought(found)
	st := o.study()
	line := wireBody(o.Line)
	w.Line, w.Score, w.Said = &line, &st.Score, st.Said
	return w, nil
}

func brought(f formats.Found) Brought {
	return Brought{Kind: f.Kind, Said: words(f.Said), Parts: each(f.Parts, func(p formats.Part) Part { return Part(p) })}
}

// otherParts tells what went wrong with one part of a file that has others to choose from; of a file without it is the refusal.
func otherParts(f formats.Found, err error) (Brought, error) {
	var refused huma.StatusError
	if len(f.Parts) < 2 || !errors.As(err, &refused) || refused.GetStatus() != http.StatusUnprocessableEntity {
		return Brought{}, err
	}
	w := brought(f)
	w.Trouble = refused.Error()
	return w, nil
}

// called is the name of a file without its ending.
func called(name string) string { return clean(strings.TrimSuffix(name, path.Ext(name))) }

// broughtLicks reads a file as a line and takes it apart.
func (s *server) broughtLicks(ctx context.Context, q FileQuery, data []byte) (w Brought, err error) {
	q.Chart = 0
	found, o, err := s.imported(ctx, q, data)
	if err != nil {
		return otherParts(found, err)
	}
	w = brought(found)
	if w.Over, err = o.explained(q.Over); err != nil {
		return w, at("query.over", q.Over, err)
	}
	st := o.study()
	w.Score, w.Said = &st.Score, st.Said
	all := o.Phrases()
	for i, p := range all {
		title := p.Title
		if title == "" {
			title = o.Title
			if len(all) > 1 {
				title = say.F("%s %d", o.Title, i+1)
			}
		}
		if err := p.Check(); err != nil {
			w.Said = append(w.Said, say.F("%s was left out: %v", title, err))
			continue
		}
		w.Licks = append(w.Licks, LickBody{Title: title, Chord: p.Chord, OfKey: p.OfKey, Notes: store.LickNotes(p.Notes), Tags: []string{}, Home: homeOf(p.Home), Source: cameFrom(q.Name)})
	}
	if len(w.Licks) == 0 {
		return w, at("body", q.Name, errors.New("there is no lick in it: "+cmp.Or(strings.Join(w.Said, "; "), "it has no notes")))
	}
	return w, nil
}

func homeOf(h lick.Home) *store.Home {
	home := store.HomeOf(h)
	return &home
}

// cameFrom says which file something was brought in from; nothing of what was pasted.
func cameFrom(name string) string {
	if name = clean(name); name == "" || strings.HasPrefix(name, "pasted.") {
		return ""
	}
	if letters := []rune(name); len(letters) > longestSource {
		name = string(letters[:longestSource]) + "…"
	}
	return name
}

// longestSource is how much of a file's name is kept, in characters.
const longestSource = 150

// mostExplained is how many chords are offered that may explain a lick.
const mostExplained = 3

// explained lays a line without chords over one: what is asked for, else what explains its notes best.
func (o *lineIn) explained(over string) (list []Explained, err error) {
	if !o.Silent() || len(o.Notes) == 0 {
		return nil, nil
	}
	for _, e := range lick.Explain(o.Notes, mostExplained) {
		list = append(list, Explained{Chord: e.Chord.String(), Why: e.Why})
	}
	if over == "" && len(list) > 0 {
		over = list[0].Chord
	}
	if over == "" {
		return list, nil
	}
	chord, err := harmony.Parse(over)
	if err != nil {
		return list, err
	}
	for i := range o.Bars {
		o.Bars[i].Changes = []form.Change{{Chord: chord}}
	}
	o.Respell()
	o.Said = slices.DeleteFunc(o.Said, func(s string) bool { return s == edit.WithoutChords })
	i := slices.IndexFunc(list, func(e Explained) bool { return e.Chord == over })
	if i < 0 {
		list, i = append(list, Explained{Chord: over, Why: "as you say"}), len(list)
	}
	list[i].Read = true
	return list, nil
}

// maxText is how long the text of a chart may be, in bytes.
const maxText = 60_000

// broughtChart reads a file's chords.
func (s *server) broughtChart(ctx context.Context, q FileQuery, out bool, data []byte) (w Brought, err error) {
	var body ChartBody
	var song form.Song
	var holds form.Beside
	if formats.Known(data) {
		found, err := formats.Read(ctx, q.Name, data, formats.Wish{Part: q.Part, Chart: true})
		if err != nil {
			return w, at("body", q.Name, err)
		}
		if found.Silent() {
			return w, at("body", q.Name, errors.New("this file has no chords that can be read: a chart is made of them"))
		}
		song = form.Song{}.With(found.Progression)
		if found.Song != nil {
			song = *found.Song
		}
		w = brought(found)
		body = ChartBody{Title: found.Title, Key: found.Key.String(), Feel: cmp.Or(found.Score.Feel, band.FeelOf(found.Swing)), Tempo: found.Tempo, Beats: found.Beats}
		holds = found.Beside
	} else {
		if len(data) > 4*maxText { // however many bytes a character takes
			return w, at("body", q.Name, say.Errorf("a text of %d kB; a chart's has %d at most", len(data)>>10, maxText>>10))
		}
		text := formats.Decoded(data)
		switch {
		case bytes.IndexByte(text, 0) >= 0:
			return w, at("body", q.Name, errors.New("this is no text, MusicXML or MIDI file"))
		case len(text) > maxText:
			return w, at("body", q.Name, say.Errorf("a text of %d kB; a chart's has %d at most", len(text)>>10, maxText>>10))
		}
		var found form.Found
		if song, found, err = readSong(string(text)); err != nil {
			return w, at("body", q.Name, err)
		}
		w = Brought{Kind: "chords as text", Said: words(found.Said), Parts: []Part{}}
		body = ChartBody{Title: found.Title, Key: found.Key, Feel: cmp.Or(found.Feel, band.FeelOf(true)), Tempo: cmp.Or(found.Tempo, 96), Beats: song.Beats}
		holds = found.Beside
		if body.Key == "" {
			guess := form.GuessKeys(song.Play(form.MaxBars))
			body.Key = "C"
			if len(guess) > 0 {
				body.Key = guess[0].Key.String()
				w.Said = append(w.Said, say.F("the text names no key; %s was guessed: %s", guess[0].Key.Printed(), guess[0].Why))
			}
		}
		written, err := form.ParseKey(body.Key)
		if err != nil {
			return w, at("body", q.Name, err)
		}
		song, written = found.Sounding(song, written)
		body.Key = written.String()
	}
	if out && song.Order() != "" {
		p := song.Play(form.MaxBars)
		for i := range p.Bars {
			p.Bars[i].Written, p.Bars[i].Pass = 0, 0
		}
		song = form.Song{}.With(p)
	}
	w.Said = append(w.Said, body.hold(holds)...)
	key, err := form.ParseKey(body.Key)
	if err != nil {
		return w, at("body", q.Name, err)
	}
	if t := min(form.MaxTempo, max(form.MinTempo, body.Tempo)); t != body.Tempo {
		w.Said = append(w.Said, say.F("a tempo of %d cannot be played; it was set to the nearest that can", body.Tempo))
		body.Tempo = t
	}
	body.Title, body.Text = cmp.Or(clean(body.Title), called(q.Name)), song.Text()
	sheet := wireSheet(song.Play(form.MaxBars), key)
	w.Chart, w.Sheet, w.Order = &body, &sheet, song.Order()
	return w, nil
}

// hold takes what a file holds beside the bars, as far as a chart can have it; what it cannot is told.
func (b *ChartBody) hold(h form.Beside) (said []string) {
	b.Swing, b.Remarks, b.Tags, b.Reading = h.Swing, h.Remarks, tagWords(h.Tags), h.Reading
	if len(b.Tags) > maxTags {
		b.Tags, said = "", append(said, "its tags are longer than a chart's can be; they were left out")
	}
	if _, err := band.IntroByID(h.Intro); err == nil {
		b.Intro = h.Intro
	} else {
		said = append(said, err.Error())
	}
	if _, err := band.EndingByID(h.Ending); err == nil {
		b.Ending = h.Ending
	} else {
		said = append(said, err.Error())
	}
	return said
}

// maxTags is how long the tags of a chart may be, in characters.
const maxTags = 200

// readSong reads a text in the key and metre that it says itself.
func readSong(text string) (song form.Song, found form.Found, err error) {
	key, beats := form.Key{}, 4
	if song, found, err = form.ReadSong(text, beats, key); found.Key == "" && found.Beats == 0 {
		return song, found, err
	}
	if found.Key != "" {
		if key, err = form.ParseKey(found.Key); err != nil {
			return song, found, err
		}
	}
	return form.ReadSong(text, cmp.Or(found.Beats, beats), key)
}

// imported reads a file as a line on the player's neck.
func (s *server) imported(ctx context.Context, q FileQuery, data []byte) (found formats.Found, o lineIn, err error) {
	player, err := s.store.Player()
	if err != nil {
		return found, o, err
	}
	in, hand, err := playerNeck(player.Player)
	if err != nil {
		return found, o, err
	}
	under := score.Score{In: in, Tempo: 100, Progression: form.Progression{Beats: 4}}
	feel := ""
	if q.Chart != 0 {
		c, err := s.chart(q.Chart)
		if err != nil {
			return found, o, err
		}
		if under.Progression, under.Key, err = progression(c); err != nil {
			return found, o, err
		}
		feel = c.Feel
		under.Swing = band.Swings(feel)
	}
	if found, err = formats.Read(ctx, q.Name, data, formats.Wish{Base: under, Part: q.Part}); err != nil {
		return found, o, at("body", q.Name, err)
	}
	o, err = s.laid(found, under, cmp.Or(feel, found.Feel, band.FeelOf(found.Swing)), called(q.Name), hand)
	o.Source = cameFrom(q.Name)
	return found, o, err
}
