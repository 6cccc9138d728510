package server

import (
	"cmp"
	"context"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/call"
	"undaris/core/chart"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/store"
)

// CallWish is what calls may ask; what is left out may be anything.
type CallWish struct {
	Chart    uint          `json:"chart" maximum:"4294967295" doc:"whose chords and key are asked for"`
	Kinds    []string      `json:"kinds,omitempty" maxItems:"6" enum:"tones,place,exercise,bend,written,every"`
	Chords   []string      `json:"chords,omitempty" maxItems:"64" doc:"symbols of the chart that alone are asked for"`
	Keys     string        `json:"keys,omitempty" maxLength:"10" doc:"own, the chart's; all twelve in turn; or one, such as Eb"`
	Ends     []string      `json:"ends,omitempty" maxItems:"5" enum:"root,third,fifth,seventh,extension" doc:"degrees to land on"`
	Orders   []string      `json:"orders,omitempty" maxItems:"8" doc:"of the tones; in a row where none is said"`
	Devices  []string      `json:"devices,omitempty" maxItems:"24" doc:"what leads into the first tone; nothing where none is said"`
	Paces    []string      `json:"paces,omitempty" maxItems:"8" doc:"how close the tones follow each other when they are played"`
	Tempo    int           `json:"tempo,omitempty" minimum:"0" maximum:"300" doc:"of the pace; the chart's where it is not said"`
	Starts   []string      `json:"starts,omitempty" maxItems:"5" enum:"root,third,fifth,seventh,extension" doc:"degrees to start from"`
	Only     string        `json:"only,omitempty" enum:"up,down" doc:"one direction"`
	Windows  []store.Frets `json:"windows,omitempty" maxItems:"24" doc:"positions; the key's own where none is said"`
	Strings  []string      `json:"strings,omitempty" maxItems:"12" doc:"sets, such as 5,2 or 1-3"`
	Mixed    string        `json:"mixed,omitempty" maxLength:"1000" doc:"what comes in turn, as a plan tells it: it takes the place of what else is chosen"`
	Step     int           `json:"step,omitempty" minimum:"0" maximum:"20" doc:"how much is asked of what is left open here, from 1; 0 is as it stands here"`
	Advanced bool          `json:"advanced,omitempty" doc:"bends of three half steps too"`
	Count    int           `json:"count,omitempty" minimum:"0" maximum:"100" doc:"12 where it is not said"`
	Seed     uint64        `json:"seed,omitempty" doc:"the same seed asks the same"`
}

// CallAnswer is one of what may be answered.
type CallAnswer struct {
	Is   string `json:"is"`
	Name string `json:"name,omitempty" doc:"in words, where it is no degree"`
	Key  string `json:"key" doc:"of the keyboard; empty where none is left"`
}

// Call is one thing asked.
type Call struct {
	Kind    string       `json:"kind" enum:"tones,place,exercise,bend,written,every"`
	Key     string       `json:"key"`
	Chord   string       `json:"chord"`
	Degree  string       `json:"degree" doc:"that is asked for: to start from, to name, or to bend to"`
	Down    bool         `json:"down"`
	Device  string       `json:"device,omitempty"`
	Numeral string       `json:"numeral"`
	Says    string       `json:"says"`
	Spoken  string       `json:"spoken" doc:"for the ear"`
	Window  store.Frets  `json:"window"`
	Strings []int        `json:"strings" doc:"the lowest first; all where none is said"`
	Notes   []CallNote   `json:"notes" doc:"to be named or found, in order"`
	Free    bool         `json:"free,omitempty" doc:"in any order"`
	Sought  bool         `json:"sought,omitempty" doc:"they are pressed or played; they have no names to be told by"`
	Reads   *CallRead    `json:"reads,omitempty" doc:"what stands on the staff"`
	Given   *store.Spot  `json:"given,omitempty" doc:"the place that is asked about"`
	Options []string     `json:"options" doc:"what may be answered: degrees, or half steps"`
	Answers []CallAnswer `json:"answers" doc:"the same, each with its key of the keyboard"`
	Answer  string       `json:"answer,omitempty"`
	Sounds  []int        `json:"sounds" doc:"the MIDI notes of its answer, as they follow"`
	Gap     float64      `json:"gap,omitempty" doc:"milliseconds from tone to tone, where a pace is asked for"`
	Give    float64      `json:"give,omitempty" doc:"how many more or less it may be"`
}

// CallRead is a note on the staff.
type CallRead struct {
	Note      string `json:"note" doc:"with its octave, as it sounds; it is written an octave higher"`
	Bass      bool   `json:"bass" doc:"in the bass clef"`
	Signature int    `json:"signature" doc:"sharps of the key, or flats below 0"`
}

// CallNote is a tone that is asked for.
type CallNote struct {
	Degree string       `json:"degree"`
	Note   string       `json:"note"`
	MIDI   int          `json:"midi"`
	Places []store.Spot `json:"places" doc:"where it may be found"`
}

func wireCall(c call.Call, in *neck.Instrument) Call {
	w := Call{Free: c.Free, Sought: c.Sought(), Kind: c.Kind, Key: c.Key.String(), Chord: c.Chord.String(), Numeral: c.Numeral, Says: c.Says(), Spoken: c.Spoken(), Window: store.Frets{Low: c.Region.Low, High: c.Region.High},
		Strings: append([]int{}, c.Region.Strings.List()...), Options: words(c.Options), Answer: c.Answer,
		Answers: each(c.Answers(), func(a call.Answer) CallAnswer { return CallAnswer(a) })}
	w.Notes = each(c.Notes, func(n call.Note) CallNote {
		return CallNote{string(n.Tone.Degree), n.Tone.Name.String(), n.MIDI, each(n.Places, func(p neck.Placement) store.Spot { return store.Spot(p) })}
	})
	w.Gap, w.Give = c.Gap()
	w.Sounds = c.Sounds(in)
	w.Degree, w.Down, w.Device = string(c.Degree()), c.Down, c.Device
	if c.Reads != nil {
		w.Reads = &CallRead{c.Reads.String(), in.Bass(), c.Key.Signature()}
	}
	if c.Given.String > 0 {
		given := store.Spot(c.Given)
		w.Given = &given
	}
	return w
}

// grounds are what is asked for of a chart in some keys, in the windows that were
// chosen, else in each key's own positions.
func grounds(on chart.Chart, only []string, keys []form.Key, windows []neck.Region) (list []call.Ground) {
	solo := on.Solo
	chords, _ := form.Different(solo.Places())
	asked := func(c harmony.Chord) bool { return len(only) == 0 || slices.Contains(only, c.String()) }
	chosen := slices.DeleteFunc(slices.Clone(chords), func(c harmony.Chord) bool { return !asked(c) })
	for _, key := range keys {
		g := call.Ground{Key: key, Windows: windows}
		p := form.Progression{Beats: solo.Beats, Bars: each(chosen, func(c harmony.Chord) form.Bar { return form.Bar{Changes: []form.Change{{Chord: c}}} })}
		for _, b := range p.Transpose(on.Key, key).Bars {
			g.Chords = append(g.Chords, b.Changes[0].Chord)
		}
		if len(g.Windows) == 0 {
			g.Windows = each(on.In.Positions(key.Tonic.Class()), func(p neck.Position) neck.Region { return p.Region })
		}
		list = append(list, g)
	}
	return list
}

func (s *server) calls(api huma.API) {
	post(s, api, "/api/calls", "calls", "Calls to practise with: a chord's tones from any of them, which degree a place is, how far to bend, a written note, every place of a degree",
		func(ctx context.Context, in *struct{ Body CallWish }) ([]Call, error) {
			on, c, err := s.handed(in.Body.Chart)
			if err != nil {
				return nil, err
			}
			w := call.Wish{In: on.In, Hand: on.Hand, Kinds: in.Body.Kinds, Only: in.Body.Only, Advanced: in.Body.Advanced, Seed: in.Body.Seed,
				Orders: in.Body.Orders, Devices: in.Body.Devices, Paces: in.Body.Paces, Tempo: cmp.Or(in.Body.Tempo, c.Tempo)}
			if w.Ends, err = harmony.RolesOf(in.Body.Ends...); err != nil {
				return nil, at("body.ends", in.Body.Ends, err)
			}
			if w.Starts, err = harmony.RolesOf(in.Body.Starts...); err != nil {
				return nil, at("body.starts", in.Body.Starts, err)
			}
			for _, text := range in.Body.Strings {
				set, err := neck.ParseStrings(text)
				if err != nil {
					return nil, at("body.strings", text, err)
				}
				w.Strings = append(w.Strings, set)
			}
			windows := each(in.Body.Windows, func(f store.Frets) neck.Region { return f.Region() })
			keys := []form.Key{on.Key}
			switch in.Body.Keys {
			case "", "own":
			case "all":
				keys = form.AllKeys(on.Key.Minor)
			default:
				key, err := readKey("body.keys", in.Body.Keys)
				if err != nil {
					return nil, err
				}
				keys = []form.Key{{Tonic: key.Tonic, Minor: on.Key.Minor}}
			}
			w.Grounds = grounds(on, in.Body.Chords, keys, windows)
			if err := w.Check(); err != nil {
				return nil, at("body", in.Body.Chart, err)
			}
			var calls []call.Call
			if in.Body.Mixed == "" {
				calls, err = call.Draw(ctx, w.At(in.Body.Step), cmp.Or(in.Body.Count, 12))
			} else {
				wishes, err := readMixed(in.Body.Mixed, w, on.Key.Minor)
				if err != nil {
					return nil, err
				}
				if calls, err = inTurn(ctx, wishes, in.Body.Step, cmp.Or(in.Body.Count, 12), in.Body.Seed); err != nil {
					return nil, at("body.mixed", in.Body.Mixed, err)
				}
			}
			if err != nil {
				return nil, at("body.starts", in.Body.Starts, err)
			}
			return each(calls, func(c call.Call) Call { return wireCall(c, on.In) }), nil
		})
}
