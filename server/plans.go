package server

import (
	"fmt"

	"undaris/core/blend"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/store"
)

// paletteOf is the plan's palette. The minor pentatonic comes first, since it is
// the box a player most likely owns already.
func paletteOf(plan store.Plan) string {
	if plan.Palette == "" {
		return blend.Palettes[0].ID
	}
	return plan.Palette
}

// picks are the places chosen in a window.
func picks(plan store.Plan, w neck.Window) (out []neck.Placement) {
	for _, text := range plan.Picks {
		if pw, p, err := readPick(text); err == nil && pw == w {
			out = append(out, p)
		}
	}
	return out
}

func readPick(text string) (w neck.Window, p neck.Placement, err error) {
	if n, err := fmt.Sscanf(text, "%d-%d %d:%d", &w.Low, &w.High, &p.String, &p.Fret); err != nil || n != 4 {
		return w, p, say.Errorf("%q is no chosen place; it is written low-high string:fret, such as 0-4 3:4", text)
	}
	return w, p, nil
}

// checkPlan says what in a plan cannot be kept. What a plan says of a chart's
// bars is checked against the chart; whether a pin can be played depends on the
// neck and is told with the thread.
func checkPlan(plan store.Plan, c store.Chart) error {
	for _, text := range plan.Picks {
		if _, _, err := readPick(text); err != nil {
			return at("body.picks", text, err)
		}
	}
	for _, text := range plan.Pins {
		if _, _, _, _, err := readPin(text); err != nil {
			return at("body.pins", text, err)
		}
	}
	if _, err := blend.PaletteByID(paletteOf(plan)); err != nil {
		return at("body.palette", plan.Palette, err)
	}
	if _, err := (RankQuery{plan.Targets, plan.Nearest}).ranking("body.targets"); err != nil {
		return err
	}
	p, key, err := progression(c)
	if err != nil {
		return err
	}
	if _, err := newWeave(neck.Standard(), p, key, plan, "body."); err != nil {
		return err
	}
	_, err = imagined(p, key, plan)
	return err
}

// fitted is a plan after its chart has changed: imagined bars that the chart no
// longer has are dropped, the rest is kept.
func fitted(plan store.Plan, c store.Chart) store.Plan {
	if p, key, err := progression(c); err == nil {
		if _, err := imagined(p, key, plan); err != nil {
			plan.Imagined = nil
		}
	}
	return plan
}
