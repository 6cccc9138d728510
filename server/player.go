package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/store"
)

// playerNeck builds the instrument and hand of the saved settings.
func playerNeck(p store.Player) (*neck.Instrument, neck.Hand, error) {
	return NeckQuery{p.Tuning, p.Frets, p.Scale, p.Capo, p.Comfort, p.Habit}.neck("body.")
}

// neck is the neck and the hand of the player that is here.
func (s *server) neck() (*neck.Instrument, neck.Hand, error) {
	p, err := s.store.Player()
	if err != nil {
		return nil, neck.Hand{}, err
	}
	return playerNeck(p.Player)
}

// checkPlayer says what in a player's settings cannot be used.
func checkPlayer(p store.Player) error {
	if _, _, err := playerNeck(p); err != nil {
		return err
	}
	if _, err := line.RuleByID(p.Rests); err != nil {
		return at("body.rests", p.Rests, err)
	}
	for i, own := range p.Palettes {
		if _, err := blend.PaletteByID(own.ID); err != nil || !strings.HasPrefix(own.ID, blend.Own) {
			return at(fmt.Sprintf("body.palettes[%d].id", i), own.ID, cmp.Or(err, fmt.Errorf("a palette of one's own begins with %q", blend.Own)))
		}
	}
	for i, o := range p.Instruments {
		if _, err := neck.New(o.Tuning, o.Frets, o.Scale, o.Capo); err != nil {
			return at(fmt.Sprintf("body.instruments[%d]", i), o.Name, err)
		}
		if slices.ContainsFunc(p.Instruments[:i], func(q store.OwnInstrument) bool { return q.Name == o.Name }) {
			return at(fmt.Sprintf("body.instruments[%d].name", i), o.Name, fmt.Errorf("there are two instruments called %q", o.Name))
		}
	}
	return nil
}

// Tones is where chords lie on the player's whole neck.
type Tones struct {
	Instrument Instrument   `json:"instrument"`
	Chords     []ChordTones `json:"chords"`
}

// ChordTones are the places of one chord's tones.
type ChordTones struct {
	Symbol string `json:"symbol"`
	Notes  []Note `json:"notes"`
}

// Reach is a fret for the fourth finger.
type Reach struct {
	Fret int     `json:"fret"`
	MM   float64 `json:"mm" doc:"from the fret under the first finger, in millimetres"`
}

func (s *server) player(api huma.API) {
	get(s, api, "/api/tones", "tones", "Where the tones of chords lie on a neck",
		func(_ context.Context, in *struct {
			Chords []string `query:"chords,explode" required:"true" maxItems:"200"`
			Tuning string   `query:"tuning" maxLength:"80" doc:"the player's own where it is not said"`
			Frets  int      `query:"frets"`
			Capo   int      `query:"capo"`
		}) (Tones, error) {
			p, err := s.store.Player()
			if err != nil {
				return Tones{}, err
			}
			if in.Tuning != "" {
				p.Tuning, p.Frets, p.Capo = in.Tuning, in.Frets, in.Capo
			}
			inst, _, err := playerNeck(p.Player)
			if err != nil {
				return Tones{}, err
			}
			chords, err := readChords("query.chords", in.Chords)
			if err != nil {
				return Tones{}, err
			}
			return Tones{wireInstrument(inst, p.Left), each(chords, func(c harmony.Chord) ChordTones {
				return ChordTones{c.String(), each(arpeggio.Neck(inst, c), wireNote)}
			})}, nil
		})

	get(s, api, "/api/reach", "reach", "How far the fourth finger is from the first, with the first on a fret",
		func(_ context.Context, in *struct {
			NeckQuery
			From int `query:"from" default:"5" minimum:"1" maximum:"20" doc:"the fret under the first finger"`
		}) ([]Reach, error) {
			inst, _, err := in.neck("query.")
			if err != nil {
				return nil, err
			}
			reaches := []Reach{}
			for fret := in.From + 2; fret <= min(in.From+7, inst.Last()); fret++ {
				reaches = append(reaches, Reach{fret, tenth(inst.Reach(in.From, fret))})
			}
			return reaches, nil
		})
	register(s, api, operation(http.MethodGet, "/api/player", "player", "The player's instrument and habits", 0),
		func(context.Context, *struct{}) (Versioned[store.PlayerVersion], error) {
			p, err := s.store.Player()
			return Versioned[store.PlayerVersion]{etag(p.Tag), p}, err
		})
	get(s, api, "/api/players", "players", "Who plays here: each has an instrument and a log",
		func(context.Context, *struct{}) ([]store.Person, error) { return s.store.People() })
	type Named struct {
		Name string `json:"name" maxLength:"60"`
	}
	register(s, api, operation(http.MethodPost, "/api/players", "add-player", "Another player, whose turn it is from now on", http.StatusCreated),
		body(func(_ context.Context, in *struct{ Body Named }) (store.Person, error) {
			name := clean(in.Body.Name)
			if name == "" {
				return store.Person{}, at("body.name", in.Body.Name, errors.New("a player needs a name"))
			}
			p, err := s.store.AddPerson(name)
			if errors.Is(err, store.ErrNamed) {
				err = at("body.name", name, err)
			}
			return p, err
		}))
	register(s, api, operation(http.MethodPut, "/api/players/{id}", "rename-player", "Give a player another name", http.StatusNoContent),
		func(_ context.Context, in *struct {
			ByID
			Body Named
		}) (struct{}, error) {
			name := clean(in.Body.Name)
			if name == "" {
				return struct{}{}, at("body.name", in.Body.Name, errors.New("a player needs a name"))
			}
			err := s.store.RenamePerson(in.ID, name)
			if errors.Is(err, store.ErrNamed) {
				err = at("body.name", name, err)
			}
			return struct{}{}, missing("player", err)
		})
	register(s, api, operation(http.MethodPut, "/api/players/{id}/here", "take-turn", "It is this player's turn", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) {
			return struct{}{}, missing("player", s.store.Turn(in.ID))
		})
	register(s, api, operation(http.MethodDelete, "/api/players/{id}", "remove-player", "Let a player go; what is theirs is kept, for them to come back", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) {
			err := s.store.RemovePerson(in.ID)
			if errors.Is(err, store.ErrLast) {
				err = problem(http.StatusConflict, err.Error())
			}
			return struct{}{}, missing("player", err)
		})
	register(s, api, operation(http.MethodPost, "/api/players/{id}/restore", "restore-player", "Take back that a player left", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) {
			err := s.store.RestorePerson(in.ID)
			if errors.Is(err, store.ErrNamed) {
				err = problem(http.StatusConflict, err.Error())
			}
			return struct{}{}, missing("player", err)
		})
	register(s, api, operation(http.MethodPut, "/api/player", "set-player", "Save the instrument and habits", 0),
		func(_ context.Context, in *struct {
			Match
			Body store.Player
		}) (none Versioned[store.PlayerVersion], err error) {
			match, err := in.read()
			if err != nil {
				return none, err
			}
			if err := checkPlayer(in.Body); err != nil {
				return none, err
			}
			p, err := s.store.SetPlayer(in.Body, match)
			if errors.Is(err, store.ErrStale) {
				return none, changedSince("instrument", p)
			}
			return Versioned[store.PlayerVersion]{etag(p.Tag), p}, err
		})
}
