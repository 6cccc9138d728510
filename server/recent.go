package server

import "sync"

// recent keeps the last answers to questions whose every input is in their key: the Bench
// asks for the map of a chart again and again, and it changes only when something is
// decided about the chart or the instrument. The zero value keeps none yet.
type recent[K comparable, V any] struct {
	mu    sync.Mutex
	known map[K]V
	order []K // oldest first
}

// mostRecent is how many answers are kept: as many charts as an evening has.
const mostRecent = 16

func (r *recent[K, V]) get(key K) (v V, ok bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	v, ok = r.known[key]
	return v, ok
}

func (r *recent[K, V]) clear() {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.known, r.order = nil, nil
}

func (r *recent[K, V]) put(key K, v V) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if _, known := r.known[key]; known {
		return
	}
	if r.known == nil {
		r.known = map[K]V{}
	}
	if len(r.order) == mostRecent {
		delete(r.known, r.order[0])
		r.order = r.order[1:]
	}
	r.known[key], r.order = v, append(r.order, key)
}
