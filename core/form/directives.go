package form

import (
	"regexp"
	"slices"
	"strings"

	"undaris/core/say"
)

// Directives of song sheets that say nothing of the chords, by the reason; what is in no table is told.
var idleDirectives = []struct{ why, names string }{
	{"who wrote and played it is not kept", "artist composer lyricist arranger copyright album year sorttitle sortartist subtitle st duration"},
	{"the paper is laid out anew", `textfont textsize textcolour textcolor tf ts tc chordfont chordsize chordcolour chordcolor cf cs cc
		chorusfont chorussize choruscolour choruscolor tabfont tabsize tabcolour tabcolor titlefont titlesize titlecolour titlecolor
		tocfont tocsize toccolour toccolor gridfont gridsize gridcolour gridcolor labelfont labelsize labelcolour labelcolor footerfont
		new_page np new_physical_page npp new_song ns column_break colb columns col pagetype titles grid g no_grid ng diagrams highlight image`},
}

// lostDirectives are those whose loss is told: what they are called.
var lostDirectives = map[string]string{
	"define": "chord diagrams were left out", "chord": "chord diagrams were left out",
}

// remarkDirectives are what a player says beside the music.
const remarkDirectives = "comment c comment_italic ci comment_box cb note notes"

// foreignParts hold what is no row of chords.
var foreignParts = map[string]string{"tab": "tablature", "abc": "notation in letters", "ly": "notation in letters", "svg": "a drawing", "textblock": "a block of text", "musicxml": "notation"}

func listed(names, name string) bool { return slices.Contains(strings.Fields(names), name) }

// note tells something once.
func (r *textReader) note(format string, args ...any) {
	if text := say.F(format, args...); !slices.Contains(r.found.Said, text) && len(r.found.Said) < maxProblems {
		r.found.Said = append(r.found.Said, text)
	}
}

// remark keeps what a player says beside the music, with the bar before which it stands.
func (r *textReader) remark(text string) {
	if text = strings.TrimSpace(text); text == "" {
		return
	}
	if len(r.song.Bars) > 0 {
		text = say.F("bar %d: %s", len(r.song.Bars)+1, text)
	}
	if len(r.found.Remarks)+len(text) >= maxRemarks {
		r.note("more remarks than a chart holds; the rest was left out")
		return
	}
	if r.found.Remarks != "" {
		r.found.Remarks += "\n"
	}
	r.found.Remarks += text
}

// maxRemarks is how long the remarks of a chart may be, in bytes.
const maxRemarks = 4000

// other accounts for what says something of the whole and is not read.
func (r *textReader) other(name, value string) {
	if name == "meta" {
		if name, value, _ = strings.Cut(strings.TrimSpace(value), " "); name != "meta" {
			r.tell(strings.ToLower(name), value)
		}
		return
	}
	if listed(remarkDirectives, name) {
		r.remark(value)
		return
	}
	if text, ok := lostDirectives[name]; ok {
		r.note("%s", text)
		return
	}
	if strings.HasPrefix(name, "x_") || strings.HasPrefix(name, "end_of_") || slices.ContainsFunc(idleDirectives, func(k struct{ why, names string }) bool { return listed(k.names, name) }) {
		return
	}
	r.note("line %d: {%s}, which is not known here, was left out", r.at, name)
}

// unreadable tells of a value that a chart cannot have.
func (r *textReader) unreadable(what, value string) {
	r.note("line %d: “%s” is no %s that can be read; it was left out", r.at, value, what)
}

// within passes over the lines of a part that is no row of chords; it is told where it begins.
func (r *textReader) within(line string) bool {
	if r.foreign == "" {
		return false
	}
	if m := directive.FindStringSubmatch(line); m != nil && (strings.EqualFold(m[1], "end_of_"+r.foreign) || r.foreign == "tab" && strings.EqualFold(m[1], "eot")) {
		r.foreign = ""
	}
	return true
}

// aside and behind are the remark on a line.
var behind = regexp.MustCompile(`^(?://|#)\s*`)

// remarked keeps the remark that stands on a line behind two strokes or a #.
func (r *textReader) remarked(line, plain string) {
	if rest := strings.TrimSpace(strings.TrimPrefix(line, plain)); len(plain) < len(line) {
		r.remark(behind.ReplaceAllString(rest, ""))
	}
}
