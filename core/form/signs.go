package form

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"undaris/core/say"
)

// The words and signs that tell the order; each begins a word.
var (
	jumps   = regexp.MustCompile(`(?i)(?:^|\s)((?:D\.\s?[CS]\.?|D[CS]\b|da capo|dal segno)(?:\s+al\s+(?:coda|fine))?)(?:\s|$)`)
	toCoda  = regexp.MustCompile(`(?i)(?:^|\s)(to\s+(?:coda|𝄌))(?:\s|$)`)
	coda    = regexp.MustCompile(`(?i)(?:^|\s)(coda|𝄌)(?:\s|$)`)
	segno   = regexp.MustCompile(`(?i)(?:^|\s)(segno|𝄋)(?:\s|$)`)
	fine    = regexp.MustCompile(`(?i)(?:^|\s)(fine)(?:\s|$)`)
	oftener = regexp.MustCompile(`(?:^|\s)(\(?[x×]\s?([2-9]|[1-3]\d)\)?|\(?([2-9]|[1-3]\d)\s?[x×]\)?|\(?([2-9]|[1-3]\d) times\)?)(?:\s|$)`)
)

// marks are the signs found in a stretch of text, and where.
type marks struct {
	Signs
	times  int
	text   string // of the jump
	offset int
}

func (m marks) any() bool {
	return m.Segno || m.Coda || m.ToCoda || m.Fine || m.Jump != NoJump || m.times > 0
}

// unmarked takes the signs out of a stretch between bar lines, leaving blanks in their place.
func unmarked(part string, offset int) (rest string, m marks) {
	take := func(re *regexp.Regexp) (text string, found bool) {
		at := re.FindStringSubmatchIndex(part)
		if at == nil {
			return "", false
		}
		text = part[at[2]:at[3]]
		if re == jumps {
			m.text, m.offset = text, offset+utf8.RuneCountInString(part[:at[2]])
		}
		part = part[:at[2]] + strings.Repeat(" ", utf8.RuneCountInString(text)) + part[at[3]:]
		return text, true
	}
	if text, found := take(jumps); found {
		m.Jump = jumpOf(text)
	}
	_, m.ToCoda = take(toCoda)
	_, m.Coda = take(coda)
	_, m.Segno = take(segno)
	_, m.Fine = take(fine)
	if text, found := take(oftener); found {
		m.times, _ = strconv.Atoi(strings.Trim(text, "()x× times"))
	}
	return part, m
}

// signsAlone tells that a line is nothing but signs.
func signsAlone(line string) bool {
	rest, m := unmarked(line, 0)
	return m.any() && strings.TrimSpace(rest) == ""
}

func jumpOf(text string) Jump {
	low := strings.ToLower(strings.NewReplacer(".", "", " ", "").Replace(text))
	jump := DC
	if strings.HasPrefix(low, "ds") || strings.HasPrefix(low, "dalsegno") {
		jump = DS
	}
	switch {
	case strings.HasSuffix(low, "alcoda"):
		return jump + " al Coda"
	case strings.HasSuffix(low, "alfine"):
		return jump + " al Fine"
	}
	return jump
}

// mark puts signs on the bar they belong to: what leads away on the bar before them, what is
// led to on the one that comes.
func (r *textReader) mark(m marks) {
	r.coming.Segno = r.coming.Segno || m.Segno
	r.coming.Coda = r.coming.Coda || m.Coda
	if n := len(r.song.Bars); n > 0 {
		last := &r.song.Bars[n-1].Signs
		last.ToCoda, last.Fine = last.ToCoda || m.ToCoda, last.Fine || m.Fine
		if m.Jump != NoJump {
			last.Jump = m.Jump
			r.jumps = append(r.jumps, m)
		}
		if m.times > 0 {
			if last.Times == 0 { // x3 behind a row without a repeat sign is of the row
				row := n - 1
				for row > 0 && !r.song.Bars[row].Row && r.song.Bars[row-1].Times == 0 && !r.song.Bars[row].Opens {
					row--
				}
				r.song.Bars[row].Opens = true
			}
			last.Times = m.times
		}
	}
}

// settle looks at the signs as a whole: what leads nowhere is a problem, what is taken for
// granted is said.
func (r *textReader) settle() {
	has := func(is func(Written) bool) bool { return r.song.find(is) >= 0 }
	for _, m := range r.jumps {
		switch {
		case m.Jump.toSegno() && !has(func(w Written) bool { return w.Segno }):
			r.problem(m.text, m.offset, m.text+" goes back to a segno, and there is none; write segno before its bar", "")
		case m.Jump.alCoda() && !has(func(w Written) bool { return w.ToCoda }):
			r.problem(m.text, m.offset, m.text+": nothing leads to the coda; write to coda behind the bar that does", "")
		case m.Jump.alCoda() && !has(func(w Written) bool { return w.Coda }):
			r.problem(m.text, m.offset, m.text+": there is no coda; write coda before its first bar", "")
		case m.Jump.alFine() && !has(func(w Written) bool { return w.Fine }):
			r.problem(m.text, m.offset, m.text+": there is no fine; write it behind the bar that ends it", "")
		}
	}
	open := -1
	for i, w := range r.song.Bars {
		if w.Opens {
			if open >= 0 {
				r.found.Said = append(r.found.Said, say.F("the repeat that begins in bar %d has no end: it is played once", open+1))
			}
			open = i
		}
		if w.Times > 0 {
			open = -1
		}
		if len(w.Endings) > 0 && w.Endings[0] == 1 && !r.closed(i) {
			r.found.Said = append(r.found.Said, say.F("the first ending in bar %d has no repeat behind it: it is played once", i+1))
		}
	}
	if open >= 0 {
		r.found.Said = append(r.found.Said, say.F("the repeat that begins in bar %d has no end: it is played once", open+1))
	}
	r.reached()
}

// reached tells of endings that no repeat comes to. Where nothing else would be played they are bars like others.
func (r *textReader) reached() {
	if !slices.ContainsFunc(r.song.Bars, func(w Written) bool { return len(w.Endings) > 0 }) {
		return
	}
	played := r.song.Play(MaxBars)
	if len(played.Bars) > MaxBars {
		return
	}
	for i, w := range r.song.Bars {
		switch {
		case len(w.Endings) == 0:
		case len(played.Bars) == 0:
			r.song.Bars[i].Endings = nil
			r.note("no repeat comes to the ending in bar %d: it is played as any bar", i+1)
		case !slices.ContainsFunc(played.Bars, func(b Bar) bool { return b.Written == i+1 }):
			r.note("no repeat comes to the ending in bar %d: it is not played", i+1)
		}
	}
}

// closed tells that a repeat ends before the next ending.
func (r *textReader) closed(at int) bool {
	for i := at; i < len(r.song.Bars); i++ {
		if r.song.Bars[i].Times > 0 {
			return true
		}
		if i > at && len(r.song.Bars[i].Endings) > 0 {
			return false
		}
	}
	return false
}

// SignsIn are the signs that a text names: "D.S. al Coda", "to coda", "fine".
func SignsIn(text string) Signs {
	if low := strings.ToLower(text); !slices.ContainsFunc(hints, func(h string) bool { return strings.Contains(low, h) }) {
		return Signs{}
	}
	_, m := unmarked(text, 0)
	return m.Signs
}

// hints are parts of all that names a sign; patterns are slow, and most words name none.
var hints = []string{"fine", "coda", "segno", "capo", "d.", "ds", "dc", "𝄋", "𝄌"}
