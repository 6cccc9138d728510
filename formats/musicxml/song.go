package musicxml

import (
	"slices"
	"strconv"
	"strings"

	"undaris/core/form"
	"undaris/core/score"
)

// WriteSong writes a song as it is written: s has its bars as they stand, signs what each says
// of the order in which they are played, b what it holds beside them.
func WriteSong(s score.Score, signs []form.Signs, b form.Beside) []byte {
	return (&writer{s: s, signs: signs, beside: b}).all()
}

// sign is what a measure says of the order; of a pickup and of a plain line nothing.
func (w *writer) sign(bar int) form.Signs {
	if bar < 0 || bar >= len(w.signs) {
		return form.Signs{}
	}
	return w.signs[bar]
}

// begins writes what stands before the notes of a measure.
func (w *writer) begins(bar int) {
	g := w.sign(bar)
	if g.Opens || len(g.Endings) > 0 {
		w.p(`<barline location="left">`)
		if len(g.Endings) > 0 {
			w.p(`<ending number="%s" type="start"/>`, numbers(g.Endings))
		}
		if g.Opens {
			w.p(`<repeat direction="forward"/>`)
		}
		w.p(`</barline>`)
	}
	if g.Segno {
		w.p(`<direction placement="above"><direction-type><segno/></direction-type><sound segno="segno"/></direction>`)
	}
	if g.Coda {
		w.p(`<direction placement="above"><direction-type><coda/></direction-type><sound coda="coda"/></direction>`)
	}
}

// ends writes what stands behind them.
func (w *writer) ends(bar int) {
	g := w.sign(bar)
	back := `dacapo="yes"`
	if strings.HasPrefix(string(g.Jump), string(form.DS)) {
		back = `dalsegno="segno"`
	}
	for _, d := range []struct {
		is           bool
		words, sound string
	}{{g.ToCoda, "To Coda", `tocoda="coda"`}, {g.Fine, "Fine", `fine="yes"`}, {g.Jump != form.NoJump, string(g.Jump), back}} {
		if d.is {
			w.p(`<direction placement="above"><direction-type><words>%s</words></direction-type><sound %s/></direction>`, d.words, d.sound)
		}
	}
	over := w.ending(bar)
	if g.Times == 0 && over == nil {
		return
	}
	w.p(`<barline location="right">`)
	if over != nil {
		w.p(`<ending number="%s" type="stop"/>`, numbers(over))
	}
	if g.Times > 0 {
		w.p(`<repeat direction="backward" times="%d"/>`, g.Times)
	}
	w.p(`</barline>`)
}

// ending is the ending that is over with a measure: where it repeats, or where another begins.
func (w *writer) ending(bar int) []int {
	next := w.sign(bar + 1)
	if w.sign(bar).Times == 0 && len(next.Endings) == 0 && !next.Opens && bar+1 < len(w.signs) && w.s.Bars[bar+1].Section == "" {
		return nil
	}
	for i := bar; i >= 0; i-- {
		if g := w.sign(i); len(g.Endings) > 0 {
			return g.Endings
		} else if i < bar && (g.Times > 0 || g.Opens) {
			return nil
		}
	}
	return nil
}

func numbers(list []int) string {
	var out []string
	for _, n := range slices.Sorted(slices.Values(list)) {
		out = append(out, strconv.Itoa(n))
	}
	return strings.Join(out, ", ")
}
