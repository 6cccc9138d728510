package store

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Ornaments are score.Ornaments as they are kept and sent.
type Ornaments struct {
	Join      score.Join        `json:"join,omitempty" enum:"slide,hammer-on,pull-off" doc:"how it is reached from the note before"`
	Scoop     int               `json:"scoop,omitempty" minimum:"-5" maximum:"5" doc:"slid into from so many frets below, or above when negative"`
	SlideBack int               `json:"slideBack,omitempty" minimum:"-5" maximum:"5" doc:"slid on by so many frets and back, under one stroke"`
	SlideOut  int               `json:"slideOut,omitempty" minimum:"-5" maximum:"5" doc:"left by a slide to nowhere, of so many frets"`
	Bend      int               `json:"bend,omitempty" minimum:"0" maximum:"6" doc:"bent up, in quarter tones: 1 is a curl, 2 a half step, 4 a whole step"`
	PreBend   bool              `json:"preBend,omitempty" doc:"bent before it is struck"`
	Again     bool              `json:"again,omitempty" doc:"struck while the string is still bent from the note before"`
	Release   bool              `json:"release,omitempty" doc:"the bend is let down again"`
	ReleaseTo int               `json:"releaseTo,omitempty" minimum:"0" maximum:"5" doc:"how much of the bend stays when it is let down, in quarter tones"`
	Vibrato   bool              `json:"vibrato,omitempty"`
	Width     int               `json:"vibratoWidth,omitempty" minimum:"0" maximum:"100" doc:"of the vibrato, in cents either way; 0 is usual"`
	Speed     int               `json:"vibratoSpeed,omitempty" minimum:"0" maximum:"9" doc:"of the vibrato, in sways a second; 0 is usual"`
	Trill     int               `json:"trill,omitempty" minimum:"0" maximum:"4" doc:"half steps up to the other note"`
	Turn      int               `json:"turn,omitempty" minimum:"0" maximum:"2" doc:"half steps up to the upper neighbour and down to the lower, at its end"`
	Double    int               `json:"double,omitempty" minimum:"0" maximum:"4" doc:"hammered double: half steps up and back at its beginning"`
	Rake      int               `json:"rake,omitempty" minimum:"0" maximum:"4" doc:"muted strings struck on the way to it"`
	PalmMute  bool              `json:"palmMute,omitempty" doc:"damped by the picking hand"`
	Staccato  bool              `json:"staccato,omitempty"`
	Accent    bool              `json:"accent,omitempty"`
	Dead      bool              `json:"dead,omitempty" doc:"muted, without pitch"`
	Stroke    score.PickingHand `json:"stroke,omitempty" enum:"down,up,finger,thumb" doc:"of the picking hand"`
}

// Guesses are score.Guesses as they are kept and sent.
type Guesses struct {
	PlaceGuessed  bool `json:"placeGuessed,omitempty" doc:"string and fret were found for it"`
	RhythmGuessed bool `json:"rhythmGuessed,omitempty" doc:"where it begins was moved, or read from the look of the text"`
	BendGuessed   bool `json:"bendGuessed,omitempty" doc:"the bend was rounded to quarter tones"`
	JoinGuessed   bool `json:"joinGuessed,omitempty" doc:"how it is joined to the one before was read from how it sounds"`
}

// LineNote is a note of a line. Its place is that of the instrument the line is
// written for; on another one its pitch is what counts.
type LineNote struct {
	ID     int    `json:"id,omitempty" minimum:"0" maximum:"1000000000" doc:"the page's own number of the note; it comes back with it"`
	Start  int    `json:"start" minimum:"-11520" maximum:"11796480" doc:"ticks from the first bar, 960 to the quarter; negative in a pickup"`
	Length int    `json:"length" minimum:"1" maximum:"11796480" doc:"ticks"`
	Note   string `json:"note" maxLength:"8" doc:"as it sounds where it is fretted, such as Bb3"`
	String int    `json:"string,omitempty" minimum:"0" maximum:"8" doc:"1 is the highest; 0 has a place found for it"`
	Fret   int    `json:"fret" minimum:"0" maximum:"27"`
	Finger int    `json:"finger,omitempty" minimum:"0" maximum:"4"`
	Named  string `json:"named,omitempty" maxLength:"20" doc:"a chord symbol above it, of what it begins"`
	Ornaments
	Guesses
}

// NoteOf is a note of a score as it is kept.
func NoteOf(n score.Note) LineNote {
	return LineNote{n.ID, n.Start, n.Length, n.Pitch.String(), n.String, n.Fret, n.Finger, n.Named, Ornaments(n.Ornaments), Guesses(n.Guesses)}
}

// LineNotes makes the notes of a score those of a line.
func LineNotes(notes []score.Note) []LineNote {
	list := make([]LineNote, len(notes))
	for i, n := range notes {
		list[i] = NoteOf(n)
	}
	return list
}

// NoteError says which note of a line cannot be read.
type NoteError struct {
	Index int
	Note  string
	Err   error
}

func (e *NoteError) Error() string { return fmt.Sprintf("note %d: %v", e.Index+1, e.Err) }

// ScoreNotes makes the notes of a line those of a score. One whose pitch is not
// said is called what name says of its place. The error is a *[NoteError].
func ScoreNotes(notes []LineNote, name func(tick int, at neck.Placement) (pitch.Pitch, error)) ([]score.Note, error) {
	list := make([]score.Note, len(notes))
	for i, n := range notes {
		to := score.Note{ID: n.ID, Start: n.Start, Length: n.Length, Placement: neck.Placement{String: n.String, Fret: n.Fret}, Finger: n.Finger, Named: n.Named,
			Ornaments: score.Ornaments(n.Ornaments), Guesses: score.Guesses(n.Guesses)}
		var err error
		if n.Note == "" {
			to.Pitch, err = name(n.Start, to.Placement)
		} else {
			to.Pitch, err = pitch.ParsePitch(n.Note)
		}
		if err != nil {
			return nil, &NoteError{i, n.Note, err}
		}
		list[i] = to
	}
	return list, nil
}

// Numbered gives the notes without a number of their own one, the same each time
// they are read, so that two who change a line speak of the same notes.
func Numbered(notes []LineNote) []LineNote {
	out := append([]LineNote{}, notes...)
	last := 0
	for _, n := range out {
		last = max(last, n.ID)
	}
	for i := range out {
		if out[i].ID == 0 {
			last++
			out[i].ID = last
		}
	}
	return out
}

// LickNote is lick.Note as it is kept and sent.
type LickNote struct {
	Start  int            `json:"start" minimum:"-11520" maximum:"61440" doc:"ticks from the lick's first beat, 960 to the quarter; negative in a pickup"`
	Length int            `json:"length" minimum:"1" maximum:"61440" doc:"ticks"`
	Degree harmony.Degree `json:"degree" maxLength:"4" doc:"above the root of the chord, or of the key"`
	Octave int            `json:"octave" minimum:"-3" maximum:"4" doc:"octaves above the lick's own root"`
	String int            `json:"string,omitempty" minimum:"0" maximum:"8" doc:"where it would rather lie; 0 is no wish"`
	Ornaments
}

// LickNotes makes the notes of a lick those that are kept.
func LickNotes(notes []lick.Note) []LickNote {
	list := make([]LickNote, len(notes))
	for i, n := range notes {
		list[i] = LickNote{n.Start, n.Length, n.Degree, n.Octave, n.String, Ornaments(n.Ornaments)}
	}
	return list
}

// Phrase makes what is kept a lick.
func Phrase(chord string, ofKey bool, notes []LickNote) lick.Lick {
	l := lick.Lick{Chord: chord, OfKey: ofKey, Notes: make([]lick.Note, len(notes))}
	for i, n := range notes {
		l.Notes[i] = lick.Note{Start: n.Start, Length: n.Length, Degree: n.Degree, Octave: n.Octave, String: n.String, Ornaments: score.Ornaments(n.Ornaments)}
	}
	return l
}

// Home is lick.Home as it is kept and sent.
type Home struct {
	Chord  string `json:"chord,omitempty" maxLength:"40" doc:"the symbol it was played over; of a lick of a key its tonic chord"`
	Tuning string `json:"tuning,omitempty" maxLength:"60" doc:"of the neck, as E2,A2,D3,G3,B3,E4"`
	Frets  int    `json:"frets,omitempty" minimum:"0" maximum:"27"`
	Capo   int    `json:"capo,omitempty" minimum:"0" maximum:"15"`
	Places []Spot `json:"places,omitempty" maxItems:"256" doc:"of each note, in order"`
}

// Lick is it as the core knows it.
func (h Home) Lick() lick.Home {
	out := lick.Home{Chord: h.Chord, Tuning: h.Tuning, Frets: h.Frets, Capo: h.Capo}
	for _, s := range h.Places {
		out.Places = append(out.Places, neck.Placement{String: s.String, Fret: s.Fret})
	}
	return out
}

// HomeOf makes a home that is kept.
func HomeOf(h lick.Home) Home {
	out := Home{Chord: h.Chord, Tuning: h.Tuning, Frets: h.Frets, Capo: h.Capo}
	for _, p := range h.Places {
		out.Places = append(out.Places, Spot{p.String, p.Fret})
	}
	return out
}
