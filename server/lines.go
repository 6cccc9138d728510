package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
	"undaris/store"
)

// LineHead is what a player keeps of a line, but its notes.
type LineHead struct {
	Title    string `json:"title" maxLength:"160"`
	Key      string `json:"key" maxLength:"10"`
	Feel     string `json:"feel" maxLength:"40"`
	Tempo    int    `json:"tempo" doc:"beats a minute, 30 to 300"`
	Beats    int    `json:"beats" doc:"in a bar, 2 to 12"`
	Text     string `json:"text" maxLength:"60000" doc:"the chords: | C7 | F7 |"`
	Palette  string `json:"palette,omitempty" maxLength:"40" doc:"what its notes are drawn from"`
	Low      int    `json:"low" doc:"first fret of the window it is written in"`
	High     int    `json:"high"`
	Strings  string `json:"strings,omitempty" maxLength:"20" doc:"it is written on, such as 5,2; all where it is not said"`
	Tuning   string `json:"tuning,omitempty" maxLength:"80" doc:"of the instrument it is written for; the player's where it is not said"`
	Frets    int    `json:"frets,omitempty" minimum:"0" maximum:"27"`
	Capo     int    `json:"capo,omitempty" minimum:"0" maximum:"12"`
	Locked   []int  `json:"locked,omitempty" maxItems:"1024" doc:"bars that are not to be written anew, from 1"`
	Exercise string `json:"exercise,omitempty" maxLength:"40" doc:"the exercise that it is: it gets no advice"`
	Closing  string `json:"closing,omitempty" maxLength:"40" doc:"how it goes through its last two bars, of the catalogue's; the band ends with it"`
	Remark   string `json:"remark,omitempty" maxLength:"1000" doc:"the player's own"`
	Source   string `json:"source,omitempty" maxLength:"200" doc:"where it is from"`

	Heard *store.Passage `json:"heard,omitempty" doc:"the stretch of a recording that it was learned from"`
}

// LineBody is a line as a player keeps it.
type LineBody struct {
	LineHead
	Notes []store.LineNote `json:"notes" maxItems:"4000"`
}

// Line is a stored line.
type Line struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version" doc:"its ETag, without the quotes"`
	LineBody
	Bars    int       `json:"bars"`
	Updated time.Time `json:"updated"`
}

// LineRow is a line in a list.
type LineRow struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version"`
	Title   string    `json:"title"`
	Key     string    `json:"key"`
	Feel    string    `json:"feel"`
	Tempo   int       `json:"tempo"`
	Beats   int       `json:"beats"`
	Bars    int       `json:"bars"`
	Low     int       `json:"low"`
	High    int       `json:"high"`
	Notes   int       `json:"notes" doc:"how many"`
	Updated time.Time `json:"updated"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

func lineRow(l store.LineSummary) LineRow {
	return LineRow{l.ID, l.Tag, l.Title, l.Key, l.Feel, l.Tempo, l.Beats, l.Bars, l.Low, l.High, l.Sounding, l.UpdatedAt, l.Problem}
}

// lineIn is a line read.
type lineIn struct{ edit.Line }

// read lays a line on the neck it is written for. Notes without a place, and
// notes whose place sounds otherwise there, have one found.
func (s *server) read(b LineBody) (o lineIn, err error) {
	player, err := s.store.Player()
	if err != nil {
		return o, err
	}
	return readLine(player.Player, b)
}

// readLine does so for a player.
func readLine(player store.Player, b LineBody) (o lineIn, err error) {
	if b.Tuning == "" {
		b.Tuning, b.Frets, b.Capo = player.Tuning, player.Frets, player.Capo
	}
	player.Tuning, player.Frets, player.Capo = b.Tuning, b.Frets, b.Capo
	in, hand, err := playerNeck(player)
	if err != nil {
		return o, err
	}
	key, err := readKey("body.key", b.Key)
	if err != nil {
		return o, err
	}
	p, err := form.Read(b.Text, b.Beats, key)
	if err != nil {
		return o, at("body.text", b.Text, err)
	}
	if err := checkPlaying(b.Feel, b.Tempo); err != nil {
		return o, err
	}
	if o.Rule, err = line.RuleByID(player.Rests); err != nil {
		o.Rule = line.Usual
	}
	o.Hand, o.Feel, o.Exercise, o.Closing, o.Region = hand, b.Feel, b.Exercise, b.Closing, neck.Region{Low: b.Low, High: b.High}
	if b.Low == 0 && b.High == 0 {
		o.Region = in.Positions(key.Tonic.Class())[0].Region
	}
	if o.Region.Strings, err = neck.ParseStrings(b.Strings); err != nil {
		return o, at("body.strings", b.Strings, err)
	}
	if err := in.CheckRegion(o.Region); err != nil {
		return o, at("body.low", b.Low, err)
	}
	if o.Palette, err = blend.PaletteByID(cmp.Or(b.Palette, blend.Palettes[0].ID)); err != nil {
		return o, at("body.palette", b.Palette, err)
	}
	if _, err := line.ClosingByID(b.Closing); err != nil {
		return o, at("body.closing", b.Closing, err)
	}
	o.Remark, o.Source, o.Heard = b.Remark, clean(b.Source), (*edit.Passage)(b.Heard)
	o.Lock(b.Locked)
	o.Score = score.Score{Title: clean(b.Title), Key: key, Tempo: b.Tempo, Swing: band.Swings(b.Feel), Progression: p, In: in}
	if o.Notes, err = store.ScoreNotes(b.Notes, o.NameAt); err != nil {
		return o, atNote(err)
	}
	score.Sort(o.Notes)
	if err := o.Settle(); err != nil {
		return o, at("body.notes", nil, err)
	}
	lick.Label(o.Score)
	return o, nil
}

// atNote points at the note that cannot be read.
func atNote(err error) error {
	var n *store.NoteError
	if errors.As(err, &n) {
		return at(fmt.Sprintf("body.notes[%d].note", n.Index), n.Note, n.Err)
	}
	return err
}

// checkPlaying says whether there is such a feel and tempo.
func checkPlaying(feel string, tempo int) error {
	if _, ok := form.FeelByID(feel); !ok {
		return at("body.feel", feel, say.Errorf("there is no feel %q", feel))
	}
	if tempo < form.MinTempo || tempo > form.MaxTempo {
		return at("body.tempo", tempo, say.Errorf("a tempo of %d; between %d and %d beats a minute can be played", tempo, form.MinTempo, form.MaxTempo))
	}
	return nil
}

func wireHead(l edit.Line) LineHead {
	return LineHead{Title: l.Title, Key: l.Key.String(), Feel: l.Feel, Tempo: l.Tempo, Beats: l.Beats, Text: l.Text(), Palette: l.Palette.ID,
		Low: l.Region.Low, High: l.Region.High, Strings: l.Region.Strings.String(), Tuning: l.In.Tuning(), Frets: l.In.Frets, Capo: l.In.Capo, Locked: l.LockedBars(), Exercise: l.Exercise, Closing: l.Closing, Remark: l.Remark, Source: l.Source, Heard: (*store.Passage)(l.Heard)}
}

// wireBody writes a line as one that can be kept.
func wireBody(l edit.Line) LineBody { return LineBody{wireHead(l), store.LineNotes(l.Notes)} }

func wireLine(l store.Line) Line {
	h := LineHead{l.Title, l.Key, l.Feel, l.Tempo, l.Beats, l.Text, l.Palette, l.Low, l.High, l.Strings, l.Tuning, l.Frets, l.Capo, append([]int{}, l.Locked...), l.Exercise, l.Closing, l.Remark, l.Source, l.Heard}
	return Line{l.ID, l.Tag, LineBody{h, store.Numbered(l.Notes)}, l.Bars, l.UpdatedAt}
}

// stored checks a line and makes it what is kept.
func (s *server) stored(_ context.Context, b LineBody) (store.Line, error) {
	player, err := s.store.Player()
	if err != nil {
		return store.Line{}, err
	}
	return storedLine(player.Player, b)
}

func storedLine(player store.Player, b LineBody) (store.Line, error) {
	if clean(b.Title) == "" {
		return store.Line{}, at("body.title", b.Title, errors.New("a line needs a title"))
	}
	o, err := readLine(player, b)
	if err != nil {
		return store.Line{}, err
	}
	b = wireBody(o.Line)
	return store.Line{Title: b.Title, Key: b.Key, Feel: b.Feel, Tempo: b.Tempo, Beats: b.Beats, Text: b.Text, Palette: b.Palette, Low: b.Low, High: b.High, Strings: b.Strings, Tuning: b.Tuning, Frets: b.Frets, Capo: b.Capo, Notes: b.Notes, Locked: b.Locked, Exercise: b.Exercise, Closing: b.Closing, Remark: b.Remark, Source: b.Source, Heard: b.Heard}, nil
}

func (s *server) lines(api huma.API) {
	keeping[LineBody, store.Line, store.LineSummary, Line, LineRow]{
		name: "line", path: "/api/lines", wire: wireLine, row: lineRow, tag: func(l store.Line) store.Tag { return l.Tag }, stored: s.stored,
		put:  func(old *store.Line, now store.Line) { now.Kept, *old = old.Kept, now },
		list: s.store.Lines, count: s.store.CountLines, one: s.store.Line, create: s.store.CreateLine,
		change: s.store.ChangeLine, remove: s.store.DeleteLine, restore: s.store.RestoreLine,
	}.serve(s, api)

	for _, register := range lineOps {
		register(s, api)
	}
	s.lineFiles(api)
}

// with is the same line after something was done to it.
func (o lineIn) with(l edit.Line) lineIn {
	o.Line = l
	return o
}
