package e2e

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// screen is a place as a player opens it.
type screen struct {
	path, ready string
	tune        string // what the strip would play there, where the place is of one tune
}

// screens are all places, with the demo's data.
var screens = []screen{
	{"/bench/6?frets=7-11&bar=4", ".run-card li", "Slipway Shuffle"}, {"/stand/6?bar=4", ".stand .next", ""}, {"/atlas/6", ".cell svg", "Slipway Shuffle"}, {"/paper/6?frets=7-11", "[data-note]", "Slipway Shuffle"},
	{"/charts", ".charts li", ""}, {"/charts/new", "[data-tile], textarea", ""}, {"/charts/4", "[data-tile]", "Harbourmaster’s Day Off"}, {"/sets", "h1", ""},
	{"/licks?tag=trill", ".card [data-note]", ""}, {"/licks/40", ".ways [data-note]", "Kettle On"}, {"/lines", ".lines li", ""}, {"/lines/3?", ".grid [data-note]", "Slipway, first chorus"}, {"/lines/3/paper", "[data-note]", ""},
	{"/by-ear", "h1", ""}, {"/practice/6?ask=tones&seed=7", ".cover", "Slipway Shuffle"}, {"/practice/6?ask=place&by=neck", ".given", "Slipway Shuffle"}, {"/practice/6?do=changes", ".hint", "Slipway Shuffle"},
	{"/practice/6?do=takes", "h1", ""}, {"/practice/6?do=log", "h1", ""}, {"/practice/6?do=lessons", "h1", ""}, {"/practice/6?do=today", ".items li", ""},
}

// widths are those of a small phone, a phone, a tablet upright, a laptop and a wide screen.
var widths = []struct{ width, height int64 }{{1920, 1080}, {1280, 800}, {820, 1180}, {390, 844}, {320, 640}}

func TestEveryPlaceFitsEveryScreen(t *testing.T) {
	p := sit(t, true)
	script, err := os.ReadFile("testdata/screens.js")
	require.NoError(t, err)
	letters := func(size int64) {
		_, err := chromedp.Call(p.ctx, page.SetFontSizes, page.SetFontSizesParams{FontSizes: &page.FontSizes{Standard: size, Fixed: size}})
		require.NoError(t, err)
	}
	for _, place := range screens {
		p.do(chromedp.EmulateViewport(widths[0].width, widths[0].height))
		p.visit(place.path)
		p.until(`document.querySelector(%q)`, place.ready)
		eval[bool](p, string(script)+";true")
		if place.tune != "" {
			assert.Empty(t, eval[[]string](p, fmt.Sprintf(`screens.tune(%q)`, place.tune)), place.path)
		}
		for _, w := range widths {
			p.do(chromedp.EmulateViewport(w.width, w.height))
			evalLater[bool](p, `new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => done(true), 60))))`)
			asked := `[...screens.wider(), ...screens.cut(), ...screens.squeezed(), ...screens.covered()`
			if w.width <= 820 {
				asked += `, ...screens.small(44), ...screens.foot(80)`
			}
			if w.width == 1280 {
				asked += `, ...screens.raw(), ...screens.tiny(12, 'main .neck, main .form, main .stand, main .call-neck, main .line .grid')`
				if strings.HasPrefix(place.path, "/bench") || strings.HasPrefix(place.path, "/lines/3?") {
					asked += `, ...screens.under()`
				}
			}
			for _, fault := range eval[[]string](p, asked+`]`) {
				assert.Fail(t, fmt.Sprintf("%s at %d px", place.path, w.width), fault)
			}
			if w.width == 390 {
				p.do(chromedp.EmulateViewport(w.width, 2400)) // nothing lies under the strip
				p.inBothLooks("main", place.path+" on a phone")
				assert.Empty(t, p.broken("html", `['label-content-name-mismatch']`), place.path)
			}
			if w.width == 1280 { // with letters twice as large nothing is lost, and nothing goes sideways
				letters(32)
				evalLater[bool](p, `new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => done(true), 60))))`)
				p.until(`getComputedStyle(document.documentElement).fontSize === '32px'`)
				for _, fault := range eval[[]string](p, `[...screens.wider(), ...screens.covered()]`) {
					assert.Fail(t, fmt.Sprintf("%s with large letters", place.path), fault)
				}
				letters(16)
			}
		}
	}
}
