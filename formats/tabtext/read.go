package tabtext

import (
	"bufio"
	"bytes"
	"cmp"
	"context"
	"errors"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
	"undaris/formats"
)

// Limits of what is read.
const (
	maxBars    = form.MaxBars
	maxNotes   = score.MaxNotes
	maxSaid    = 40
	maxLines   = 100_000
	maxTunings = 100
	maxAbove   = 8       // lines over a block that may hold its values
	maxRow     = 100_000 // characters of one
	maxText    = 2 << 20 // bytes
)

var (
	header = regexp.MustCompile(`^(?:(Title|Key|Tempo|Time|Feel|Groove|Tuning|Capo|Pickup|Chords):|\s*((?i:tempo|bpm|tuning|capo))\s*[:=])\s*(.*)$`)
	valuey = regexp.MustCompile(`^r?[whqesz]\.?[36]?~?$`)
)

// Read reads tablature text. in is the instrument where the text names no
// tuning. said tells what was guessed or left out.
func Read(ctx context.Context, data []byte, in *neck.Instrument) (s score.Score, said []string, err error) {
	if len(data) > maxText {
		return s, nil, say.Errorf("a text of %d MB; %d are the most that can be read", len(data)>>20, maxText>>20)
	}
	r := &reader{s: score.Score{In: in, Tempo: 100, Progression: form.Progression{Beats: 4}}}
	var over []string // lines before a block that are no strings
	var block []string
	lines := bufio.NewScanner(bytes.NewReader(formats.Decoded(data)))
	lines.Buffer(make([]byte, 1<<16), 1<<20)
	flush := func() error {
		defer func() { over, block = nil, nil }()
		if len(block) < neck.MinStrings {
			for i, l := range block {
				r.leave(l, r.at-len(block)+i)
			}
			return nil
		}
		from := mark{r.bars, r.now, len(r.s.Notes)}
		for _, rows := range r.wrapped(block) {
			if len(rows) > neck.MaxStrings {
				return say.Errorf("a row of more than %d strings; that is no tablature that can be read", neck.MaxStrings)
			}
			if err := r.block(over, rows); err != nil {
				return err
			}
			over = nil
		}
		return r.again(from)
	}
	for met := 1; lines.Scan(); met++ {
		r.at = met
		if met > maxLines {
			return s, nil, say.Errorf("a text of more than %d lines; that is more than can be read", maxLines)
		}
		line := strings.TrimRight(strings.ReplaceAll(lines.Text(), "\t", "    "), " \r")
		line = quoted.ReplaceAllString(line, "")
		if m := header.FindStringSubmatch(head(line)); m != nil {
			if err := r.header(cmp.Or(m[1], strings.ToLower(m[2])), strings.TrimSpace(m[3])); err != nil {
				return s, r.said, err
			}
			continue
		}
		if !r.named && len(line) < 80 && tuned.MatchString(line) {
			if err := r.header("tuning", line); err != nil {
				return s, r.said, err
			}
			continue
		}
		if m := oftener.FindStringSubmatch(line); m != nil {
			line = line[:len(line)-len(m[0])] + "|"
			r.times, _ = strconv.Atoi(m[1] + m[2])
		}
		if len(line) > maxRow {
			return s, r.said, say.Errorf("line %d has more than %d characters; that is no tablature that can be read", met, maxRow)
		}
		if row, strange, ok := mended(line); ok {
			if line = row; strange != "" {
				r.say("line %d: %q in a row is no sign of tablature; it was passed over", met, strange)
			}
			if len(block) == 0 && bracket.MatchString(line) {
				r.leave(line, met)
				continue
			}
			if block = append(block, line); len(block) > neck.MaxStrings*mostWrapped {
				return s, r.said, say.Errorf("a row of more than %d strings; that is no tablature that can be read", neck.MaxStrings)
			}
			continue
		}
		if len(block) > 0 {
			if err := flush(); err != nil {
				return s, r.said, err
			}
		}
		if over = append(over, line); len(over) > maxAbove {
			over = slices.Clone(over[1:])
		}
		switch cols, _ := r.chordWords(line); {
		case strings.TrimSpace(line) == "" || timed(line) || muted.MatchString(line) || r.told(line):
		case len(cols) > 0 && r.chords == "":
			r.pending = append(r.pending, above{line, met})
		default:
			r.leave(line, met)
		}
		if ctx.Err() != nil {
			return s, nil, ctx.Err()
		}
		if line == "" {
			over = nil
			r.leavePending()
		}
	}
	if err := lines.Err(); err != nil {
		return s, nil, errors.New("a line of this text is longer than can be read")
	}
	r.at++
	if err := flush(); err != nil {
		return s, r.said, err
	}
	r.leavePending()
	err = r.finish()
	r.sayLeft()
	return r.s, r.said, err
}

// head is a line that may be a header, else nothing: the pattern need not look at others.
func head(line string) string {
	if !strings.ContainsAny(line, ":=") || len(line) > maxAbove*80 && !strings.HasPrefix(line, "Chords:") {
		return ""
	}
	return line
}

type reader struct {
	s       score.Score
	said    []string
	chords  string
	named   bool // the tuning stands in the text
	bars    int
	now     int // ticks
	pickup  bool
	begins  bool // the text says that it has one
	tied    bool
	ragged  bool // rows differ in how many bar lines they have
	times   int  // how often the row in hand is played; 0 is once
	dots    mark // where the last repeat began
	open    bool // it has not ended yet
	mutes   [][2]int
	tunings int
	damped  bool    // the note in hand is under a palm mute
	at      int     // the line in hand, from 1
	words   int     // looked at whether they are chords
	over    []over  // chords above the rows
	pending []above // lines of chords that no row has come to yet
	left    int     // lines that are no tablature
	first   string  // of them
	leftAt  int     // and which line that is
}

func (r *reader) say(format string, args ...any) {
	if text := say.F(format, args...); len(r.said) < maxSaid && !slices.Contains(r.said, text) {
		r.said = append(r.said, text)
	}
}

func (r *reader) header(name, value string) error {
	switch name {
	case "Title":
		r.s.Title = value
	case "Key":
		key, err := form.ParseKey(value)
		if err != nil {
			return err
		}
		r.s.Key = key
	case "Tempo", "tempo", "bpm":
		if n, err := strconv.Atoi(figures.FindString(value)); err == nil && n > 0 && n < 1000 {
			r.s.Tempo = n
		} else {
			r.unreadable("tempo", value)
		}
	case "Time":
		if n, err := strconv.Atoi(strings.TrimSuffix(value, "/4")); err == nil && n >= form.MinBeats && n <= form.MaxBeats {
			r.s.Beats = n
		} else {
			return say.Errorf("a time of %s; bars of %d to %d quarters can be read, such as 4/4", value, form.MinBeats, form.MaxBeats)
		}
	case "Groove":
		f, ok := form.FeelNamed(value)
		if !ok {
			r.unreadable("groove", value)
		}
		r.s.Feel = f.ID
	case "Pickup":
		r.begins = value == "yes"
	case "Feel":
		if r.s.Swing = strings.EqualFold(value, "swing"); !r.s.Swing && !strings.EqualFold(value, "straight") {
			r.unreadable("feel", value)
		}
	case "Tuning", "tuning", "Capo", "capo":
		if r.tunings++; r.tunings > maxTunings {
			r.say("more than %d lines name a tuning or a capo; the rest was passed over", maxTunings)
			return nil
		}
		tuning, capo := r.s.In.Tuning(), r.s.In.Capo
		if strings.ToLower(name) != "capo" {
			tuning, capo, r.named = tuningOf(value), 0, true
		} else if n, err := strconv.Atoi(fret.FindString(value)); err == nil {
			capo = n
		} else {
			r.unreadable("capo", value)
		}
		in, err := neck.Tuned(tuning, capo)
		if err != nil {
			return err
		}
		r.s.In = in
	case "Chords":
		r.chords += value + "\n"
	}
	return nil
}

// unreadable tells of a value that a tablature cannot have.
func (r *reader) unreadable(what, value string) {
	r.say("line %d: “%s” is no %s that can be read; it was left out", r.at, value, what)
}

// fret is where a capo sits: 3, fret 3, 3rd fret.
var fret = regexp.MustCompile(`\d{1,2}`)

// block reads one row of bars.
func (r *reader) block(above, lines []string) error {
	lines = r.labelled(r.numbered(lines))
	if len(lines) != r.s.In.Strings() {
		if r.named {
			return say.Errorf("a row of %d strings under a tuning of %d", len(lines), r.s.In.Strings())
		}
		if len(lines) > r.s.In.Strings() {
			return say.Errorf("a row of %d strings; the instrument has %d. Name the tuning in a line such as Tuning: E2,A2,D3,G3,B3,E4", len(lines), r.s.In.Strings())
		}
		r.say("%d strings; they were read as the highest of the instrument", len(lines))
	}
	rows := make([][]rune, len(lines))
	size := 0
	for i, l := range lines {
		rows[i] = []rune(l)
	}
	var values []rune
	for _, l := range slices.Backward(above) {
		if timed(l) {
			values = []rune(l)
			break
		}
	}
	r.mutes = mutesIn(above)
	cols, chords := r.overhead(above)
	rows = r.level(rows)
	for _, row := range rows {
		size = max(size, len(row))
	}
	bars := r.closed(rows, r.barLines(rows), size)
	for i := range len(bars) - 1 {
		if bars[i+1] == bars[i]+1 { // a double bar line
			continue
		}
		if dotted(rows, bars[i]+1) {
			r.dots, r.open = mark{r.bars, r.now, len(r.s.Notes)}, true
		}
		back := dotted(rows, bars[i+1]-1)
		met := r.bars
		if err := r.bar(rows, values, bars[i]+1, bars[i+1]); err != nil {
			return err
		}
		bar := r.bars - 1
		if r.bars == met { // a pickup
			bar = -1
		}
		n := r.place(cols, chords, bars[i]+1, bars[i+1], bar)
		cols, chords = cols[n:], chords[n:]
		if back {
			if err := r.write(r.dots, 2, "a repeat was written out"); err != nil {
				return err
			}
			r.dots, r.open = mark{r.bars, r.now, len(r.s.Notes)}, false
		}
	}
	return nil
}

// foreign are signs that others use: [reader.cell] makes ours of them.
const foreign = "<>^vsSHPXtTuQl" // the letters of full among them

// characters are all that a cell of ours can hold.
var characters = `0123456789hpx/\().` + func() (all string) {
	for _, w := range score.Ways {
		all += w.Text.Mark
	}
	return all
}()

// part tells whether a character belongs to a fret and its signs.
func part(c rune) bool { return c >= 0 && c < 128 && parts[c] }

var parts = func() (is [128]bool) {
	for _, c := range characters + foreign {
		is[c] = true
	}
	return is
}()

// ground reads the chords, which tell how long the bars are.
func (r *reader) ground() error {
	if r.chords == "" || len(r.s.Bars) > 0 {
		return nil
	}
	p, err := form.Read(r.chords, r.s.Beats, r.s.Key)
	if err != nil {
		return say.Errorf("the chords cannot be read: %w", err)
	}
	r.s.Bars, r.s.Progression.Pickup = p.Bars, p.Pickup
	return nil
}

// finish gives the notes their bars.
func (r *reader) finish() error {
	if r.bars == 0 && len(r.s.Notes) == 0 {
		return errors.New("no tablature was found; it is rows of strings such as E |--3--5--|, one above the other")
	}
	if r.open {
		r.say("a repeat begins and never ends; it was passed over")
	}
	bars := cmp.Or(r.bars, 1)
	if err := r.ground(); err != nil {
		return err
	}
	for len(r.s.Bars) < bars {
		r.s.Bars = append(r.s.Bars, form.Bar{Changes: []form.Change{{Chord: harmony.Chord{None: true}}}})
	}
	r.overlaid()
	score.Sort(r.s.Notes)
	// What is joined needs a note to come from.
	first := map[int]int{} // by string
	for i := range r.s.Notes {
		n := &r.s.Notes[i]
		began, met := first[n.String]
		if n.Join != score.Picked && (!met || began >= n.Start) {
			n.Join = score.Picked
		}
		if !met {
			first[n.String] = n.Start
		}
	}
	// Two frets at once on a string cannot be: the later one stands.
	kept := r.s.Notes[:0]
	for i, n := range r.s.Notes {
		if i+1 < len(r.s.Notes) && r.s.Notes[i+1].Start == n.Start && r.s.Notes[i+1].String == n.String || n.Start >= r.s.End() {
			continue
		}
		kept = append(kept, n)
	}
	r.s.Notes = kept
	return nil
}
