package server

import (
	"runtime/debug"
	"sort"
	"strings"
	"testing"
	"time"
)

// long is 96 bars with two chords a bar, on sixteen different chords.
var long = strings.Repeat("| C7 A7 | Dm7 G7 | Em7 Eb7 | F7 F#dim7 | Bbmaj7 B7 | Abm7 Db7 | Gb6 Cm7b5 | D7#9 G13 ", 12) + "|"

// BenchmarkMapOfALongChart asks for the map of 96 bars over HTTP and reports
// the median and the 99th percentile in milliseconds.
func BenchmarkMapOfALongChart(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(GCPercent)) // as the command does
	srv := serve(b)
	body := good
	body.Key, body.Text = "C", long
	var c Chart
	ask(b, srv, "POST", "/api/charts", body, &c)
	var all []time.Duration
	for b.Loop() {
		start := time.Now()
		resp := ask(b, srv, "GET", "/api/charts/7/map", nil, nil)
		all = append(all, time.Since(start))
		if resp.StatusCode != 200 {
			b.Fatal(resp.Status)
		}
	}
	sort.Slice(all, func(i, j int) bool { return all[i] < all[j] })
	ms := func(d time.Duration) float64 { return float64(d.Microseconds()) / 1000 }
	b.ReportMetric(ms(all[len(all)/2]), "ms-median")
	b.ReportMetric(ms(all[len(all)*99/100]), "ms-p99")
}
