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
	{"Gull Cry", "7", "trill", "b3/q%1 R/e b7,/e R/e b3/e 3/qs"},
	{"Ninth Bell", "7", "ending", "R/e 3/e 5/e b7/e 9'/h.~"},
	{"Last Light", "7", "ending", "9'/t R'/t 6/t 5/t b3/t 3/t R/h~"},
	{"All Ashore", "7", "ending", "b3/e 3/es 5/e 6/e R'/e 6/e 5/e 3/e R/h~"},
	{"Short Notice", "7", "turnaround", "R/e b7,/e 6,/e b13,/e 5,/e 11,/e 3,/q"},
	{"Climbing Out", "7", "turnaround", "R/e 3,/e 11,/e b5,/e 5,/q R/q"},
	{"Tollgate", "7", "turnaround", "3+R'/t R/t R/t b3+R'/t R/t R/t 9+R'/t R/t R/t R+R'/q"},
	{"Back to the Slip", "7", "turnaround", "R'/t b7/t R'/t b7/t 6/t b7/t 6/t b13/t 6/t 5/q"},
	{"Foghorn", "key m", "double-stop", "5+b7/e> 5+b7/e 11+5/e 5+b7/e b3+11/q R/q~"},
	{"Fourth Mate", "7", "double-stop", "5+R'/e 5+R'/e 6+9'/e 5+R'/e b7+b3'/q 5+R'/q"},
	{"Sixth Berth", "7", "double-stop", "3+R'/q 9+b7/q b3+7/e 3+R'/e R+6/q"},
	{"Twin Hulls", "7", "double-stop", "3+5/e 3+5/e b3+b5/e 3+5/e R+3/q b7,+9/q"},
	{"Rising Water", "7", "chromatic", "5/t b13/t 6/t b7/q 7/e R'/e 9'/q"},
	{"Half Step Home", "7", "chromatic", "3/e b3/e 9/e R/e b9/e R/e b7,/q"},
	{"Down the Hatch", "7", "chromatic", "R'/e 7/e b7/e 6/e b13/e 5/e 3/q"},
	{"Plank by Plank", "7", "chromatic", "R/e 9/e b3/e 3/es 11/e b5/e 5/q"},
	{"Lee Side", "m7", "enclosure minor", "11/e 9/e b3/q 6/e b5/e 5/q"},
	{"Dry Dock", "7", "enclosure", "b13/e b5/e 5/e 3/e 11/e b3/e 3/qs"},
	{"Both Banks", "7", "enclosure", "9/e 7,/e R/q 11/e b3/e 3/qs~"},
	{"Round the Buoy", "7", "enclosure", "11/e b3/e 3/qs 6/e b5/e 5/q"},
	{"Half Light", "m7b5", "arpeggio", "R/e b3/e b5/e b7/e b5/e b3/e R/q"},
	{"Sunday Paint", "maj7", "arpeggio major", "3/e 5/e 7/e 9'/e 7/q 5/e 3/e"},
	{"Fog Bank", "m7", "arpeggio minor", "5/e b3/e R/e b7,/e R/e 9/e b3/q~"},
	{"Cold Harbour", "m7", "arpeggio minor", "R/e b3/e 5/e b7/e 9'/q b7/e 5/e"},
	{"Long Ladder", "7", "arpeggio", "R/t 3/t 5/t b7/t R'/t 3'/t 5'/q 3'/q~"},
	{"Falling Seventh", "7", "arpeggio", "b7/e 5/e 3/e R/e b7,/q 5,/e b7,/e"},
	{"From the Third", "7", "arpeggio", "3/e 5/e b7/e 9'/e R'/q b7/e 5/e"},
	{"Four Posts", "7", "arpeggio", "R/e 3/e 5/e b7/e R'/e b7/e 5/e 3/e"},
	{"Wheelhouse", "7", "blend", "6,/e R/e b3/e 3/eh R/e 6,/e 5,/q"},
	{"Hawser", "7", "blend bend", "9'/q^2_ R'/e b7/e 5/e b3/e 3/qs~"},
	{"Ebb and Flow", "7", "blend", "b3/t 3/th 5/t 6/e 5/e b3/ep R/e 6,/e R/e"},
	{"Brass Bell", "7", "blend", "5/e 6/e b3'/q^q R'/e 6/e 5/e 3/e"},
	{"Slipstream", "7", "blend", "R/e 9/e b3/e 3/eh 5/e 3/e R/q~"},
	{"Two Lanterns", "7", "blend", "b3/e 3/es 5/e 6/e R'/q 6/e 5/e"},
	{"Low Slack", "key m", "box", "b7/e 5/e b5/e 11/e b3/e R/e b7,/e R/e"},
	{"Oilskin", "key m", "box", "R/s b3/s 11/sh 5/s b7/e 5/e 11/s b3/sp R/e b7,/q"},
	{"Anchor Up", "key m", "box bend", "11/q^2 b7/e 5/e 11/e^2_ b3/e R/q~"},
	{"Night Ferry", "key m", "box", "5,/e b7,/e | R/q. b3/e^q R/e b7,/e 5,/q~"},
	{"Bilge Pump", "key m", "box repeat", "b3/e^q R/e b3/e^q R/e b3/e^q R/e b7,/q"},
	{"Tide Table", "key m", "box", "-/e R'/e b7/e 5/e 11/t b3/tp R/t b7,/q~"},
	{"Rope and Cleat", "key m", "box bend", "5/e b7/e 11/q^2_ b3/e R/e b7,/e R/e~"},
	{"Gangway", "key m", "box", "R/e b3/e 11/eh b3/ep R/e b7,/ep R/q~"},
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
