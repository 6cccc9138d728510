package e2e

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// asked is a call as the API gives it.
type asked struct {
	Kind, Chord, Says, Answer string
	Options                   []string
	Notes                     []struct {
		Degree string
		Places []struct{ String, Fret int }
	}
}

// calls are those that the page asks with a wish and a seed.
func (p *player) calls(wish string) (out []asked) {
	p.t.Helper()
	text := evalLater[string](p, fmt.Sprintf(`fetch('/api/calls', {method: 'POST', headers: {'content-type': 'application/json'}, body: JSON.stringify(%s)}).then(r => r.text())`, wish))
	require.NoError(p.t, json.Unmarshal([]byte(text), &out), text)
	return out
}

// Calls are answered by name with the keys, and on the neck by pressing it; what
// is wrong is marked, what was uncovered is noted, the next one comes by itself.
func TestCallsAreAnsweredByNameAndOnTheNeck(t *testing.T) {
	p := sit(t, true)
	p.visit("/practice/6?seed=7&ask=tones&start=fifth")
	p.until(`document.querySelector('.cover')`)
	all := p.calls(`{chart: 6, kinds: ['tones'], starts: ['fifth'], seed: 7}`)
	key := map[string]string{"R": "1", "b3": "3", "3": "3", "5": "5", "b7": "7", "7": "7"}
	first := all[0]
	p.sees(".chord", first.Chord)
	p.sees(".says", "from the 5")
	for _, n := range first.Notes {
		p.keys(key[n.Degree])
	}
	p.sees(".verdict", "Right")
	p.until(`!document.querySelector('.cover') && document.querySelector('.sum').innerText.includes('1 of 1')`)

	// The next comes by itself; it is found on the neck, with a slip.
	p.sees(".chord", all[1].Chord)
	p.until(`document.querySelector('.cover')`)
	p.click(".segments button", "on the neck")
	p.until(`document.querySelector('.cell')`)
	second := all[1]
	right := second.Notes[0].Places[0]
	wrong := eval[string](p, fmt.Sprintf(`[...document.querySelectorAll('.cell')].map(e => e.dataset.cell).find(c => c !== '%d:%d')`, right.String, right.Fret))
	p.click(fmt.Sprintf("[data-cell='%s']", wrong), "")
	p.until(`document.querySelector('.slip')`)
	for _, n := range second.Notes {
		p.click(fmt.Sprintf("[data-cell='%d:%d']", n.Places[0].String, n.Places[0].Fret), "")
	}
	p.sees(".verdict", "Right, after a slip")
	p.sees(".sum", "1 of 2")

	// Uncovered, it is noted; skipped, it is counted apart.
	p.sees(".chord", all[2].Chord)
	p.click(".segments button", "by name")
	p.until(`document.querySelector('.cover')`)
	p.keys("h")
	p.until(`!document.querySelector('.cover')`)
	for _, n := range all[2].Notes {
		p.keys(key[n.Degree])
	}
	p.sees(".verdict", "Uncovered")
	p.keys(kb.ArrowRight)
	p.until(`!document.querySelector('.verdict')`)
	p.keys(kb.ArrowRight)
	p.sees(".sum", "1 of 3 at once")
	p.sees(".sum", "1 skipped")
}

// Turned round: a place and a chord, which degree; a place and a goal, how far.
func TestCallsTurnedRound(t *testing.T) {
	p := sit(t, true)
	keys := []string{"1", "2", "3", "4", "5", "6", "7", "8", "9", "0", "-", "="}
	p.visit("/practice/6?seed=3&ask=place")
	p.until(`document.querySelector('.given')`)
	c := p.calls(`{chart: 6, kinds: ['place'], seed: 3}`)[0]
	p.sees(".says", "which degree?")
	for i, o := range c.Options {
		if o == c.Answer {
			p.keys(keys[i])
		}
	}
	p.sees(".verdict", "Right")

	p.visit("/practice/6?seed=3&ask=bend")
	p.until(`document.querySelector('.given')`)
	c = p.calls(`{chart: 6, kinds: ['bend'], seed: 3}`)[0]
	p.sees(".says", "how far up to the")
	for _, o := range c.Options {
		if o != c.Answer {
			p.click(fmt.Sprintf("[data-answer='%s']", o), "")
			break
		}
	}
	p.until(`document.querySelector('.keys .slip')`)
	p.keys(c.Answer)
	p.sees(".verdict", "Right, after a slip")

	// What cannot be asked is said, and a chart that is not there.
	p.visit("/practice/6?ask=tones&frets=7-11&strings=1-1")
	p.sees(".trouble", "allow more strings")
	p.visit("/practice/99")
	p.sees("h1", "Nothing can be asked here")
	assert.True(t, eval[bool](p, `!!document.querySelector('a[href="/charts"]')`))
}

// Over the band calls come round by themselves, on the bar.
func TestCallsComeRoundOverTheBand(t *testing.T) {
	p := sit(t, true)
	p.visit("/practice/6?seed=5&ask=tones&band=yes")
	p.until(`document.querySelector('.cover')`)
	p.click(".strip .play", "Play")
	p.until(`document.querySelector('.play.on')`)
	for range 40 { // so fast that it is soon over
		p.keys("]")
	}
	p.sees(".sum", "0 of 1") // let go after four bars
	p.sees(".sum", "0 of 2")
	p.sees("footer", "every 8 bars")
}
