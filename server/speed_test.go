package server

import (
	"fmt"
	"log/slog"
	"net/http/httptest"
	"runtime/debug"
	"sort"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/require"

	"undaris/demo"
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

// BenchmarkLog opens a log of 5,000 takes (three years), draws its maps and plans from
// it. The first opening reads it from the disk.
func BenchmarkLog(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(GCPercent))
	s, err := store.Open(b.TempDir())
	require.NoError(b, err)
	defer s.Close()
	require.NoError(b, demo.Fill(s))
	var entries []*store.Entry
	for i := range 5000 {
		e := &store.Entry{At: time.Now().AddDate(0, 0, -(5000-i)/5), Kind: store.LoggedTake, Title: "A chorus", Chart: uint(1 + i%6), Tuning: "E2,A2,D3,G3,B3,E4", Tempo: 96, Seconds: 30}
		for k := range 9 {
			e.Trials = append(e.Trials, store.Trial{Key: i % 12, Position: (i + k) % 5, Quality: "7", Degree: []string{"root", "third", "fifth", "seventh"}[k%4], Device: "land", Chord: "F7", From: "C7", String: 1 + k%6, Met: "on time", On: "3", Success: float64((i + k) % 2), Ms: float64(k - 4), Timed: true})
		}
		entries = append(entries, e)
	}
	require.NoError(b, s.Log(entries...))
	timed := func(srv *httptest.Server, path string) float64 {
		start := time.Now()
		resp := ask(b, srv, "GET", path, nil, nil)
		if resp.StatusCode != 200 {
			b.Fatal(resp.Status)
		}
		return float64(time.Since(start).Microseconds()) / 1000
	}
	var first, log, maps, plan float64
	n := 0.
	for b.Loop() {
		srv := httptest.NewServer(New(s, fstest.MapFS{}, slog.New(slog.DiscardHandler)))
		first += timed(srv, "/api/log")
		log += timed(srv, "/api/log")
		maps += timed(srv, "/api/log/maps")
		plan += timed(srv, "/api/today?minutes=60")
		srv.Close()
		n++
	}
	b.ReportMetric(first/n, "ms-first-opening")
	b.ReportMetric(log/n, "ms-opening")
	b.ReportMetric(maps/n, "ms-maps")
	b.ReportMetric(plan/n, "ms-plan")
}

// BenchmarkMap asks for the map of a twelve-bar, in all its positions and in a region of
// any strings, beside the shortest answer that there is.
func BenchmarkMap(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(GCPercent))
	srv := serve(b)
	for name, path := range map[string]string{
		"empty":     "/api/chords?symbol=N.C.",
		"positions": "/api/charts/6/map",
		"a region":  "/api/charts/6/map?low=5&high=12&strings=6,4,2",
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if resp := ask(b, srv, "GET", path, nil, nil); resp.StatusCode != 200 {
					b.Fatal(resp.Status)
				}
			}
		})
	}
}
