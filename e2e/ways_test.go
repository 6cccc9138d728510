package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/score"
)

// TestEveryWayToPlayANoteIsTyped enters each way by its key on a note that can
// bear it, as often as it has values, sees each in the hand, and finds it kept.
func TestEveryWayToPlayANoteIsTyped(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts")
	// Two notes on string 2; what the way hangs on is there already.
	open := func(second int, before, with string) (id int) {
		id = evalLater[int](p, fmt.Sprintf(`fetch('/api/lines', {method:'POST', headers:{'Content-Type':'application/json'}, body:JSON.stringify(
			{title:'Loose Ways', key:'A', feel:'straight', tempo:96, beats:4, text:'| A7 | D7 |', low:5, high:9, notes:[
				{id:1, start:0, length:960, string:2, fret:7, note:'', %s}, {id:2, start:960, length:960, string:2, fret:%d, note:'', %s}]}
			)}).then(r => r.json()).then(l => l.id)`, before, second, with))
		p.visit(fmt.Sprintf("/lines/%d", id))
		p.until(`document.querySelector('[data-note="2"]')`)
		p.click("[data-note='2']", "")
		p.do(chromedp.Focus(`.grid`))
		return id
	}
	last := func(id int) map[string]any {
		p.saved()
		var line struct{ Notes []map[string]any }
		text := evalLater[string](p, fmt.Sprintf(`fetch('/api/lines/%d').then(r => r.text())`, id))
		require.NoError(t, json.Unmarshal([]byte(text), &line))
		return line.Notes[1]
	}
	var at string
	var id int
	for _, w := range score.Ways {
		second, before, with := 9, "", ""
		switch {
		case w.Name == "pull-off":
			second = 5
		case w.ID == "again":
			second, before, with = 7, "bend:4", "bend:4"
		case w.On == "bend":
			with = "bend:6"
		case w.On == "release":
			with = "bend:6, release:true"
		case w.On == "vibrato":
			with = "vibrato:true"
		}
		if now := fmt.Sprint(second, before, with); now != at {
			at, id = now, open(second, before, with)
		}
		for _, v := range w.Values {
			p.keys(w.Key)
			p.until(`[...document.querySelectorAll('.do button[aria-pressed=true]')].some(b => b.textContent.trim() === %q)`, strings.TrimSpace(w.Name+" "+v.Name))
		}
		is, _ := json.Marshal(w.Values[len(w.Values)-1].Is)
		assert.Equal(t, strings.Trim(string(is), `"`), fmt.Sprint(last(id)[w.ID]), "%s by %s", w.Name, w.Key)
		p.keys(w.Key)
		p.until(`![...document.querySelectorAll('.do button[aria-pressed=true]')].some(b => b.textContent.includes(%q))`, w.Name)
	}

	// What no hand can do is not entered, and said.
	id = open(9, "", "")
	p.keys("p")
	p.sees(".said", "pull-off of G♯4 in bar 1 was left out: a pull-off goes down, and fret 9 is not below fret 7")
	assert.Nil(t, last(id)["join"])
	p.keys(kb.ArrowLeft, kb.ArrowLeft, "h")
	p.sees(".said", "comes from a note before it on its string")
}
