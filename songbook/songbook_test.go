// Package songbook_test prints what the core makes of a few tunes, to be read by a musician and kept
// whole: whatever changes there is seen, meant or not. UPDATE=1 go test ./songbook writes it anew.
package songbook_test

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
)

// page is what is printed on one.
type page struct {
	*bytes.Buffer
	t *testing.T
}

func (p page) head(format string, args ...any) {
	fmt.Fprintf(p, "\n# %s\n", fmt.Sprintf(format, args...))
}
func (p page) say(name string, v any) { fmt.Fprintf(p, "%s: %s\n", name, short(v)) }

// notes prints a line of music, a bar to a line: when, how long, string:fret, and how it is played.
func (p page) notes(prog form.Progression, notes []score.Note) {
	bar := -2
	for _, n := range notes {
		b := -1
		if n.Start >= 0 && len(prog.Bars) > 0 {
			b, _ = prog.BarAt(n.Start / score.Tick)
		}
		if b != bar {
			bar = b
			fmt.Fprintf(p, "\n%3d|", b+1)
		}
		fmt.Fprintf(p, " %d+%d %d:%d", n.Start, n.Length, n.String, n.Fret)
		if n.Finger > 0 {
			fmt.Fprintf(p, "f%d", n.Finger)
		}
		if text := short(n.Ornaments); text != "{}" && text != "" {
			fmt.Fprintf(p, "(%s)", text)
		}
		if n.Named != "" {
			fmt.Fprintf(p, "“%s”", n.Named)
		}
	}
	fmt.Fprintln(p)
}

var background = context.Background()

func key(text string) form.Key {
	k, err := form.ParseKey(text)
	if err != nil {
		panic(err)
	}
	return k
}

func bars(text, k string) form.Progression {
	p, err := form.Read(text, 4, key(k))
	if err != nil {
		panic(err)
	}
	return p
}

func instrument(tuning string) *neck.Instrument {
	in, err := neck.New(tuning, 22, 648, 0)
	if err != nil {
		panic(err)
	}
	return in
}

// over is a line without notes.
func over(text, k string, in *neck.Instrument, w neck.Region, feel string) edit.Line {
	return edit.Line{Score: score.Score{Title: "Songbook", Key: key(k), Tempo: 96, Swing: band.Swings(feel), Progression: bars(text, k), In: in},
		Hand: neck.UsualHand, Region: w, Palette: blend.Palettes[0], Feel: feel}
}

const (
	twelve = "| I7 | IV7 | I7 | % |\n| IV7 | % | I7 | VI7 |\n| ii7 | V7 | I7 VI7 | ii7 V7 |"
	four   = "| C7 | F7 | Dm7b5 G7 | C7 |"
)

var (
	middle = neck.Region{Low: 7, High: 11}
	guitar = neck.Standard()
)

var pages = map[string]func(page){
	"maps":      maps,
	"runs":      runs,
	"exercises": exercises,
	"lines":     lines,
	"edits":     edits,
	"licks":     licks,
	"bands":     bands,
	"calls":     calls,
	"takes":     takes,
	"plans":     plans,
	"files":     files,
}

func TestTheSongbook(t *testing.T) {
	for name, write := range pages {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			p := page{&bytes.Buffer{}, t}
			write(p)
			path := filepath.Join("testdata", name+".txt")
			if os.Getenv("UPDATE") != "" {
				require.NoError(t, os.MkdirAll("testdata", 0o755))
				require.NoError(t, os.WriteFile(path, p.Bytes(), 0o644))
				return
			}
			want, err := os.ReadFile(path)
			require.NoError(t, err)
			was, is := strings.Split(string(want), "\n"), strings.Split(p.String(), "\n")
			for i := range min(len(was), len(is)) {
				if was[i] != is[i] {
					assert.Fail(t, "it is made otherwise now", "%s:%d\nwas %.400s\nis  %.400s", path, i+1, was[i], is[i])
					return
				}
			}
			assert.Len(t, is, len(was), path)
		})
	}
}
