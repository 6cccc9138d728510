package musicxml

import (
	"regexp"
	"slices"
	"strings"

	"undaris/core/say"
)

// The ledger: every element of MusicXML 4.0 is used, is known not to matter to a line with its
// chords, or is lost and told. What is in no table is told as not known.

// used are the elements that are read; where one says more than is read, its reader tells it.
const used = `score-partwise work work-title movement-title identification miscellaneous miscellaneous-field
	part-list score-part part-name part measure
	attributes divisions key fifths mode time beats beat-type clef sign transpose chromatic octave-change
	staff-details staff-tuning tuning-step tuning-alter tuning-octave capo measure-style measure-repeat
	barline repeat ending direction direction-type sound swing rehearsal words segno coda metronome beat-unit beat-unit-dot per-minute
	print backup forward duration offset
	harmony root root-step root-alter kind bass bass-step bass-alter degree degree-value degree-alter degree-type
	note grace cue chord rest pitch step alter octave unpitched tie voice notehead staff play mute
	notations tied slide glissando slur articulations ornaments technical
	accent strong-accent staccato staccatissimo scoop plop falloff doit
	trill-mark wavy-line other-ornament
	string fret harmonic fingering hammer-on pull-off bend bend-alter pre-bend release down-bow up-bow pluck other-technical
	text`

// idle are the elements that say nothing of the notes, their places or their chords, by the reason.
var idle = []struct{ why, names string }{
	{"the paper is laid out anew", `defaults scaling millimeters tenths concert-score page-layout page-height page-width page-margins left-margin right-margin
		top-margin bottom-margin system-layout system-margins system-distance top-system-distance system-dividers left-divider right-divider staff-layout
		staff-distance appearance line-width note-size distance glyph other-appearance music-font word-font lyric-font lyric-language
		credit credit-type credit-words credit-image credit-symbol link bookmark
		measure-layout measure-distance measure-numbering part-name-display part-abbreviation-display display-text accidental-text
		part-abbreviation group-name group-name-display group-abbreviation group-abbreviation-display group-symbol group-barline group-time part-group
		part-symbol staff-type staff-lines line staff-size bar-style eyeglasses image symbol staff-divide`},
	{"who made the file, and with what, is not kept", `creator rights encoding encoding-date encoder software encoding-description supports source relation
		movement-number work-number opus player player-name part-link instrument-link group-link`},
	{"how another program sounds is not kept", `score-instrument instrument-name instrument-abbreviation instrument-sound solo ensemble virtual-instrument
		virtual-library virtual-name midi-device midi-instrument midi-channel midi-name midi-bank midi-program midi-unpitched volume pan elevation
		instrument instruments instrument-change other-play ipa semi-pitched sync listening listen assess wait other-listen other-listening
		swing-type swing-style straight first second straight-swing for-part`},
	{"how long a note lasts is told by its duration", `type dot time-modification actual-notes normal-notes normal-type normal-dot tuplet tuplet-actual tuplet-normal
		tuplet-number tuplet-type tuplet-dot beat-unit-tied metronome-note metronome-type metronome-dot metronome-beam metronome-tied
		metronome-tuplet metronome-relation metronome-arrows`},
	{"which pitch is meant is told by step, alter and octave", `accidental clef-octave-change diatonic double octave-shift cancel display-step display-octave
		part-clef part-transpose directive`},
	{"how a note is drawn follows from what it is", `stem beam notehead-text footnote level staves grouping feature natural artificial
		base-pitch touching-pitch sounding-pitch multiple-rest slash slash-type slash-dot except-voice principal-voice
		time-relation interchangeable time-symbol`},
	{"it belongs to what is told already", `p pp ppp pppp ppppp pppppp f ff fff ffff fffff ffffff mp mf sf sfp sfpp fp rf rfz sfz sffz fz n pf sfzp other-dynamics
		frame-strings frame-frets first-fret frame-note barre figure-number prefix suffix figure extend syllabic elision laughing humming end-line end-paragraph
		key-alter key-accidental key-octave numeral-root numeral-alter numeral-key numeral-fifths numeral-mode
		tuning-string accord pedal-tuning pedal-step pedal-alter accordion-high accordion-middle accordion-low
		glass metal wood pitched membrane effect timpani beater stick stick-type stick-material stick-location other-percussion
		hole-type hole-closed hole-shape arrow-direction arrow-style arrowhead circular-arrow ambitus bass-separator`},
}

// lost are the elements whose loss is told: what they are called, one and many, and what they stand in.
var lost = []struct{ name, one, many, in string }{
	{"tenuto", "a tenuto", "tenutos", "articulations"},
	{"detached-legato", "a detached legato", "detached legatos", "articulations"},
	{"spiccato", "a spiccato", "spiccatos", "articulations"},
	{"breath-mark", "a breath mark", "breath marks", "articulations"},
	{"caesura", "a caesura", "caesuras", "articulations"},
	{"stress", "a stress", "stresses", "articulations"},
	{"unstress", "an unstress", "unstresses", "articulations"},
	{"soft-accent", "a soft accent", "soft accents", "articulations"},
	{"other-articulation", "an articulation of its own kind", "articulations of their own kind", "articulations"},
	{"turn", "a turn", "turns", "ornaments"},
	{"delayed-turn", "a delayed turn", "delayed turns", "ornaments"},
	{"inverted-turn", "an inverted turn", "inverted turns", "ornaments"},
	{"delayed-inverted-turn", "a delayed inverted turn", "delayed inverted turns", "ornaments"},
	{"vertical-turn", "a vertical turn", "vertical turns", "ornaments"},
	{"inverted-vertical-turn", "an inverted vertical turn", "inverted vertical turns", "ornaments"},
	{"shake", "a shake", "shakes", "ornaments"},
	{"mordent", "a mordent", "mordents", "ornaments"},
	{"inverted-mordent", "an inverted mordent", "inverted mordents", "ornaments"},
	{"schleifer", "a slide from below in grace notes", "slides from below in grace notes", "ornaments"},
	{"tremolo", "a tremolo", "tremolos", "ornaments"},
	{"haydn", "a Haydn ornament", "Haydn ornaments", "ornaments"},
	{"accidental-mark", "an accidental of an ornament", "accidentals of ornaments", "ornaments"},
	{"open-string", "an open string’s sign", "signs of open strings", "technical"},
	{"thumb-position", "a thumb position", "thumb positions", "technical"},
	{"double-tongue", "a double tongue", "double tongues", "technical"},
	{"triple-tongue", "a triple tongue", "triple tongues", "technical"},
	{"stopped", "a stopped note’s sign", "signs of stopped notes", "technical"},
	{"snap-pizzicato", "a snapped string", "snapped strings", "technical"},
	{"tap", "a tap", "taps", "technical"},
	{"heel", "a heel", "heels", "technical"},
	{"toe", "a toe", "toes", "technical"},
	{"fingernails", "a stroke of fingernails", "strokes of fingernails", "technical"},
	{"hole", "a hole", "holes", "technical"},
	{"arrow", "an arrow", "arrows", "technical"},
	{"handbell", "a handbell’s sign", "signs of handbells", "technical"},
	{"brass-bend", "a brass bend", "brass bends", "technical"},
	{"flip", "a flip", "flips", "technical"},
	{"smear", "a smear", "smears", "technical"},
	{"open", "an open sign", "open signs", "technical"},
	{"half-muted", "a half-muted note’s sign", "signs of half-muted notes", "technical"},
	{"harmon-mute", "a harmon mute", "harmon mutes", "technical"},
	{"harmon-closed", "a closed harmon mute", "closed harmon mutes", "technical"},
	{"golpe", "a tap on the body", "taps on the body", "technical"},
	{"with-bar", "a bend with the bar", "bends with the bar", "technical"},
	{"fermata", "a fermata", "fermatas", "notations"},
	{"arpeggiate", "a rolled chord’s sign", "signs of rolled chords", "notations"},
	{"non-arpeggiate", "a bracket of a chord", "brackets of chords", "notations"},
	{"dynamics", "a dynamic", "dynamics", "notations"},
	{"other-notation", "a sign of its own kind", "signs of their own kind", "notations"},
	{"wedge", "an end of a crescendo or diminuendo", "ends of crescendos and diminuendos", "direction-type"},
	{"dashes", "an end of a dashed line", "ends of dashed lines", "direction-type"},
	{"bracket", "an end of a bracket", "ends of brackets", "direction-type"},
	{"pedal", "a pedal sign", "pedal signs", "direction-type"},
	{"harp-pedals", "a setting of harp pedals", "settings of harp pedals", "direction-type"},
	{"damp", "a damping sign", "damping signs", "direction-type"},
	{"damp-all", "a sign to damp all", "signs to damp all", "direction-type"},
	{"string-mute", "a string mute", "string mutes", "direction-type"},
	{"scordatura", "a change of tuning", "changes of tuning", "direction-type"},
	{"percussion", "a percussion sign", "percussion signs", "direction-type"},
	{"accordion-registration", "a registration of an accordion", "registrations of an accordion", "direction-type"},
	{"other-direction", "a direction of its own kind", "directions of their own kind", "direction-type"},
	{"lyric", "a syllable", "syllables", "note"}, // but degrees
	{"figured-bass", "a figured bass", "figured basses", "measure"},
	{"function", "a chord by its function alone", "chords by their function alone", "harmony"},
	{"numeral", "a chord by its numeral alone", "chords by their numeral alone", "harmony"},
	{"inversion", "an inversion of a chord", "inversions of chords", "harmony"},
	{"frame", "a chord diagram", "chord diagrams", "harmony"},
	{"key-step", "an accidental of a key of its own kind", "accidentals of a key of its own kind", "key"},
	{"senza-misura", "a bar without a metre", "bars without a metre", "time"},
	{"beat-repeat", "a sign to repeat a beat", "signs to repeat beats", "measure-style"},
}

// atNotes are what stands in them at notes.
var atNotes = []string{"articulations", "ornaments", "technical", "notations", "note"}

// account is what becomes of an element.
type account int

const (
	unknown account = iota
	isUsed
	isIdle
	isLost
)

// accounts are all elements that are known.
var accounts = func() map[string]account {
	all := map[string]account{}
	for _, name := range strings.Fields(used) {
		all[name] = isUsed
	}
	for _, reason := range idle {
		for _, name := range strings.Fields(reason.names) {
			all[name] = isIdle
		}
	}
	for _, l := range lost {
		all[l.name] = isLost
	}
	return all
}()

// maxStrange is how many elements that are not known are told.
const maxStrange = 5

// tally is how often something was met that is told, and in which measure first.
type tally struct{ times, first int }

// ledger counts what is met in a part and is not read.
type ledger map[string]tally

// met notes an element of a measure, counted from 1.
func (l ledger) met(name string, measure int) {
	if is := accounts[name]; is == isUsed && name != "slur" && name != "hammer-on" && name != "pull-off" || is == isIdle {
		return
	} else if is == unknown && l[name].times == 0 && l.strange() == maxStrange {
		return
	}
	t := l[name]
	if t.times++; t.times == 1 {
		t.first = measure
	}
	l[name] = t
}

func (l ledger) strange() (n int) {
	for name := range l {
		if accounts[name] == unknown {
			n++
		}
	}
	return n
}

// add puts another ledger's counts to those of this one.
func (l ledger) add(o ledger) {
	for name, t := range o {
		if have, ok := l[name]; ok {
			t = tally{t.times + have.times, min(t.first, have.first)}
		}
		l[name] = t
	}
}

// told is what was left out, in the order of the tables; of a chart not what stands at notes.
func (l ledger) told(chart bool) (said []string) {
	tell := func(t tally, one, many string) {
		switch {
		case t.times == 1:
			said = append(said, say.F("%s was left out, in bar %d", one, t.first))
		case t.times > 1:
			said = append(said, say.F("%d %s were left out, the first in bar %d", t.times, many, t.first))
		}
	}
	if l["hammer-on"].times+l["pull-off"].times == 0 && !chart { // with those a slur says the same again
		t := l["slur"]
		t.times = (t.times + 1) / 2 // it has two ends
		tell(t, "a slur", "slurs")
	}
	for _, what := range lost {
		if !chart || !slices.Contains(atNotes, what.in) {
			tell(l[what.name], what.one, what.many)
		}
	}
	var strange []string
	for name := range l {
		if accounts[name] == unknown {
			strange = append(strange, name)
		}
	}
	slices.Sort(strange)
	for _, name := range strange {
		said = append(said, say.F("%q, which is not known here, was left out, the first in bar %d", name, l[name].first))
	}
	return said
}

func counted(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return say.F("%d %s", n, many)
}

// degreed is a syllable that names a degree, as [Write] puts them under the notes: it is computed anew.
var degreed = regexp.MustCompile(`^[b#♭♯]{0,2}(R|[1-9]|1[0-5])$`)
