package score

import (
	"math"

	"undaris/core/form"
	"undaris/core/pitch"
)

// share is the part of a melody's time, in hundredths, that goes to each tone
// in half steps above the tonic: for a blues or major key, over whose I, IV and V
// major and minor third and flat seventh are at home, and for a minor one.
var share = map[bool][12]float64{
	false: {19, 0.7, 6, 8, 14, 11, 2, 17, 0.7, 9, 11, 2.6},
	true:  {21, 0.7, 6, 17, 0.7, 13, 2, 18, 5, 2, 13, 1.6},
}

// GuessKey guesses the key of a melody: the one in which tones as long as these are
// likeliest, where the last one likes to be the tonic. It has at most six sharps or
// flats. Without notes it is C.
func GuessKey(notes []Note) form.Key {
	var sounds [12]float64
	all := 0.0
	for _, n := range notes {
		sounds[pitch.Class(n.Heard())] += float64(n.Length)
		all += float64(n.Length)
	}
	if all == 0 {
		return form.Key{}
	}
	last := pitch.Class(notes[len(notes)-1].Heard())
	var best form.Key
	most := math.Inf(-1)
	for _, minor := range []bool{false, true} {
		for signature := -6; signature < 6; signature++ {
			k, _ := form.KeyOf(signature, minor)
			tonic := k.Tonic.Class()
			worth := 0.0
			for class, length := range sounds {
				worth += length / all * math.Log(share[minor][pitch.Class(class-tonic)])
			}
			if last == tonic {
				worth += 0.2
			}
			if worth > most {
				best, most = k, worth
			}
		}
	}
	return best
}
