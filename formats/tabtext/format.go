package tabtext

import (
	"context"

	"undaris/core/score"
	"undaris/formats"
)

func init() {
	formats.Register(formats.Format{
		Name: "tablature text", Endings: []string{"txt", "tab"},
		Read: func(ctx context.Context, data []byte, base score.Score) (score.Score, []string, error) {
			return Read(ctx, data, base.In)
		},
	})
}
