package musicxml

import (
	"bytes"
	"cmp"
	"context"
	"encoding/xml"
	"errors"
	"io"
	"slices"
	"strconv"
	"strings"

	"undaris/core/form"
	"undaris/core/say"
	"undaris/formats"
)

// look is what a first walk through a file finds, without keeping any of it.
type look struct {
	work, title string
	facts       [][2]string // that [Write] writes: the name and the value of each
	parts       []part
	voices      []voice // that have notes, part by part
	ledger      ledger  // of what stands outside the parts
}

type part struct {
	name     string
	measures int
	tab      int // its staff in tablature, from 1; 0 is none
	chords   int // how many it has
	ledger   ledger
	at       int64 // where it begins in the file, in bytes
}

// voice is a voice of a part, and how many notes it has.
type voice struct {
	part   int
	name   string
	staff  int // of a part without tablature
	notes  int
	ledger ledger
}

// voice is the one at a place; of a file without notes the first part is read for its bars.
func (l look) voice(i int) voice {
	if i < len(l.voices) {
		return l.voices[i]
	}
	return voice{}
}

// tablature is a voice in tablature of another part with as many measures, for a part without.
func (l look) tablature(than int) (voice, bool) {
	if l.parts[than].tab > 0 {
		return voice{}, false
	}
	for _, v := range l.voices {
		if p := l.parts[v.part]; v.part != than && p.tab > 0 && p.measures == l.parts[than].measures {
			return v, true
		}
	}
	return voice{}, false
}

// harmonised is a part of as many measures with the chords, for one that has none.
func (l look) harmonised(than int) (at int, ok bool) {
	if l.parts[than].chords > 0 {
		return 0, false
	}
	at = slices.IndexFunc(l.parts, func(p part) bool { return p.chords > 0 && p.measures == l.parts[than].measures })
	return at, at >= 0
}

// list tells the parts, and their voices where they have several.
func (l look) list(chosen int) (out []formats.Part) {
	several := map[int]int{}
	for _, v := range l.voices {
		several[v.part]++
	}
	for i, v := range l.voices {
		name := cmp.Or(strings.TrimSpace(l.parts[v.part].name), say.F("part %d", v.part+1))
		if several[v.part] > 1 {
			name = say.F("%s, voice %s", name, v.name)
		}
		if slices.ContainsFunc(l.voices, func(o voice) bool { return o.part == v.part && o.staff != v.staff }) {
			name = say.F("%s, staff %d", name, v.staff)
		}
		out = append(out, formats.Part{Name: name, Notes: v.notes, Read: i == chosen})
	}
	return out
}

// count notes a note of a voice of the part in hand, and what it carries.
func (l *look) count(in noted) {
	now := len(l.parts) - 1
	of, staff := &l.parts[now], in.staff
	if of.tab > 0 { // its notation says more of the same notes
		staff = 0
	}
	counts := in.pitch && (of.tab == 0 || of.tab == in.staff)
	i := slices.IndexFunc(l.voices, func(v voice) bool { return v.part == now && v.name == in.voice && v.staff == staff })
	if i < 0 && counts && len(l.voices) < maxVoices {
		i, l.voices = len(l.voices), append(l.voices, voice{part: now, name: in.voice, staff: staff, ledger: ledger{}})
	}
	if i < 0 || of.tab > 0 {
		for _, name := range in.names {
			of.ledger.met(name, of.measures)
		}
	}
	if i < 0 || !counts {
		return
	}
	if l.voices[i].notes++; of.tab == 0 {
		for _, name := range in.names {
			l.voices[i].ledger.met(name, of.measures)
		}
	}
}

// lost is what is told of a voice of a part, or of its chords alone.
func (l look) lost(v voice, chart bool) []string {
	all := ledger{}
	all.add(l.ledger)
	all.add(l.parts[v.part].ledger)
	all.add(v.ledger)
	return all.told(chart)
}

// Of what a file says of itself so many facts are looked at, of so many bytes each.
const (
	maxFacts    = 500
	longestFact = 4000
)

func attribute(e xml.StartElement, name string) string {
	for _, a := range e.Attr {
		if a.Name.Local == name {
			return a.Value
		}
	}
	return ""
}

// tell gives what a file says of itself in words: how it is to be felt, and what stands beside it.
func (l look) tell(f *Found) {
	for _, fact := range l.facts {
		name, value := fact[0], strings.TrimSpace(fact[1])
		if feel, ok := form.FeelNamed(value); ok && name == "feel" {
			f.Feel = feel.ID
		} else if name != "feel" {
			f.Beside.Take(name, value)
		}
	}
}

// maxCarried is how many elements of a note are looked at.
const maxCarried = 200

// maxVoices is how many voices of a file are told apart.
const maxVoices = 200

// longestTag is how many bytes may stand between < and >, but in comments: a tag
// is read whole before it can be looked at.
const longestTag = 16 << 10

func tagsFit(data []byte) error {
	for rest := data; ; {
		open := bytes.IndexByte(rest, '<')
		if open < 0 {
			return nil
		}
		rest = rest[open:]
		end := bytes.IndexByte(rest, '>')
		if end < 0 {
			end = len(rest) - 1
		}
		if end > longestTag && !bytes.HasPrefix(rest, []byte("<!--")) {
			return say.Errorf("this MusicXML has a tag of more than %d kB; that is more than can be read", longestTag>>10)
		}
		rest = rest[end+1:]
	}
}

// noted is what is known of the note in hand.
type noted struct {
	pitch bool
	staff int
	voice string
	names []string // of the elements in it that are accounted for
}

// scout walks through a file: it has to be a whole score, and no longer than
// can be read.
func scout(ctx context.Context, data []byte) (l look, err error) {
	l.ledger = ledger{}
	if err := tagsFit(data); err != nil {
		return l, err
	}
	dec := decoder(data)
	var path []string
	elements, clef, fact := 0, 1, -1
	var names []string // of the parts, in the list at the head
	var in noted
	for {
		from := dec.InputOffset()
		t, err := dec.Token()
		if errors.Is(err, io.EOF) && len(path) == 0 && elements > 0 {
			break
		}
		if err != nil {
			return l, broken(err)
		}
		switch t := t.(type) {
		case xml.StartElement:
			if elements++; elements > maxElements {
				return l, say.Errorf("this MusicXML has more than the %d elements that can be read; export one part, or fewer bars", maxElements)
			}
			if elements%4096 == 0 && ctx.Err() != nil {
				return l, ctx.Err()
			}
			path = append(path, t.Name.Local)
			switch inside := len(path) > 3 && path[1] == "part" && len(l.parts) > 0; {
			case t.Name.Local == "lyric": // its words tell whether it matters
			case inside && path[3] == "note":
				if in.names = in.names[:min(len(in.names), maxCarried)]; len(path) > 4 {
					in.names = append(in.names, t.Name.Local)
				}
			case inside:
				l.parts[len(l.parts)-1].ledger.met(t.Name.Local, l.parts[len(l.parts)-1].measures)
			default:
				l.ledger.met(t.Name.Local, 1)
			}
			switch {
			case len(path) == 1 && t.Name.Local != "score-partwise":
				return l, ErrNotScore
			case len(path) == 2 && t.Name.Local == "part":
				p := part{ledger: ledger{}, at: from}
				if n := len(l.parts); n < len(names) {
					p.name = names[n]
				}
				l.parts = append(l.parts, p)
			case len(path) == 3 && t.Name.Local == "score-part":
				names = append(names, "")
			case len(path) == 3 && t.Name.Local == "measure" && len(l.parts) > 0:
				l.parts[len(l.parts)-1].measures++
			case len(path) == 4 && t.Name.Local == "miscellaneous-field":
				if fact = -1; len(l.facts) < maxFacts {
					fact, l.facts = len(l.facts), append(l.facts, [2]string{attribute(t, "name"), ""})
				}
			case len(path) == 4 && t.Name.Local == "harmony" && len(l.parts) > 0:
				l.parts[len(l.parts)-1].chords++
			case len(path) == 4 && t.Name.Local == "note":
				in = noted{staff: 1, voice: "1"}
			case t.Name.Local == "clef":
				clef = 1
				for _, a := range t.Attr {
					if n, err := strconv.Atoi(a.Value); err == nil && a.Name.Local == "number" {
						clef = n
					}
				}
			case t.Name.Local == "pitch" && len(path) == 5 && path[3] == "note":
				in.pitch = true
			}
		case xml.EndElement:
			path = path[:len(path)-1]
			if len(path) == 3 && t.Name.Local == "note" && len(l.parts) > 0 {
				l.count(in)
			}
		case xml.CharData:
			switch n := len(path); {
			case n == 4 && path[3] == "miscellaneous-field" && fact >= 0 && len(l.facts[fact][1])+len(t) <= longestFact:
				l.facts[fact][1] += string(t)
			case n == 3 && path[2] == "work-title":
				l.work += string(t)
			case n == 2 && path[1] == "movement-title":
				l.title += string(t)
			case n > 1 && path[n-1] == "sign" && path[n-2] == "clef" && string(t) == "TAB":
				if len(l.parts) > 0 {
					l.parts[len(l.parts)-1].tab = max(clef, 1)
				}
			case n == 4 && path[3] == "part-name" && len(names) > 0:
				names[len(names)-1] += string(t)
			case n == 6 && path[3] == "note" && path[4] == "lyric" && path[5] == "text":
				if !degreed.Match(bytes.TrimSpace(t)) {
					in.names = append(in.names, "lyric")
				}
			case n == 5 && path[3] == "note" && path[4] == "voice":
				in.voice = strings.TrimSpace(string(t))
			case n == 5 && path[3] == "note" && path[4] == "staff":
				in.staff, _ = strconv.Atoi(strings.TrimSpace(string(t)))
			}
		}
	}
	if len(l.parts) == 0 {
		return l, ErrNotScore
	}
	return l, nil
}
