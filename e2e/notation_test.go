package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// seenHead is a note head as it stands in the drawing: half spaces above the
// bottom line of its staff, and the accidentals drawn with its stroke.
type seenHead struct {
	Steps float64
	Signs string
}

// heads reads the drawing itself: where the lines and the heads lie, by the code
// points of Standard Music Font Layout.
const heads = `[...document.querySelectorAll('.music svg')].flatMap(svg => {
	const staves = [...svg.querySelectorAll('.vf-stave')].filter(g => g.children.length === 5)
	const bottom = Number(staves[0].children[4].getAttribute('d').match(/^M\S+ (\S+?)L/)[1])
	return [...svg.querySelectorAll('.vf-stavenote')].flatMap(note => {
		const texts = [...note.querySelectorAll('text')].map(t => [t.textContent.codePointAt(0), Number(t.getAttribute('y'))])
		const sign = {0xE260: 'b', 0xE261: 'n', 0xE262: '#'}
		const signs = texts.filter(([c]) => c in sign).map(([c]) => sign[c]).sort().join('')
		return texts.filter(([c]) => c >= 0xE0A0 && c <= 0xE0FF).map(([, y]) => ({Steps: Math.round((bottom - y) / 2.5) / 2, Signs: signs}))
	})
})`

// A reader of notes finds on paper what the line says: every head on its line or
// space, an octave above its sound, and an accidental where the key and the bar ask
// for one and nowhere else.
func TestWhatIsEngravedIsWhatIsMeant(t *testing.T) {
	p := sit(t, true)
	for id := 1; id <= 4; id++ {
		p.visit(fmt.Sprintf("/lines/%d", id))
		p.until(`document.querySelector('.grid svg .vf-stavenote')`)
		score := evalLater[struct {
			Title     string
			Signature int
			Measures  []struct {
				Strokes []struct {
					From  bool
					Notes []int
				}
			}
			Notes []struct {
				ID   int
				Note string
			}
		}](p, fmt.Sprintf(`fetch('/api/lines/%d').then(r => r.json()).then(l => fetch('/api/lines/study', {method: 'POST', headers: {'content-type': 'application/json'},
			body: JSON.stringify(Object.fromEntries(['title', 'key', 'feel', 'tempo', 'beats', 'text', 'palette', 'low', 'high', 'notes', 'locked'].map(k => [k, l[k]])))})).then(r => r.json()).then(s => s.score)`, id))
		named := map[int]string{}
		for _, n := range score.Notes {
			named[n.ID] = n.Note
		}
		var want []seenHead
		for _, m := range score.Measures {
			inBar := map[string]string{} // what an accidental did to a line or space
			for _, s := range m.Strokes {
				first, signs := len(want), ""
				for _, n := range s.Notes {
					letter, alter, octave := spelling(t, named[n])
					place := fmt.Sprint(letter, octave)
					before, met := inBar[place]
					if !met {
						before = ofKey(letter, score.Signature)
					}
					if !s.From && alter != before {
						signs += map[string]string{"": "n", "b": "b", "#": "#"}[alter]
					}
					inBar[place] = alter
					want = append(want, seenHead{Steps: float64((octave+1)*7 + strings.Index("CDEFGAB", letter) - (4*7 + 2))})
				}
				for i := first; i < len(want); i++ {
					want[i].Signs = signs
				}
			}
		}
		require.Greater(t, len(want), 30)
		assert.Equal(t, want, eval[[]seenHead](p, heads), score.Title)
	}
}

func spelling(t *testing.T, note string) (letter, alter string, octave int) {
	t.Helper()
	letter, rest := note[:1], note[1:]
	alter = strings.TrimRight(rest, "0123456789-")
	_, err := fmt.Sscan(rest[len(alter):], &octave)
	require.NoError(t, err)
	return letter, alter, octave
}

// ofKey is what a key signature does to a letter.
func ofKey(letter string, signature int) string {
	if signature > 0 && strings.Contains("FCGDAEB"[:signature], letter) {
		return "#"
	}
	if signature < 0 && strings.Contains("BEADGCF"[:-signature], letter) {
		return "b"
	}
	return ""
}
