package score

// Straighten writes swung eighths as eighths: in a beat that is divided at its
// second third and nowhere else, what begins or ends there moves to the half. It
// counts the notes whose beginning moved. The feel plays them long–short again.
func Straighten(notes []Note) (moved int) {
	const half, third = Tick / 2, 2 * Tick / 3
	other := map[int]bool{} // beats divided elsewhere
	for _, n := range notes {
		for _, at := range []int{n.Start, n.End()} {
			if in := at - floor(at, Tick)*Tick; in != 0 && in != third {
				other[floor(at, Tick)] = true
			}
		}
	}
	straight := func(at int) int {
		if beat := floor(at, Tick); at-beat*Tick == third && !other[beat] {
			return beat*Tick + half
		}
		return at
	}
	for i := range notes {
		n := &notes[i]
		start, end := straight(n.Start), straight(n.End())
		if start != n.Start {
			moved++
		}
		n.Start, n.Length = start, end-start
	}
	return moved
}

// Swung tells whether more beats are divided at their second third alone than at
// their half: eighths that swing.
func Swung(notes []Note) bool {
	swung := 0
	for _, n := range notes {
		switch in := n.Start - floor(n.Start, Tick)*Tick; in {
		case Tick / 2:
			swung--
		case 2 * Tick / 3:
			swung++
		case Tick / 3:
			swung-- // a triplet
		}
	}
	return swung > 0
}
