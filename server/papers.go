package server

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/arpeggio"
	"undaris/core/band"
	"undaris/core/crossing"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/score"
	"undaris/formats/midi"
)

// PaperQuery says what of a chart is to be written down.
type PaperQuery struct {
	ByID
	WindowQuery
	Of   string `query:"of" enum:"run,crossing,thread" default:"thread"`
	Step int    `query:"step" doc:"for a run or a crossing: which chord of the form, from 0"`
}

// paper writes a run, a crossing or the thread of a chart.
func (s *server) paper(ctx context.Context, q PaperQuery) (score.Score, error) {
	c, err := s.store.Chart(q.ID)
	if err != nil {
		return score.Score{}, missing("chart", err)
	}
	player, err := s.store.Player()
	if err != nil {
		return score.Score{}, err
	}
	in, hand, err := playerNeck(player.Player)
	if err != nil {
		return score.Score{}, err
	}
	w, err := q.window(in)
	if err != nil {
		return score.Score{}, err
	}
	played, key, err := progression(c)
	if err != nil {
		return score.Score{}, err
	}
	p, err := imagined(played, key, c.Plan)
	if err != nil {
		return score.Score{}, err
	}
	places := p.Places()
	if q.Step < 0 || q.Step >= len(places) {
		return score.Score{}, at("query.step", q.Step, errors.New("the chart has no such chord"))
	}
	out := score.Score{Title: c.Title, Key: key, Tempo: c.Tempo, Swing: band.Swings(c.Feel), In: in}
	chord := places[q.Step].Chord
	switch q.Of {
	case "run":
		out.Title += " · " + chord.String()
		out.Progression, out.Notes = exercise.Run(arpeggio.Make(in, chord, w, hand, picks(c.Plan, w)), p.Beats)
	case "crossing":
		next := following(places, q.Step)
		by, err := (RankQuery{c.Plan.Targets, c.Plan.Nearest}).ranking("body.targets")
		if err != nil {
			return out, err
		}
		out.Title += " · " + chord.String() + " to " + next.Chord.String()
		out.Progression, out.Notes = exercise.Crossing(in, chord, next.Chord, crossing.Between(in, chord, next.Chord, w, by), p.Beats, hand)
	default:
		v, err := newWeave(in, p, key, c.Plan, "body.")
		if err != nil {
			return out, err
		}
		targets, _, err := v.targets(ctx, w, pinsIn(c.Plan.Pins, w, v.places))
		if err != nil {
			return out, at("query.of", q.Of, errors.New(v.problem(err).Message))
		}
		out.Progression, out.Notes = p, exercise.Thread(in, p, targets[:min(len(targets), sounding(places))], hand)
	}
	if len(out.Bars) == 0 {
		return out, at("query.of", q.Of, errors.New("nothing of it lies in this window"))
	}
	return out, nil
}

// sounding counts the places that have a chord.
func sounding(places []form.Place) (n int) {
	for _, p := range places {
		if !p.Chord.None {
			n++
		}
	}
	return n
}

// following is the next chord that differs, round the form.
func following(places []form.Place, step int) form.Place {
	for i := 1; i < len(places); i++ {
		if p := places[(step+i)%len(places)]; p.Chord.String() != places[step].Chord.String() {
			return p
		}
	}
	return places[step]
}

func (s *server) papers(api huma.API) {
	get(s, api, "/api/charts/{id}/score", "chart-score", "A run, a crossing or the thread of a chart on staff and tablature",
		func(ctx context.Context, in *PaperQuery) (Score, error) {
			sc, err := s.paper(ctx, *in)
			if err != nil {
				return Score{}, err
			}
			return wireScore(sc), nil
		})
	deliver(s, api, "/api/charts/{id}/score/midi", "chart-score-midi", "The same, played over the band", "audio/midi",
		func(ctx context.Context, in *struct {
			PaperQuery
			BandQuery
		}) (none download, err error) {
			sc, err := s.paper(ctx, in.PaperQuery)
			if err != nil {
				return none, err
			}
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return none, missing("chart", err)
			}
			return in.play(ctx, sc.Progression, c.Feel, midi.Head{Title: sc.Title, Tempo: sc.Tempo, Key: sc.Key}, band.Lead(sc))
		})
	deliver(s, api, "/api/charts/{id}/musicxml", "chart-musicxml", "The same as a MusicXML file", "application/vnd.recordare.musicxml+xml",
		func(ctx context.Context, in *PaperQuery) (none download, err error) {
			sc, err := s.paper(ctx, *in)
			if err != nil {
				return none, err
			}
			return musicXML(sc), nil
		})
}
