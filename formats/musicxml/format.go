package musicxml

import (
	"bytes"
	"context"

	"undaris/core/score"
	"undaris/formats"
)

func init() {
	formats.Register(formats.Format{
		Name: "MusicXML", Endings: []string{"musicxml", "mxl", "xml"},
		Fits: func(head []byte) bool {
			text := bytes.TrimSpace(head)
			return Compressed(head) || bytes.Contains(text, []byte("<score-partwise")) || bytes.HasPrefix(text, []byte("<?xml")) || bytes.HasPrefix(text, []byte("<!DOCTYPE score"))
		},
		Read: func(ctx context.Context, data []byte, _ score.Score) (score.Score, []string, error) {
			f, err := Read(ctx, data)
			return f.Score, f.Said, err
		},
	})
}
