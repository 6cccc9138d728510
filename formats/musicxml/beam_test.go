package musicxml

import (
	"encoding/xml"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/score"
)

// Beams of what is usual, as an engraver sets them.
func TestBeams(t *testing.T) {
	for rhythm, want := range map[string]string{
		"8 8 4 8 8":         "begin|end||begin|end",
		"4 8 8":             "|begin|end",
		"8 16 16":           "begin|continue,begin|end,end",
		"16 16 8":           "begin,begin|continue,end|end",
		"8. 16":             "begin|end,backward hook",
		"16 8.":             "begin,forward hook|end",
		"16 8 16":           "begin,forward hook|continue|end,backward hook",
		"16 16 16 16":       "begin,begin|continue,continue|continue,continue|end,end",
		"r8 8 8 8":          "||begin|end",
		"8 r8 8 8":          "||begin|end",
		"8 r16 16":          "||",
		"32 32 16 8":        "begin,begin,begin|continue,continue,end|continue,end|end",
		"8/3 8/3 8/3 8 8":   "begin|continue|end|begin|end",
		"2 8 8":             "|begin|end",
		"16 16 r16 16 8 r8": "begin,begin|end,end||||",
	} {
		var strokes []score.Stroke
		at := 0
		for _, word := range strings.Fields(rhythm) {
			k := score.Stroke{At: at, Notes: []int{0}}
			if strings.HasPrefix(word, "r") {
				k.Notes = nil
			}
			word = strings.TrimPrefix(word, "r")
			word, tuplet := strings.CutSuffix(word, "/3")
			word, k.Value.Dotted = strings.CutSuffix(word, ".")
			k.Value.Base = map[string]int{"2": 2, "4": 4, "8": 8, "16": 16, "32": 32}[word]
			if tuplet {
				k.Value.Actual, k.Value.Normal = 3, 2
			}
			strokes = append(strokes, k)
			at += k.Value.Ticks()
		}
		var got []string
		for _, b := range beams(strokes) {
			got = append(got, strings.Join(b, ","))
		}
		assert.Equal(t, want, strings.Join(got, "|"), rhythm)
	}
}

// Whatever is written, each level of beams begins before it ends, and none is left open.
func TestBeamsAreClosed(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var doc struct {
			Measures []struct {
				Notes []struct {
					Rest  *struct{} `xml:"rest"`
					Type  string    `xml:"type"`
					Beams []struct {
						Number int    `xml:"number,attr"`
						Word   string `xml:",chardata"`
					} `xml:"beam"`
				} `xml:"note"`
			} `xml:"part>measure"`
		}
		require.NoError(t, xml.Unmarshal(Write(some(t)), &doc))
		for _, m := range doc.Measures {
			open := map[int]bool{}
			for _, n := range m.Notes {
				if len(n.Beams) > 0 && (n.Rest != nil || !strings.Contains("eighth 16th 32nd", n.Type)) {
					t.Fatalf("a beam at a %s", n.Type)
				}
				for _, b := range n.Beams {
					switch b.Word {
					case "begin":
						if open[b.Number] {
							t.Fatal("begun twice")
						}
						open[b.Number] = true
					case "continue", "end":
						if !open[b.Number] {
							t.Fatal("not begun")
						}
						open[b.Number] = b.Word == "continue"
					}
				}
			}
			for _, o := range open {
				if o {
					t.Fatal("not ended")
				}
			}
		}
	})
}
