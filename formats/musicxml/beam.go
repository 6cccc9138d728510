package musicxml

import "undaris/core/score"

// beams are the beams of a measure's strokes, a word for each level of each stroke: notes of an
// eighth or shorter are joined within a beat, unless a rest stands between.
func beams(strokes []score.Stroke) [][]string {
	out := make([][]string, len(strokes))
	for from := 0; from < len(strokes); {
		to := from + 1
		if levels(strokes[from]) > 0 {
			for to < len(strokes) && levels(strokes[to]) > 0 && strokes[to].At/score.Tick == strokes[from].At/score.Tick {
				to++
			}
			join(strokes[from:to], out[from:to])
		}
		from = to
	}
	return out
}

// levels is how many beams a stroke has: an eighth one, a sixteenth two. Rests have none.
func levels(k score.Stroke) (n int) {
	for base := 8; base <= k.Value.Base && k.Notes != nil; base *= 2 {
		n++
	}
	return n
}

// join beams strokes that belong together, level by level. A stroke alone on its level has a
// hook that points into the group.
func join(group []score.Stroke, out [][]string) {
	if len(group) < 2 {
		return
	}
	for level := 1; ; level++ {
		any := false
		for i, k := range group {
			before := i > 0 && levels(group[i-1]) >= level
			after := i+1 < len(group) && levels(group[i+1]) >= level
			if levels(k) < level {
				continue
			}
			any = true
			word := "continue"
			switch {
			case !before && after:
				word = "begin"
			case before && !after:
				word = "end"
			case !before && i > 0:
				word = "backward hook"
			case !before:
				word = "forward hook"
			}
			out[i] = append(out[i], word)
		}
		if !any {
			return
		}
	}
}
