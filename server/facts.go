package server

import (
	"fmt"
	"strings"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
)

// facts are numbers of the core that the page reckons with, as it calls them.
var facts = []struct {
	name  string
	value int
	about string
}{
	{"quarter", score.Tick, "ticks to the quarter"},
	{"minTempo", form.MinTempo, "beats a minute"},
	{"maxTempo", form.MaxTempo, "beats a minute"},
	{"minSwing", form.MinSwing, "percent of a beat"},
	{"maxSwing", form.MaxSwing, "percent of a beat"},
	{"minFrets", neck.MinFrets, "of a neck"},
	{"maxFrets", neck.MaxFrets, "of a neck"},
}

// Facts are those numbers as a module of TypeScript.
func Facts() string {
	var b strings.Builder
	b.WriteString("/* Made from the core by `make types`. */\n")
	for _, f := range facts {
		fmt.Fprintf(&b, "/** %s */\nexport const %s = %d\n", f.about, f.name, f.value)
	}
	return b.String()
}
