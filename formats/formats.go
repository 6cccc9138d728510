// Package formats reads lines from files of any format that is linked in. A
// format registers itself, as image formats do; import it for that.
package formats

import (
	"cmp"
	"context"
	"errors"
	"path"
	"slices"
	"strings"

	"undaris/core/score"
)

// Format is how files of a kind are told and read.
type Format struct {
	Name    string
	Endings []string // of file names, small, without the dot
	// Fits tells a file by its beginning; nil where only the name tells.
	Fits func(head []byte) bool
	// Read makes a line of a file's bytes. base has the instrument in hand, and
	// the key and chords to lay the line over where the file has none. said tells
	// what was guessed or left out.
	Read func(ctx context.Context, data []byte, base score.Score) (s score.Score, said []string, err error)
}

var all []Format

// Register makes a format known.
func Register(f Format) { all = append(all, f) }

// headLength is how much of a file tells what it is, in bytes.
const headLength = 400

// Read reads a file in the format that fits its beginning, else its name.
func Read(ctx context.Context, name string, data []byte, base score.Score) (score.Score, []string, error) {
	head := data[:min(len(data), headLength)]
	i := slices.IndexFunc(all, func(f Format) bool { return f.Fits != nil && f.Fits(head) })
	if i < 0 {
		ending := strings.ToLower(strings.TrimPrefix(path.Ext(name), "."))
		i = slices.IndexFunc(all, func(f Format) bool { return slices.Contains(f.Endings, ending) })
	}
	if i < 0 {
		return base, nil, unknown()
	}
	return all[i].Read(ctx, data, base)
}

func unknown() error {
	var names, endings []string
	formats := slices.SortedFunc(slices.Values(all), func(a, b Format) int { return cmp.Compare(a.Name, b.Name) })
	for _, f := range formats {
		names = append(names, f.Name)
		for _, e := range f.Endings {
			endings = append(endings, "."+e)
		}
	}
	return errors.New("this is no " + orList(names) + "; a file ends in " + orList(endings))
}

func orList(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}
