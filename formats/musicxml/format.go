package musicxml

import (
	"bytes"

	"undaris/formats"
)

func init() {
	formats.Register(formats.Format{
		Name: "MusicXML", Endings: []string{"musicxml", "mxl", "xml"},
		Fits: func(head []byte) bool {
			text := bytes.TrimSpace(head)
			return Compressed(head) || bytes.Contains(text, []byte("<score-partwise")) || bytes.HasPrefix(text, []byte("<?xml")) || bytes.HasPrefix(text, []byte("<!DOCTYPE score"))
		},
		Read: read,
	})
}
