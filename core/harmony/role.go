package harmony

import (
	"slices"
	"strings"

	"undaris/core/say"
)

// Role is what a degree does in its chord.
type Role int

// The roles, in the order chords are stacked; see [Degree.Role].
const (
	Root Role = iota
	Third
	Fifth
	Seventh
	Extension
)

var roleNames = []string{"root", "third", "fifth", "seventh", "extension"}

func (r Role) String() string { return roleNames[r] }

// Role tells what the degree does: root, third, fifth, sixth or seventh, extension.
func (d Degree) Role() Role {
	switch d {
	case "R":
		return Root
	case "b3", "3":
		return Third
	case "b5", "5", "#5":
		return Fifth
	case "6", "b7", "7":
		return Seventh
	}
	return Extension
}

// Order is how much a player wants each role as a target, most wanted first.
type Order []Role

// UsualOrder takes the third first, since it says most about a chord, then the
// seventh, the root and the fifth.
var UsualOrder = Order{Third, Seventh, Root, Fifth, Extension}

// ParseRoles reads roles as they are written, "third,seventh"; none of "".
func ParseRoles(text string) ([]Role, error) { return RolesOf(inCommas(text)...) }

func inCommas(text string) []string {
	return strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ' ' })
}

// RolesOf are the roles of these names, each once.
func RolesOf(names ...string) (out []Role, err error) {
	for _, name := range names {
		i := slices.Index(roleNames, name)
		if i < 0 {
			return nil, say.Errorf("%q is no target; the targets are %s", name, strings.Join(roleNames, ", "))
		}
		if !slices.Contains(out, Role(i)) {
			out = append(out, Role(i))
		}
	}
	return out, nil
}

// ParseOrder reads "third,seventh,root,fifth"; roles left out come last, in the
// usual order.
func ParseOrder(text string) (Order, error) { return OrderOf(inCommas(text)...) }

// OrderOf is the same of names.
func OrderOf(names ...string) (Order, error) {
	roles, err := RolesOf(names...)
	if err != nil {
		return nil, err
	}
	out := Order(roles)
	for _, r := range UsualOrder {
		if !slices.Contains(out, r) {
			out = append(out, r)
		}
	}
	return out, nil
}

// Place is the role's place in the order, 0 the most wanted.
func (o Order) Place(r Role) int { return slices.Index(o, r) }
