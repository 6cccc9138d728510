package tabtext

import (
	"fmt"
	"strings"

	"undaris/core/score"
)

var letters = map[int]string{1: "w", 2: "h", 4: "q", 8: "e", 16: "s", 32: "z"}

// width is how long a line may get, in characters.
const width = 110

// Write writes a score as text.
func Write(s score.Score) []byte {
	var out strings.Builder
	fmt.Fprintf(&out, "Title: %s\nKey: %s\nTempo: %d\nTime: %d/4\n", strings.ReplaceAll(s.Title, "\n", " "), s.Key, s.Tempo, s.Beats)
	if s.Swing {
		out.WriteString("Feel: swing\n")
	}
	if s.Feel != "" {
		fmt.Fprintf(&out, "Groove: %s\n", s.Feel)
	}
	fmt.Fprintf(&out, "Tuning: %s\n", s.In.Tuning())
	if s.In.Capo > 0 {
		fmt.Fprintf(&out, "Capo: %d\n", s.In.Capo)
	}
	measures := s.Engrave()
	if measures[0].Number == 0 {
		out.WriteString("Pickup: yes\n")
	}
	for _, row := range strings.Split(s.Text(), "\n") {
		fmt.Fprintf(&out, "Chords: %s\n", row)
	}
	strings := s.In.Strings()
	b := newBlock(strings)
	last := ""
	for _, m := range measures {
		bar := newBlock(strings)
		chord := ""
		if changes := s.Changes(m.Number - 1); len(changes) > 0 {
			var symbols []string
			for _, c := range changes {
				if symbol := c.Chord.String(); symbol != last {
					symbols = append(symbols, symbol)
					last = symbol
				}
			}
			for i, symbol := range symbols {
				if i > 0 {
					chord += " "
				}
				chord += symbol
			}
		}
		for _, k := range m.Strokes {
			bar.stroke(s, k)
		}
		if b.bars > 0 && len(b.values)+len(bar.values) > width {
			b.flush(&out, s)
			b = newBlock(strings)
		}
		b.bar(bar, chord)
	}
	b.flush(&out, s)
	return []byte(out.String())
}

// block is a row of bars as it grows, line by line.
type block struct {
	chords, values string
	strings        []string
	bars           int
}

func newBlock(n int) *block { return &block{strings: make([]string, n)} }

// bar appends a bar, closed by its line.
func (b *block) bar(other *block, chord string) {
	width := max(len(other.values), len([]rune(chord))+1)
	pad := func(text, with string, to int) string {
		return text + strings.Repeat(with, max(0, to-len([]rune(text))))
	}
	b.chords += "  " + pad(chord, " ", width)
	b.values += "  " + pad(other.values, " ", width)
	for i := range b.strings {
		b.strings[i] += "|-" + pad(other.strings[i], "-", width)
	}
	b.bars++
}

func (b *block) stroke(s score.Score, k score.Stroke) {
	value := letters[k.Value.Base]
	if k.Value.Dotted {
		value += "."
	}
	if k.Value.Actual > 0 {
		value += fmt.Sprint(k.Value.Actual)
	}
	if k.Notes == nil {
		value = "r" + value
	}
	if k.To {
		value += "~"
	}
	cells := make([]string, len(b.strings))
	if !k.From {
		for _, n := range k.Notes {
			cells[s.Notes[n].String-1] = cell(s.Notes[n], from(s, n))
		}
	}
	size := len(value) + 1
	for _, c := range cells {
		size = max(size, len(c)+1)
	}
	b.values += value + strings.Repeat(" ", size-len(value))
	for i, c := range cells {
		b.strings[i] += c + strings.Repeat("-", size-len(c))
	}
}

// from is the fret that a joined note comes from.
func from(s score.Score, note int) int {
	for i := range s.Notes {
		if next, ok := s.Joined(i); ok && next == note {
			return s.Notes[i].Fret
		}
	}
	return 0
}

func cell(n score.Note, from int) string {
	var c string
	switch n.Join {
	case score.Hammer:
		c = "h"
	case score.PullOff:
		c = "p"
	case score.Slide:
		c = "/"
		if from > n.Fret {
			c = `\`
		}
	}
	if n.Scoop != 0 {
		c += fmt.Sprintf("(%d)/", n.Fret-n.Scoop)
	}
	if n.Dead {
		c += fmt.Sprintf("x%d", n.Fret)
	} else {
		c += fmt.Sprint(n.Fret)
	}
	return c + writeSigns(n)
}

func (b *block) flush(out *strings.Builder, s score.Score) {
	if b.bars == 0 {
		return
	}
	line := func(name, text string) {
		out.WriteString(strings.TrimRight(name+text, " ") + "\n")
	}
	out.WriteString("\n")
	line("    ", b.chords)
	line("    ", b.values)
	for i, text := range b.strings {
		line(fmt.Sprintf("%-3s ", s.In.OpenName(i+1)), text+"|")
	}
}
