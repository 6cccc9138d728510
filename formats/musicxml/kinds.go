package musicxml

import (
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// kinds are the format's names of chords, by the suffix Undaris writes.
var kinds = []struct{ suffix, kind string }{
	{"", "major"}, {"m", "minor"}, {"7", "dominant"}, {"maj7", "major-seventh"}, {"m7", "minor-seventh"},
	{"mMaj7", "major-minor"}, {"m7b5", "half-diminished"}, {"dim", "diminished"}, {"dim7", "diminished-seventh"},
	{"aug", "augmented"}, {"aug7", "augmented-seventh"}, {"6", "major-sixth"}, {"m6", "minor-sixth"},
	{"9", "dominant-ninth"}, {"maj9", "major-ninth"}, {"m9", "minor-ninth"}, {"11", "dominant-11th"},
	{"m11", "minor-11th"}, {"13", "dominant-13th"}, {"m13", "minor-13th"}, {"sus2", "suspended-second"},
	{"sus4", "suspended-fourth"}, {"5", "power"},
}

func kindOf(c harmony.Chord) string {
	if c.None {
		return "none"
	}
	for _, k := range kinds {
		if k.suffix == c.Suffix() {
			return k.kind
		}
	}
	return "other"
}

// chordOf reads a harmony: by the text it shows, else by its kind.
func chordOf(h *harmonyXML) (harmony.Chord, bool) {
	if h.Kind.Value == "none" {
		return harmony.Chord{None: true}, true
	}
	root, ok := nameOf(h.Root.Step, h.Root.Alter)
	if !ok {
		return harmony.Chord{}, false
	}
	bass := ""
	if n, ok := nameOf(h.Bass.Step, h.Bass.Alter); ok {
		bass = "/" + n.String()
	}
	if c, err := harmony.Parse(root.String() + h.Kind.Text + bass); err == nil && (h.Kind.Text != "" || h.Kind.Value == "major") {
		return c, true
	}
	for _, k := range kinds {
		if k.kind == h.Kind.Value {
			c, err := harmony.Parse(root.String() + k.suffix + bass)
			return c, err == nil
		}
	}
	return harmony.Chord{}, false
}

const steps = "CDEFGAB"

func nameOf(step string, alter float64) (pitch.Name, bool) {
	for i := range steps {
		if step == steps[i:i+1] && alter == float64(int(alter)) && alter >= -2 && alter <= 2 {
			return pitch.Name{Letter: i, Alter: int(alter)}, true
		}
	}
	return pitch.Name{}, false
}
