package tabtext

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"

	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

var (
	note = regexp.MustCompile(`^([hp/\\])?(?:\((\d{1,2})\)/)?(x)?(\d{1,2})?(?:b(\d{1,2}(?:\.5)?))?(r)?(?:tr(\d{1,2}))?(~)?(>)?$`)
	link = regexp.MustCompile(`[hp/\\]?(?:\(\d{1,2}\)/)?x?\d{0,2}(?:b\d{1,2}(?:\.5)?)?r?(?:tr\d{1,2})?~?>?`)
)

// longestCell is how many characters may follow each other without a dash.
const longestCell = 60

// chain reads a cell of text without values, in which 5h7 is two notes that
// share the time.
func (r *reader) chain(str int, text string, at, length int) error {
	if len(text) > longestCell {
		r.say("%q … in bar %d is no fret that can be read; it was left out", text[:longestCell], r.bars)
		return nil
	}
	parts := link.FindAllString(text, -1)
	parts = slices.DeleteFunc(parts, func(p string) bool { return p == "" })
	if len(parts) == 0 {
		return r.add(str, text, at, length)
	}
	each := max(score.Tick/8, length/len(parts))
	for i, p := range parts {
		if err := r.add(str, p, at+i*each, each); err != nil {
			return err
		}
	}
	return nil
}

func (r *reader) add(str int, text string, at, length int) error {
	m := note.FindStringSubmatch(text)
	if m == nil || m[4] == "" && m[3] == "" {
		r.say("%q in bar %d is no fret that can be read; it was left out", text, r.bars)
		return nil
	}
	if len(r.s.Notes) >= maxNotes {
		return fmt.Errorf("more than %d notes; the text is longer than can be read", maxNotes)
	}
	number := func(s string) int { n, _ := strconv.Atoi(s); return n }
	n := score.Note{Start: at, Length: length, Placement: neck.Placement{String: str, Fret: number(m[4])}}
	n.Join = map[string]score.Join{"h": score.Hammer, "p": score.PullOff, "/": score.Slide, `\`: score.Slide}[m[1]]
	if m[2] != "" {
		n.Scoop = max(-5, min(5, n.Fret-number(m[2])))
	}
	n.Dead = m[3] != ""
	if m[5] != "" {
		to, _ := strconv.ParseFloat(m[5], 64)
		n.Bend = max(0, min(6, int(2*(to-float64(n.Fret)))))
		n.Release = m[6] != "" && n.Bend > 0
	}
	if m[7] != "" {
		n.Trill = max(0, min(4, number(m[7])-n.Fret))
	}
	n.Vibrato, n.Accent = m[8] != "", m[9] != ""
	if err := r.s.In.CheckPlacement(n.Placement); err != nil {
		r.say("%v; a note in bar %d was left out", err, r.bars)
		return nil
	}
	midi := r.s.In.MIDI(n.Placement)
	n.Pitch = pitch.At(midi, r.s.Key.Spell(midi%12))
	r.s.Notes = append(r.s.Notes, n)
	return nil
}
