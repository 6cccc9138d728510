package e2e

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
)

// presses counts what a player presses on the way to something.
type presses struct {
	*player
	n int
}

func (p *presses) click(css, text string) {
	p.t.Helper()
	p.n++
	p.player.click(css, text)
}

// From nothing to a third that is landed, by the words on the screen alone: the chart is made, heard and played, in six
// presses at most. The sixth is the note: pressed as the chord comes.
func TestTheFirstEvening(t *testing.T) {
	p := &presses{player: sit(t, false)}
	p.visit("/")
	p.sees("h1", "Your first evening")
	p.click(".blues", "slow change in A")
	p.sees(".way-in", "In bar 5 A7 becomes D7")
	p.sees(".way-in", "F♯: string 2, fret 7")
	p.sees("h1", "Twelve-bar, slow change in A")
	p.until(`document.querySelector('[data-bar="4"]').classList.contains('on')`)
	p.click(".way-in button", "Hear it")
	p.until(`document.querySelector('.play.on')`)
	assert.LessOrEqual(t, p.n, 2, "to the first sound")
	p.sees(".way-in", "Be on F♯ when D7 comes")
	p.click(".way-in button", "With the keyboard")
	p.sees(".changes header", "bars 4–5")
	p.sees(".way-in", "the key R on the keyboard")
	p.sees(".press-neck", "R")
	// The key is pressed as bar 5 begins, once each time round, until it is in time.
	eval[any](p.player, `(() => {
		let was = ''
		const press = (type) => document.body.dispatchEvent(new KeyboardEvent(type, { code: 'KeyR', key: 'r', bubbles: true, cancelable: true }))
		setInterval(() => {
			const now = document.querySelector('.strip .where')?.innerText ?? ''
			if (/bar 5/.test(now) && !/bar 5/.test(was)) press('keydown'), setTimeout(() => press('keyup'), 900)
			was = now
		}, 4)
	})()`)
	p.n++
	p.sees(".way-in", "Landed: F♯, the third of D7")
	assert.LessOrEqual(t, p.n, 6, "to a landed third")
	p.click(".way-in button", "The whole form")
	p.until(`!document.querySelector('.way-in') && !location.search.includes('loop') && document.querySelector('.play.on')`)

	// Left at any time, and taken up from Help.
	p.player.click(".rail button", "Help")
	p.sees("[role=dialog]", "Over the changes")
	p.until(`document.querySelector('[role=dialog] .ways .pi-check')`) // Land it
	p.player.click("[role=dialog] .ways button", "See it")
	p.sees(".way-in", "The neck shows the chord of now")
	p.player.click(".way-in [aria-label^='leave it']", "")
	p.until(`!document.querySelector('.way-in')`)
}

// The other ways round: a left-handed bass, a minor blues, nobody to be heard by. Each way ends in something that is told.
func TestTheFirstEveningOfOthers(t *testing.T) {
	p := &presses{player: sit(t, false)}
	p.visit("/")
	p.click(".first .segments button", "bass")
	p.click(".first .segments button", "left-handed")
	p.click(".blues", "minor in A")
	p.sees("h1", "Twelve-bar, minor in A")
	p.sees(".way-in", "Am")
	p.sees(".way-in", "Its third is")
	assert.Equal(t, []any{"E1,A1,D2,G2", true}, evalLater[[]any](p.player, `fetch('/api/player').then(r => r.json()).then(p => [p.tuning, p.left])`))
	p.click(".way-in button", "Hear it")
	p.click(".way-in button", "With my instrument")
	p.sees(".changes .trouble", "microphone") // there is none here
	p.click(".way-in button", "Say it instead")
	p.sees(".way-in", "A call asks for a tone")
	p.click(".way-in button", "Ask me")
	for i := 1; i <= 6; i++ {
		start := []string{"root", "third"}[(i-1)/3]
		p.sees(".way-in", start+"s")
		p.until(`document.querySelectorAll('.cell').length > 10 && !document.querySelector('.verdict')`)
		p.tell(start)
		p.sees(".sum", strconv.Itoa(i)+" of")
		p.until(`!document.querySelector('.verdict')`)
	}
	p.sees(".way-in", "You know where the third of")
}

// tell presses every place of what is asked for, as one who knows them: the tones of the chord that is shown, on a bass.
func (p *presses) tell(what string) {
	p.t.Helper()
	evalLater[any](p.player, `(async () => {
		const pitch = (name) => ({ C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 })[name[0]] + (name[1] === '♯' ? 1 : name[1] === '♭' ? 11 : 0)
		const chord = document.querySelector('.call .chord').innerText.trim()
		const third = /^.[♯♭]?m/.test(chord) ? 3 : 4
		const want = (pitch(chord) + `+map[string]string{"root": "0", "third": "third"}[what]+`) % 12
		const [low, high] = document.querySelector('.call .where').innerText.match(/frets (\d+) to (\d+)/).slice(1).map(Number)
		const open = [0, 43, 38, 33, 28]
		for (let string = 4; string >= 1; string--)
			for (let fret = low; fret <= high; fret++)
				if ((open[string] + fret) % 12 === want) {
					document.querySelector("[data-cell='" + string + ':' + fret + "']").dispatchEvent(new MouseEvent('click', { bubbles: true }))
					await new Promise((done) => setTimeout(done, 60))
				}
	})()`)
}
