package server

import (
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"runtime"
	"runtime/debug"
	"slices"
	"sort"
	"strconv"
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
		if n == 500 { // beside the shortest answer, in one run
			times := func(do func() *http.Response) float64 {
				var all []time.Duration
				for range 41 {
					start := time.Now()
					do()
					all = append(all, time.Since(start))
				}
				slices.Sort(all)
				return float64(all[20])
			}
			x := times(func() *http.Response { return ask(b, srv, "POST", "/api/lines/study", body, nil) }) / times(func() *http.Response { return ask(b, srv, "GET", "/api/chords?symbol=N.C.", nil, nil) })
			b.ReportMetric(x, "x-of-an-empty-answer")
			if x > 140 {
				b.Errorf("a study of 500 notes takes %.0f times the shortest answer; 140 at most", x)
			}
		}
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

// years notes so many takes, of some years, nine changes each.
func years(b *testing.B, s *store.Store, takes int) {
	for from := 0; from < takes; from += 5000 {
		var entries []*store.Entry
		for i := from; i < min(takes, from+5000); i++ {
			e := &store.Entry{At: time.Now().Add(-time.Duration(takes-i) * time.Hour / 6), Kind: store.LoggedTake, Title: "A chorus", Chart: uint(1 + i%6), Line: uint(i % 4), Tuning: "E2,A2,D3,G3,B3,E4", Tempo: 96, Seconds: 30, Notes: 9, Good: i % 9}
			for k := range 9 {
				e.Trials = append(e.Trials, store.Trial{Key: i % 12, Position: (i + k) % 5, Quality: "7", Degree: []string{"root", "third", "fifth", "seventh"}[k%4], Device: "land", Chord: "F7", From: "C7", String: 1 + k%6, Met: "on time", On: "3", Success: float64((i + k) % 2), Ms: float64(k - 4), Timed: true})
			}
			entries = append(entries, e)
		}
		require.NoError(b, s.Log(entries...))
	}
}

// BenchmarkLog draws maps and plans of logs of several lengths, and notes a call, each as a multiple of what it
// takes beside an empty log. LINES= says how long the longest is; a million takes some minutes to write.
func BenchmarkLog(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(GCPercent))
	most := 20_000
	if n, err := strconv.Atoi(os.Getenv("LINES")); err == nil {
		most = n
	}
	type figures map[string]float64
	measure := func(takes int) figures {
		s, err := store.Open(b.TempDir())
		require.NoError(b, err)
		defer s.Close()
		require.NoError(b, demo.Fill(s))
		years(b, s, takes)
		front := fstest.MapFS{}
		began := time.Now()
		srv := httptest.NewServer(New(s, front, slog.New(slog.DiscardHandler)))
		ask(b, srv, "GET", "/api/log/maps", nil, nil) // which waits until it is read
		read := time.Since(began)
		srv.Close()
		ms := func(do func() *http.Response) float64 {
			var all []float64
			for range 31 {
				start := time.Now()
				if resp := do(); resp.StatusCode/100 != 2 {
					b.Fatal(resp.Status)
				}
				all = append(all, float64(time.Since(start).Microseconds())/1000)
			}
			slices.Sort(all)
			return all[len(all)/2]
		}
		f := figures{"read-once": read.Seconds() * 1000}
		f["start"] = ms(func() *http.Response {
			srv := httptest.NewServer(New(s, front, slog.New(slog.DiscardHandler)))
			defer srv.Close()
			return ask(b, srv, "GET", "/api/today?minutes=60", nil, nil)
		})
		srv = httptest.NewServer(New(s, front, slog.New(slog.DiscardHandler)))
		defer srv.Close()
		get := func(path string) float64 {
			return ms(func() *http.Response { return ask(b, srv, "GET", path, nil, nil) })
		}
		f["empty"] = get("/api/chords?symbol=N.C.")
		f["today"] = get("/api/today?minutes=60")
		f["maps"] = get("/api/log/maps")
		f["maps-of-a-chart"] = get("/api/log/maps?chart=1")
		f["maps-of-12-weeks"] = get("/api/log/maps?weeks=12")
		f["page"] = get("/api/log?limit=50")
		call := CallLog{Chart: 1, Kind: "tones", Key: "C", Chord: "C7", Degree: "3", Window: store.Frets{Low: 5, High: 8}, Says: "C7 from the third", How: "right", Took: 900}
		f["noting"] = ms(func() *http.Response { return ask(b, srv, "POST", "/api/log/calls", call, nil) })
		runtime.GC()
		var mem runtime.MemStats
		runtime.ReadMemStats(&mem)
		f["heap-MB"] = float64(mem.HeapInuse) / (1 << 20)
		return f
	}
	none, long := measure(0), measure(most)
	for b.Loop() {
	}
	for what, x := range long {
		if b.ReportMetric(x, what+"-ms"); what != "heap-MB" {
			b.ReportMetric(x/none[what], what+"-x")
		}
	}
	// In one run beside each other, so that a busy machine does not decide.
	for _, what := range []string{"start", "today", "noting"} {
		if x := long[what] / none[what]; x > 2 {
			b.Errorf("%s takes %.1f times what it takes beside an empty log; 2 at most", what, x)
		}
	}
	if long["heap-MB"] > 100 {
		b.Errorf("%.0f MB are in use", long["heap-MB"])
	}
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
