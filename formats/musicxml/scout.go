package musicxml

import (
	"bytes"
	"context"
	"encoding/xml"
	"errors"
	"io"
	"strconv"

	"undaris/core/say"
)

// look is what a first walk through a file finds, without keeping any of it.
type look struct {
	work, title string
	parts       int
	part        int // the first with notes, from 0
	measures    int // that it has
	tab         int // its staff in tablature, from 1; 0 is none
}

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

// scout walks through a file: it has to be a whole score, and no longer than
// can be read.
func scout(ctx context.Context, data []byte) (l look, err error) {
	if err := tagsFit(data); err != nil {
		return l, err
	}
	dec := decoder(data)
	var path []string
	elements, measures, clef, tab, found := 0, 0, 1, 0, false
	for {
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
			switch {
			case len(path) == 1 && t.Name.Local != "score-partwise":
				return l, ErrNotScore
			case len(path) == 2 && t.Name.Local == "part":
				l.parts++
				tab, measures = 0, 0
			case len(path) == 3 && t.Name.Local == "measure":
				measures++
			case t.Name.Local == "clef":
				clef = 1
				for _, a := range t.Attr {
					if n, err := strconv.Atoi(a.Value); err == nil && a.Name.Local == "number" {
						clef = n
					}
				}
			case t.Name.Local == "pitch" && len(path) == 5 && path[3] == "note" && !found:
				found, l.part = true, l.parts-1
			}
		case xml.EndElement:
			path = path[:len(path)-1]
			if found && len(path) == 1 && t.Name.Local == "part" && l.part == l.parts-1 {
				l.tab, l.measures = tab, measures
			}
		case xml.CharData:
			switch n := len(path); {
			case n == 3 && path[2] == "work-title":
				l.work += string(t)
			case n == 2 && path[1] == "movement-title":
				l.title += string(t)
			case n > 1 && path[n-1] == "sign" && path[n-2] == "clef" && string(t) == "TAB":
				tab = max(clef, 1)
			}
		}
	}
	if l.parts == 0 {
		return l, ErrNotScore
	}
	return l, nil
}
