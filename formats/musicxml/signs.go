package musicxml

import (
	"fmt"
	"strings"

	"undaris/core/score"
)

// joins writes slides, and on the notation the slurs of hammer-ons and pull-offs, which stand
// beside the other notations.
func (w *writer) joins(i, staff int) {
	struck := func(j score.Join) bool { return staff == 1 && (j == score.Hammer || j == score.PullOff) }
	if struck(w.s.Notes[i].Join) {
		w.p(`<slur type="stop" number="1"/>`)
	}
	if to, ok := w.s.Joined(i); ok && struck(w.s.Notes[to].Join) {
		w.p(`<slur type="start" number="1"/>`)
	}
	if w.s.Notes[i].Join == score.Slide {
		w.p(`<slide type="stop" number="1" line-type="solid"/>`)
	}
	if to, ok := w.s.Joined(i); ok && w.s.Notes[to].Join == score.Slide {
		w.p(`<slide type="start" number="1" line-type="solid"/>`)
	}
}

func (w *writer) ornaments(o score.Ornaments) {
	if o.Trill > 0 || o.Vibrato {
		w.p(`<ornaments>`)
		switch {
		case o.Trill == 1:
			w.p(`<trill-mark trill-step="half"/>`)
		case o.Trill == 2:
			w.p(`<trill-mark trill-step="whole"/>`)
		case o.Trill > 2:
			w.p(`<trill-mark/><other-ornament>trill %d</other-ornament>`, o.Trill)
		}
		switch {
		case o.Vibrato && o.Trill > 0:
			w.p(`<other-ornament>vibrato</other-ornament>`)
		case o.Vibrato:
			w.p(`<wavy-line type="start" number="1"/><wavy-line type="stop" number="1"/>`)
		}
		w.p(`</ornaments>`)
	}
}

// strokes are the signs of the picking hand.
var strokes = map[score.PickingHand]string{
	score.DownStroke: `<down-bow/>`, score.UpStroke: `<up-bow/>`, score.ByFinger: `<pluck>i</pluck>`, score.ByThumb: `<pluck>p</pluck>`,
}

// hammers are the joins that the left hand strikes.
var hammers = []struct {
	join     score.Join
	tag, say string
}{{score.Hammer, "hammer-on", "H"}, {score.PullOff, "pull-off", "P"}}

// technical writes the technical signs and the articulations.
func (w *writer) technical(i, staff int, tied bool) {
	n := w.s.Notes[i]
	var t, articulations strings.Builder
	if !tied {
		t.WriteString(strokes[n.Stroke])
	}
	if n.Finger > 0 && !tied {
		fmt.Fprintf(&t, `<fingering>%d</fingering>`, n.Finger)
	}
	if staff == 2 {
		fmt.Fprintf(&t, `<string>%d</string><fret>%d</fret>`, n.String, n.Fret)
	}
	if !tied {
		for _, j := range hammers {
			if staff == 1 { // a slur stands for it there: some readers take it for a tie
				break
			}
			if n.Join == j.join {
				fmt.Fprintf(&t, `<%s type="stop" number="1"/>`, j.tag)
			}
			if to, ok := w.s.Joined(i); ok && w.s.Notes[to].Join == j.join {
				fmt.Fprintf(&t, `<%s type="start" number="1">%s</%s>`, j.tag, j.say, j.tag)
			}
		}
		if n.Bend > 0 {
			pre := ""
			if n.PreBend {
				pre = `<pre-bend/>`
			}
			fmt.Fprintf(&t, `<bend><bend-alter>%g</bend-alter>%s</bend>`, float64(n.Bend)/2, pre)
			if n.Release {
				fmt.Fprintf(&t, `<bend><bend-alter>-%g</bend-alter><release/></bend>`, float64(n.Bend-n.ReleaseTo)/2)
			}
		}
		for _, way := range score.Ways {
			v := way.Of(n.Ornaments)
			switch x := way.XML; {
			case v == 0:
			case x.Tag != "" && staff == 2: // it stands on the notation
			case x.Tag != "":
				fmt.Fprintf(&articulations, `<%s/>`, x.Tag)
			case strings.Contains(x.Words, "%"):
				fmt.Fprintf(&t, `<other-technical>`+x.Words+`</other-technical>`, v)
			case x.Words != "":
				fmt.Fprintf(&t, `<other-technical>%s</other-technical>`, x.Words)
			}
		}
	}
	if t.Len() > 0 {
		w.p(`<technical>%s</technical>`, t.String())
	}
	if articulations.Len() > 0 {
		w.p(`<articulations>%s</articulations>`, articulations.String())
	}
}
