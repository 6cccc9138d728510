package e2e

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Everything leaves as a file under Help, and comes back from it; what is no backup is
// refused with the reason.
func TestEverythingIsBackedUpAndRestored(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1000))
	p.visit("/charts")
	p.sees("h1", "Charts")
	whole := evalLater[string](p, `fetch('/api/backup').then(r => r.text())`)
	charts := eval[int](p, `document.querySelectorAll('.charts li').length`)
	require.Positive(t, charts)
	evalLater[bool](p, `fetch('/api/charts').then(r => r.json()).then(async all => { const c = (all.items ?? all.rows ?? all)[0]; const r = await fetch('/api/charts/' + c.id, {method: 'DELETE', headers: {'If-Match': '"' + c.version + '"'}}); return r.ok || r.status })`)
	file := func(name, text string) {
		t.Helper()
		path := filepath.Join(t.TempDir(), name)
		require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
		p.visit("/charts")
		p.sees("h1", "Charts")
		p.keys("?")
		p.sees("[role=dialog]", "A backup is one file")
		p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[aria-label="a backup to restore"]`), []string{path}))
		p.sees("[role=dialog]", name)
		p.click("[role=dialog] .ask button", "Restore it")
	}
	// What cannot be used is left out, and told; the rest is there.
	file("odd.tar", strings.Replace(whole, `"shuffle"`, `"shufflx"`, 1))
	p.sees("[role=dialog]", "One thing of it cannot be used here and was left out")
	p.sees("[role=dialog]", "there is no feel")
	p.inBothLooks("[role=dialog]", "a backup with something that cannot be used")
	p.click("[role=dialog] .ask button", "Go to the charts")
	p.until(`!document.querySelector('[role=dialog]') && document.querySelectorAll('.charts li').length === %d`, charts-1)
	file("half.tar", whole[:len(whole)/2])
	p.sees("[role=alert]", "it was cut; nothing was changed")
	p.inBothLooks("[role=dialog]", "a backup that is refused")
	file("whole.tar", whole)
	p.until(`!document.querySelector('[role=dialog]') && location.pathname === '/charts'`)
	p.until(`document.querySelectorAll('.charts li').length === %d`, charts) // the page turns to what was restored
	p.sees(".notes", "Something else is open in Undaris now")
	assert.Equal(t, whole, evalLater[string](p, `fetch('/api/backup').then(r => r.text())`))
}
