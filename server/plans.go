package server

import (
	"cmp"
	"strings"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/store"
)

// onTheNeck reads a kept chart and its plan, in the hands of a player.
func onTheNeck(c store.Chart, player store.Player) (out chart.Chart, err error) {
	out = chart.Chart{Title: c.Title, Tempo: c.Tempo, Swing: band.Swings(c.Feel)}
	if out.In, out.Hand, err = playerNeck(player); err != nil {
		return out, err
	}
	if out.Band, out.Key, err = progression(c); err != nil {
		return out, err
	}
	if out.Plan, err = readPlan(c.Plan); err != nil {
		return out, err
	}
	out.Solo, err = imagined(out.Band, out.Key, c.Plan.Imagined)
	return out, err
}

// readPlan reads what a player decided. The minor pentatonic comes first, since it
// is the box a player most likely owns already.
func readPlan(p store.Plan) (out chart.Plan, err error) {
	if out.Palette, err = blend.PaletteByID(cmp.Or(p.Palette, blend.Palettes[0].ID)); err != nil {
		return out, at("body.palette", p.Palette, err)
	}
	if out.By, err = (RankQuery{strings.Join(p.Targets, ","), p.Nearest}).ranking("body.targets"); err != nil {
		return out, err
	}
	if out.Weave.Mode, err = crossing.ModeByID(cmp.Or(p.Thread, crossing.Modes[0].ID)); err != nil {
		return out, at("body.thread", p.Thread, err)
	}
	if len(p.Targets) > 0 {
		out.Weave.Mode = out.Weave.Mode.In(out.By.Order)
	}
	out.Weave.Allowed = map[string][]harmony.Role{}
	for numeral, names := range p.Allowed {
		roles, err := harmony.RolesOf(names...)
		if err != nil {
			return out, at("body.allowed", names, err)
		}
		if len(roles) > 0 {
			out.Weave.Allowed[numeral] = roles
		}
	}
	if out.Weave.Strings, err = neck.ParseStrings(p.Strings); err != nil {
		return out, at("body.strings", p.Strings, err)
	}
	out.Picks = each(p.Picks, func(k store.Pick) chart.Pick {
		return chart.Pick{Region: k.Frets.Region(), Placement: neck.Placement(k.Spot)}
	})
	out.Pins = each(p.Pins, func(k store.Pin) chart.Pin {
		return chart.Pin{Region: k.Frets.Region(), Bar: k.Bar - 1, Beat: k.Beat - 1, Placement: neck.Placement(k.Spot)}
	})
	return out, nil
}

// imagined puts the soloist's bars in place of the band's.
func imagined(played form.Progression, key form.Key, own *store.Imagined) (form.Progression, error) {
	if own == nil {
		return played, nil
	}
	bars, err := form.Read(own.Text, played.Beats, key)
	if err != nil {
		return played, at("body.imagined", own.Text, err)
	}
	solo, err := chart.Imagine(played, bars, own.Bar)
	return solo, at("body.imagined", own.Bar, err)
}

// checkPlan says what in a plan cannot be kept. What a plan says of a chart's
// bars is checked against the chart; whether a pin can be played depends on the
// neck and is told with the thread.
func checkPlan(plan store.Plan, c store.Chart) error {
	if _, err := readPlan(plan); err != nil {
		return err
	}
	p, key, err := progression(c)
	if err != nil {
		return err
	}
	_, err = imagined(p, key, plan.Imagined)
	return err
}

// fitted is a plan after its chart has changed: imagined bars that the chart no
// longer has are dropped, the rest is kept.
func fitted(plan store.Plan, c store.Chart) store.Plan {
	if checkPlan(plan, c) != nil {
		plan.Imagined = nil
	}
	return plan
}
