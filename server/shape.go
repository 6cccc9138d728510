package server

import (
	"bytes"
	"math"
	"strconv"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
)

// A shape is what a body may be, made once of what describes it in the API, so that one that is right is known to be in
// one pass over its text. It says yes or no, and never why: whatever it does not take, or does not know about, is
// looked at by Huma, which says what is wrong with it. So it may refuse too much, and never take too much.
type shape struct {
	kind     byte // one of those below; 0 is not known, and takes nothing
	nullable bool
	low      float64
	high     float64
	least    int // characters or items
	most     int
	enum     map[string]bool // of texts, as they are written
	items    *shape
	fields   map[string]*field
	needed   uint64 // fields by their number
}

type field struct {
	bit uint64
	is  *shape
}

const (
	shapeText byte = iota + 1
	shapeWhole
	shapeNumber
	shapeTruth
	shapeList
	shapeObject
)

// shapeMaker makes them of schemas, each once, since they may hold themselves.
type shapeMaker struct {
	registry huma.Registry
	made     map[string]*shape
}

func (m *shapeMaker) of(s *huma.Schema) *shape {
	if s == nil {
		return &shape{}
	}
	if s.Ref != "" {
		if known := m.made[s.Ref]; known != nil {
			return known
		}
		into := &shape{}
		m.made[s.Ref] = into
		*into = *m.of(m.registry.SchemaFromRef(s.Ref))
		return into
	}
	if len(s.OneOf)+len(s.AnyOf)+len(s.AllOf) > 0 || s.Not != nil || s.Pattern != "" || s.MultipleOf != nil || s.UniqueItems || s.ExclusiveMinimum != nil || s.ExclusiveMaximum != nil ||
		s.MinProperties != nil || s.MaxProperties != nil || len(s.DependentRequired) > 0 || s.ReadOnly || s.WriteOnly || s.ContentEncoding != "" {
		return &shape{}
	}
	is := &shape{nullable: s.Nullable, low: math.Inf(-1), high: math.Inf(1), most: math.MaxInt}
	if s.Minimum != nil {
		is.low = *s.Minimum
	}
	if s.Maximum != nil {
		is.high = *s.Maximum
	}
	for _, n := range []*int{s.MinLength, s.MinItems} {
		if n != nil {
			is.least = *n
		}
	}
	for _, n := range []*int{s.MaxLength, s.MaxItems} {
		if n != nil {
			is.most = *n
		}
	}
	switch s.Type {
	case huma.TypeString:
		if s.Format != "" {
			return &shape{}
		}
		is.kind = shapeText
	case huma.TypeInteger:
		is.kind = shapeWhole
	case huma.TypeNumber:
		is.kind = shapeNumber
	case huma.TypeBoolean:
		is.kind = shapeTruth
	case huma.TypeArray:
		is.kind, is.items = shapeList, m.of(s.Items)
	case huma.TypeObject:
		if closed, ok := s.AdditionalProperties.(bool); s.AdditionalProperties != nil && (!ok || closed) || len(s.Properties) > 64 {
			return &shape{}
		}
		is.kind, is.fields = shapeObject, map[string]*field{}
		for name, of := range s.Properties {
			is.fields[name] = &field{1 << len(is.fields), m.of(of)}
		}
		for _, name := range s.Required {
			if is.fields[name] == nil {
				return &shape{}
			}
			is.needed |= is.fields[name].bit
		}
	}
	if s.Enum != nil {
		is.enum = map[string]bool{}
		for _, e := range s.Enum {
			text, ok := e.(string)
			if !ok {
				return &shape{}
			}
			is.enum[text] = true
		}
	}
	return is
}

// takes tells whether a text is JSON of this shape.
func (s *shape) takes(text []byte) bool {
	r := &jsonText{rest: text}
	return s.take(r) && len(r.space()) == 0
}

// jsonText is JSON that is read from its beginning.
type jsonText struct{ rest []byte }

func (r *jsonText) space() []byte {
	r.rest = bytes.TrimLeft(r.rest, " \t\r\n")
	return r.rest
}

// next takes a sign that must come.
func (r *jsonText) next(c byte) bool {
	if rest := r.space(); len(rest) == 0 || rest[0] != c {
		return false
	}
	r.rest = r.rest[1:]
	return true
}

func (r *jsonText) word(w string) bool {
	if !bytes.HasPrefix(r.space(), []byte(w)) {
		return false
	}
	r.rest = r.rest[len(w):]
	return true
}

// text takes a string: its letters as they are written, and how many they are. Those written as \u are left to others.
func (r *jsonText) text() (raw []byte, letters int, ok bool) {
	if !r.next('"') {
		return nil, 0, false
	}
	for i := 0; i < len(r.rest); {
		c := r.rest[i]
		switch {
		case c == '"':
			raw, r.rest = r.rest[:i], r.rest[i+1:]
			return raw, letters, true
		case c < ' ':
			return nil, 0, false
		case c == '\\':
			if i+1 >= len(r.rest) || !bytes.ContainsRune([]byte(`"\/bfnrt`), rune(r.rest[i+1])) {
				return nil, 0, false
			}
			i += 2
		case c < utf8.RuneSelf:
			i++
		default:
			rune, size := utf8.DecodeRune(r.rest[i:])
			if rune == utf8.RuneError {
				return nil, 0, false
			}
			i += size
		}
		letters++
	}
	return nil, 0, false
}

// number takes a number as JSON writes them.
func (r *jsonText) number() (x float64, whole, ok bool) {
	rest := r.space()
	i := 0
	digits := func() (n int) {
		for i < len(rest) && rest[i] >= '0' && rest[i] <= '9' {
			i++
			n++
		}
		return n
	}
	if i < len(rest) && rest[i] == '-' {
		i++
	}
	zero := i < len(rest) && rest[i] == '0'
	n := digits()
	if n == 0 || zero && n > 1 {
		return 0, false, false
	}
	whole = true
	if i < len(rest) && rest[i] == '.' {
		i++
		if whole = false; digits() == 0 {
			return 0, false, false
		}
	}
	if i < len(rest) && (rest[i] == 'e' || rest[i] == 'E') {
		i++
		if i < len(rest) && (rest[i] == '+' || rest[i] == '-') {
			i++
		}
		if whole = false; digits() == 0 {
			return 0, false, false
		}
	}
	r.rest = rest[i:]
	if whole && n < 16 { // exact, and quick
		for _, c := range rest[:i] {
			if c != '-' {
				x = 10*x + float64(c-'0')
			}
		}
		if rest[0] == '-' {
			x = -x
		}
		return x, true, true
	}
	x, err := strconv.ParseFloat(string(rest[:i]), 64)
	return x, false, err == nil // a whole number that is so long is left to others
}

func (s *shape) take(r *jsonText) bool {
	if s.nullable && r.word("null") {
		return true
	}
	switch s.kind {
	case shapeText:
		raw, letters, ok := r.text()
		return ok && letters >= s.least && letters <= s.most && (s.enum == nil || s.enum[string(raw)])
	case shapeWhole, shapeNumber:
		x, whole, ok := r.number()
		return ok && (whole || s.kind == shapeNumber) && x >= s.low && x <= s.high && s.enum == nil
	case shapeTruth:
		return s.enum == nil && (r.word("true") || r.word("false"))
	case shapeList:
		n := 0
		if !r.next('[') {
			return false
		}
		for !r.next(']') {
			if n > 0 && !r.next(',') || !s.items.take(r) {
				return false
			}
			n++
		}
		return n >= s.least && n <= s.most && s.enum == nil
	case shapeObject:
		seen := uint64(0)
		if !r.next('{') {
			return false
		}
		for n := 0; !r.next('}'); n++ {
			if n > 0 && !r.next(',') {
				return false
			}
			name, _, ok := r.text()
			f := s.fields[string(name)]
			// What comes twice is read by some as the first and by others as the last.
			if !ok || f == nil || seen&f.bit != 0 || !r.next(':') || !f.is.take(r) {
				return false
			}
			seen |= f.bit
		}
		return seen&s.needed == s.needed && s.enum == nil
	}
	return false
}
