// Package say writes sentences that hold music. Notes, degrees, chords and keys
// stand in them as they are printed, B♭7 and ♯11, so that nobody has to look for
// them in words.
package say

import (
	"errors"
	"fmt"
)

// Music is what is printed otherwise than it is written in plain letters.
type Music interface{ Printed() string }

// F formats as [fmt.Sprintf] does, with music printed.
func F(format string, args ...any) string { return fmt.Sprintf(format, printed(args)...) }

// Errorf makes an error of such a sentence; %w wraps. It is a refusal: see [Refuses].
func Errorf(format string, args ...any) error { return refusal{fmt.Errorf(format, printed(args)...)} }

type refusal struct{ error }

func (r refusal) Unwrap() error { return errors.Unwrap(r.error) }

// Refuses tells whether an error says in words what cannot be done of what was asked, so that it
// is no fault of the program.
func Refuses(err error) bool {
	var r refusal
	return errors.As(err, &r)
}

func printed(args []any) []any {
	out := make([]any, len(args))
	for i, a := range args {
		if m, ok := a.(Music); ok {
			a = m.Printed()
		}
		out[i] = a
	}
	return out
}

// List joins words: "a", "a or b", "a, b or c", with whatever word stands before the last.
func List(words []string, last string) (text string) {
	for i, w := range words {
		switch {
		case i > 0 && i == len(words)-1:
			text += " " + last + " "
		case i > 0:
			text += ", "
		}
		text += w
	}
	return text
}
