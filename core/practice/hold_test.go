package practice_test

import (
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/approach"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/practice"
	"undaris/core/score"
)

// on is a place to play on an instrument.
func on(t *testing.T, tuning string, f form.Form, tonic pitch.Name) edit.Line {
	l := over(f, tonic)
	i := slices.IndexFunc(neck.Tunings, func(u neck.Tuning) bool { return u.ID == tuning })
	in, err := neck.New(neck.Tunings[i].Open, neck.Tunings[i].Frets, neck.Tunings[i].Scale, 0)
	require.NoError(t, err)
	l.In, l.Region = in, in.Positions(tonic.Class())[0].Region
	return l
}

// tones are the pitches of a role over the chord of a tick that lie where an option says, looked for place by place.
func tones(l edit.Line, at int, r neck.Region, roles ...string) (list []int) {
	chord, ok := l.ChordAt(at)
	if !ok {
		return nil
	}
	for str := 1; str <= l.In.Strings(); str++ {
		for fret := max(0, r.Low); fret <= min(r.High, l.In.Last()); fret++ {
			midi := l.In.MIDI(neck.Placement{String: str, Fret: fret})
			tone, is := chord.ToneAt(midi % 12)
			if !is || !r.Strings.Has(str) {
				continue
			}
			role := tone.Degree.Role().String()
			if sixth := tone.Degree.Role() == harmony.Extension; sixth {
				role = "seventh" // of a sixth chord
			}
			if len(roles) == 0 || slices.Contains(roles, role) {
				list = append(list, midi)
			}
		}
	}
	return list
}

// holds plays a chorus that holds to an option; ok is false where its chords have no such tone.
func holds(l edit.Line, kind, of string) (heard []judge.Heard, ok bool) {
	note := func(at, midi int) {
		heard = append(heard, judge.Heard{At: float64(at), Length: score.Tick / 2, Pitch: float64(midi)})
	}
	whole := neck.Region{High: l.In.Last()}
	switch r := whole; kind {
	case "stay", "frets", "strings", "degrees":
		var roles []string
		switch kind {
		case "stay":
			r = l.Region
		case "frets":
			low, high, _ := strings.Cut(of, "-")
			r.Low, _ = strconv.Atoi(low)
			r.High, _ = strconv.Atoi(high)
		case "strings":
			r.Strings, _ = neck.ParseStrings(of)
		case "degrees":
			roles = strings.Split(of, ",")
		}
		for at := 0; at < l.End(); at += score.Tick {
			found := tones(l, at, r, roles...)
			if len(found) == 0 {
				return nil, false
			}
			note(at, found[at/score.Tick%len(found)])
		}
	case "triads":
		scale := l.Key.Scale()
		for k, at := 0, 0; at+3*score.Tick <= l.End(); k, at = k+1, at+3*score.Tick {
			for i := range 3 {
				class := scale[(k+2*i)%7].Class()
				note(at+i*score.Tick, l.In.Open[0].MIDI()+12+pitch.Class(class-l.In.Open[0].MIDI()))
			}
		}
	case "few":
		n, _ := strconv.Atoi(of)
		for bar := range l.Bars {
			for i := range n {
				found := tones(l, l.At(bar), whole)
				note(l.At(bar)+i*score.Tick/2, found[i%len(found)])
			}
		}
	case "start":
		found := tones(l, 0, whole, of)
		if len(found) == 0 {
			return nil, false
		}
		note(0, found[0])
		note(score.Tick, found[0]+1)
	case "device":
		way, _ := approach.ByID(of)
		for bar := range l.Bars {
			for _, c := range l.Bars[bar].Changes {
				at := l.At(bar) + c.Beat*score.Tick
				if !l.Change(at) || at == 0 {
					continue
				}
				found := tones(l, at, neck.Region{Low: 5, High: 10}, "third")
				if len(found) == 0 {
					return nil, false
				}
				for k, midi := range way.To(found[0], c.Chord) {
					note(at-(len(way.Steps)-k)*score.Tick/2, midi)
				}
				note(at, found[0])
			}
		}
	}
	return heard, true
}

// Every limit and every option of it, in twelve keys, three of them in minor and on the bass: who holds to it has held to all of it, who does not is
// told where, and who is silent has broken nothing but a beginning and the ways into the changes.
func TestEveryLimitIsJudged(t *testing.T) {
	judged := 0
	for _, tuning := range []string{"standard", "bass"} {
		for _, form := range form.Forms[:2] {
			roots := pitch.Roots
			if tuning != "standard" || form.Minor {
				roots = roots[3:6]
			}
			for _, tonic := range roots {
				l := on(t, tuning, form, tonic)
				for _, kind := range practice.HoldKinds {
					for _, option := range kind.Options(l) {
						where := tuning + " " + tonic.String() + " " + option.Says
						list, err := practice.Holding{Kinds: []string{kind.ID + ":" + option.ID}, Seed: 4}.Over(l, 0)
						require.NoError(t, err, where)
						require.Len(t, list, 1)
						assert.Equal(t, option.Says, list[0].Says)
						heard, ok := holds(l, kind.ID, option.ID)
						if !ok { // such as the third string pair of a bass without that tone, or a triad without a seventh
							continue
						}
						judged++
						f := play(t, l, heard)
						f.Hold(list)
						require.Len(t, f.Held, 1)
						assert.Positive(t, f.Held[0].Asked, where)
						assert.Equal(t, f.Held[0].Asked, f.Held[0].Kept, where)
						assert.Zero(t, f.Broken(), where)
						silent := play(t, l, nil)
						silent.Hold(list)
						assert.True(t, silent.Broken() == 0 || kind.ID == "start" || kind.ID == "device", where)
					}
				}
			}
		}
	}
	assert.Greater(t, judged, 700)
}

func play(t *testing.T, l edit.Line, heard []judge.Heard) practice.Free {
	f, err := practice.Judge(l, heard, 100, 0.5, practice.Stage{Play: practice.Anything})
	require.NoError(t, err)
	return f
}

// What breaks a limit is counted, note by note, bar by bar.
func TestWhatBreaksALimitIsCounted(t *testing.T) {
	l := on(t, "standard", form.Forms[0], c)
	broken := map[string]func(heard []judge.Heard) int{
		"stay":    func(h []judge.Heard) int { h[3].Pitch, h[9].Pitch = 84, 85; return 2 },
		"frets":   func(h []judge.Heard) int { h[3].Pitch, h[9].Pitch = 41, 85; return 2 },
		"strings": func(h []judge.Heard) int { h[4].Pitch, h[9].Pitch, h[11].Pitch = 41, 41, 40; return 3 },
		"degrees": func(h []judge.Heard) int { h[5].Pitch = 61; return 1 },
		"few":     func(h []judge.Heard) int { return 0 },
		"start":   func(h []judge.Heard) int { h[0].Pitch++; return 1 },
		"device":  func(h []judge.Heard) int { h[0].Pitch += 5; return 1 },
		"triads":  func(h []judge.Heard) int { return 0 },
	}
	options := map[string]string{"stay": "", "frets": "7-11", "strings": "1-3", "degrees": "root,third", "few": "2", "start": "third", "device": "below", "triads": ""}
	for _, kind := range practice.HoldKinds {
		heard, ok := holds(l, kind.ID, options[kind.ID])
		require.True(t, ok, kind.ID)
		n := broken[kind.ID](heard)
		switch kind.ID {
		case "few": // a third note in one bar
			heard, n = append(heard, judge.Heard{At: 3 * score.Tick, Length: 400, Pitch: 60}), 1
		case "triads": // all of it a chromatic row
			n = len(heard)
			for i := range heard {
				heard[i].Pitch = float64(60 + i%12)
			}
		}
		list, err := practice.Holding{Kinds: []string{kind.ID + ":" + options[kind.ID]}}.Over(l, 0)
		require.NoError(t, err)
		f := play(t, l, heard)
		f.Hold(list)
		assert.Equal(t, n, f.Broken(), kind.ID)
		assert.Contains(t, f.Try, list[0].Says, kind.ID)
	}
}

// One a pass, then all; others every so many bars, never the same twice in a row; and something that holds to all can be played.
func TestLimitsComeOneByOneThenTogether(t *testing.T) {
	ids := []string{"frets", "strings", "degrees", "few"}
	for _, f := range form.Forms {
		l := over(f, pitch.Roots[3])
		for seed := range uint64(6) {
			h := practice.Holding{Kinds: ids, Every: 4, Seed: seed}
			for pass := range 6 {
				list, err := h.Over(l, pass)
				require.NoError(t, err)
				again, err := h.Over(l, pass)
				require.NoError(t, err)
				require.Equal(t, list, again, "the same is drawn")
				want := ids
				if pass < len(ids) {
					want = ids[pass : pass+1]
				}
				windows := (len(l.Bars) + 3) / 4
				require.Len(t, list, windows*len(want), f.ID)
				at := 0
				for i, one := range list {
					require.Equal(t, want[i%len(want)], one.Kind)
					require.Equal(t, l.At(4*(i/len(want))), one.From)
					require.Equal(t, l.At(min(len(l.Bars), 4*(i/len(want))+4)), one.To)
					if i >= len(want) {
						require.NotEqual(t, list[i-len(want)].Of, one.Of, "another one")
					}
					at = one.To
				}
				require.Equal(t, l.End(), at)
				if len(want) > 1 {
					for w := 0; w < len(list); w += len(want) {
						playable(t, l, list[w:w+len(want)])
					}
				}
			}
		}
	}
	l := over(form.Forms[0], c)
	for _, bad := range []string{"riddle", "few:9", "frets:1-2", "degrees:", "device:sideways"} {
		_, err := practice.Holding{Kinds: []string{bad}}.Over(l, 0)
		assert.Error(t, err, bad)
	}
	none, err := practice.Holding{}.Over(l, 0)
	require.NoError(t, err)
	assert.Empty(t, none)
}

// playable finds over every chord of a stretch a tone that holds to its places and degrees.
func playable(t *testing.T, l edit.Line, stretch []practice.Hold) {
	r := neck.Region{High: l.In.Last()}
	var roles []string
	for _, h := range stretch {
		switch h.Kind {
		case "frets":
			low, high, _ := strings.Cut(h.Of, "-")
			r.Low, _ = strconv.Atoi(low)
			r.High, _ = strconv.Atoi(high)
		case "strings":
			r.Strings, _ = neck.ParseStrings(h.Of)
		case "degrees":
			roles = strings.Split(h.Of, ",")
		}
	}
	for at := stretch[0].From; at < stretch[0].To; at += score.Tick {
		if _, sounds := l.ChordAt(at); sounds {
			require.NotEmpty(t, tones(l, at, r, roles...), "%v %v at %d", r, roles, at)
		}
	}
}
