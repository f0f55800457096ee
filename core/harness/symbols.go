package harness

// earth is an earth point: with a bar over it, where several wires come to it.
func (d *Drawing) earth(p Placed) {
	x, y := p.X+p.W/2, p.Y
	left, right := x, x
	for _, l := range d.Lines {
		if len(l.Points) == 0 || l.From != p.ID && l.To != p.ID {
			continue
		}
		end := l.Points[len(l.Points)-1]
		if l.From == p.ID {
			end = l.Points[0]
		}
		left, right = min(left, end.X), max(right, end.X)
	}
	if left < right {
		d.line("symbol", p.ID, left, y, right, y)
	}
	for i, half := range []float64{14, 9, 4} {
		yy := y + 4 + float64(i)*4
		d.line("symbol", p.ID, x-half, yy, x+half, yy)
	}
	d.line("symbol", p.ID, x, y, x, y+4)
	d.text("name", p.ID, x, y+26, p.Name, 10, false)
}

// symbols are after IEC 60617, each about a point, within 20 units of it.
var symbols = map[string]func(d *Drawing, of string, x, y float64){
	"alternator": func(d *Drawing, of string, x, y float64) {
		d.circle("symbol", of, x, y, 15)
		d.text("symbol", of, x, y+4, "G", 12, false)
	},
	"battery": func(d *Drawing, of string, x, y float64) {
		for _, at := range []float64{-9, 1} {
			d.line("symbol", of, x+at, y-13, x+at, y+13)
			d.line("symbol", of, x+at+5, y-7, x+at+5, y+7)
		}
		d.line("symbol", of, x-18, y, x-9, y)
		d.line("symbol", of, x+6, y, x+18, y)
		d.text("symbol", of, x-15, y-6, "+", 10, false)
	},
	"fuse": func(d *Drawing, of string, x, y float64) {
		d.box("symbol", of, x-13, y-6, 26, 12)
		d.line("symbol", of, x-19, y, x+19, y)
	},
	"charger": func(d *Drawing, of string, x, y float64) {
		d.box("symbol", of, x-15, y-15, 30, 30)
		d.line("symbol", of, x-15, y+15, x+15, y-15)
		for _, at := range [][2]float64{{-11, -9}, {3, 8}} {
			d.line("symbol", of, x+at[0], y+at[1], x+at[0]+9, y+at[1])
			d.line("symbol", of, x+at[0], y+at[1]+4, x+at[0]+3, y+at[1]+4)
			d.line("symbol", of, x+at[0]+6, y+at[1]+4, x+at[0]+9, y+at[1]+4)
		}
	},
	"relay":      contact,
	"contactor":  contact,
	"changeover": changeover,
	"control":    push,
	"isolator":   blade,
	"splitter":   diodes,
	"switch":     blade,
	"disconnect": func(d *Drawing, of string, x, y float64) {
		contact(d, of, x, y)
		d.text("symbol", of, x+12, y+15, "U<", 9, false)
	},
	"plug": func(d *Drawing, of string, x, y float64) {
		d.line("symbol", of, x-18, y, x-2, y)
		d.line("symbol", of, x+4, y-8, x-2, y, x+4, y+8)
		d.line("symbol", of, x+10, y-8, x+4, y, x+10, y+8)
		d.line("symbol", of, x+4, y, x+18, y)
	},
	"shunt": func(d *Drawing, of string, x, y float64) {
		d.box("symbol", of, x-13, y-5, 26, 10)
		d.line("symbol", of, x-19, y, x-13, y)
		d.line("symbol", of, x+13, y, x+19, y)
		d.line("symbol", of, x-7, y+5, x-7, y+13)
		d.line("symbol", of, x+7, y+5, x+7, y+13)
	},
	"feed-point": func(d *Drawing, of string, x, y float64) {
		d.circle("symbol", of, x-8, y, 4)
		d.line("symbol", of, x-4, y, x+15, y)
		d.line("symbol", of, x+9, y-5, x+15, y, x+9, y+5)
	},
	"lamp": func(d *Drawing, of string, x, y float64) {
		d.circle("symbol", of, x, y, 11)
		d.line("symbol", of, x-8, y-8, x+8, y+8)
		d.line("symbol", of, x-8, y+8, x+8, y-8)
	},
	"tap": func(d *Drawing, of string, x, y float64) {
		d.line("symbol", of, x-18, y, x-10, y)
		d.box("symbol", of, x-10, y-10, 22, 20)
		d.line("symbol", of, x-4, y-4, x+6, y-4)
		d.line("symbol", of, x-4, y+4, x+6, y+4)
	},
	"outlet": func(d *Drawing, of string, x, y float64) {
		d.line("symbol", of, x-18, y, x-5, y)
		d.circle("symbol", of, x, y, 5)
		d.line("symbol", of, x+5, y, x+18, y)
	},
	"winch": func(d *Drawing, of string, x, y float64) {
		d.circle("symbol", of, x, y, 15)
		d.text("symbol", of, x, y+4, "M", 12, false)
	},
}

// contact is a make contact with its coil.
func contact(d *Drawing, of string, x, y float64) {
	d.line("symbol", of, x-18, y-7, x-7, y-7, x+8, y-15)
	d.line("symbol", of, x+8, y-7, x+18, y-7)
	d.box("symbol", of, x-9, y+4, 18, 9)
	d.line("symbol", of, x, y+4, x, y-10)
}

// changeover is a contact that rests on one side and is drawn to the other by its coil.
func changeover(d *Drawing, of string, x, y float64) {
	d.line("symbol", of, x-18, y-7, x-7, y-7, x+8, y-2)
	d.line("symbol", of, x+6, y-2, x+18, y-2)
	d.line("symbol", of, x+6, y-13, x+18, y-13)
	d.box("symbol", of, x-9, y+4, 18, 9)
	d.line("symbol", of, x, y+4, x, y-4)
}

// push is a contact worked by hand that springs back.
func push(d *Drawing, of string, x, y float64) {
	d.line("symbol", of, x-18, y+4, x-7, y+4, x+8, y-4)
	d.line("symbol", of, x+8, y+4, x+18, y+4)
	d.line("symbol", of, x, y, x, y-13)
	d.line("symbol", of, x-5, y-9, x-5, y-13, x+5, y-13, x+5, y-9)
}

// diodes are two, from one terminal.
func diodes(d *Drawing, of string, x, y float64) {
	d.line("symbol", of, x-18, y, x-10, y)
	d.line("symbol", of, x-5, y-8, x-10, y-8, x-10, y+8, x-5, y+8)
	for _, at := range []float64{y - 8, y + 8} {
		d.line("symbol", of, x-5, at-5, x-5, at+5, x+5, at, x-5, at-5)
		d.line("symbol", of, x+5, at-5, x+5, at+5)
		d.line("symbol", of, x+5, at, x+18, at)
	}
}

// blade is a switch worked by hand.
func blade(d *Drawing, of string, x, y float64) {
	d.line("symbol", of, x-18, y, x-8, y, x+9, y-10)
	d.line("symbol", of, x+9, y, x+18, y)
	d.line("symbol", of, x, y-5, x, y-15)
	d.line("symbol", of, x-5, y-15, x+5, y-15)
}

// pictures are small plain outlines of the things, for those who do not read symbols.
var pictures = map[string]func(d *Drawing, of string, x, y float64){
	"alternator": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-12, y-11, 22, 22)
		d.box("picture", of, x+10, y-6, 5, 12)
		for _, at := range []float64{-7, -2, 3} {
			d.line("picture", of, x+at, y-7, x+at, y+7)
		}
	},
	"battery": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-16, y-8, 32, 20)
		d.box("picture", of, x-12, y-12, 7, 4)
		d.box("picture", of, x+5, y-12, 7, 4)
	},
	"fuse": func(d *Drawing, of string, x, y float64) {
		d.closed("picture", of, x-17, y-5, x-7, y-5, x-5, y-2, x+5, y-2, x+7, y-5, x+17, y-5, x+17, y+5, x+7, y+5, x+5, y+2, x-5, y+2, x-7, y+5,
			x-17, y+5)
		d.circle("picture", of, x-12, y, 2)
		d.circle("picture", of, x+12, y, 2)
	},
	"charger": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-16, y-10, 32, 22)
		for _, at := range []float64{-11, -5, 1, 7, 13} {
			d.line("picture", of, x+at, y-15, x+at, y-10)
		}
		d.circle("picture", of, x+11, y+7, 1.5)
	},
	"relay":      can,
	"contactor":  can,
	"changeover": can,
	"control": func(d *Drawing, of string, x, y float64) {
		d.circle("picture", of, x, y+2, 11)
		d.circle("picture", of, x, y+2, 6)
	},
	"isolator": knob,
	"switch":   knob,
	"splitter": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-16, y-9, 32, 18)
		for _, at := range []float64{-10, 0, 10} {
			d.circle("picture", of, x+at, y+3, 2.5)
			d.line("picture", of, x+at-3, y-6, x+at+3, y-6)
		}
	},
	"disconnect": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-15, y-10, 30, 20)
		d.circle("picture", of, x-9, y, 3)
		d.circle("picture", of, x+9, y, 3)
	},
	"plug": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-14, y-11, 14, 22)
		d.box("picture", of, x+1, y-11, 14, 22)
		d.line("picture", of, x-14, y, x, y)
		d.line("picture", of, x+1, y, x+15, y)
	},
	"shunt": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-16, y-7, 10, 14)
		d.box("picture", of, x+6, y-7, 10, 14)
		for _, at := range []float64{-4, 0, 4} {
			d.line("picture", of, x-6, y+at, x+6, y+at)
		}
	},
	"feed-point": func(d *Drawing, of string, x, y float64) {
		d.closed("picture", of, x-10, y-9, x+10, y-9, x+10, y+3, x+6, y+3, x+6, y+11, x+3, y+11, x+3, y+3, x-3, y+3, x-3, y+11, x-6, y+11, x-6,
			y+3, x-10, y+3)
	},
	"lamp": func(d *Drawing, of string, x, y float64) {
		d.circle("picture", of, x, y-2, 8)
		d.box("picture", of, x-5, y+6, 10, 6)
	},
	"tap": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-13, y-9, 26, 18)
		d.circle("picture", of, x-6, y, 3)
		d.circle("picture", of, x+6, y, 3)
	},
	"outlet": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-14, y+2, 28, 8)
		d.box("picture", of, x-4, y-10, 8, 12)
		d.box("picture", of, x-8, y-4, 16, 3)
	},
	"winch": func(d *Drawing, of string, x, y float64) {
		d.box("picture", of, x-16, y-8, 8, 18)
		d.box("picture", of, x+8, y-8, 8, 18)
		for _, at := range []float64{-4, 1, 6} {
			d.line("picture", of, x-8, y+at, x+8, y+at-3)
		}
	},
}

// can is a relay seen from its side.
func can(d *Drawing, of string, x, y float64) {
	d.box("picture", of, x-11, y-13, 22, 19)
	for _, at := range []float64{-8, -3, 2, 7} {
		d.line("picture", of, x+at, y+6, x+at, y+13)
	}
}

// knob is a master switch seen from above.
func knob(d *Drawing, of string, x, y float64) {
	d.circle("picture", of, x, y, 13)
	d.closed("picture", of, x-11, y-3, x+11, y-3, x+11, y+3, x-11, y+3)
}
