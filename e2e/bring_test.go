package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Several files are read, looked at and kept where they are wanted; what cannot be read says
// why, repeats are kept or written out, and nothing is there before the player says so.
func TestFilesAreSeenBeforeTheyAreKept(t *testing.T) {
	p := sit(t, true)
	dir := t.TempDir()
	write := func(name, text string) string {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
		return path
	}
	files := []string{
		write("harbour.cho", "{title: Harbour Round}\n{tempo: 104}\n|: G7 | C7 | 1. 2/4 G7 :| 2. 4/4 G7 |\nla la la by the water\n| Am7 | D7 |"),
		write("odd.txt", "| C7 | Hx7 |"), write("plain.txt", "C7 F7 C7 G7"),
	}
	p.visit("/charts")
	p.click("button", "Import")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), files))
	p.sees(".preview", "8 bars in G, 104 a minute")
	p.sees(".preview .said", "a line of words was left out")
	p.inBothLooks("[role=dialog]", "files that were read")
	p.click(".preview .tick-box", "repeats")
	p.until(`!document.querySelector('.preview').innerText.includes('Played:') && document.querySelectorAll('.preview .bar').length === 8`)
	p.click(".preview .tick-box", "repeats")
	p.sees(".preview .said", "Played: 8 bars")
	p.click(".found ol button", "odd.txt")
	p.sees(".preview [role=alert]", "Hx7")
	assert.Equal(t, 6, evalLater[int](p, `fetch('/api/charts').then(r => r.json()).then(list => list.length)`))
	p.click("[role=dialog] button", "Keep 2")
	p.sees(".found", "odd.txt")
	p.until(`!document.querySelector('.found ol')`)
	p.shut()
	p.sees(".charts", "Harbour Round")
	p.sees(".charts", "plain")

	// Licks come back from one file, and of two voices the other is chosen.
	p.visit("/licks")
	p.until(`document.querySelector('.card')`)
	licks := write("licks.musicxml", evalLater[string](p, `fetch('/api/licks/musicxml?id=1&id=2&id=3').then(r => r.text())`))
	n := eval[int](p, `Number(document.querySelector('.tags button').innerText.trim().split(' ')[1])`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{licks}))
	p.sees(".preview", "3 licks")
	p.click("[role=dialog] button", "Keep it")
	p.until(fmt.Sprintf(`[...document.querySelectorAll('.tags button')].some(b => b.innerText.trim() === 'all %d')`, n+3))
	note := func(step, voice string) string {
		return `<note><pitch><step>` + step + `</step><octave>4</octave></pitch><duration>4</duration><voice>` + voice + `</voice></note>`
	}
	voices := write("two.musicxml", `<score-partwise><part-list><score-part id="A"><part-name>Duo</part-name></score-part></part-list><part id="A"><measure number="1"><attributes><divisions>1</divisions></attributes>`+
		note("C", "1")+`<backup><duration>4</duration></backup>`+note("E", "2")+`</measure></part></score-partwise>`)
	p.visit("/lines")
	p.sees("h1", "Lines")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{voices}))
	p.sees(".preview .said", "several voices; voice 1 was read")
	p.choose("import-part", "Duo, voice 2")
	p.sees(".preview .said", "several voices; voice 2 was read")
	p.click("[role=dialog] button", "Keep it")
	id := p.lineID()
	require.Len(t, p.kept(id).Notes, 1)
	assert.Equal(t, "E4", p.kept(id).Notes[0].Note)
}
