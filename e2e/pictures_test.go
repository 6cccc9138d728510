package e2e

import (
	"bytes"
	"encoding/base64"
	"encoding/xml"
	"errors"
	"image"
	"image/png"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The neck, the atlas, a chart and a line leave as pictures that stand by themselves and look as
// they do on the screen.
func TestDrawingsLeaveAsPictures(t *testing.T) {
	p := sit(t, true)
	p.before(`window.saved = []
		const make = URL.createObjectURL
		URL.createObjectURL = (b) => (saved.push(b), make.call(URL, b))`)
	p.do(chromedp.EmulateViewport(1280, 1600))
	const leave = "button:has(.pi-image)"
	for _, c := range []struct {
		path, drawn, ready, has string
		stage                   bool
	}{
		{"/bench/6", ".bench .neck", `document.querySelectorAll('.neck svg g').length > 10`, "♭7", false},
		{"/atlas/6", ".atlas > div:last-of-type", `document.querySelectorAll('.cell svg').length >= 15`, "E shape", false},
		{"/paper/6?of=chords", "article.leaf", `document.querySelectorAll('article .bar').length === 12`, "Slipway Shuffle", false},
		{"/paper/6?of=thread", "article", `document.querySelectorAll('article [data-note]').length > 11`, "Slipway Shuffle", false},
		{"/lines/1/paper", "article", `document.querySelectorAll('article [data-note]').length > 20`, "swing", false},
		{"/bench/6", ".bench .neck", `document.querySelectorAll('.neck svg g').length > 10`, "♭7", true},
		{"/lines/1/paper", "article", `document.querySelectorAll('article [data-note]').length > 20`, "swing", false},
	} {
		p.visit(c.path)
		p.until(`document.querySelector(%q) && %s`, leave, c.ready)
		if c.stage {
			p.click("button", "Stage")
			p.until(`[...document.querySelectorAll('button')].some(b => b.innerText.trim() === 'Paper')`)
		}
		evalLater[bool](p, `document.fonts.ready.then(() => new Promise(d => requestAnimationFrame(() => requestAnimationFrame(() => d(true)))))`)
		p.click(leave, "")
		p.click("[role=menuitem]", "SVG")
		p.until(`saved.some(b => b.type === 'image/svg+xml')`)
		svg := evalLater[string](p, `saved.find(b => b.type === 'image/svg+xml').text()`)
		for _, alien := range []string{"var(", "http://127", "foreignObject", "class="} {
			assert.False(t, strings.Contains(svg, alien), "%s in the picture of %s", alien, c.path)
		}
		assert.True(t, strings.Contains(text(t, svg), c.has), "%s in the picture of %s", c.has, c.path)

		p.click(leave, "")
		p.click("[role=menuitem]", "PNG")
		p.until(`saved.some(b => b.type === 'image/png')`)
		data := evalLater[string](p, `new Promise(d => { const r = new FileReader(); r.onload = () => d(r.result.split(',')[1]); r.readAsDataURL(saved.find(b => b.type === 'image/png')) })`)
		raw, err := base64.StdEncoding.DecodeString(data)
		require.NoError(t, err)
		drawn, err := png.Decode(bytes.NewReader(raw))
		require.NoError(t, err)
		p.until(`!document.querySelector('.p-menu')`)
		// A page that is longer than the window is laid out anew for its photograph: it is looked at once it rests.
		var apart, inked float64
		for range 6 {
			shot, err := chromedp.Run(p.ctx, chromedp.Screenshot(chromedp.CSS(c.drawn)))
			require.NoError(t, err)
			seen, err := png.Decode(bytes.NewReader(shot))
			require.NoError(t, err)
			if apart, inked = compared(drawn, seen); apart < 0.4*inked {
				break
			}
			time.Sleep(300 * time.Millisecond)
		}
		t.Logf("%s: %.3f of %.3f apart", c.path, apart, inked)
		assert.Less(t, apart, 0.4*inked, c.path)
	}
}

// The neck is printed by itself.
func TestTheNeckGoesOnPaper(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6")
	p.until(`document.querySelectorAll('.neck svg g').length > 10`)
	eval[bool](p, `(window.printed = [], new MutationObserver(list => list.forEach(m => m.addedNodes.forEach(n => {
		if (n.tagName === 'IFRAME') n.addEventListener('load', () => { n.contentWindow.print = () => printed.push(n.contentDocument.querySelectorAll('svg text').length) }, { capture: true })
	}))).observe(document.body, { childList: true }), true)`)
	p.click("button:has(.pi-image)", "")
	p.click("[role=menuitem]", "On paper")
	p.until(`printed[0] > 20`)
}

// margin and fine are how a picture lies about what was drawn.
const margin, fine = 16, 2

// compared tells how far a picture is from the screen, and how far the screen is from an empty
// one: means of the difference of brightness.
func compared(picture, screen image.Image) (apart, inked float64) {
	bright := func(m image.Image, x, y int) float64 {
		r, g, b, _ := m.At(m.Bounds().Min.X+x, m.Bounds().Min.Y+y).RGBA()
		return float64(r+g+b) / 3 / 0xffff
	}
	size := screen.Bounds()
	empty := bright(screen, size.Dx()/2, 3)
	for y := range size.Dy() {
		for x := range size.Dx() {
			var sum float64
			for k := range fine * fine {
				sum += bright(picture, (x+margin)*fine+k%fine, (y+margin)*fine+k/fine)
			}
			there := bright(screen, x, y)
			apart += max(there-sum/fine/fine, sum/fine/fine-there)
			inked += max(there-empty, empty-there)
		}
	}
	n := float64(size.Dx() * size.Dy())
	return apart / n, inked / n
}

// text is what an SVG says, and proof that it is one.
func text(t *testing.T, svg string) string {
	dec, out := xml.NewDecoder(strings.NewReader(svg)), ""
	for {
		token, err := dec.Token()
		if errors.Is(err, io.EOF) {
			return out
		}
		require.NoError(t, err)
		if data, ok := token.(xml.CharData); ok {
			out += string(data)
		}
	}
}
