package call

import "undaris/core/harmony"

// Step is how much calls ask at once. What a wish leaves open is opened step by step; what it says stays as it is.
type Step struct {
	Name   string
	Played bool // it asks for a rhythm, which only playing has

	kinds   []string       // of calls; all where none is said
	starts  []harmony.Role // to start from; any where none is said
	only    string         // a direction; either where it is not said
	plain   bool           // chord tones alone
	orders  bool           // in every order
	devices bool           // led into in every way
	paces   bool           // in time
}

// Steps lists them, the easiest first. Each asks all that the one before it asks.
var Steps = []Step{
	{Name: "every place of the root", kinds: []string{Every}, starts: []harmony.Role{harmony.Root}, only: "up", plain: true},
	{Name: "every place of root or third", kinds: []string{Every}, starts: []harmony.Role{harmony.Root, harmony.Third}, only: "up", plain: true},
	{Name: "chord tones, from root or third upward", starts: []harmony.Role{harmony.Root, harmony.Third}, only: "up", plain: true},
	{Name: "chord tones, from root, third or fifth, either way", starts: []harmony.Role{harmony.Root, harmony.Third, harmony.Fifth}, plain: true},
	{Name: "chord tones, from any of them", plain: true},
	{Name: "any place, bent too"},
	{Name: "by skips, there and back", orders: true},
	{Name: "led into from beside", orders: true, devices: true},
	{Name: "in time", orders: true, devices: true, paces: true, Played: true},
}

// At is the wish at a step, from 1; at 0 as it is.
func (w Wish) At(step int) Wish {
	if step < 1 || len(Steps) == 0 {
		return w
	}
	s := Steps[min(step, len(Steps))-1]
	if w.Plain = w.Plain || s.plain; len(w.Starts) == 0 {
		w.Starts = s.starts
	}
	if len(w.Kinds) == 0 {
		w.Kinds = s.kinds
	}
	if w.Only == "" {
		w.Only = s.only
	}
	w.Orders = opened(w.Orders, s.orders, Orders, func(o Order) string { return o.ID })
	w.Devices = opened(w.Devices, s.devices, Devices, func(d Device) string { return d.ID })
	w.Paces = opened(w.Paces, s.paces, Paces[1:], func(p Pace) string { return p.ID })
	return w
}

// opened is what is wished for of a table; all of it where nothing is and a step opens it.
func opened[T any](wished []string, open bool, table []T, id func(T) string) []string {
	if len(wished) > 0 || !open {
		return wished
	}
	for _, x := range table {
		wished = append(wished, id(x))
	}
	return wished
}
