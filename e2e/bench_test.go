package e2e

import (
	"bytes"
	"compress/gzip"
	"fmt"
	"io"
	"net/http"
	"os"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestFromNothingToAQuickChangeInAFlat(t *testing.T) {
	p := sit(t, false)
	p.visit("/")
	p.sees("h1", "Your first evening")
	p.click("button", "Write a chart of my own")
	p.choose("key", "A♭")
	p.choose("form", "quick change")
	p.sees(".preview", "D♭7")
	p.click("button", "Make chart")
	p.sees("h1", "Twelve-bar, quick change in A♭")
	p.keys(kb.ArrowRight)
	p.sees(".crossing .now", "D♭7")
	p.until(`document.querySelector('[data-bar="2"]').classList.contains('on')`)

	// D♭7 in each of the five positions: every tone lies right and inside the window.
	tones := map[string]int{"R": 1, "3": 5, "5": 8, "b7": 11}
	open := []int{0, 64, 59, 55, 50, 45, 40}
	windows := map[string]bool{}
	for n := 1; n <= 5; n++ {
		p.keys(string(rune('0' + n)))
		p.until(`document.querySelector('.windows button.on')?.title.endsWith('(%d)')`, n)
		var low, high int
		window := eval[[]int](p, `document.querySelector('.windows button.on').innerText.match(/(\d+)–(\d+)/).slice(1).map(Number)`)
		low, high = window[0], window[1]
		windows[p.address()] = true
		spots := p.degrees()
		assert.GreaterOrEqual(t, len(spots), 9)
		for place, degree := range spots {
			s, fret := int(place[0]-'0'), 0
			for _, d := range place[2:] {
				fret = fret*10 + int(d-'0')
			}
			assert.Equal(t, tones[degree], (open[s]+fret)%12, "%s is the %s of Db7", place, degree)
			assert.True(t, fret >= low && fret <= high, "%s in %d-%d", place, low, high)
		}
	}
	assert.Len(t, windows, 5)

	p.keys("n")
	p.sees(".neck", "D♭")
	p.until(`document.querySelector('.labels [aria-pressed=true]').innerText === 'note'`)
	before, spots := p.address(), p.degrees()
	p.do(chromedp.Reload())
	p.sees(".crossing .now", "D♭7")
	assert.Equal(t, before, p.address())
	assert.Equal(t, spots, p.degrees())
	assert.Contains(t, before, "labels=note")
}

func TestStepsFollowMouseKeyboardAndAddress(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/4?bar=4&beat=3")
	p.sees(".crossing .now", "E♭7")
	p.keys(kb.PageDown)
	p.sees(".crossing .now", "A♭7")
	p.keys(kb.ArrowLeft, kb.ArrowLeft)
	p.sees(".crossing .now", "B♭m7")
	p.click(`[data-bar="6"] button`, "")
	p.sees(".crossing .now", "A°7")
	p.sees(".crossing .when", "in a bar")
	assert.Contains(t, p.address(), "bar=6")
	p.keys(kb.End, kb.ArrowRight) // from the last chord round to the first
	p.until(`document.querySelector('[data-bar="1"]').classList.contains('on')`)
	at := p.address()
	p.keys(kb.ArrowUp)
	p.until(`location.search.includes('frets=')`)
	assert.NotEqual(t, at, p.address())
}

func TestOwnWindowByKeysFieldsAndDragging(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.sees(".windows .on", "7–11")
	p.keys("w", kb.ArrowUp)
	p.sees(".windows .on", "8–12")
	p.click(".windows button[aria-haspopup]", "")
	p.write("#own-high input, input#own-high", "23")
	p.keys(kb.Tab)
	p.click(".own button", "Use it")
	p.sees(".own [role=alert]", "end at 22")
	p.write("#own-high input, input#own-high", "10")
	p.keys(kb.Tab)
	p.click(".own button", "Use it")
	p.sees(".windows .on", "8–10")
	p.until(`[...document.querySelectorAll('[data-spot]')].every(e => [8, 9, 10].includes(+e.dataset.spot.slice(2)))`)
	// Drag along the numbers from fret 3 to fret 6.
	at := eval[[]float64](p, `['3', '6'].flatMap(n => { const r = [...document.querySelectorAll('.numbers text')].find(e => e.textContent.trim() === n).getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })`)
	p.do(chromedp.MouseEvent("mousePressed", at[0], at[1], chromedp.ButtonLeft, chromedp.ClickCount(1)),
		chromedp.MouseEvent("mouseMoved", at[2], at[3], chromedp.ButtonLeft), chromedp.MouseEvent("mouseReleased", at[2], at[3], chromedp.ButtonLeft))
	p.sees(".windows .on", "3–6")
}

func TestAPlaceChosenIsKept(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?bar=9&frets=0-4") // G7: its upper B is on two strings
	p.until(`document.querySelectorAll('[data-spot]').length > 5`)
	first := p.degrees()
	p.click(".choice button", "Take it there")
	p.until(`JSON.stringify(Object.fromEntries([...document.querySelectorAll('[data-spot]')].map(e => [e.dataset.spot, e.dataset.degree]))).length > 0 && (!!document.querySelector('[data-spot="3:4"]')) !== %v`, first["3:4"] != "")
	chosen := p.degrees()
	assert.NotEqual(t, first, chosen)
	p.do(chromedp.Reload())
	p.until(`document.querySelectorAll('[data-spot]').length > 5`)
	assert.Equal(t, chosen, p.degrees())
}

func TestAtlasPrintsOnOnePage(t *testing.T) {
	p := sit(t, true)
	for _, address := range []string{"/atlas/6", "/atlas/4?paper=Letter&labels=note", "/atlas/4?necks=blank"} {
		p.visit(address)
		p.until(`document.querySelectorAll('.cell svg').length >= 15`)
		pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPreferCSSPageSize(), chromedp.PDFPrintBackground()))
		require.NoError(t, err)
		assert.Len(t, regexp.MustCompile(`/Type\s*/Page[^s]`).FindAll(pdf, -1), 1, address)
		box := regexp.MustCompile(`/MediaBox \[([^\]]*)\]`).FindSubmatch(pdf)
		require.NotNil(t, box)
		want := "841.91998 594.95996" // A4, lying
		if strings.Contains(address, "Letter") {
			want = "792 612"
		}
		assert.Contains(t, string(box[1]), strings.Fields(want)[0][:3], address)
	}
}

// weigh sums what the scripts of the page weigh compressed.
func weigh(t testing.TB, p *player) int {
	total := 0
	for _, name := range eval[[]string](p, `performance.getEntriesByType('resource').map(e => e.name)`) {
		assert.True(t, strings.HasPrefix(name, p.base), "%s is asked of another machine", name)
		if !strings.HasSuffix(name, ".js") {
			continue
		}
		resp, err := http.Get(name)
		require.NoError(t, err)
		data, err := io.ReadAll(resp.Body)
		resp.Body.Close()
		require.NoError(t, err)
		var packed bytes.Buffer
		w := gzip.NewWriter(&packed)
		_, _ = w.Write(data)
		w.Close()
		total += packed.Len()
	}
	return total
}

func TestTheFirstPlaceIsLightAndAsksNobodyElse(t *testing.T) {
	p := sit(t, true)
	p.visit("/")
	p.sees(".crossing .now", "C7")
	bytes := weigh(t, p)
	t.Logf("%d bytes of compressed script", bytes)
	assert.Positive(t, bytes)
	assert.Less(t, bytes, 250_000)
}

// The axe rules: all of them, and those that a look can break.
const (
	everyRule = `['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']`
	ofALook   = `{type: 'rule', values: ['color-contrast', 'link-in-text-block']}`
)

// broken are those of some rules that a part of the page in view breaks.
func (p *player) broken(css, rules string) []string {
	p.t.Helper()
	p.until(`document.getAnimations().every(a => a.playState !== 'running')`)
	if !eval[bool](p, `!!window.axe`) {
		axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
		require.NoError(p.t, err)
		eval[bool](p, string(axe)+";true")
	}
	return evalLater[[]string](p, `axe.run(`+strconv.Quote(css)+`, {resultTypes: ['violations'], runOnly: `+rules+`}).then(r => r.violations.map(v => v.id + ': ' + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160) + ' ' + n.failureSummary).join(' | ')))`)
}

// inBothLooks asserts that a part of the page breaks no rule on paper, and on stage none that its
// look can break.
func (p *player) inBothLooks(css, what string) {
	p.t.Helper()
	for _, look := range []struct{ name, rules string }{{"paper", everyRule}, {"stage", ofALook}} {
		eval[bool](p, `(document.documentElement.dataset.theme = '`+look.name+`', true)`)
		assert.Empty(p.t, p.broken(css, look.rules), "%s in %s", what, look.name)
	}
}

// TestEveryoneCanUseIt runs the axe rules over each place in both looks; over what frames them all once.
func TestEveryoneCanUseIt(t *testing.T) {
	p := sit(t, true)
	for i, place := range []struct{ path, ready string }{
		{"/bench/4?bar=6", ".run-card li"}, {"/stand/6?bar=4", ".stand .next"}, {"/charts", ".charts li"}, {"/charts/4", "[data-tile]"}, {"/atlas/6", ".cell svg"},
		{"/paper/6?frets=7-11", "[data-note]"}, {"/licks?tag=trill", ".card [data-note]"}, {"/licks/40", ".ways [data-note]"}, {"/lines", ".lines li"}, {"/lines/3", ".grid [data-note]"}, {"/practice/6?ask=tones&seed=7", ".cover"}, {"/practice/6?ask=place&by=neck", ".given"}, {"/practice/6?do=changes", ".hint"}, {"/practice/6?do=takes", "h1"}, {"/practice/6?do=today", ".items li"}, {"/practice/6?do=log", "h1"},
	} {
		p.do(chromedp.EmulateViewport(1280, 2400)) // nothing lies under the strip at the foot
		p.visit(place.path)
		p.until(`document.querySelector(%q)`, place.ready)
		p.until(`document.querySelectorAll('main').length === 1`)
		if i < 2 { // the Bench with the rail and the strip, the stand without them
			p.inBothLooks("html", place.path)
		} else {
			p.inBothLooks("main", place.path)
		}
	}
}

// TestEveryoneCanUseTheDialogs does the same for what opens over a place, and for
// the pages of a line's panel.
func TestEveryoneCanUseTheDialogs(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 2400))
	dialog := "[role=dialog]"
	for _, opens := range []struct{ path, css, text, ready, part string }{
		{"/lines", "button", "New line", "#line-over", dialog}, {"/lines", "button", "Import", "#import-under", dialog}, {"/charts", "button", "Import", "[role=dialog] .bring", dialog}, {"/licks", "button", "New lick", "#lick-text", dialog},
		{"/lines/3", "header button", "12 bars", "#over-text", dialog}, {"/lines/3", "[role=tab]", "Write", "#wish-rhythm", ".work-panel"}, {"/lines/3", "[role=tab]", "Lick", "#work-lick", ".work-panel"},
		{"/lines/3", "[role=tab]", "Exercise", "#drill", ".work-panel"}, {"/lines/3", "button", "Export", "[role=menuitem]", "[role=menu]"}, {"/charts", "button", "Neck", "#tuning-known", dialog},
		{"/charts", "button", "Help", "[role=dialog] kbd", dialog}, {"/bench/6?frets=7-11", "button", "Targets", "#thread-mode", dialog}, {"/lines/3", "button", "The ear", ".p-dialog .ear", dialog}, {"/bench/6?frets=7-11", "button", "Band", ".panel label", ".panel"},
	} {
		p.visit(opens.path)
		p.click(opens.css, opens.text)
		p.until(`document.querySelector(%q)`, opens.ready)
		if opens.part == dialog { // what lies under it has its own test, and would be walked through again
			eval[bool](p, `(document.querySelector('#app').remove(), true)`)
		}
		p.inBothLooks(opens.part, opens.text+" of "+opens.path)
	}
}

// TestEveryoneCanUseWhatAPlaceShows does the same for what a place shows once something is pressed there.
func TestEveryoneCanUseWhatAPlaceShows(t *testing.T) {
	type press = [2]string
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 2400))
	p.visit("/charts")
	guessed := evalLater[int](p, `fetch('/api/lines', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({title: 'Found', key: 'C', feel: 'straight', tempo: 96, beats: 4, text: '| C7 |', low: 7, high: 11,
		notes: [{start: 0, length: 960, string: 2, fret: 8, note: '', placeGuessed: true}]})}).then(r => r.json()).then(l => l.id)`)
	for _, shows := range []struct {
		path    string
		presses []press
		ready   string
		part    string
	}{
		{"/bench/6?frets=7-11&card=leading&voices=two", nil, ".leading li", "main"},
		{"/bench/6?frets=7-11", []press{{".run-card button", "Others"}}, ".others li", "main"},
		{"/bench/6?frets=7-11", []press{{".windows button[aria-haspopup]", ""}}, ".own .strings button", ".own"},
		{"/bench/6?frets=7-11", []press{{".blend .p-select", ""}, {"[role=option]", "minor and major pentatonic, box by box"}}, ".blend .box", "main"},
		{"/bench/6?frets=7-11", []press{{".blend .p-select", ""}, {".make", ""}}, "#palette-name", "[role=dialog]"},
		{"/charts/new?", nil, "#text", "form"},
		{"/charts/6", []press{{"[data-tile='1']", ""}, {".p-select:has(#turnaround)", ""}, {"[role=option]", "Three"}}, ".swap li", ".swap"},
		{"/charts/6", nil, "[data-tile]", ".tiles"},
		{"/lines/3?panel=dress", nil, ".pickings button", "aside"},
		{fmt.Sprintf("/lines/%d", guessed), nil, ".guesses", ".guesses"},
		{"/lines/3/paper?reading=bb", nil, "[data-note]", "article"},
		{"/paper/6?of=chords&reading=bb", nil, ".leaf [data-bar]", "article"},
		{"/practice/6?do=changes&mode=bends", nil, ".sheet [data-note]", "main"},
		{"/practice/6?do=lessons", []press{{"header button", "Set an assignment"}, {".p-dialog button", "An exercise"}, {".p-dialog button", "An aim"}}, ".set legend", ".p-dialog"},
	} {
		p.visit(shows.path)
		for _, press := range shows.presses {
			p.click(press[0], press[1])
		}
		p.until(`document.querySelector(%q)`, shows.ready)
		p.inBothLooks(shows.part, fmt.Sprint(shows.path, shows.presses))
	}
}
