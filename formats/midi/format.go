package midi

import (
	"bytes"
	"context"

	"undaris/core/score"
	"undaris/formats"
)

func init() {
	formats.Register(formats.Format{
		Name: "MIDI", Endings: []string{"mid", "midi"},
		Fits: func(head []byte) bool { return bytes.HasPrefix(head, []byte("MThd")) },
		Read: func(ctx context.Context, data []byte, base score.Score) (score.Score, []string, error) {
			f, err := Read(ctx, data)
			if err != nil {
				return base, nil, err
			}
			return f.Line(base)
		},
	})
}
