package server

import (
	"cmp"

	"undaris/core/edit"
	"undaris/core/neck"
	"undaris/core/score"
	"undaris/formats"
	_ "undaris/formats/midi"
	_ "undaris/formats/musicxml"
	_ "undaris/formats/tabtext"
)

// laid makes a line of what a file held, over a chart where that is wished.
func (s *server) laid(found formats.Found, under score.Score, feel, title string, hand neck.Hand) (o lineIn, err error) {
	read := found.Score
	read.Title = cmp.Or(read.Title, title)
	l, err := edit.Import(read, found.Said, under, hand)
	if err != nil {
		return o, at("body.notes", nil, err)
	}
	// Read anew, it is a line like any other.
	l.Feel = feel
	again, err := s.read(wireBody(l))
	again.Said = l.Said
	return again, err
}
