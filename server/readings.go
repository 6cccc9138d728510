package server

import (
	"cmp"
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/say"
)

// Change is a chord in a bar.
type Change struct {
	Beat    int    `json:"beat" doc:"from 1"`
	Length  int    `json:"length" doc:"in beats"`
	Chord   int    `json:"chord" doc:"index in the list of chords"`
	Numeral string `json:"numeral"`
	Rubs    []Rub  `json:"rubs,omitempty" doc:"where the soloist imagines this chord: what rubs against the band's"`
}

// Rub is a tone of an imagined chord that does not rest over the band's.
type Rub struct {
	ToneName
	Over string `json:"over" doc:"the degree it is over the band's chord"`
	Band string `json:"band" doc:"the band's chord"`
}

// Bar is a bar of a chart.
type Bar struct {
	Section string   `json:"section,omitempty"`
	Row     bool     `json:"row,omitempty" doc:"a new row of the sheet begins here"`
	Beats   int      `json:"beats"`
	Changes []Change `json:"changes"`
	Written int      `json:"written,omitempty" doc:"which written bar it is, from 1, where a song is not played as it is written"`
	Pass    int      `json:"pass,omitempty" doc:"for which time it is played then"`
	Band    string   `json:"band,omitempty" doc:"what the band plays here, where the soloist imagines something else"`
}

// Sheet is a progression as it is drawn: bars that point into the chords used.
type Sheet struct {
	Bars   []Bar   `json:"bars"`
	Chords []Chord `json:"chords"`
	Pickup *Pickup `json:"pickup,omitempty" doc:"what leads to the first bar, once; it is none of the bars"`
}

// Pickup is some beats before the first bar. Its chords are not among those of the bars.
type Pickup struct {
	Beats   int    `json:"beats" doc:"fewer than in a bar"`
	Changes []Lead `json:"changes"`
}

// Lead is a chord of a pickup.
type Lead struct {
	Beat    int    `json:"beat" doc:"of the bar that it would be the end of, from 1"`
	Chord   string `json:"chord" doc:"its symbol"`
	Numeral string `json:"numeral"`
}

func wirePickup(p form.Progression, key form.Key) *Pickup {
	lead := p.Pickup
	if lead.Beats == 0 {
		return nil
	}
	return &Pickup{lead.Beats, each(lead.Changes, func(c form.Change) Lead {
		return Lead{p.Beats - lead.Beats + c.Beat + 1, c.Chord.String(), form.Numeral(c.Chord, key)}
	})}
}

func wireSheet(p form.Progression, key form.Key) Sheet {
	places := p.Places()
	chords, of := form.Different(places)
	sheet := Sheet{each(p.Bars, func(b form.Bar) Bar {
		return Bar{Section: b.Section, Row: b.Row, Beats: cmp.Or(b.Beats, p.Beats), Changes: []Change{}, Written: b.Written, Pass: b.Pass}
	}), each(chords, wireChord), wirePickup(p, key)}
	for i, place := range places {
		bar := &sheet.Bars[place.Bar]
		bar.Changes = append(bar.Changes, Change{Beat: place.Beat + 1, Length: place.Length, Chord: of[i], Numeral: form.Numeral(place.Chord, key)})
	}
	return sheet
}

// Problem is a place in a text that cannot be read.
type Problem struct {
	Message string `json:"message"`
	Text    string `json:"text" doc:"what stands there"`
	Offset  int    `json:"offset" doc:"in characters from the start"`
	Length  int    `json:"length"`
	Bar     int    `json:"bar" doc:"from 1; 0 when it concerns the whole"`
	Nearest string `json:"nearest,omitempty" doc:"a reading that would work"`
}

// Reading is what a text says, or why it cannot be read.
type Reading struct {
	Sheet
	Text     string       `json:"text" doc:"in chord symbols, as Undaris writes it; empty if it cannot be read"`
	Numerals string       `json:"numerals"`
	Problems []Problem    `json:"problems"`
	Written  []WrittenBar `json:"written" doc:"the bars as they are written, to be moved about"`
	Said     []string     `json:"said" doc:"what was taken for granted"`
	Order    string       `json:"order,omitempty" doc:"in which order the written bars are played, where it is not as they stand"`
	AsH      string       `json:"asH,omitempty" doc:"the text with German names of notes (H, B, Es, Fis) or syllables (do, re, mi) as they are written here, where it has such"`
	Found    Found        `json:"found" doc:"what the text says beside its bars"`
	Guesses  []Guess      `json:"guesses" doc:"the two keys that the chords are likeliest in, when they are in another than was asked"`
}

// WrittenBar is a bar as it stands between bar lines, with its signs. Bars can be put together in
// any order.
type WrittenBar struct {
	Text     string `json:"text"`
	Chords   string `json:"chords" doc:"alone"`
	Numerals string `json:"numerals"`
	Beats    int    `json:"beats"`
	Section  string `json:"section,omitempty"`
	Row      bool   `json:"row,omitempty" doc:"a new row begins here"`
	Before   string `json:"before,omitempty" doc:"the signs before its chords, such as 1."`
	After    string `json:"after,omitempty" doc:"the signs behind them, such as D.C."`
	Pickup   bool   `json:"pickup,omitempty" doc:"it leads to the first bar and is none; it stands first"`
}

func wireWrittenBars(song form.Song, key form.Key) []WrittenBar {
	pieces := song.Pieces()
	out := []WrittenBar{}
	if song.Pickup.Beats > 0 {
		own := song.Pickup.Written()
		_, chords, _ := own.Printed(song.Pickup.Beats, harmony.Chord.String)
		_, numerals, _ := own.Printed(song.Pickup.Beats, func(c harmony.Chord) string { return form.Numeral(c, key) })
		out = append(out, WrittenBar{Text: song.Pickup.Text(), Chords: chords, Numerals: numerals, Beats: song.Pickup.Beats, Pickup: true})
	}
	for i, w := range song.Bars {
		before, chords, after := w.Printed(song.Beats, harmony.Chord.String)
		_, numerals, _ := w.Printed(song.Beats, func(c harmony.Chord) string { return form.Numeral(c, key) })
		out = append(out, WrittenBar{pieces[i], chords, numerals, cmp.Or(w.Beats, song.Beats), w.Section, w.Row, before, after, false})
	}
	return out
}

// Guess is a key that chords may be in.
type Guess struct {
	Key string `json:"key"`
	Why string `json:"why"`
}

// guesses are the likeliest key and the second, where the likeliest is another one.
func guesses(p form.Progression, key form.Key) []Guess {
	all := form.GuessKeys(p)
	if len(all) == 0 || all[0].Key.Tonic.Class() == key.Tonic.Class() && all[0].Key.Minor == key.Minor {
		return []Guess{}
	}
	return each(all[:2], func(g form.Guess) Guess { return Guess{g.Key.String(), g.Why} })
}

// Found is what a chart's text says beside its bars.
type Found struct {
	Title string `json:"title,omitempty"`
	Key   string `json:"key,omitempty"`
	Feel  string `json:"feel,omitempty"`
	Tempo int    `json:"tempo,omitempty"`
	Swing int    `json:"swing,omitempty"`
	Beats int    `json:"beats,omitempty"`

	Reading string `json:"reading,omitempty" doc:"in which pitch it is to be read, of the catalogue's"`
	Text    string `json:"text,omitempty" doc:"the chords as they sound, where a capo or a transposition has them sound elsewhere; key is that they sound in then"`
}

// wireFound tells what a text says beside its bars; of one that sounds elsewhere than it is written also the chords as they sound.
func wireFound(f form.Found, song form.Song, key form.Key) Found {
	w := Found{f.Title, f.Key, f.Feel, f.Tempo, f.Swing, f.Beats, f.Reading, ""}
	if f.Up%12 != 0 && len(song.Bars) > 0 {
		if own, err := form.ParseKey(f.Key); err == nil && f.Key != "" {
			key = own
		}
		sounds, at := f.Sounding(song, key)
		w.Text, w.Key = sounds.Text(), at.String()
	}
	return w
}

// ReadingRequest says what to read: a text or a form, with what to do to it.
type ReadingRequest struct {
	Text       string `json:"text,omitempty" maxLength:"60000"`
	Form       string `json:"form,omitempty" doc:"the ID of a form, instead of a text"`
	Turnaround string `json:"turnaround,omitempty" doc:"the ID of a turnaround to put over the last two bars"`
	Key        string `json:"key"`
	From       string `json:"from,omitempty" doc:"the key the text is in, when it is to be moved to key"`
	Beats      int    `json:"beats,omitempty" default:"4"`
}

func (s *server) readings(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "read-text", Method: http.MethodPost, Path: "/api/readings",
		Summary: "Read a progression as it is typed, choose a form, or move one to another key"},
		func(_ context.Context, in *struct{ Body ReadingRequest }) (*out[Reading], error) {
			r, err := read(in.Body)
			return &out[Reading]{r}, err
		})
}

// read does what the request asks. Problems of the text are part of the answer.
func read(q ReadingRequest) (Reading, error) {
	key, err := readKey("body.key", q.Key)
	if err != nil {
		return Reading{}, err
	}
	from := key
	if q.From != "" {
		if from, err = readKey("body.from", q.From); err != nil {
			return Reading{}, err
		}
	}
	text := q.Text
	if q.Form != "" {
		f, ok := form.FormByID(q.Form)
		if !ok {
			return Reading{}, at("body.form", q.Form, say.Errorf("there is no form %q", q.Form))
		}
		text = f.Text
	}
	beats := q.Beats
	if q.Form != "" || beats == 0 {
		beats = 4
	}
	song, found, err := form.ReadSong(text, beats, from)
	var problems form.Problems
	if errors.As(err, &problems) {
		none := Reading{Sheet: Sheet{Bars: []Bar{}, Chords: []Chord{}}, Problems: each(problems, wireProblem), Written: []WrittenBar{}, Said: words(found.Said), Found: wireFound(found, form.Song{}, from), Guesses: []Guess{}}
		if again, ok := form.FromElsewhere(text); ok {
			none.AsH = again
		}
		return none, nil
	}
	says := wireFound(found, song, from)
	p := song.Flat()
	if q.Turnaround != "" {
		if p, err = turned(p, q.Turnaround, from); err != nil {
			return Reading{}, err
		}
	}
	if from != key {
		p = p.Transpose(from, key)
	}
	song = song.With(p)
	played := song.Play(form.MaxBars)
	return Reading{wireSheet(played, key), song.Text(), song.NumeralText(key), []Problem{}, wireWrittenBars(song, key), words(found.Said), song.Order(), "", says, guesses(played, key)}, nil
}

func turned(p form.Progression, id string, key form.Key) (form.Progression, error) {
	for _, t := range form.Turnarounds {
		if t.ID == id {
			tail := t.In(key)
			if !p.Ends(tail) {
				return p, at("body.turnaround", id, say.Errorf("the turnarounds are written in bars of four beats, and the last bars of this chart have others"))
			}
			return p.ReplaceEnd(tail), nil
		}
	}
	return p, at("body.turnaround", id, say.Errorf("there is no turnaround %q", id))
}

func wireProblem(p form.Problem) Problem { return Problem(p) }
