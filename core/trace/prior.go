package trace

import "epitrope/core/fault"

// soundPrior is how often nothing is wrong where somebody complains; nonePrior how often it is something that nobody has
// thought of here. Source: from memory.
const (
	soundPrior = 3.0
	nonePrior  = 4.0
)

// trait is what is known of a kind of fault: how often it is what is wrong, of all, how long a look at it takes, how surely
// it is then seen, and what is done to look.
type trait struct {
	often   float64 // of one such place
	minutes float64
	seen    float64
	look    string
	mend    float64 // minutes to mend it
}

// traits by kind. Source: from memory; that fuses, grounds, ends and triggers lead, trade practice.
var traits = map[fault.Kind]trait{
	fault.Blown:    {3, 3, 0.97, "out of its holder, and its blade measured through: 0 Ω", 5},
	fault.Open:     {0.8, 6, 0.8, "followed end to end, and tugged at both ends", 15},
	fault.Joint:    {0.8, 4, 0.75, "turned by hand, its lug lifted: bright metal below?", 15},
	fault.Thin:     {0.4, 5, 0.9, "its print read, or its copper measured", 120},
	fault.Steel:    {0.6, 8, 0.75, "where body and chassis meet: rubber, paint, glue", 40},
	fault.Stuck:    {1, 5, 0.7, "its two sides bridged for a moment: does the other side come up?", 30},
	fault.Welded:   {0.6, 5, 0.9, "its coil's lead off: do its two sides stay joined?", 30},
	fault.Burnt:    {0.6, 8, 0.75, "its case: discoloured, soft, smelling?", 30},
	fault.Coil:     {0.4, 4, 0.95, "some ohms from 86 to 85, its leads off", 30},
	fault.Always:   {0.7, 6, 0.9, "a test lamp at it, the key out and the vehicle asleep", 30},
	fault.Early:    {0.7, 3, 0.9, "a test lamp at it, key on, engine stopped", 30},
	fault.Never:    {1, 4, 0.9, "a test lamp at it, the engine running", 30},
	fault.Bypassed: {0.4, 10, 0.85, "every lead at both plus posts followed to its end", 20},
	fault.Swapped:  {0.1, 2, 0.98, "red on plus, black on minus, at the posts", 15},
	fault.Half:     {1.2, 2, 0.85, "apart, looked into, and in again to its catch", 10},
	fault.Dead:     {0.6, 10, 0.85, "its manual's own test, input and signal there", 40},
	fault.Weak:     {0.3, 10, 0.8, "its own display, or its lamp's code, cold and hot", 40},
	fault.Profile:  {0.8, 5, 0.9, "its switches and its configuration leads read", 10},
	fault.Machine:  {0.5, 5, 0.8, "its belt, its plug, its charge lamp", 90},
	fault.Worn:     {0.4, 10, 0.8, "its belt pressed; a load test", 90},
	fault.Eased:    {0.6, 10, 0.8, "volts logged over a drive, lamps on and off", 60},
	fault.Cell:     {0.5, 20, 0.9, "a load test, charged and rested", 30},

	fault.Chafed:     {0.3, 8, 0.85, "followed past every edge: a bare spot, a scorch", 30},
	fault.Outlet:     {0.8, 8, 0.8, "its maker's fuses, and its block opened", 40},
	fault.Diode:      {0.4, 4, 0.9, "the alternating range across the start battery, engine on: under half a volt?", 90},
	fault.High:       {0.3, 3, 0.8, "its volts, loads off, engine fast", 90},
	fault.Sulphated:  {0.6, 20, 0.85, "a load test, charged and rested", 30},
	fault.Parted:     {0.2, 5, 0.9, "its volts under a lamp's load", 30},
	fault.Tired:      {0.8, 45, 0.9, "a capacity test: full, then a known load, timed", 30},
	fault.Management: {0.8, 4, 0.9, "what it says itself: its application, its lamp, its temperature", 10},
	fault.Drain:      {0.8, 20, 0.85, "fuse by fuse, the millivolts across each, asleep", 30},
	fault.HouseDrain: {0.8, 8, 0.85, "each load off in turn, the clamp at the battery", 15},
	fault.Isolated:   {0.8, 1, 0.97, "where its handle stands: to its stop?", 1},
	fault.Forgotten:  {0.8, 1, 0.97, "where it stands", 1},
	fault.Leak:       {0.5, 8, 0.8, "followed past every edge: damp, a bare spot", 30},
	fault.Bridged:    {0.15, 6, 0.85, "where it lies beside others: apart, is it still there?", 20},
	fault.Crossed:    {0.3, 2, 0.97, "each lead followed to what its label says", 15},
	fault.Uncounted:  {0.8, 3, 0.9, "every lead at the battery's minus followed: none past the shunt; the clamp beside what it says", 15},
	fault.Sunny:      {0.4, 2, 0.9, "panels covered?", 2},
}

// usual is how often a fault is what is wrong, not yet of one in all.
func usual(f fault.Fault) float64 {
	t, known := traits[f.Kind]
	if !known {
		return 0.3
	}
	return t.often
}
