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
			list, usual := f.melodies(w.Base.In)
			for _, m := range list {
				out.Parts = append(out.Parts, formats.Part{Name: m.name, Notes: f.size(m)})
			}
			chosen, err := w.Chosen(len(list), usual)
			if err != nil {
				return out, err
			}
			line := melody{}
			if len(list) > 0 {
				line, out.Parts[chosen].Read = list[chosen], true
			}
			out.Score, out.Said, err = f.line(w.Base, line)
			if w.Chart {
				out.Said = append(f.guessed(), out.Said[:0]...)
			}
			if len(f.Chords) > 0 && err == nil {
				song := form.Song{}.With(form.Progression{Beats: out.Beats, Pickup: out.Progression.Pickup, Bars: out.Bars[:f.bars(out.Progression, f.countIn())]})
				out.Song = &song
			}
			return out, err
		},
	})
}
