package musicxml

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
	"undaris/formats/scoretest"
)

// some draws a score whose rhythm can be written without moving anything.
func some(t *rapid.T) score.Score {
	f := rapid.SampledFrom(form.Forms).Draw(t, "form")
	key := form.Key{Tonic: rapid.SampledFrom(pitch.Roots).Draw(t, "tonic"), Minor: f.Minor}
	tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
	in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, rapid.IntRange(0, 3).Draw(t, "capo"))
	require.NoError(t, err)
	s := score.Score{Title: "Low & <Slow>", Key: key, Tempo: rapid.IntRange(30, 300).Draw(t, "tempo"), Swing: rapid.Bool().Draw(t, "swing"), Progression: scoretest.Leads(t, scoretest.Uneven(t, f.In(key))), In: in}
	rhythms := [][]int{{480, 480}, {320, 320, 320}, {960}, {640, 320}, {240, 240, 480}, {720, 240}, {1920}, {1440, 480}}
	now := rapid.SampledFrom([]int{0, -960, -1920}).Draw(t, "pickup")
	for now < s.At(4) {
		for _, length := range rapid.SampledFrom(rhythms).Draw(t, "rhythm") {
			if now >= s.End() {
				break
			}
			before := len(s.Notes)
			for str := range 2 {
				p := neck.Placement{String: 1 + str + rapid.IntRange(0, 2).Draw(t, "string"), Fret: rapid.IntRange(0, 12).Draw(t, "fret")}
				if len(s.Notes) > before && s.Notes[before].String == p.String {
					continue
				}
				midi := in.MIDI(p)
				n := score.Note{Start: now, Length: min(length, s.End()-now), Placement: p, Finger: rapid.IntRange(0, 4).Draw(t, "finger")}
				for _, name := range pitch.Roots {
					if name.Class() == midi%12 {
						n.Pitch = pitch.At(midi, name)
					}
				}
				n.Ornaments = scoretest.Ornaments(t)
				s.Notes = append(s.Notes, n)
				if rapid.IntRange(0, 4).Draw(t, "double") > 0 {
					break
				}
			}
			now += length
		}
	}
	score.Sort(s.Notes)
	for i := range s.Notes {
		if next, ok := s.Joined(i); ok {
			s.Notes[next].Join = scoretest.Join(t)
		}
	}
	s.Undoable()
	require.NoError(t, s.Check())
	return s
}

func TestWhatIsWrittenReadsBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := some(t)
		f, err := Read(t.Context(), Write(s))
		require.NoError(t, err)
		require.Empty(t, f.Said)
		require.Equal(t, s.Title, f.Title)
		require.Equal(t, s.Key.Signature(), f.Key.Signature())
		require.Equal(t, [2]any{s.Tempo, s.Swing}, [2]any{f.Tempo, f.Swing})
		scoretest.SameBars(t, s.Progression, f.Progression)
		require.Equal(t, s.In.Tuning(), f.In.Tuning())
		require.Len(t, f.Notes, len(s.Notes))
		for i := range s.Notes {
			require.Equal(t, s.Notes[i], f.Notes[i], "note %d", i)
		}
	})
}

// file wraps measures in the least a file needs.
func file(measures string) []byte {
	return []byte(`<score-partwise><part-list/><part id="P1">` + measures + `</part></score-partwise>`)
}

const aNote = `<note><pitch><step>E</step><octave>4</octave></pitch><duration>4</duration><voice>1</voice></note>`

func TestStrangeFilesAreUnderstoodAsFarAsStated(t *testing.T) {
	head := `<measure number="1"><attributes><divisions>4</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>`
	for says, measures := range map[string]string{
		"several voices":      head + aNote + `<backup><duration>4</duration></backup>` + strings.Replace(aNote, "<voice>1", "<voice>2", 1) + `</measure>`,
		"grace notes":         head + `<note><grace/><pitch><step>D</step><octave>4</octave></pitch></note>` + aNote + `</measure>`,
		"no place on":         head + aNote + `</measure>`,
		"cannot be read; the": head + `<harmony><root><root-step>C</root-step></root><kind>Tristan</kind></harmony>` + aNote + `</measure>`,
		"longer than its":     head + strings.Repeat(aNote, 5) + `</measure>`,
		"the first 512":       strings.Repeat(head+aNote+`</measure>`, 5000),
		"without pitch":       head + `<note><unpitched/><duration>4</duration></note>` + aNote + `</measure>`,
		"is no pitch":         head + `<note><pitch><step>H</step><octave>4</octave></pitch><duration>4</duration></note>` + aNote + `</measure>`,
		"tuning cannot":       strings.Replace(head, "</attributes>", `<staff-details><staff-tuning line="1"><tuning-step>E</tuning-step><tuning-octave>2</tuning-octave></staff-tuning></staff-details></attributes>`, 1) + aNote + `</measure>`,
	} {
		f, err := Read(t.Context(), file(measures))
		require.NoError(t, err, says)
		assert.Contains(t, strings.Join(f.Said, "; "), says)
		assert.NotEmpty(t, f.Notes, says)
		assert.Equal(t, 64, f.Notes[0].Pitch.MIDI())
	}
}

func TestTiesTupletsAndBackups(t *testing.T) {
	f, err := Read(t.Context(), file(`<measure number="1"><attributes><divisions>6</divisions><key><fifths>-3</fifths></key><time><beats>3</beats><beat-type>4</beat-type></time></attributes>
		<harmony><root><root-step>E</root-step><root-alter>-1</root-alter></root><kind>dominant</kind></harmony>
		<note><pitch><step>G</step><octave>3</octave></pitch><duration>12</duration><tie type="start"/></note>
		<note><pitch><step>B</step><alter>-1</alter><octave>3</octave></pitch><duration>2</duration></note>
		<note><pitch><step>G</step><octave>3</octave></pitch><duration>4</duration><tie type="start"/></note></measure>
		<measure number="2"><note><pitch><step>G</step><octave>3</octave></pitch><duration>18</duration><tie type="stop"/></note></measure>`))
	require.NoError(t, err)
	assert.Equal(t, "Eb", f.Key.String())
	assert.Equal(t, 3, f.Beats)
	require.Len(t, f.Notes, 3)
	assert.Equal(t, 640+2880, f.Notes[2].Length)
	assert.Equal(t, 320, f.Notes[1].Length)
	assert.Equal(t, harmony.MustParse("Eb7").String(), f.Bars[1].Changes[0].Chord.String())
}

func TestFilesRefused(t *testing.T) {
	for says, data := range map[string]string{
		"cannot be read":    "<score-partwise><part",
		"in parts":          "<html></html>",
		"beats of":          "x",
		"a time of 0":       string(file(`<measure><attributes><time><beats>0</beats><beat-type>4</beat-type></time></attributes></measure>`)),
		"a time of 7/8":     string(file(`<measure>` + aNote + `</measure><measure><attributes><time><beats>7</beats><beat-type>8</beat-type></time></attributes></measure>`)),
		"a length of":       string(file(`<measure><note><duration>-4</duration></note></measure>`)),
		"divisions":         string(file(`<measure><attributes><divisions>-1</divisions></attributes></measure>`)),
		"encoded as":        `<?xml version="1.0" encoding="Shift_JIS"?><score-partwise/>`,
		"invalid character": `<!DOCTYPE x [<!ENTITY a "b">]><score-partwise><work><work-title>&a;</work-title></work></score-partwise>`,
	} {
		_, err := Read(t.Context(), []byte(data))
		require.Error(t, err, says)
		if says != "beats of" && says != "invalid character" {
			assert.ErrorContains(t, err, says)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add(packed(f, "s.xml", string(file(aNote))))
	f.Add(file(`<measure number="1"><attributes><divisions>4</divisions></attributes>` + aNote + `</measure>`))
	f.Add(file(`<measure implicit="yes">` + aNote + `</measure><measure><backup><duration>9</duration></backup>` + aNote + `</measure>`))
	f.Fuzz(func(t *testing.T, data []byte) {
		found, err := Read(t.Context(), data)
		if err != nil {
			return
		}
		for _, n := range found.Notes {
			if n.Length < 1 || n.Start < -found.MostPickup() || n.Start >= found.End() {
				t.Fatalf("%+v in %d bars", n, len(found.Bars))
			}
		}
	})
}
