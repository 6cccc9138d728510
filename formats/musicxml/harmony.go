package musicxml

import (
	"cmp"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// sounding is the key in which a part sounds that is written in another.
func sounding(written form.Key, transpose int) form.Key {
	if transpose%12 == 0 {
		return written
	}
	class := pitch.Class(written.Tonic.Class() + transpose)
	for _, k := range form.AllKeys(written.Minor) {
		if k.Tonic.Class() == class {
			return k
		}
	}
	return written
}

func (r *reader) harmony(e *entry, at int) {
	c, ok := chordOf(&e.harmonyXML)
	if !ok {
		r.f.say("a chord in bar %d (%s %s) cannot be read; the band is silent there", r.bar+1, e.Root.Step, cmp.Or(e.Kind.Text, e.Kind.Value))
		c = harmony.Chord{None: true} // not the one before
	}
	if r.transpose%12 != 0 && !c.None { // a transposing part has its chords as it reads them
		if s, err := form.ReadNumeral(form.Numeral(c, r.written), r.f.Key); err == nil {
			c = s
		}
	}
	r.chords[at] = c
}
