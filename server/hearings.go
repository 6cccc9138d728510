package server

import (
	"cmp"
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/ear"
	"undaris/core/form"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/record"
	"undaris/core/score"
	"undaris/store"
)

// Measured is what was measured of a recording: how strongly something begins, and which pitch classes sound. Each strength is
// a byte.
type Measured struct {
	OnsetRate float64 `json:"onsetRate" minimum:"10" maximum:"400" doc:"frames a second"`
	Onsets    []byte  `json:"onsets" maxLength:"700000" doc:"how strongly something begins"`
	Low       []byte  `json:"low" maxLength:"700000" doc:"the same, of what is low: bass and bass drum"`
	High      []byte  `json:"high" maxLength:"700000" doc:"the same, of what is high: snare and cymbals"`
	ToneRate  float64 `json:"toneRate" minimum:"1" maximum:"100" doc:"frames a second"`
	Tones     []byte  `json:"tones" maxLength:"700000" doc:"twelve of each frame, from C: how much of each pitch class sounds"`
	Bass      []byte  `json:"bass" maxLength:"700000" doc:"the same, in the bass"`
}

func (m Measured) onsets() record.Onsets {
	return record.Onsets{Rate: m.OnsetRate, All: numbers(m.Onsets), Low: numbers(m.Low), High: numbers(m.High)}
}

func (m Measured) tones() record.Tones {
	return record.Tones{Rate: m.ToneRate, All: classes(m.Tones), Bass: classes(m.Bass)}
}

func (m Measured) check() error {
	switch {
	case len(m.Low) != len(m.Onsets) || len(m.High) != len(m.Onsets):
		return at("body.low", len(m.Low), fmt.Errorf("there are %d strengths of all, %d of what is low and %d of what is high; there have to be as many", len(m.Onsets), len(m.Low), len(m.High)))
	case len(m.Tones)%12 != 0 || len(m.Bass) != len(m.Tones):
		return at("body.bass", len(m.Bass), fmt.Errorf("tones and bass have twelve strengths for each of the same frames"))
	}
	return nil
}

func numbers(list []byte) []float64 { return each(list, func(b byte) float64 { return float64(b) }) }

func classes(list []byte) [][12]float64 {
	out := make([][12]float64, len(list)/12)
	for i := range out {
		for c := range 12 {
			out[i][c] = float64(list[12*i+c])
		}
	}
	return out
}

// PulseGuess is a guess of where beats fall.
type PulseGuess struct {
	Tempo   float64        `json:"tempo" doc:"quarter notes a minute, in the middle"`
	Sure    float64        `json:"sure" doc:"of all that speaks for a tempo, the part that speaks for this one"`
	Says    string         `json:"says"`
	Anchors []store.Anchor `json:"anchors"`
}

// wireAnchors writes a grid; what lies before the recording begins cannot be kept.
func wireAnchors(g record.Grid) []store.Anchor {
	out := []store.Anchor{}
	for _, a := range g.Anchors {
		if a.At >= 0 {
			out = append(out, store.Anchor(a))
		}
	}
	return out
}

// ChordByEar is a guess of what sounds in a bar.
type ChordByEar struct {
	Bar    int      `json:"bar" doc:"from 0, that of beat 0"`
	Beat   int      `json:"beat" doc:"in the bar, from 0"`
	Chord  string   `json:"chord"`
	Sure   float64  `json:"sure"`
	Rivals []string `json:"rivals" doc:"what it may be too"`
	Says   string   `json:"says"`
	Agrees bool     `json:"agrees" doc:"with what is written for this bar; true where nothing is"`
}

// KeyByEar is a guess of the key.
type KeyByEar struct {
	Key string `json:"key"`
	Why string `json:"why"`
}

// ChordsByEar are the chords of a recording's bars.
type ChordsByEar struct {
	Chords []ChordByEar `json:"chords"`
	Keys   []KeyByEar   `json:"keys" doc:"that it may be in, three at most"`
	Text   string       `json:"text" doc:"the chords from beat 0 on, as charts are written"`
}

// AnswerByEar is what became of a note of the record in the player's turn.
type AnswerByEar struct {
	ID    int     `json:"id"`
	By    int     `json:"by,omitempty" doc:"the player's note that answers it"`
	Off   float64 `json:"off" doc:"half steps that it lies above it"`
	Late  float64 `json:"late" doc:"seconds, beside how late the turn is as a whole"`
	Right bool    `json:"right"`
}

// TurnByEar is what a player played after a stretch of a recording.
type TurnByEar struct {
	Mine    []store.NoteByEar `json:"mine"`
	Answers []AnswerByEar     `json:"answers"`
	Right   int               `json:"right"`
	More    int               `json:"more" doc:"notes of the player's that answer none"`
	Late    float64           `json:"late" doc:"seconds that all of it is behind"`
	Says    string            `json:"says"`
}

// RecordedBar is a bar of the stretch in hand.
type RecordedBar struct {
	Number int         `json:"number" doc:"of the recording, from 0"`
	Of     int         `json:"of" doc:"bar of the chart, from 0; -1 is none"`
	At     float64     `json:"at" doc:"seconds"`
	To     float64     `json:"to"`
	Chords []BarChange `json:"chords"`
}

// BarChange is a chord that begins in a bar.
type BarChange struct {
	Beat  int    `json:"beat"`
	Chord string `json:"chord"`
}

// Heard is the stretch in hand, written down.
type Heard struct {
	Instrument Instrument    `json:"instrument"`
	Bars       []RecordedBar `json:"bars"`
	Line       *LineBody     `json:"line,omitempty" doc:"the notes of the stretch, written down; none where there are none yet"`
	Study      *Study        `json:"study,omitempty"`
	Told       []ToldByEar   `json:"told" doc:"the notes of the line, in words"`
	Why        string        `json:"why,omitempty" doc:"why nothing can be written down"`
}

// ToldByEar is a note of the stretch in words.
type ToldByEar struct {
	ID     int     `json:"id"`
	Bar    int     `json:"bar" doc:"of the recording, from 1"`
	Beat   float64 `json:"beat" doc:"in it, from 1"`
	Degree string  `json:"degree,omitempty" doc:"where it comes to rest, over its chord"`
	Where  string  `json:"where"`
	Does   string  `json:"does"`
	Why    string  `json:"why" doc:"how sure it is, and what it may be too"`
}

// hearings registers what is asked of recordings; none of it is kept by asking.
func (s *server) hearings(api huma.API) {
	post(s, api, "/api/recordings/pulse", "pulse", "Where the beats of a recording may fall, the likeliest first",
		func(_ context.Context, in *struct {
			Body struct {
				Measured
				Beats int `json:"beats" minimum:"2" maximum:"12" doc:"in a bar"`
			}
		}) ([]PulseGuess, error) {
			if err := in.Body.check(); err != nil {
				return nil, err
			}
			pulses := in.Body.onsets().Pulses(in.Body.Beats, in.Body.tones())
			return each(pulses, func(p record.Pulse) PulseGuess { return PulseGuess{p.Tempo, p.Sure, p.Says, wireAnchors(p.Grid)} }), nil
		})
	post(s, api, "/api/recordings/chords", "chords-by-ear", "What may sound in the bars of a recording",
		func(_ context.Context, in *struct {
			Body struct {
				Measured
				Recording RecordingBody `json:"recording"`
			}
		}) (ChordsByEar, error) {
			if err := in.Body.check(); err != nil {
				return ChordsByEar{}, err
			}
			return s.chordsByEar(in.Body.Recording, in.Body.tones())
		})
	post(s, api, "/api/recordings/tap", "tap", "Where beats fall after some were tapped",
		func(_ context.Context, in *struct {
			Body struct {
				Anchors []store.Anchor `json:"anchors" maxItems:"2000"`
				Beats   int            `json:"beats" minimum:"2" maximum:"12"`
				Taps    []float64      `json:"taps,omitempty" maxItems:"1000" doc:"seconds, while nothing is slowed"`
				First   float64        `json:"first,omitempty" minimum:"0" maximum:"86400" doc:"bar 1 begins here; 0 leaves it"`
				Times   float64        `json:"times,omitempty" minimum:"0" maximum:"4" doc:"so many beats for each one: 2 is twice as quick, 0.5 half"`
				Tempo   float64        `json:"tempo,omitempty" minimum:"0" maximum:"400" doc:"one tempo throughout, from the first beat on"`
				Until   float64        `json:"until,omitempty" minimum:"0" maximum:"86400" doc:"how long it lasts"`
			}
		}) ([]store.Anchor, error) {
			b := in.Body
			g := gridOf(store.Hearing{Beats: b.Beats, Anchors: b.Anchors})
			if err := g.Check(); err != nil {
				return nil, at("body.anchors", nil, err)
			}
			if len(b.Taps) > 0 {
				g = g.Tapped(b.Taps)
			}
			if b.Times > 0 && g.Known() {
				g = g.Times(b.Times)
			}
			if b.Tempo > 0 {
				first := b.First
				if first == 0 && g.Known() {
					first = g.At(0)
				}
				g = record.Even(b.Beats, first, b.Tempo, max(b.Until, first+1))
			} else if b.First > 0 && g.Known() {
				g = g.On(b.First)
			}
			if err := g.Check(); err != nil {
				return nil, at("body.anchors", nil, err)
			}
			return wireAnchors(g), nil
		})
	post(s, api, "/api/recordings/notes", "notes-by-ear", "Notes made of what an ear noticed in a recording",
		func(_ context.Context, in *struct {
			Body struct {
				Noticed []NoticedByEar    `json:"noticed" maxItems:"20000"`
				Cents   float64           `json:"cents" minimum:"-100" maximum:"100"`
				Sounded []SoundedByEar    `json:"sounded,omitempty" maxItems:"8000" doc:"what a model of mixed sound tells of the same stretch"`
				Lead    bool              `json:"lead,omitempty" doc:"others play beneath it: what lies far under the line is theirs"`
				Settled []store.NoteByEar `json:"settled" maxItems:"4000" doc:"notes that are settled: they help, and are not told again"`
				Low     int               `json:"low,omitempty" minimum:"0" maximum:"36" doc:"frets of the hand's position; notes that it does not reach are others'"`
				High    int               `json:"high,omitempty" minimum:"0" maximum:"36"`
			}
		}) ([]store.NoteByEar, error) {
			instrument, _, err := s.neck()
			if err != nil {
				return nil, err
			}
			low, high := instrument.Compass()
			if at := (neck.Region{Low: in.Body.Low, High: in.Body.High}); at.High > 0 && instrument.CheckRegion(at) == nil {
				low, high = instrument.MIDI(neck.Placement{String: instrument.Strings(), Fret: at.Low}), instrument.MIDI(neck.Placement{String: 1, Fret: at.High})
			}
			l := record.Listening{Cents: in.Body.Cents, Lowest: low, Highest: high, Settled: each(in.Body.Settled, guessOf), Lead: in.Body.Lead}
			notes := l.Notes(each(in.Body.Noticed, NoticedByEar.core))
			if len(in.Body.Sounded) > 0 {
				notes = l.Mixed(notes, each(in.Body.Sounded, func(s SoundedByEar) record.Sounded { return record.Sounded(s) }))
			}
			return each(notes, wireGuess), nil
		})
	post(s, api, "/api/recordings/turn", "turn-by-ear", "What a player played after a stretch of a recording, set beside it",
		func(_ context.Context, in *struct {
			Body struct {
				Noticed []NoticedByEar    `json:"noticed" maxItems:"20000" doc:"in the seconds of the recording"`
				Record  []store.NoteByEar `json:"record" maxItems:"500" doc:"what is to be answered"`
			}
		}) (TurnByEar, error) {
			instrument, _, err := s.neck()
			if err != nil {
				return TurnByEar{}, err
			}
			low, high := instrument.Compass()
			mine := record.Listening{Lowest: low, Highest: high}.Notes(each(in.Body.Noticed, NoticedByEar.core))
			mine = mine[:min(len(mine), 500)]
			turn := record.Beside(each(in.Body.Record, guessOf), mine)
			return TurnByEar{each(mine, wireGuess), each(turn.Answers, func(a record.Answer) AnswerByEar {
				return AnswerByEar{a.ID, a.By, a.Off, a.Late, a.Right()}
			}), turn.Right(), turn.More, turn.Late, turn.Says}, nil
		})
	post(s, api, "/api/recordings/study", "hear", "The stretch in hand of a recording, written down",
		func(_ context.Context, in *struct{ Body RecordingBody }) (Heard, error) { return s.heard(in.Body) })
}

// ground is what a recording is laid over.
func (s *server) ground(b RecordingBody) (g record.Ground, err error) {
	if g.In, g.Hand, err = s.neck(); err != nil {
		return g, err
	}
	r, err := b.stored()
	if err != nil {
		return g, err
	}
	h := r.Hearing
	g.Grid, g.First, g.Feel = gridOf(h), h.First, h.Feel
	if r.Key != "" {
		if g.Key, err = form.ParseKey(r.Key); err != nil {
			return g, err
		}
	}
	if h.High > 0 {
		g.Region = neck.Region{Low: h.Low, High: min(h.High, g.In.Last())}
		if g.In.CheckRegion(g.Region) != nil {
			g.Region = neck.Region{}
		}
	}
	if b.Chart > 0 {
		c, err := s.chart(b.Chart)
		if err != nil {
			return g, err
		}
		if g.Chords, g.Key, err = progression(c); err != nil {
			return g, err
		}
		g.Rounds, g.Feel = true, cmp.Or(h.Feel, c.Feel)
		return g, nil
	}
	g.First = 0
	if h.Chords != "" {
		g.Chords, err = form.Read(h.Chords, max(form.MinBeats, min(h.Beats, form.MaxBeats)), g.Key)
	}
	return g, err
}

func guessOf(n store.NoteByEar) record.Guess {
	return record.Guess{ID: n.ID, At: n.At, Length: n.Length, Pitch: n.Pitch, Bend: n.Bend, Join: score.Join(n.Join), Vibrato: n.Vibrato,
		Sure: n.Sure, Settled: n.Settled, Placement: neck.Placement{String: n.String, Fret: n.Fret}}
}

func wireGuess(g record.Guess) store.NoteByEar {
	return store.NoteByEar{ID: g.ID, At: g.At, Length: g.Length, Pitch: g.Pitch, Bend: g.Bend, Join: string(g.Join), Vibrato: g.Vibrato,
		Sure: g.Sure, Settled: g.Settled, String: g.String, Fret: g.Fret}
}

// SoundedByEar is a note that a model of mixed sound tells.
type SoundedByEar struct {
	At       float64 `json:"at" minimum:"-1" maximum:"86400" doc:"seconds"`
	Length   float64 `json:"length" minimum:"0" maximum:"600"`
	MIDI     int     `json:"midi" minimum:"0" maximum:"127"`
	Strength float64 `json:"strength" minimum:"0" maximum:"1" doc:"how strongly it sounds"`
	Onset    float64 `json:"onset" minimum:"0" maximum:"1" doc:"how clearly it begins"`
}

// NoticedByEar is what an ear noticed in a recording.
type NoticedByEar struct {
	Seq        int          `json:"seq" minimum:"1"`
	Kind       string       `json:"kind" enum:"attack,settled,salience,slide,bend,sway,lost"`
	Of         int          `json:"of,omitempty"`
	At         float64      `json:"at" minimum:"-1" maximum:"86400" doc:"seconds"`
	MIDI       float64      `json:"midi,omitempty"`
	Width      float64      `json:"width,omitempty"`
	Rate       float64      `json:"rate,omitempty"`
	Uneven     float64      `json:"uneven,omitempty"`
	Low        float64      `json:"low,omitempty"`
	Clarity    float64      `json:"clarity,omitempty"`
	Level      float64      `json:"level,omitempty"`
	Fresh      float64      `json:"fresh,omitempty"`
	Candidates [][2]float64 `json:"candidates,omitempty" maxItems:"12"`
}

func (o NoticedByEar) core() ear.Observation {
	return Observation{o.Seq, ear.Kind(o.Kind), o.Of, o.At, o.MIDI, o.Width, o.Rate, o.Uneven, o.Low, o.Clarity, o.Level, o.Fresh, o.Candidates}.core()
}

func wireBar(b record.Bar) RecordedBar {
	return RecordedBar{b.Number, b.Of, b.At, b.To, each(b.Changes, func(c form.Change) BarChange { return BarChange{c.Beat, c.Chord.String()} })}
}

// heard writes the stretch in hand of a recording down.
func (s *server) heard(b RecordingBody) (none Heard, err error) {
	g, err := s.ground(b)
	if err != nil {
		return none, err
	}
	player, err := s.store.Player()
	if err != nil {
		return none, err
	}
	h := b.Hearing
	out := Heard{Instrument: wireInstrument(g.In, player.Left), Bars: each(g.Bars(h.From, h.To), wireBar), Told: []ToldByEar{}}
	if h.To <= h.From {
		out.Why = "no stretch is in hand"
		return out, nil
	}
	g.Feel = cmp.Or(g.Feel, form.Feels[0].ID)
	guesses := each(h.Notes, guessOf)
	l, bars, err := g.Line(clean(b.Title), h.From, h.To, guesses)
	if err != nil {
		out.Why = err.Error()
		return out, nil
	}
	if len(l.Notes) == 0 {
		out.Why = "nothing is heard in this stretch yet"
		return out, nil
	}
	if l.Rule, err = line.RuleByID(player.Rests); err != nil {
		l.Rule = line.Usual
	}
	l.Source = clean(b.Title)
	body, study := wireBody(l), lineIn{l}.study()
	out.Line, out.Study = &body, &study
	out.Told = each(record.Tell(l, bars, guesses), func(t record.Told) ToldByEar { return ToldByEar(t) })
	return out, nil
}

// chordsByEar guesses the chords, and tells where they are others than those that are written.
func (s *server) chordsByEar(b RecordingBody, tones record.Tones) (none ChordsByEar, err error) {
	g, err := s.ground(b)
	if err != nil {
		return none, err
	}
	if !g.Grid.Known() {
		return none, problem(http.StatusUnprocessableEntity, record.ErrNoBeat.Error())
	}
	var key *form.Key
	if b.Chart > 0 || b.Key != "" {
		key = &g.Key
	}
	until := b.Seconds
	if until == 0 {
		until = float64(len(tones.All)) / max(1, tones.Rate)
	}
	per := g.Grid.PerBar
	bars := min(form.MaxBars, (int(g.Grid.Beat(until))+per/2)/per)
	list, keys := tones.Chords(g.Grid, 0, bars*per, key)
	written := g.Bars(g.Grid.At(0), g.Grid.At(float64(bars*per)))
	out := ChordsByEar{Keys: []KeyByEar{}, Text: record.Text(list, per), Chords: each(list, func(c record.ChordGuess) ChordByEar {
		w := ChordByEar{c.Bar, c.Beat, c.Chord.String(), c.Sure, each(c.Rivals, func(r record.Rival) string { return r.Chord.String() }), c.Says, true}
		if c.Bar < len(written) && written[c.Bar].Of >= 0 {
			for _, change := range written[c.Bar].Changes {
				if change.Beat <= c.Beat {
					w.Agrees = c.Agrees(change.Chord)
				}
			}
		}
		return w
	})}
	for _, k := range keys[:min(3, len(keys))] {
		out.Keys = append(out.Keys, KeyByEar{k.Key.String(), k.Why})
	}
	return out, nil
}
