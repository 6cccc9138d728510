package main

import (
	"math"
	"runtime"
	"runtime/debug"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"undaris/server"
)

// The limit is what it is for a small library, follows a large one, and comes back.
func TestTheMemoryLimitFollowsWhatIsAlive(t *testing.T) {
	assert.Equal(t, []int64{server.MemoryLimit, server.MemoryLimit, 500 << 20}, []int64{limitFor(0), limitFor(20 << 20), limitFor(200 << 20)})
	assert.Positive(t, limitFor(math.MaxUint64))
	defer debug.SetMemoryLimit(debug.SetMemoryLimit(-1))
	defer debug.SetGCPercent(debug.SetGCPercent(100))
	breathe()
	large := make([]byte, 100<<20)
	within := func(low, high int64) func() bool {
		return func() bool {
			runtime.GC()
			now := debug.SetMemoryLimit(-1)
			return now >= low && now <= high
		}
	}
	assert.Eventually(t, within(240<<20, 300<<20), 10*time.Second, 10*time.Millisecond)
	runtime.KeepAlive(large)
	large = nil
	assert.Eventually(t, within(server.MemoryLimit, 80<<20), 10*time.Second, 10*time.Millisecond)
}
