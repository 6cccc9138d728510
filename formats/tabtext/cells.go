package tabtext

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// A note in a cell: how it is reached, its fret, and behind it the signs of
// [score.Ways] with their numbers.
var (
	before = `[hp/\\]?(?:\(\d{1,2}\)/)?x?`
	signs  = `(?:` + strings.Join(marks(), "|") + `)*`
	note   = regexp.MustCompile(`^([hp/\\])?(?:\((\d{1,2})\)/)?(x)?(\d{1,2})?(` + signs + `)$`)
	link   = regexp.MustCompile(before + `\d{0,2}` + signs)

	number = map[score.Number]*regexp.Regexp{}
)

func init() {
	for kind, digits := range numbers {
		number[kind] = regexp.MustCompile(`^` + digits)
	}
}

// signed lists the ways that have a sign, the longest signs first.
func signed() []score.Way {
	list := slices.DeleteFunc(slices.Clone(score.Ways), func(w score.Way) bool { return w.Text.Mark == "" })
	slices.SortStableFunc(list, func(a, b score.Way) int { return len(b.Text.Mark) - len(a.Text.Mark) })
	return list
}

var numbers = map[score.Number]string{score.None: ``, score.Count: `\d{1,3}`, score.Frets: `\d{1,2}`, score.Quarters: `\d{1,2}(?:\.5)?`}

func marks() (list []string) {
	for _, w := range signed() {
		list = append(list, regexp.QuoteMeta(w.Text.Mark)+numbers[w.Text.Number])
	}
	return list
}

// readSigns reads the signs behind a fret.
func readSigns(text string, n *score.Note) {
	for len(text) > 0 {
		for _, w := range signed() {
			rest, ok := strings.CutPrefix(text, w.Text.Mark)
			if !ok {
				continue
			}
			digits := number[w.Text.Number].FindString(rest)
			text = rest[len(digits):]
			v, _ := strconv.ParseFloat(digits, 64)
			switch w.Text.Number {
			case score.None:
				v = 1
			case score.Frets:
				v -= float64(n.Fret)
			case score.Quarters:
				v = 2 * (v - float64(n.Fret))
			}
			w.Put(&n.Ornaments, w.Within(int(v)))
			break
		}
	}
}

// writeSigns writes them.
func writeSigns(n score.Note) (text string) {
	for _, w := range score.Ways {
		v := w.Of(n.Ornaments)
		if v == 0 || w.Text.Mark == "" {
			continue
		}
		text += w.Text.Mark
		switch w.Text.Number {
		case score.Count:
			text += fmt.Sprint(v)
		case score.Frets:
			text += fmt.Sprint(n.Fret + v)
		case score.Quarters:
			text += fmt.Sprintf("%g", float64(n.Fret)+float64(v)/2)
		}
	}
	return text
}

// longestCell is how many characters may follow each other without a dash.
const longestCell = 60

// chain reads a cell of text without values, in which 5h7 is two notes that
// share the time.
func (r *reader) chain(str int, text string, at, length int) error {
	if len(text) > longestCell {
		r.say("%q … in bar %d is no fret that can be read; it was left out", text[:longestCell], r.bars)
		return nil
	}
	text = r.cell(r.slides(text))
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
	m := note.FindStringSubmatch(r.cell(text))
	if m == nil || m[4] == "" && m[3] == "" {
		r.say("%q in bar %d is no fret that can be read; it was left out", text, r.bars)
		return nil
	}
	if len(r.s.Notes) >= maxNotes {
		return say.Errorf("more than %d notes; the text is longer than can be read", maxNotes)
	}
	figure := func(s string) int { n, _ := strconv.Atoi(s); return n }
	n := score.Note{Start: at, Length: length, Placement: neck.Placement{String: str, Fret: figure(m[4])}}
	n.Join = map[string]score.Join{"h": score.Hammer, "p": score.PullOff, "/": score.Slide, `\`: score.Slide}[m[1]]
	if m[2] != "" {
		n.Scoop = max(-5, min(5, n.Fret-figure(m[2])))
	}
	n.Dead = m[3] != ""
	readSigns(m[5], &n)
	n.PalmMute = n.PalmMute || r.damped
	if err := r.s.In.CheckPlacement(n.Placement); err != nil {
		r.say("%v; a note in bar %d was left out", err, r.bars)
		return nil
	}
	midi := r.s.In.MIDI(n.Placement)
	n.Pitch = pitch.At(midi, r.s.Key.Spell(midi%12))
	r.s.Notes = append(r.s.Notes, n)
	return nil
}

func ticks(word string) int {
	word = strings.TrimPrefix(word, "r")
	v := score.Value{}
	for base, letter := range letters {
		if strings.HasPrefix(word, letter) {
			v.Base = base
		}
	}
	v.Dotted = strings.Contains(word, ".")
	if strings.Contains(word, "3") {
		v.Actual, v.Normal = 3, 2
	} else if strings.Contains(word, "6") {
		v.Actual, v.Normal = 6, 4
	}
	return v.Ticks()
}
