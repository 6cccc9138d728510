package record

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/say"
)

// Onsets is how strongly something begins, so many times a second: in all of the sound, in what is low, where the bass drum
// and the bass are, and in what is high, where the snare drum is. The strengths are of any measure.
type Onsets struct {
	Rate           float64
	All, Low, High []float64
}

// Pulse is a guess of where the beats of a recording fall.
type Pulse struct {
	Grid  Grid
	Tempo float64 // quarter notes a minute, in the middle
	Sure  float64 // of all that speaks for a tempo, the part that speaks for this one: 0 to 1
	Says  string
}

// Where tempi are looked for, and what is usual: blues and rock are played about a middle, and a tempo an octave from it is
// half as likely.
const (
	leastTempo = 50.0
	mostTempo  = 184.0
	usualTempo = 98.0
	usualWidth = 0.62 // octaves
	mostPulses = 3
)

// What speaks for a tempo beside that the strengths repeat themselves: that bars of it hold one chord each, and that so
// much begins in a beat as usually does.
const (
	byChords   = 60.0
	byTurns    = 0.8
	byAccent   = 0.6
	usualOften = 2.3 // strokes in a beat
	oftenWidth = 0.8
	strokeFrom = 0.8 // of the middle strength
)

// ratios of a tempo to those that it is taken for.
var ratios = []float64{1, 2, 0.5, 1.5, 2.0 / 3}

// Pulses guesses the beats: the likeliest first, three at most, each of another tempo. Of what has no beat to speak of,
// such as silence or speech, there is none. tones tell which harmony sounds when: a bar holds one chord oftener than two.
//
// A tempo is what the strengths repeat themselves by (autocorrelation, as in Ellis, Beat Tracking by Dynamic Programming,
// 2007); then beats are laid where the strengths are, as evenly as they allow (the same), and what drifts is followed.
func (o Onsets) Pulses(perBar int, tones Tones) []Pulse {
	env, d := flattened(o.All, o.Rate), drums{flattened(o.Low, o.Rate), flattened(o.High, o.Rate), o.begins(flattened(o.All, o.Rate))}
	if len(env) < int(4*o.Rate) || quiet(env) {
		return nil
	}
	often, full := o.often(env), tones.full()
	var out []Pulse
	all := 0.0
	for _, c := range o.candidates(autocorrelation(env, int(o.Rate*60/leastTempo*4)+2)) {
		beats := o.lay(env, c.tempo)
		if len(beats) < 4 {
			continue
		}
		g, fit := o.barred(beats, d, perBar, tones, full)
		tempo := middleTempo(g)
		if slices.ContainsFunc(out, func(q Pulse) bool { return math.Abs(math.Log2(q.Tempo/tempo)) < 0.06 }) {
			continue
		}
		away := math.Log2(often*60/tempo/usualOften) / oftenWidth
		out = append(out, Pulse{Grid: g, Tempo: tempo, Sure: c.worth * math.Exp(full*(byChords*(fit-1)+byTurns*o.turns(beats, d))-away*away/2)})
		all += out[len(out)-1].Sure
	}
	slices.SortStableFunc(out, func(a, b Pulse) int { return cmp.Compare(b.Sure, a.Sure) })
	out = out[:min(len(out), mostPulses)]
	for i := range out {
		if all > 0 {
			out[i].Sure /= all
		}
		out[i].Says = out[i].says(i, out)
	}
	return out
}

// candidate is a tempo that the strengths repeat themselves by.
type candidate struct{ tempo, worth float64 }

// candidates are the tempi about which most speaks, and those that the first may be taken for.
func (o Onsets) candidates(repeats []float64) []candidate {
	var peaks []candidate
	var before, here candidate
	for t := leastTempo; t <= mostTempo; t *= 1.005 {
		next := candidate{t, o.worth(repeats, t)}
		if here.worth > before.worth && here.worth >= next.worth && here.worth > 0 {
			peaks = append(peaks, here)
		}
		before, here = here, next
	}
	slices.SortFunc(peaks, func(a, b candidate) int { return cmp.Compare(b.worth, a.worth) })
	if len(peaks) == 0 {
		return nil
	}
	first := peaks[0]
	peaks = peaks[:min(len(peaks), 4)]
	for _, by := range ratios[1:] {
		if t := first.tempo * by; t >= leastTempo && t <= mostTempo {
			if w := o.worth(repeats, t); w > 0 {
				peaks = append(peaks, candidate{t, w})
			}
		}
	}
	return peaks
}

// begins is the second at which the first thing clearly begins.
func (o Onsets) begins(env []float64) float64 {
	return float64(max(0, slices.IndexFunc(env, func(v float64) bool { return v > strokeFrom }))) / o.Rate
}

// often is how often a second something clearly begins.
func (o Onsets) often(env []float64) float64 {
	n := 0
	for i := 1; i < len(env)-1; i++ {
		if env[i] > strokeFrom && env[i] >= env[i-1] && env[i] > env[i+1] {
			n++
		}
	}
	return max(0.2, float64(n)/(float64(len(env))/o.Rate))
}

func (p Pulse) says(i int, all []Pulse) string {
	drift := ""
	if least, most := p.Grid.extremes(); most-least > 0.04*p.Tempo {
		drift = say.F("; it drifts from %.0f to %.0f", least, most)
	}
	if i == 0 {
		return say.F("%.0f beats a minute%s", p.Tempo, drift)
	}
	switch by := p.Tempo / all[0].Tempo; {
	case math.Abs(by-2) < 0.1:
		return say.F("%.0f, twice as quick%s", p.Tempo, drift)
	case math.Abs(by-0.5) < 0.03:
		return say.F("%.0f, half as quick%s", p.Tempo, drift)
	}
	return say.F("%.0f%s", p.Tempo, drift)
}

// extremes are the slowest and the quickest of its tempi.
func (g Grid) extremes() (least, most float64) {
	least = math.Inf(1)
	for i := 1; i < len(g.Anchors); i++ {
		a, b := g.Anchors[i-1], g.Anchors[i]
		t := 60 * float64(b.Beat-a.Beat) / (b.At - a.At)
		least, most = min(least, t), max(most, t)
	}
	return least, most
}

func middleTempo(g Grid) float64 {
	first, last := g.Anchors[0], g.Anchors[len(g.Anchors)-1]
	return 60 * float64(last.Beat-first.Beat) / (last.At - first.At)
}

// flattened are strengths above what is usual about them, of a middle size of 1.
func flattened(raw []float64, rate float64) []float64 {
	out := make([]float64, len(raw))
	wide := max(1, int(rate/2))
	sum, n := 0.0, 0
	for i := 0; i < min(wide, len(raw)); i++ {
		sum, n = sum+raw[i], n+1
	}
	power := 0.0
	for i := range raw {
		if in := i + wide; in < len(raw) {
			sum, n = sum+raw[in], n+1
		}
		if gone := i - wide - 1; gone >= 0 {
			sum, n = sum-raw[gone], n-1
		}
		out[i] = max(0, raw[i]-sum/float64(n))
		power += out[i] * out[i]
	}
	if size := math.Sqrt(power / float64(max(1, len(raw)))); size > 0 {
		for i := range out {
			out[i] = min(out[i]/size, 6) // one loud crack is no beat
		}
	}
	return out
}

// quiet tells that nothing begins.
func quiet(env []float64) bool {
	return !slices.ContainsFunc(env, func(v float64) bool { return v > 0 })
}

// autocorrelation is how much strengths are like themselves so many frames later, up to most; 1 is wholly.
func autocorrelation(env []float64, most int) []float64 {
	most = min(most, len(env)-1)
	out := make([]float64, most+1)
	mean := 0.0
	for _, v := range env {
		mean += v
	}
	mean /= float64(len(env))
	for lag := range out {
		sum := 0.0
		for i := lag; i < len(env); i++ {
			sum += (env[i] - mean) * (env[i-lag] - mean)
		}
		out[lag] = sum / float64(len(env)-lag)
	}
	if whole := out[0]; whole > 0 {
		for i := range out {
			out[i] /= whole
		}
	}
	return out
}

// worth is how much speaks for a tempo: that the strengths come again after one, two, three and four of its beats.
func (o Onsets) worth(repeats []float64, tempo float64) float64 {
	beat := o.Rate * 60 / tempo
	sum, weights := 0.0, 0.0
	for k, w := range []float64{1, 0.8, 0.5, 0.8} {
		sum += w * at(repeats, beat*float64(k+1), 1+k/2)
		weights += w
	}
	away := math.Log2(tempo/usualTempo) / usualWidth
	return max(0, sum/weights) * math.Exp(-away*away/2)
}

// at is the most about a place between two.
func at(list []float64, where float64, about int) (most float64) {
	for i := int(math.Round(where)) - about; i <= int(math.Round(where))+about; i++ {
		if i >= 0 && i < len(list) {
			most = max(most, list[i])
		}
	}
	return most
}

// lay finds the beats of about a tempo: where the strengths are, as evenly as they allow. They are told in seconds.
func (o Onsets) lay(env []float64, tempo float64) []float64 {
	const tight = 300.0
	period := o.Rate * 60 / tempo
	local := smoothed(env, period/32)
	score := make([]float64, len(env))
	back := make([]int, len(env))
	least, most := int(period/2), int(2*period)
	cost := make([]float64, most+1)
	for d := max(1, least); d <= most; d++ {
		l := math.Log(float64(d) / period)
		cost[d] = tight * l * l
	}
	for i := range env {
		best, from := 0.0, -1
		for d := max(1, least); d <= most && i-d >= 0; d++ {
			if v := score[i-d] - cost[d]; v > best {
				best, from = v, i-d
			}
		}
		score[i], back[i] = local[i]+best, from
	}
	end := len(env) - 1
	for i := max(0, len(env)-most); i < len(env); i++ {
		if score[i] > score[end] {
			end = i
		}
	}
	var beats []float64
	for i := end; i >= 0; i = back[i] {
		beats = append(beats, peakAt(local, i)/o.Rate)
	}
	slices.Reverse(beats)
	return o.sounding(beats, env)
}

// peakAt is where about a frame the strengths are highest, between frames.
func peakAt(v []float64, i int) float64 {
	if i <= 0 || i >= len(v)-1 {
		return float64(i)
	}
	a, b, c := v[i-1], v[i], v[i+1]
	if d := a - 2*b + c; d < 0 {
		return float64(i) + max(-0.5, min(0.5, (a-c)/(2*d)))
	}
	return float64(i)
}

// sounding leaves out the beats before anything begins, and after all has.
func (o Onsets) sounding(beats, env []float64) []float64 {
	first := slices.IndexFunc(env, func(v float64) bool { return v > 0.5 })
	last := first
	for i, v := range env {
		if v > 0.5 {
			last = i
		}
	}
	slack := 0.12
	return slices.DeleteFunc(beats, func(b float64) bool {
		return b < float64(first)/o.Rate-slack || b > float64(last)/o.Rate+slack
	})
}

func smoothed(v []float64, sigma float64) []float64 {
	sigma = max(sigma, 0.6)
	wide := int(3*sigma) + 1
	kernel := make([]float64, wide+1)
	for i := range kernel {
		kernel[i] = math.Exp(-float64(i*i) / (2 * sigma * sigma))
	}
	out := make([]float64, len(v))
	for i := range v {
		sum := v[i]
		for d := 1; d <= wide; d++ {
			if i >= d {
				sum += v[i-d] * kernel[d]
			}
			if i+d < len(v) {
				sum += v[i+d] * kernel[d]
			}
		}
		out[i] = sum
	}
	return out
}

// drums are the strengths by which beats of a bar are told apart, and the second at which the first of them sounds.
type drums struct {
	low, high []float64
	begins    float64
}

// What is more likely than not: a recording begins with a bar, on a beat; and by how much bass and drums have to be stronger
// between beats than on them, for those to be the beats.
const (
	byBeginning = 0.7
	begunOn     = 2.2
	offBeat     = 1.15
)

// barred makes a grid of beats, and tells how well its bars hold one chord each: where they begin is where they do so best,
// where the bass comes, and where the snare drum does not. What is even has few anchors, what drifts has more.
func (o Onsets) barred(beats []float64, d drums, perBar int, tones Tones, full float64) (g Grid, fit float64) {
	best := math.Inf(-1)
	var anchors []Anchor
	beats = o.onBeat(beats, d)
	low, high := o.means(beats, d.low, perBar), o.means(beats, d.high, perBar)
	for p := range min(perBar, len(beats)) {
		these := make([]Anchor, len(beats))
		for i, at := range beats {
			these[i] = Anchor{i - p, at}
		}
		one := tones.fit(Grid{perBar, these}, (len(beats)-p)/perBar)
		v := full*byChords*one + byAccent*accent(low, high, p)
		if on(these, d.begins, perBar) {
			v += byBeginning
		}
		if v > best {
			best, anchors, fit = v, these, one
		}
	}
	return Grid{perBar, thinned(anchors)}, fit
}

// onBeat are beats, or the moments between them where music is so full of off-beats that those were taken for beats: the
// ones on which bass and drums are stronger, and on which the recording begins.
func (o Onsets) onBeat(beats []float64, d drums) []float64 {
	between := make([]float64, 0, len(beats))
	for i := 1; i < len(beats); i++ {
		between = append(between, (beats[i-1]+beats[i])/2)
	}
	if first := 2*beats[0] - between[0]; first >= 0 {
		between = append([]float64{first}, between...)
	}
	strength := func(list []float64) float64 {
		s := 2*o.means(list, d.low, 1)[0] + o.means(list, d.high, 1)[0]
		anchors := make([]Anchor, len(list))
		for i, at := range list {
			anchors[i] = Anchor{i, at}
		}
		if on(anchors, d.begins, 1) {
			s *= begunOn
		}
		return s
	}
	if len(between) > 3 && strength(between) > offBeat*strength(beats) {
		return between
	}
	return beats
}

// on tells that a moment lies on a beat that begins a bar.
func on(anchors []Anchor, at float64, perBar int) bool {
	beat := Grid{perBar, anchors}.Beat(at)
	off := beat - math.Round(beat/float64(perBar))*float64(perBar)
	return math.Abs(off) < 0.16
}

// means are how strong the beats of a bar are in the middle, from any of them on.
func (o Onsets) means(beats, env []float64, perBar int) []float64 {
	out, n := make([]float64, perBar), make([]float64, perBar)
	for i, b := range beats {
		out[i%perBar] += min(at(env, b*o.Rate, 2), 3)
		n[i%perBar]++
	}
	for i := range out {
		out[i] /= max(1, n[i])
	}
	return out
}

// turns is how much bass drum and snare drum take turns from beat to beat, 0 to 1, as they do in most music with drums.
func (o Onsets) turns(beats []float64, d drums) float64 {
	low, high := o.means(beats, d.low, 1)[0], o.means(beats, d.high, 1)[0]
	if low == 0 || high == 0 {
		return 0
	}
	turn, all := 0.0, 0.0
	for i, b := range beats {
		more := at(d.low, b*o.Rate, 2)/low - at(d.high, b*o.Rate, 2)/high
		all += math.Abs(more)
		if i%2 == 1 {
			more = -more
		}
		turn += more
	}
	return math.Abs(turn) / max(all, 1e-9)
}

// accent is how much speaks for a bar that begins with one of its beats: bass and bass drum there and in its middle, the
// snare drum on the beats between.
func accent(low, high []float64, first int) (sum float64) {
	per := len(low)
	for i := range low {
		l, h := low[(first+i)%per], high[(first+i)%per]
		switch {
		case i == 0:
			sum += 1.2*l - 0.5*h
		case per == 4 && i == 2:
			sum += 0.6*l - 0.5*h
		case per == 4:
			sum += 0.5*h - 0.4*l
		default:
			sum -= 0.3 * l
		}
	}
	return sum
}

// near is how far beats may lie from where an even tempo has them, in seconds, to be called even.
const near = 0.022

// thinned keeps the anchors that it takes: the line through all where they are even, else a line for each even stretch.
func thinned(all []Anchor) []Anchor {
	if len(all) < 3 {
		return all
	}
	a, b := fitted(all)
	worst, sum := 0.0, 0.0
	for _, x := range all {
		off := math.Abs(a + b*float64(x.Beat) - x.At)
		worst, sum = max(worst, off), sum+off
	}
	if len(all) < 9 || sum/float64(len(all)) < near/2 && worst < 3*near || b <= 0 {
		first, last := all[0].Beat, all[len(all)-1].Beat
		return []Anchor{{first, a + b*float64(first)}, {last, a + b*float64(last)}}
	}
	// Where it drifts, a line for each eight beats or so, joined.
	var out []Anchor
	const stretch = 8
	for i := 0; ; i += stretch {
		from, to := max(0, i-stretch/2), min(len(all), i+stretch/2+1)
		x := all[min(i, len(all)-1)]
		if to-from > 2 {
			a, b := fitted(all[from:to])
			x.At = a + b*float64(x.Beat)
		}
		if n := len(out); n == 0 || x.Beat > out[n-1].Beat && x.At > out[n-1].At {
			out = append(out, x)
		}
		if i >= len(all)-1 {
			return out
		}
	}
}

// fitted is the line at + by·beat nearest to anchors, by the least squares.
func fitted(all []Anchor) (at, by float64) {
	n := float64(len(all))
	var x, y, xx, xy float64
	for _, a := range all {
		b := float64(a.Beat)
		x, y, xx, xy = x+b, y+a.At, xx+b*b, xy+b*a.At
	}
	if d := n*xx - x*x; d != 0 {
		by = (n*xy - x*y) / d
	}
	return (y - by*x) / n, by
}
