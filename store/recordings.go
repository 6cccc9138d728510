package store

import (
	"database/sql"
	"io"
	"os"
	"path/filepath"
	"time"

	"gorm.io/gorm"
)

// Recording is a file of sound, or of a picture with sound, that a player learns from, and what was found in it.
type Recording struct {
	Kept
	Title   string
	Remark  string
	Hash    string // of its file; empty where there is none yet
	Bytes   int64
	Media   string  // media type of the file
	Seconds float64 // that it lasts; 0 is not known yet
	Chart   uint    // number of the chart that it plays; 0 is none
	Key     string  // it is in; empty is not known
	Tempo   float64 // quarter notes a minute, in the middle; 0 is not known
	Settled int     // notes that a player has settled
	Hearing Hearing `gorm:"serializer:json"`
}

// Hearing is what was found in a recording, and what its player looks at.
type Hearing struct {
	Cents   float64     `json:"cents" minimum:"-100" maximum:"100" doc:"that its pitch lies above that of instruments in tune"`
	Beats   int         `json:"beats" minimum:"1" maximum:"16" doc:"in a bar"`
	Anchors []Anchor    `json:"anchors" maxItems:"2000" doc:"where beats fall, in order; between them they are even. Fewer than two say nothing"`
	First   int         `json:"first" minimum:"-512" maximum:"512" doc:"the bar of the chart, from 0, that begins with beat 0"`
	Feel    string      `json:"feel" maxLength:"40" doc:"as of charts; empty is not known"`
	Chords  string      `json:"chords" maxLength:"8000" doc:"those of its bars from beat 0 on, as charts are written, where no chart says them"`
	Markers []Marker    `json:"markers" maxItems:"200"`
	From    float64     `json:"from" minimum:"0" maximum:"86400" doc:"seconds; the stretch in hand"`
	To      float64     `json:"to" minimum:"0" maximum:"86400" doc:"no later than from: none is in hand"`
	Low     int         `json:"low" minimum:"0" maximum:"36" doc:"frets of the position in which its notes are laid"`
	High    int         `json:"high" minimum:"0" maximum:"36"`
	Notes   []NoteByEar `json:"notes" maxItems:"4000" doc:"in order of time"`
	Make    *Made       `json:"make,omitempty" doc:"what its file is made of, where it has none yet"`
}

// Passage is a stretch of a recording, from which something was learned.
type Passage struct {
	Recording uint    `json:"recording" minimum:"1" maximum:"4294967295" doc:"its number"`
	From      float64 `json:"from" minimum:"0" maximum:"86400" doc:"seconds"`
	To        float64 `json:"to" minimum:"0" maximum:"86400"`
}

// Made is what a recording without a file is made of, when it is first opened: a line that the band plays, as on an old tape.
type Made struct {
	Line  uint    `json:"line" minimum:"1" maximum:"4294967295"`
	Cents float64 `json:"cents" minimum:"-100" maximum:"100" doc:"that the tape is out of tune"`
}

// Anchor is a beat and when it falls.
type Anchor struct {
	Beat int     `json:"beat" minimum:"-100000" maximum:"100000"`
	At   float64 `json:"at" minimum:"0" maximum:"86400" doc:"seconds"`
}

// Marker names a moment.
type Marker struct {
	At    float64 `json:"at" minimum:"0" maximum:"86400" doc:"seconds"`
	Title string  `json:"title" maxLength:"80"`
}

// NoteByEar is a note that was heard in a recording, a guess until a player has settled it.
type NoteByEar struct {
	ID      int     `json:"id" minimum:"1" maximum:"1000000000"`
	At      float64 `json:"at" minimum:"0" maximum:"86400" doc:"seconds"`
	Length  float64 `json:"length" minimum:"0" maximum:"600" doc:"seconds"`
	Pitch   int     `json:"pitch" minimum:"0" maximum:"127" doc:"MIDI number where it is fretted; bent, it sounds higher"`
	Bend    float64 `json:"bend,omitempty" minimum:"0" maximum:"5" doc:"half steps that it was bent up by"`
	Join    string  `json:"join,omitempty" enum:",hammer-on,pull-off,slide" doc:"how it is reached from the one before; else it is struck"`
	Vibrato bool    `json:"vibrato,omitempty"`
	Sure    float64 `json:"sure" minimum:"0" maximum:"1" doc:"how sure the ear is"`
	Settled bool    `json:"settled,omitempty" doc:"its player says that it is right"`
	String  int     `json:"string,omitempty" minimum:"0" maximum:"12" doc:"where its player has it; 0 lets the hand decide"`
	Fret    int     `json:"fret,omitempty" minimum:"0" maximum:"36"`
}

func (r *Recording) derive() {
	h := &r.Hearing
	h.Anchors, h.Markers, h.Notes = listed(h.Anchors), listed(h.Markers), listed(h.Notes)
	r.Tempo, r.Settled = 0, 0
	if n := len(h.Anchors); n > 1 && h.Anchors[n-1].At > h.Anchors[0].At {
		r.Tempo = 60 * float64(h.Anchors[n-1].Beat-h.Anchors[0].Beat) / (h.Anchors[n-1].At - h.Anchors[0].At)
	}
	for _, n := range h.Notes {
		if n.Settled {
			r.Settled++
		}
	}
}

// RecordingSummary is a recording in a list. Problem says why it cannot be read.
type RecordingSummary struct {
	ID             uint
	Tag            Tag
	Title, Hash    string
	Bytes          int64
	Media          string
	Seconds, Tempo float64
	Chart          uint
	Key            string
	Settled        int
	UpdatedAt      time.Time
	Problem        string
}

// Recordings lists the recordings, the one changed last first.
func (s *Store) Recordings(p Page) ([]RecordingSummary, error) {
	return summaries(s, recorded, p,
		func(rows *sql.Rows, r *RecordingSummary) error {
			return rows.Scan(&r.ID, &r.Title, &r.Tag, &r.Hash, &r.Bytes, &r.Media, &r.Seconds, &r.Chart, &r.Key, &r.Tempo, &r.Settled, &r.UpdatedAt)
		},
		func(id uint, title, says string) RecordingSummary {
			return RecordingSummary{ID: id, Title: title, Problem: says}
		})
}

// CountRecordings is how many recordings there are, or are found.
func (s *Store) CountRecordings(p Page) (int, error) { return s.count(recorded, p) }

// Recording finds one.
func (s *Store) Recording(id uint) (Recording, error) { return one[Recording](s, id) }

// CreateRecording stores a new recording, without its file, and gives it its number and version.
func (s *Store) CreateRecording(r *Recording) error { return create[Recording](s, r) }

// ChangeRecording lets do alter what a player says of a recording; its file stays.
func (s *Store) ChangeRecording(id uint, match Tag, do func(*Recording) error) (Recording, error) {
	return change(s, id, match, []any{"title", "remark", "seconds", "chart", "key", "tempo", "settled", "hearing"}, do)
}

// DeleteRecording marks a recording as deleted. Its file stays for [fileStays], so that it can be taken back.
func (s *Store) DeleteRecording(id uint, match Tag) error { return remove[Recording](s, id, match) }

// RestoreRecording takes a deletion back.
func (s *Store) RestoreRecording(id uint) (Recording, error) { return restore[Recording](s, id) }

// fileStays is how long the file of a recording that was deleted stays.
const fileStays = 30 * 24 * time.Hour

// forgetRecordings lets go of the files of recordings that were deleted long ago.
func (s *Store) forgetRecordings(now time.Time) error {
	return s.write(func(tx *gorm.DB) error {
		return tx.Exec("UPDATE recordings SET hash = '', bytes = 0 WHERE hash <> '' AND deleted_at < ?", now.Add(-fileStays)).Error
	})
}

// KeepRecording puts the file of a recording beside the database, in place of the one before.
func (s *Store) KeepRecording(id uint, media string, file io.Reader) (Recording, error) {
	if _, err := s.Recording(id); err != nil {
		return Recording{}, err
	}
	hash, size, err := recordingShelf.put(filepath.Dir(s.path), file)
	if err != nil {
		return Recording{}, s.fault(err)
	}
	return change(s, id, Any, []any{"hash", "bytes", "media"}, func(r *Recording) error {
		r.Hash, r.Bytes, r.Media = hash, size, media
		return nil
	})
}

// RecordingFile opens the file of a recording, and tells what it is. The caller closes it.
func (s *Store) RecordingFile(id uint) (*os.File, Recording, error) {
	r, err := s.Recording(id)
	if err != nil {
		return nil, r, err
	}
	if r.Hash == "" {
		return nil, r, ErrNotFound
	}
	f, err := os.Open(filepath.Join(filepath.Dir(s.path), recordingShelf.file(r.Hash)))
	if err != nil {
		return nil, r, &Fault{Unreadable, "the file of this recording is no longer beside the database; what was found in it is whole. Open the file again", err}
	}
	return f, r, nil
}
