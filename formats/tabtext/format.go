package tabtext

import (
	"context"

	"undaris/formats"
)

func init() {
	formats.Register(formats.Format{
		Name: "tablature text", Endings: []string{"txt", "tab"},
		Read: func(ctx context.Context, data []byte, w formats.Wish) (out formats.Found, err error) {
			out.Score, out.Said, err = Read(ctx, data, w.Base.In)
			out.Parts = []formats.Part{{Name: "tablature", Notes: len(out.Notes), Read: true}}
			return out, err
		},
	})
}
