package design

import "sync"

// Kept is an answer about a design that takes a run through time: found once, however many ask. What makes it
// depends on the design alone.
func Kept[T any](d *Design, asked string, find func(d *Design) T) T {
	once, _ := d.known.LoadOrStore(asked, sync.OnceValue(func() any { return find(d) }))
	return once.(func() any)().(T)
}
