package hostile

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

const xmlHead = `<?xml version="1.0"?><score-partwise><part-list/><part id="P1">`

func longXML(notes int) string {
	var b strings.Builder
	b.WriteString(xmlHead)
	for i := range notes {
		if i%16 == 0 {
			if i > 0 {
				b.WriteString("</measure>")
			}
			b.WriteString(`<measure><attributes><divisions>4</divisions></attributes>`)
		}
		b.WriteString(`<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note>`)
	}
	return b.String() + "</measure></part></score-partwise>"
}

func zipped(name, text string) []byte {
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	f, _ := w.Create(name)
	f.Write([]byte(text))
	w.Close()
	return out.Bytes()
}

func midiFile(events ...[]byte) []byte {
	body := append(bytes.Join(events, nil), 0, 0xFF, 0x2F, 0)
	out := []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk")
	return append(binary.BigEndian.AppendUint32(out, uint32(len(body))), body...)
}

func repeated(n int, event func(i int) []byte) []byte {
	var out []byte
	for i := range n {
		out = append(out, event(i)...)
	}
	return out
}

func wheelMIDI(n int) []byte {
	on := repeated(120, func(i int) []byte { return []byte{0, 0x90, byte(i), 100} })
	return midiFile(on, repeated(n, func(i int) []byte { return []byte{1, 0xE0, byte(i & 0x7F), byte(i >> 7 & 0x7F)} }))
}

// Files made to cost far more than their size.
func TestHostileImports(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	rows := func(row string, n int) string { return strings.Repeat(strings.Repeat(row+"\n", 6)+"\n", n) }
	files := map[string][]byte{
		"forwards.xml": []byte(xmlHead + "<measure>" + strings.Repeat("<forward><duration>10000000</duration></forward>", 100) +
			"<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note></measure></part></score-partwise>"),
		"forwards-apart.xml": []byte(xmlHead + strings.Repeat("<measure><forward><duration>60</duration></forward></measure>", 5000) + "</part></score-partwise>"),
		"notes.mxl":          zipped("a.xml", xmlHead+"<measure>"+strings.Repeat("<note/>", 2_000_000)+"</measure></part></score-partwise>"),
		"bomb.mxl":           zipped("a.xml", xmlHead+strings.Repeat(" ", 64<<20)),
		"long.xml":           []byte(longXML(60_000)),
		"deep.xml":           []byte(xmlHead + strings.Repeat("<a>", 1_000_000)),
		"attributes.xml":     []byte(xmlHead + "<measure " + strings.Repeat(`a="b" `, 900_000) + "/></part></score-partwise>"),
		"text.xml":           []byte(xmlHead + "<measure><direction>" + strings.Repeat("x", 7<<20) + "</direction></measure></part></score-partwise>"),
		"entities.xml":       []byte(`<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "bbbbbbbbbb"><!ENTITY c "&b;&b;&b;&b;">]><score-partwise><part><measure>&c;</measure></part></score-partwise>`),
		"sounds.xml":         []byte(xmlHead + "<measure>" + strings.Repeat("<harmony><root><root-step>C</root-step></root><kind>major</kind></harmony>", 60_000) + "</measure></part></score-partwise>"),
		"one-tick.mid":       midiFile(repeated(60_000, func(i int) []byte { return []byte{0, 0x90, byte(i % 127), 100} })),
		"one-tick-apart.mid": midiFile(repeated(7_900, func(i int) []byte { return []byte{0, 0x90 | byte(i%9), byte(i / 9 % 127), 100} })),
		"wheel.mid":          wheelMIDI(200_000),
		"many.mid":           midiFile(repeated(900_000, func(i int) []byte { return []byte{1, 0x90, byte(40 + i%40), 100} })),
		"chord.mid": midiFile(repeated(8_000, func(i int) []byte {
			return []byte{byte(i % 2), 0x90, byte(30 + i%60), 100, 0, 0x80, byte(30 + i%60), 0}
		})),
		"far.mid":     midiFile([]byte{0x90 & 0x7F, 0x90, 60, 100, 0xFF, 0xFF, 0xFF, 0x7F, 0x80, 60, 0}),
		"tracks.mid":  append([]byte("MThd\x00\x00\x00\x06\x00\x01\xFF\xFF\x00\x60"), bytes.Repeat([]byte("MTrk\x00\x00\x00\x04\x00\xFF\x2F\x00"), 600_000)...),
		"markers.mid": midiFile(repeated(900_000, func(int) []byte { return []byte{0, 0xFF, 0x06, 1, 'a'} })),
		"strings.txt": []byte(rows("E|"+strings.Repeat("-5", 200)+"|", 2900)),
		"cell.txt":    []byte(strings.Repeat("|"+strings.Repeat("1", 1<<19)+"-|\n", 6)),
		"lines.txt":   []byte(strings.Repeat("x\n", 4<<20)),
		"values.txt":  []byte("Tuning: E2,A2,D3,G3,B3,E4\n" + strings.Repeat("e~ ", 2000) + "\n" + strings.Repeat("E|5"+strings.Repeat("-", 6000)+"|\n", 6)),
		"tall.txt":    []byte(strings.Repeat("E|-5-|\n", 1<<20)),
		"strange.txt": []byte(rows("E|-zz-|", 10_000)),
		// What is accounted for is not counted without end.
		"unknown.xml": []byte(xmlHead + "<measure>" + string(repeated(190_000, func(i int) []byte { return fmt.Appendf(nil, "<a%d/>", i) })) + "</measure></part></score-partwise>"),
		"lost.xml":    []byte(xmlHead + "<measure><note>" + strings.Repeat("<notations><slur/><ornaments><turn/></ornaments></notations>", 60_000) + "</note></measure></part></score-partwise>"),
		"words.xml": []byte(xmlHead + "<measure>" + string(repeated(60_000, func(i int) []byte {
			return fmt.Appendf(nil, "<direction><direction-type><words>word %d</words></direction-type></direction>", i)
		})) + "</measure></part></score-partwise>"),
		"facts.xml":      []byte(`<score-partwise><identification><miscellaneous>` + strings.Repeat(`<miscellaneous-field name="remark">`+strings.Repeat("x", 60)+`</miscellaneous-field>`, 60_000) + "</miscellaneous></identification><part-list/><part id=\"P1\"><measure/></part></score-partwise>"),
		"again.xml":      []byte(xmlHead + "<measure><attributes><measure-style><measure-repeat type=\"start\">1</measure-repeat></measure-style></attributes>" + strings.Repeat("<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note>", 400) + "</measure>" + strings.Repeat("<measure/>", 60_000) + "</part></score-partwise>"),
		"texts.mid":      midiFile(repeated(900_000, func(i int) []byte { return []byte{0, 0xFF, 0x01, 1, byte('a' + i%26)} })),
		"controls.mid":   midiFile([]byte{0, 0x90, 60, 90}, repeated(900_000, func(i int) []byte { return []byte{0, 0xB0, byte(i % 120), byte(i % 128)} })),
		"metres.mid":     midiFile(repeated(400_000, func(i int) []byte { return []byte{0, 0xFF, 0x58, 4, byte(3 * (1 + i%4)), 3, 24, 8} }), []byte{0, 0x90, 60, 90}),
		"directives.txt": []byte(string(repeated(5_000, func(i int) []byte { return fmt.Appendf(nil, "{d%d: x}\n", i) })) + "| C7 |"),
		"chords.txt":     []byte(strings.Repeat("A7 Bb C#m7b5 D13 E F#m11 G7#9\n", 60_000) + rows("E|-5-|", 1)),
		"remarks.txt":    []byte(strings.Repeat("// word word word\n", 3_000) + "| C7 |"),
		"tabparts.txt":   []byte(strings.Repeat("{sot}\n", 4_000) + strings.Repeat("{eot}\n", 3_000) + "| C7 |"),
	}
	for name, data := range files {
		data = data[:min(len(data), 8<<20)]
		for _, as := range []string{"line", "chart", "licks"} {
			status, answer, _ := p.timed(fmt.Sprintf("%s (%d kB) as %s", name, len(data)>>10, as), "POST", "/api/imports?name="+name+"&as="+as, data)
			if status >= 400 {
				require.Equal(t, 422, status, string(answer))
			}
		}
	}
}
