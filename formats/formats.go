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

	"undaris/core/form"
	"undaris/core/say"
	"undaris/core/score"
)

// Format is how files of a kind are told and read.
type Format struct {
	Name    string
	Endings []string // of file names, small, without the dot
	// Fits tells a file by its beginning; nil where only the name tells.
	Fits func(head []byte) bool
	Read func(ctx context.Context, data []byte, w Wish) (Found, error)
}

// Wish is how a file is to be read.
type Wish struct {
	// Base has the instrument in hand, and the key and chords to lay the line over where
	// the file has none.
	Base score.Score
	Part int // which of the file's parts, from 1; 0 leaves it to the reader
	// Chart is wished for: what becomes of the notes is not told, and repeats stay as they are.
	Chart bool
}

// Part is what can be read of a file by itself.
type Part struct {
	Name  string
	Notes int
	Read  bool // it is what was read
}

// Found is what a file held, whatever its format. What was guessed is marked on the notes.
type Found struct {
	score.Score
	Kind  string     // the format's name
	Song  *form.Song // the bars as they are written, with their repeats, where the format has such
	Parts []Part
	Said  []string // what was guessed, moved or left out, and where

	Beside form.Beside // what a chart holds beside its bars
}

// Chosen is the place of a wished part among so many, or else the reader's choice.
func (w Wish) Chosen(parts, usual int) (int, error) {
	switch {
	case w.Part == 0:
		return usual, nil
	case w.Part < 0 || w.Part > parts:
		return 0, say.Errorf("there is no part %d; the file has %d", w.Part, parts)
	}
	return w.Part - 1, nil
}

var all []Format

// Register makes a format known.
func Register(f Format) { all = append(all, f) }

// headLength is how much of a file tells what it is, in bytes.
const headLength = 400

// Read reads a file in the format that fits its beginning, else its name.
func Read(ctx context.Context, name string, data []byte, w Wish) (Found, error) {
	head := data[:min(len(data), headLength)]
	i := slices.IndexFunc(all, func(f Format) bool { return f.Fits != nil && f.Fits(head) })
	if i < 0 {
		ending := strings.ToLower(strings.TrimPrefix(path.Ext(name), "."))
		i = slices.IndexFunc(all, func(f Format) bool { return slices.Contains(f.Endings, ending) })
	}
	if i < 0 {
		return Found{}, unknown()
	}
	f, err := all[i].Read(ctx, data, w)
	f.Kind = all[i].Name
	return f, err
}

// Known tells that the beginning of a file says what it is.
func Known(data []byte) bool {
	head := data[:min(len(data), headLength)]
	return slices.ContainsFunc(all, func(f Format) bool { return f.Fits != nil && f.Fits(head) })
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
