package musicxml

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
	"undaris/core/score"
)

// A part in notation takes its frets, bends and slurs from one in tablature beside it; another
// tune in tablature gives none.
func TestFretsOfAnotherPart(t *testing.T) {
	staff := []string{"G", "A", "C"}
	file := func(frets []int, steps []string) string {
		var notation, tab strings.Builder
		for i, step := range staff {
			fmt.Fprintf(&notation, `<note><pitch><step>%s</step><octave>%d</octave></pitch><duration>1</duration></note>`, step, []int{5, 5, 6}[i])
			signs := ""
			if i == 1 {
				signs = "<hammer-on type='stop'>H</hammer-on>"
			}
			fmt.Fprintf(&tab, `<note><pitch><step>%s</step><octave>%d</octave></pitch><duration>1</duration><notations><technical><string>%d</string><fret>%d</fret>%s</technical></notations></note>`,
				steps[i], []int{4, 4, 5}[i], []int{2, 2, 1}[i], frets[i], signs)
		}
		head := `<score-partwise><part-list><score-part id="a"><part-name>Guitar</part-name></score-part><score-part id="b"><part-name>Guitar frets</part-name></score-part></part-list>`
		return head + `<part id="a"><measure number="1"><attributes><divisions>1</divisions><time><beats>3</beats><beat-type>4</beat-type></time><clef><sign>G</sign></clef><transpose><diatonic>0</diatonic><chromatic>0</chromatic><octave-change>-1</octave-change></transpose></attributes>` +
			notation.String() + `</measure></part><part id="b"><measure number="1"><attributes><divisions>1</divisions><time><beats>3</beats><beat-type>4</beat-type></time><clef><sign>TAB</sign></clef></attributes>` + tab.String() + `</measure></part></score-partwise>`
	}
	f, err := Read(t.Context(), []byte(file([]int{8, 10, 8}, staff)))
	require.NoError(t, err)
	require.Len(t, f.Notes, 3)
	var places []neck.Placement
	for _, n := range f.Notes {
		places = append(places, n.Placement)
	}
	assert.Equal(t, []neck.Placement{{String: 2, Fret: 8}, {String: 2, Fret: 10}, {String: 1, Fret: 8}}, places)
	assert.Equal(t, score.Hammer, f.Notes[1].Join)
	assert.Contains(t, strings.Join(f.Said, "; "), "the frets stand in another part, Guitar frets")
	assert.Len(t, f.Parts, 2)

	f, err = Read(t.Context(), []byte(file([]int{5, 7, 5}, []string{"E", "F", "A"})))
	require.NoError(t, err)
	assert.Contains(t, strings.Join(f.Said, "; "), "3 of 3 notes have no place")
}
