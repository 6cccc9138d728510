package e2e

import (
	"cmp"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

// hand is a player's document as a model that only applies the commands: notes of
// an eighth by place, a cursor, and what can be undone.
type hand struct {
	notes        map[[2]int]sign // by tick and string
	tick, string int
	done, undone []map[[2]int]sign
}

type sign struct {
	fret               int
	vibrato, accent    bool
	palmMute, staccato bool
}

const (
	eighth = 480
	bars   = 36
)

// here is the note under the cursor: on its string, else the first that begins there.
func (h *hand) here() (at [2]int, ok bool) {
	if _, ok := h.notes[[2]int{h.tick, h.string}]; ok {
		return [2]int{h.tick, h.string}, true
	}
	for str := 6; str >= 1; str-- {
		if _, ok := h.notes[[2]int{h.tick, str}]; ok {
			return [2]int{h.tick, str}, true
		}
	}
	return at, false
}

// edit changes the notes, which can be undone.
func (h *hand) edit(do func(notes map[[2]int]sign)) {
	h.done, h.undone = append(h.done, h.notes), nil
	h.notes = maps.Clone(h.notes)
	do(h.notes)
}

func (h *hand) turn(from, to *[]map[[2]int]sign) {
	if n := len(*from); n > 0 {
		*to = append(*to, h.notes)
		h.notes = (*from)[n-1]
		*from = (*from)[:n-1]
	}
}

// press does what a key does, and is told the key.
func (h *hand) press(r *rand.Rand) (keys []string) {
	flip := map[string]func(*sign){
		"v": func(s *sign) { s.vibrato = !s.vibrato }, "a": func(s *sign) { s.accent = !s.accent },
		"m": func(s *sign) { s.palmMute = !s.palmMute }, ".": func(s *sign) { s.staccato = !s.staccato },
	}
	switch k := r.IntN(20); {
	case k < 9: // a fret, and on to the next eighth, so that no second figure joins it
		fret := 1 + r.IntN(9)
		h.edit(func(notes map[[2]int]sign) {
			at := [2]int{h.tick, h.string}
			was := notes[at]
			was.fret = fret
			notes[at] = was
		})
		return append([]string{fmt.Sprint(fret)}, h.go1(1))
	case k < 11:
		return []string{h.go1(-1)}
	case k < 13:
		h.string = min(6, h.string+1)
		return []string{kb.ArrowDown}
	case k < 14:
		h.string = max(1, h.string-1)
		return []string{kb.ArrowUp}
	case k < 17:
		names := slices.Sorted(maps.Keys(flip))
		name := names[r.IntN(len(names))]
		if at, ok := h.here(); ok {
			h.edit(func(notes map[[2]int]sign) {
				s := notes[at]
				flip[name](&s)
				notes[at] = s
			})
		}
		return []string{name}
	case k < 18:
		if at, ok := h.here(); ok {
			h.edit(func(notes map[[2]int]sign) { delete(notes, at) })
		}
		return []string{kb.Delete}
	case k < 19:
		h.turn(&h.done, &h.undone)
		return []string{"undo"}
	default:
		h.turn(&h.undone, &h.done)
		return []string{"redo"}
	}
}

// go1 moves the cursor by an eighth, onto the string of a note that is there.
func (h *hand) go1(by int) string {
	h.tick = min(bars*8-1, max(0, h.tick/eighth+by)) * eighth
	for str := 6; str >= 1; str-- {
		if _, ok := h.notes[[2]int{h.tick, str}]; ok {
			h.string = str
			break
		}
	}
	return map[int]string{1: kb.ArrowRight, -1: kb.ArrowLeft}[by]
}

// list is what the notes are, in order.
func (h *hand) list() (all []string) {
	places := slices.SortedFunc(maps.Keys(h.notes), func(a, b [2]int) int { return cmp.Or(a[0]-b[0], b[1]-a[1]) })
	for _, at := range places {
		all = append(all, fmt.Sprintf("%d %d %+v", at[0], at[1], h.notes[at]))
	}
	return all
}

// stored is the same of what the program keeps.
func (p *player) stored(id int) (all []string) {
	return signs(p.t, strings.NewReader(evalLater[string](p, fmt.Sprintf(`fetch('/api/lines/%d').then(r => r.text())`, id))))
}

// signs reads the notes of a kept line as the model lists them.
func signs(t testing.TB, body io.Reader) (all []string) {
	var line struct {
		Notes []struct {
			Start, String, Fret                 int
			Vibrato, Accent, PalmMute, Staccato bool
		}
	}
	require.NoError(t, json.NewDecoder(body).Decode(&line))
	for _, n := range line.Notes {
		all = append(all, fmt.Sprintf("%d %d %+v", n.Start, n.String, sign{n.Fret, n.Vibrato, n.Accent, n.PalmMute, n.Staccato}))
	}
	return all
}

// blank opens an empty line of three choruses: nobody comes to its end here, where
// the cursor would stay and figures join.
func (p *player) blank() (id int) {
	id = evalLater[int](p, `fetch('/api/lines', {method:'POST', headers:{'Content-Type':'application/json'}, body:JSON.stringify(
		{title:'Burst', key:'C', feel:'straight', tempo:96, beats:4, text:'| C7 | F7 | C7 | % |\n| F7 | % | C7 | % |\n| G7 | F7 | C7 | G7 |\n'.repeat(3), low:1, high:9, notes:[]})}).then(r => r.json()).then(l => l.id)`)
	p.visit(fmt.Sprintf("/lines/%d", id))
	p.until(`document.querySelector('.grid svg .vf-stavenote')`)
	p.do(chromedp.Focus(`.grid`))
	return id
}

// strike presses a key as it is called here.
func (p *player) strike(key string) {
	switch key {
	case "undo":
		p.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(2)))
	case "redo":
		p.do(chromedp.KeyEvent("y", chromedp.KeyModifiers(2)))
	default:
		p.keys(key)
	}
}

// TestABurstOfEditsOverABadLine types 300 edits while every answer is late or
// lost; in the end the page, the program and a model of the commands agree.
func TestABurstOfEditsOverABadLine(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts")
	id := p.blank()
	p.rough(true)
	h := hand{notes: map[[2]int]sign{}, string: 1}
	r := rand.New(rand.NewPCG(11, 25))
	for range 300 {
		for _, key := range h.press(r) {
			p.strike(key)
		}
		time.Sleep(30 * time.Millisecond)
	}
	p.rough(false)
	p.saved()
	require.Equal(t, h.list(), p.stored(id))
	p.until(`document.querySelectorAll('.grid [data-note]').length === %d && !document.querySelector('[data-fresh]')`, len(h.notes))
}
