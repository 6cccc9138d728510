package demo

import (
	"fmt"
	"strings"

	"undaris/core/lick"
	"undaris/store"
)

// licks are the band's own phrases, in the text of core/lick; written for
// Undaris. A chord of "key" or "key m" makes a lick of the key.
var licks = []struct{ title, chord, tags, text string }{
	{"Cast Off", "7", "pickup", "5,/e 6,/e 7,/e | R/q 3/e 5/e 6/q 5/q"},
	{"Gull Cry", "7", "trill", "b3/q%1 R/e -/e b7,/e R/e b3/e 3/es"},
	{"Ninth Bell", "7", "ending", "R/e 3/e 5/e b7/e 9'/h.~"},
	{"Last Light", "7", "ending", "9'/t R'/t 6/t 5/t b3/t 3/t R/h~"},
	{"Quay Lamps", "7", "ending", "5/e 6/e b9'/e R'/q.~"},
	{"Last Rope", "7", "ending pickup", "b7,/e 7,/e | R/q 3/e 5/e 6/h~"},
	{"Gone Ashore", "7", "ending chromatic", "R'/q b7/e 6/e b13/e 5/e 9'/q~"},
	{"Shut the Hatch", "key m", "ending pickup", "b3/e R/e b7,/e 7,/e | R/h~"},
	{"All Ashore", "7", "ending", "-/e 6/e 5/e b3/e 3/es R/e 6,/q R/h~"},
	{"Short Notice", "7", "turnaround", "R/e b7,/e 6,/e b13,/e 5,/e 11,/e 3,/q"},
	{"Climbing Out", "7", "turnaround", "R/e 3,/e 11,/e b5,/e 5,/q R/q"},
	{"Tollgate", "7", "turnaround", "3+R'/t R'/t R'/t b3+R'/t R'/t R'/t 9+R'/t R'/t R'/t R'/q~"},
	{"Back to the Slip", "7", "turnaround", "R'/t b7/t R'/t b7/t 6/t b7/t 6/t b13/t 6/t 5/q"},
	{"Turn the Boat", "7", "turnaround", "-/e R'/e b7/e 6/e b13/e 5/e 5/q -/q R/e b3/e 3/eh 5/e 5/q"},
	{"Ropes Away", "7", "turnaround", "3/q b3/e 9/e R/q -/e b7,/e 6,/e b13,/e 5,/q"},
	{"Mooring Post", "key m", "call box", "-/q 5/e b7/e R'/q~ -/q -/q 5/e b7/e 11/q~ R/q"},
	{"Two Gulls", "7", "call blend", "-/e b3/e 3/eh 5/e R'/q -/q -/e b3/e 3/eh R/e 6,/q R/q~"},
	{"Answer from the Quay", "key m", "call bend", "-/q 11/q^2 R'/e b7/e -/q -/q 11/q^2_ b3/e R/e~"},
	{"Signal Lamp", "7", "call double-stop", "-/e 3+5/e 3+5/e -/e 3+5/q -/q -/e b3+b5/e 3+5/e -/e R+3/q~"},
	{"Grey Morning", "m7", "call minor", "R/q b3/e 5/e 9/q~ -/q R/q b3/e 5/e b7/q~"},
	{"Foghorn", "key m", "double-stop", "-/e 5+b7/e> 5+b7/e b3+5/e R+11/q R/q~"},
	{"Fourth Mate", "7", "double-stop", "5+R'/e 5+R'/e -/e 5+R'/e b7+b3'/q 5+R'/q"},
	{"Sixth Berth", "7", "double-stop", "3+R'/q -/e 9+b7/e b3+7/e 3+R'/e R+6/q"},
	{"Twin Hulls", "7", "double-stop", "3+5/e 3+5/e b3+b5/e 3+5/e R+3/q b7,+9/q"},
	{"Buoy Chain", "7", "double-stop", "3+R'/e 3+R'/e 9+b7/e 3+R'/q."},
	{"Rising Water", "7", "chromatic", "5/t b13/t 6/t b7/q -/e R'/e 9'/q"},
	{"Half Step Home", "7", "chromatic pickup", "3/e b3/e 9/e b9/e | R/q~"},
	{"Down the Hatch", "7", "chromatic pickup", "R'/e 7/e b7/e 6/e | 5/q~"},
	{"Plank by Plank", "7", "chromatic", "R/e 9/e b3/e 3/es 11/e b5/e 5/q"},
	{"Chart Room", "7", "chromatic pickup", "3/e 11/e b5/e 5/e | b7/q"},
	{"Lee Side", "m7", "enclosure minor", "-/e 11/e 9/e b3/e 6/e b5/e 5/q"},
	{"Dry Dock", "7", "enclosure pickup", "b13/e b5/e 5/e 3/e 11/e b3/e | 3/qs"},
	{"Both Banks", "7", "enclosure pickup", "9/e 7,/e R/q 11/e b3/e | 3/qs~"},
	{"Round the Buoy", "7", "enclosure", "11/e b3/e 3/qs 6/e b5/e 5/q"},
	{"Slack Water", "7", "enclosure", "11/e b3/e 3/e b7/e 5/q"},
	{"Half Light", "m7b5", "arpeggio", "R/e b3/e b5/e b7/e b5/q"},
	{"Sunday Paint", "maj7", "arpeggio major pickup", "5,/e 7,/e | R/q. 3/e 5/e 7/e 6/q~"},
	{"Fog Bank", "m7", "arpeggio minor pickup", "b7,/e R/e b3/e 5/e b3/e | R/q~"},
	{"Cold Harbour", "m7", "arpeggio minor", "b3/e 5/e b7/e 9'/e b7/q~"},
	{"Kettle On", "m7", "arpeggio minor", "R/q b3/e 5/e b7/q"},
	{"Long Ladder", "7", "arpeggio pickup", "3/e 5/t b7/t R'/t 3'/e R'/e | b7/q~"},
	{"Falling Seventh", "7", "arpeggio pickup", "b7/e 5/e 3/e R/e | b7,/q"},
	{"From the Third", "7", "arpeggio pickup", "3,/e 5,/e | b7,/q 9/e R/e~ -/q b7,/e R/e"},
	{"Four Posts", "7", "arpeggio", "R/e 3/e b7/e 5/e 3/q"},
	{"Tiller Rope", "7", "blend pickup", "6,/e | R/e b3/e 3/eh R/e 6,/q"},
	{"Hawser", "7", "blend bend pickup", "9'/q^2_ R'/e b7/e 5/e b3/e | 3/qs~"},
	{"Ebb and Flow", "7", "blend", "b3/t 3/th 5/t 6/q 5/e b3/e R/q"},
	{"Brass Bell", "7", "blend", "5/e 6/e b3'/q^q R'/e 6/e 5/e 3/e"},
	{"Stern Wave", "7", "blend", "R/e 9/e b3/e 3/eh 5/e 3/e R/q~"},
	{"Two Lanterns", "7", "blend", "-/q 5/e 6/e R'/e 6/e b3/e 3/es R/q~"},
	{"Wet Boots", "7", "blend pickup", "6/e 5/e 3/e | R/q~"},
	{"Paint Locker", "7", "blend pickup", "5,/e 6,/e | R/e b3/e 3/eh 5/e R'/q~"},
	{"Deck Chair", "7", "blend pickup", "6/e R'/e 6/e 5/e b3/e | 3/qs~"},
	{"Loose Plank", "7", "blend bend pickup", "5/e 5/e^2 -/e 5/e 3/e | R/q~"},
	{"Low Slack", "key m", "box", "b7/e 5/e b5/e 11/e -/e b3/e R/q~"},
	{"Oilskin", "key m", "box", "R/s b3/s 11/sh 5/s b7/e 5/e 11/s b3/sp R/e b7,/q"},
	{"Anchor Up", "key m", "box bend pickup", "11/q^2 b7/e 5/e -/e 11/e^2_ | R/q~"},
	{"Slow Tide", "key m", "box bend", "R'/q b7/e 11/e^2_ R/q~"},
	{"Cross Wind", "key m", "box bend pickup", "11/e^2 5/e b3/e | R/q~"},
	{"Lantern Oil", "key m", "box bend pickup", "b7/e R'/e | b3'/q^q R'/e b7/e 5/h~"},
	{"Rope and Cleat", "key m", "box bend", "5/e b7/e 11/q^2_ b3/e R/e b7,/e R/e~"},
	{"Night Ferry", "key m", "box pickup", "5,/e b7,/e | R/q b3/e^q b7,/e R/q~"},
	{"Salt Stair", "key m", "box pickup", "5,/e b7,/e | R/e b3/e 11/e b3/e R/q~"},
	{"Bilge Pump", "key m", "box repeat", "b3/e^q R/e -/q b3/e^q R/e b7,/q"},
	{"Bell Buoy", "key m", "box repeat", "-/e R'/e R'/e b7/e R'/q b7/e 5/e~"},
	{"Ferry Queue", "key m", "box repeat", "5/e 5/e b7/e 5/q.~"},
	{"Coal Barge", "key m", "box chromatic", "11,/e b5,/e 5,/q -/e b7,/e R/q~"},
	{"Windlass", "key m", "box", "-/q b3/t 11/th b3/tp R/e b7,/e R/q~"},
	{"Dog Watch", "key m", "box pickup", "R/e b7,/e R/e b3/e^q | R/q~"},
	{"Tide Table", "key m", "box", "R'/e b7/e 11/t b3/tp R/t b7,/q~"},
	{"Gangway", "key m", "box", "R/e b3/e 11/eh b3/ep -/e b7,/e R/q~"},
}

// shelf is filled from the table above, the first one to show last.
func shelf(s *store.Store) (kept []store.Lick, err error) {
	for _, d := range licks {
		notes, err := lick.Parse(d.text)
		if err != nil {
			return nil, fmt.Errorf("demo lick %q: %w", d.title, err)
		}
		l := store.Lick{Title: d.title, Chord: d.chord, Notes: store.LickNotes(notes), Tags: strings.Fields(d.tags)}
		if mode, ok := strings.CutPrefix(d.chord, "key"); ok {
			l.OfKey, l.Chord = true, strings.TrimSpace(mode)
		}
		if err := s.CreateLick(&l); err != nil {
			return nil, err
		}
		kept = append(kept, l)
	}
	return kept, nil
}
