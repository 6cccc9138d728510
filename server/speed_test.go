package server

import (
	"fmt"
	"runtime/debug"
	"sort"
	"strings"
	"testing"
	"time"

	"undaris/store"
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

// longLine is a line of as many notes, an eighth each, up and down a scale.
func longLine(notes int) LineBody {
	b := bluesIn("C")
	b.Low, b.High = 7, 11
	b.Text = strings.Repeat("| C7 | F7 ", (notes+15)/16) + "|"
	frets := []struct{ string, fret int }{{5, 10}, {5, 7}, {4, 8}, {4, 10}, {3, 9}, {3, 7}, {2, 8}, {2, 11}}
	for i := range notes {
		at := frets[i%len(frets)]
		b.Notes = append(b.Notes, store.LineNote{ID: i + 1, Start: i * 480, Length: 480, String: at.string, Fret: at.fret})
	}
	return b
}

// BenchmarkStudy asks for studies of lines over HTTP, beside the shortest answer
// that there is.
func BenchmarkStudy(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(GCPercent))
	srv := serve(b)
	b.Run("empty", func(b *testing.B) {
		for b.Loop() {
			ask(b, srv, "GET", "/api/chords?symbol=N.C.", nil, nil)
		}
	})
	for _, n := range []int{50, 500} {
		body := longLine(n)
		b.Run(fmt.Sprintf("study of %d", n), func(b *testing.B) {
			for b.Loop() {
				if resp := ask(b, srv, "POST", "/api/lines/study", body, nil); resp.StatusCode != 200 {
					b.Fatal(resp.Status)
				}
			}
		})
		near := body // as the page asks: with the notes round the change
		near.Notes = body.Notes[:min(n, 104)]
		b.Run(fmt.Sprintf("fit in %d", n), func(b *testing.B) {
			for b.Loop() {
				if resp := ask(b, srv, "POST", "/api/lines/fit", map[string]any{"line": near, "at": 3840}, nil); resp.StatusCode != 200 {
					b.Fatal(resp.Status)
				}
			}
		})
	}
}
