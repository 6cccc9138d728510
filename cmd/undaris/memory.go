package main

import (
	"math"
	"runtime"
	"runtime/debug"
	"runtime/metrics"

	"undaris/server"
)

// breathe lets the heap grow freely while it is small, and has the limit follow what is alive: a limit that does
// not would make the collector run without end once a library has outgrown it.
func breathe() {
	debug.SetGCPercent(server.GCPercent)
	debug.SetMemoryLimit(server.MemoryLimit)
	afterEachCollection(func() {
		now := []metrics.Sample{{Name: "/gc/heap/live:bytes"}}
		metrics.Read(now)
		debug.SetMemoryLimit(limitFor(now[0].Value.Uint64()))
	})
}

// limitFor is the limit in bytes where so many are alive.
func limitFor(alive uint64) int64 {
	return max(server.MemoryLimit, int64(min(alive, math.MaxInt64/4))*5/2)
}

// afterEachCollection does something whenever the collector has run.
func afterEachCollection(do func()) {
	type mark struct{ _ [16]byte }
	var again func(*mark)
	again = func(m *mark) {
		do()
		runtime.SetFinalizer(m, again) // it was found dead, and lives once more
	}
	runtime.SetFinalizer(&mark{}, again)
}
