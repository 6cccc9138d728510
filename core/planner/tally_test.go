package planner_test

import (
	"encoding/json"
	"math"
	"reflect"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/neck"
	"undaris/core/planner"
)

// aLog is a log that may come about, with a trial of each kind of evidence.
func aLog(t *rapid.T) (log []planner.Played) {
	pick := func(name string, of ...string) string { return rapid.SampledFrom(of).Draw(t, name) }
	for i := range rapid.IntRange(0, 60).Draw(t, "lines") {
		p := planner.Played{Entry: uint(i + 1), At: monday.Add(time.Duration(rapid.IntRange(-90*24*60, 0).Draw(t, "minutes ago")) * time.Minute),
			Chart: uint(rapid.IntRange(0, 3).Draw(t, "chart")), Line: uint(rapid.IntRange(0, 2).Draw(t, "line")), Call: rapid.Bool().Draw(t, "call"),
			Tempo: 80, Seconds: float64(rapid.IntRange(0, 60).Draw(t, "seconds")), Notes: rapid.IntRange(0, 8).Draw(t, "notes")}
		p.Good = p.Notes / 2
		for range rapid.IntRange(0, 5).Draw(t, "trials") {
			p.Trials = append(p.Trials, planner.Trial{Ask: planner.Ask{Key: rapid.IntRange(0, 11).Draw(t, "key"), Position: rapid.IntRange(-1, 4).Draw(t, "position"), Quality: "7",
				Degree: pick("degree", "root", "third", "any"), Down: rapid.Bool().Draw(t, "down"), Device: "land", Tempo: 80}, At: p.At, Entry: p.Entry, Chart: p.Chart,
				Chord: pick("chord", "F7", "G7"), From: pick("from", "", "C7", "F7"), String: rapid.IntRange(0, 6).Draw(t, "string"), Bar: rapid.IntRange(0, 12).Draw(t, "bar"),
				Met: pick("met", "silent", "on time"), On: pick("on", "", "R", "3"), Success: rapid.SampledFrom([]float64{0, 0.2, 0.4, 0.5, 0.7, 1}).Draw(t, "success"),
				Ms: float64(rapid.IntRange(-400, 400).Draw(t, "ms")), Timed: rapid.Bool().Draw(t, "timed")})
		}
		log = append(log, p)
	}
	return log
}

// near compares what was drawn, with figures rounded: sums of another order differ in their last digits.
func near(t require.TestingT, want, got planner.Maps, why string) {
	require.Equal(t, rounded(want), rounded(got), why)
}

func rounded(m planner.Maps) planner.Maps {
	out := reflect.New(reflect.TypeOf(m)).Elem()
	out.Set(copied(reflect.ValueOf(m)))
	return out.Interface().(planner.Maps)
}

func copied(v reflect.Value) reflect.Value {
	switch v.Kind() {
	case reflect.Float64:
		return reflect.ValueOf(math.Round(v.Float()*1e6) / 1e6)
	case reflect.Slice:
		out := reflect.MakeSlice(v.Type(), v.Len(), v.Len())
		for i := range v.Len() {
			out.Index(i).Set(copied(v.Index(i)))
		}
		return out
	case reflect.Struct:
		if at, ok := v.Interface().(time.Time); ok {
			return reflect.ValueOf(at.UTC())
		}
		out := reflect.New(v.Type()).Elem()
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				out.Field(i).Set(copied(v.Field(i)))
			}
		}
		return out
	}
	return v
}

// However a log is cut into pieces, and however often it is kept in between, it adds up to what it
// is as a whole: maps, plans and readiness are the same.
func TestPiecesAddUpToTheWhole(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		log := aLog(t)
		whole := planner.TallyOf(log...)
		model := planner.New(planner.Fitted)
		days := map[int][]planner.Played{}
		for _, p := range log {
			days[planner.Day(p.At)] = append(days[planner.Day(p.At)], p)
		}
		sum := &planner.Tally{}
		for _, day := range days {
			data, err := planner.TallyOf(day...).MarshalBinary()
			require.NoError(t, err)
			var kept planner.Tally
			require.NoError(t, kept.UnmarshalBinary(data))
			require.Error(t, new(planner.Tally).UnmarshalBinary(data[:rapid.IntRange(0, len(data)-1).Draw(t, "cut")])) // part of one is none
			require.Error(t, new(planner.Tally).UnmarshalBinary(append(data, 0)))
			sum.Join(&kept)
		}
		near(t, planner.Draw(whole, model, monday), planner.Draw(sum, model, monday), "maps")
		tune := planner.Tune{ID: 1, Title: "Slipway", Tempo: 90, Changes: [][2]string{{"C7", "F7"}, {"F7", "G7"}, {"C7", "G7"}}}
		order := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 40, Tunes: []planner.Tune{tune}}
		require.Equal(t, model.Plan(order, whole, monday), model.Plan(order, sum, monday))
		require.Len(t, planner.Evening([]planner.Tune{tune}, sum), 1)
	})
}

// A picture that was kept and read goes on as one that was not; one of other parameters is not read.
func TestAPictureIsKept(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		log := aLog(t)
		through, kept := planner.NewPicture(planner.Fitted), planner.NewPicture(planner.Fitted)
		for i, p := range log {
			through.Add(p)
			kept.Add(p)
			if i%7 == 3 {
				text, err := json.Marshal(kept)
				require.NoError(t, err)
				kept, err = planner.ReadPicture(text, planner.Fitted)
				require.NoError(t, err)
			}
		}
		near(t, planner.Draw(through.Tally, through.Model, monday), planner.Draw(kept.Tally, kept.Model, monday), "maps")
		require.Equal(t, []any{uint(len(log)), through.Day}, []any{kept.Read, kept.Day})
		for line := range uint(3) {
			a, b := through.Takes(line), kept.Takes(line)
			require.Equal(t, []any{a.Trials, a.Success}, []any{b.Trials, b.Success})
			require.True(t, a.Last.Equal(b.Last))
			require.LessOrEqual(t, a.Trials, 5)
		}
		for _, a := range planner.Everything() {
			p, sd := through.Model.Predict(a, monday)
			q, sq := kept.Model.Predict(a, monday)
			require.InDelta(t, p, q, 1e-12)
			require.InDelta(t, sd, sq, 1e-12)
		}
	})
	other := planner.Fitted
	other.Learn *= 2
	text, err := json.Marshal(planner.NewPicture(other))
	require.NoError(t, err)
	_, err = planner.ReadPicture(text, planner.Fitted)
	assert.ErrorIs(t, err, planner.ErrOther)
	for _, broken := range []string{"", "{", "{}", "[1]", `{"Version": 1}`} {
		_, err = planner.ReadPicture([]byte(broken), planner.Fitted)
		assert.Error(t, err, broken)
	}
}

// Whatever stands where a tally was kept: it is read or refused, in no more room than it has.
func FuzzATally(f *testing.F) {
	whole, _ := planner.TallyOf(planner.Played{Entry: 3, At: monday, Seconds: 9, Trials: []planner.Trial{{Ask: third(0, 1), At: monday, Entry: 3, Chart: 1, Chord: "F7", From: "C7", On: "3", String: 2, Bar: 4, Success: 1, Ms: 12, Timed: true}}}).MarshalBinary()
	f.Add(whole)
	f.Add([]byte{1, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0x7f})
	f.Fuzz(func(t *testing.T, data []byte) {
		var got planner.Tally
		if got.UnmarshalBinary(data) == nil {
			planner.Draw(&got, planner.New(planner.Fitted), monday)
			sum := planner.TallyOf()
			sum.Join(&got)
		}
	})
}
