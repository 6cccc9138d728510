package midi

import (
	"bytes"
	"context"

	"undaris/core/form"
	"undaris/formats"
)

func init() {
	formats.Register(formats.Format{
		Name: "MIDI", Endings: []string{"mid", "midi"},
		Fits: func(head []byte) bool { return bytes.HasPrefix(head, []byte("MThd")) },
		Read: func(ctx context.Context, data []byte, w formats.Wish) (out formats.Found, err error) {
			f, err := Read(ctx, data)
			if err != nil {
				return out, err
			}
			melodies, usual := f.melodies()
			for _, i := range melodies {
				out.Parts = append(out.Parts, formats.Part{Name: f.Tracks[i].Name, Notes: len(f.Tracks[i].Notes)})
			}
			chosen, err := w.Chosen(len(melodies), usual)
			if err != nil {
				return out, err
			}
			if len(melodies) > 0 {
				out.Parts[chosen].Read = true
				chosen = melodies[chosen]
			}
			out.Score, out.Said, err = f.line(w.Base, chosen)
			if len(f.Chords) > 0 && err == nil {
				song := form.Song{}.With(form.Progression{Beats: out.Beats, Bars: out.Bars[:f.bars(out.Progression, f.countIn())]})
				out.Song = &song
			}
			return out, err
		},
	})
}
