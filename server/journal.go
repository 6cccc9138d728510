package server

import (
	"errors"
	"sync"
	"time"

	"undaris/core/planner"
	"undaris/store"
)

// journal follows the log of whose turn it is: what it tells is advanced by each line that was
// noted, and kept now and then, so that a start reads only the last few lines.
type journal struct {
	mu      sync.Mutex
	player  uint
	picture *planner.Picture              // nil where nothing was read yet
	fresh   map[store.Slot]*planner.Tally // counted since it was kept last
	pending int                           // lines, since then
	aims    map[followed]*planner.Following

	repaired int // lines that bore a day to come, since the program began
}

// followed is an aim since a line of the log.
type followed struct {
	aim   planner.Aim
	since uint
}

var errClosing = errors.New("the library is being closed")

// keepAfter is after how many lines what a log adds up to is kept.
const keepAfter = 256

// forget has everything read anew.
func (j *journal) forget() {
	j.picture, j.fresh, j.pending, j.aims = nil, map[store.Slot]*planner.Tally{}, 0, map[followed]*planner.Following{}
}

// picture advances by what was logged since it was asked for last. look is called while nothing is added.
func (s *server) picture(look func(*planner.Picture) error) error {
	j := &s.journal
	j.mu.Lock()
	defer j.mu.Unlock()
	err := s.advance()
	if errors.Is(err, store.ErrTallies) {
		err = s.anew()
	}
	if err != nil {
		j.forget() // what was half done is done again
		return err
	}
	return look(j.picture)
}

// follow advances where nobody is at it. What goes wrong is told to whoever asks.
func (s *server) follow() {
	if s.journal.mu.TryLock() {
		defer s.journal.mu.Unlock()
		if s.advance() != nil {
			s.journal.forget()
		}
	}
}

// advance reads the new lines of the log of whose turn it is.
func (s *server) advance() error {
	j := &s.journal
	player, err := s.store.Player()
	if err != nil {
		return err
	}
	if j.picture == nil || j.player != player.ID { // another player, another log
		if err := s.keepPicture(); err != nil {
			return err
		}
		j.forget()
		j.player = player.ID
		if j.picture, err = s.store.Picture(j.player, planner.Fitted, 0); err != nil {
			return err
		}
		if j.picture == nil {
			j.picture = planner.NewPicture(planner.Fitted)
		}
	}
	if err := s.readOn(); err != nil {
		return err
	}
	return s.untimely()
}

// untimely repairs lines that bear a day to come, as a clock that ran ahead wrote them, and reads the log anew.
func (s *server) untimely() error {
	j, now := &s.journal, time.Now()
	if j.picture.Day <= planner.Day(now)+1 { // a day ahead may be another time zone
		return nil
	}
	n, err := s.store.RepairClock(j.player, now)
	if err != nil {
		return err
	}
	j.repaired += n
	j.forget()
	j.picture = planner.NewPicture(planner.Fitted)
	return s.readOn()
}

// readOn reads the lines that are not in the picture yet.
func (s *server) readOn() error {
	j := &s.journal
	for l, err := range s.store.Logged(store.LogAsk{Player: j.player, After: j.picture.Read}) {
		if err != nil {
			return err
		}
		if s.store.Closing() {
			return errClosing // the rest is read at the next start
		}
		j.pending++
		if l.Lost {
			j.picture.Lost++
			j.picture.Read = l.ID
			continue
		}
		p := l.Played()
		j.picture.Add(p)
		at := store.SlotOf(p, l.Tuning)
		if j.fresh[at] == nil {
			j.fresh[at] = &planner.Tally{}
		}
		j.fresh[at].Add(p)
		if j.pending >= keepAfter {
			if err := s.keepPicture(); err != nil {
				return err
			}
		}
	}
	return nil
}

// unlog takes a line out of the log, or puts it back: what is known is learned anew from there on.
func (s *server) unlog(id uint, gone bool) error {
	j := &s.journal
	j.mu.Lock()
	defer j.mu.Unlock()
	if err := s.advance(); err != nil {
		return err
	}
	if err := s.keepPicture(); err != nil {
		return err
	}
	if err := s.store.Unlog(j.player, id, gone); err != nil {
		return missing("line in the log", err)
	}
	j.forget()
	return nil
}

// keepPicture keeps what was read since that was done last.
func (s *server) keepPicture() error {
	j := &s.journal
	if j.picture == nil || j.pending == 0 {
		return nil
	}
	if err := s.store.KeepPicture(j.player, j.picture, j.fresh); err != nil {
		return err
	}
	j.fresh, j.pending = map[store.Slot]*planner.Tally{}, 0
	return nil
}

// counted is what a part of the log adds up to. It is asked while one looks at the picture.
func (s *server) counted(of LogQuery) (*planner.Tally, error) {
	if of == (LogQuery{}) {
		return s.journal.picture.Tally, nil
	}
	var t *planner.Tally
	err := s.keepPicture()
	if err == nil {
		t, err = s.store.Tally(of.tallied(s.journal.player))
	}
	if errors.Is(err, store.ErrTallies) {
		if err = s.anew(); err == nil {
			t, err = s.store.Tally(of.tallied(s.journal.player))
		}
	}
	return t, err
}

// anew reads the whole log once more, and keeps what it adds up to.
func (s *server) anew() error {
	j := &s.journal
	if err := s.store.ForgetTallies(j.player); err != nil {
		return err
	}
	j.forget()
	if err := s.advance(); err != nil {
		return err
	}
	return s.keepPicture()
}

// progress is how far an aim is since a line of the log. What was read of it before is not read again. It is asked while one looks at the picture.
func (s *server) progress(a planner.Aim, since uint) (planner.Progress, error) {
	j := &s.journal
	key := followed{a, since}
	f := j.aims[key]
	if f == nil {
		f = a.Follow(since)
		j.aims[key] = f
	}
	kind := ""
	if f.Calls() {
		kind = store.LoggedCall
	}
	for l, err := range s.store.Logged(store.LogAsk{Player: j.player, After: f.Read, Chart: a.Chart, Line: a.Line, Kind: kind}) {
		if err != nil {
			return planner.Progress{}, err
		}
		if f.Read = l.ID; !l.Lost {
			f.Add(l.Played())
		}
	}
	return f.Progress(), nil
}
