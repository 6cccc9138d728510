package server

import "sync"

// recent keeps the last answers, no more of them than their bytes have room for, to questions whose every input is in their key: the Bench
// asks for the map of a chart again and again, and it changes only when something is
// decided about the chart or the instrument. The zero value keeps none yet.
type recent[K comparable, V any] struct {
	mu    sync.Mutex
	known map[K]V
	order []K       // oldest first
	sizes map[K]int // in bytes
	bytes int       // of all of them
}

// How many answers are kept, as many charts as an evening has, and how many bytes of them.
const (
	mostRecent  = 16
	recentBytes = 24 << 20
)

func (r *recent[K, V]) get(key K) (v V, ok bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	v, ok = r.known[key]
	return v, ok
}

func (r *recent[K, V]) clear() {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.known, r.order, r.sizes, r.bytes = nil, nil, nil, 0
}

// put keeps an answer of so many bytes; one that leaves no room for others is not kept.
func (r *recent[K, V]) put(key K, v V, bytes int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if _, known := r.known[key]; known || bytes > recentBytes/2 {
		return
	}
	if r.known == nil {
		r.known, r.sizes = map[K]V{}, map[K]int{}
	}
	for len(r.order) == mostRecent || r.bytes+bytes > recentBytes {
		old := r.order[0]
		r.bytes -= r.sizes[old]
		delete(r.known, old)
		delete(r.sizes, old)
		r.order = r.order[1:]
	}
	r.known[key], r.sizes[key], r.order = v, bytes, append(r.order, key)
	r.bytes += bytes
}
