package export

import (
	"fmt"
	"html"
	"strings"

	"epitrope/core/harness"
	"epitrope/core/unit"
)

// svgStyle paints a drawing black on white, what matters by weight and dash and not by
// colour alone.
const svgStyle = `line,polyline,polygon,circle{fill:none;stroke:#1d2b2b;stroke-width:1}` +
	`.outline{stroke-width:1.2;fill:#fff}.feed{stroke:#a31f2b;stroke-width:2.2}.return{stroke:#24406b;stroke-width:2.2}` +
	`.chassis{stroke:#24406b;stroke-width:4;stroke-dasharray:2 3}.signal{stroke:#6a3d9a;stroke-width:1}` +
	`.existing{stroke:#777;stroke-width:1.4}` +
	`.picture{stroke:#8a8f88;stroke-width:.8}.zone{stroke:#b9bdb2;stroke-dasharray:6 5}` +
	`text{font-family:Archivo,Helvetica,Arial,sans-serif;fill:#1d2b2b;stroke:none}` +
	`.name{font-weight:600}text.zone{fill:#5b665f;stroke:none}.label{paint-order:stroke;stroke:#fff;stroke-width:3px}`

// SVG writes a drawing as a picture of its own, with its title and, for those who cannot
// see it, its wires in words.
func SVG(d harness.Drawing, title string, units unit.Units) []byte {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %g %g" width="%g" height="%g" role="img" aria-labelledby="t d">`,
		d.W, d.H, d.W, d.H)
	fmt.Fprintf(&b, "<title id=\"t\">%s</title><desc id=\"d\">%s</desc><style>%s</style><rect width=\"100%%\" height=\"100%%\" "+
		"fill=\"#fff\"/>\n", xml(title), xml(inWords(d)), svgStyle)
	for _, s := range d.Shapes {
		class := xml(s.Class)
		if s.Of != "" {
			class += `" data-of="` + xml(s.Of)
		}
		switch s.Kind {
		case "circle":
			fmt.Fprintf(&b, "<circle class=\"%s\" cx=\"%g\" cy=\"%g\" r=\"%g\"/>\n", class, s.At[0], s.At[1], s.At[2])
		case "text":
			anchor := "middle"
			if s.Start {
				anchor = "start"
			}
			fmt.Fprintf(&b, "<text class=\"%s\" x=\"%g\" y=\"%g\" font-size=\"%g\" text-anchor=\"%s\">%s</text>\n", class, s.At[0], s.At[1], s.Size,
				anchor, xml(units.Say(s.Text)))
		default:
			tag := "polyline"
			if s.Closed {
				tag = "polygon"
			}
			fmt.Fprintf(&b, "<%s class=\"%s\" points=\"%s\"/>\n", tag, class, points(s.At))
		}
	}
	b.WriteString("</svg>\n")
	return []byte(b.String())
}

func points(at []float64) string {
	parts := make([]string, 0, len(at)/2)
	for i := 1; i < len(at); i += 2 {
		parts = append(parts, fmt.Sprintf("%g,%g", at[i-1], at[i]))
	}
	return strings.Join(parts, " ")
}

// xml is a text without what XML does not take.
func xml(text string) string {
	return html.EscapeString(strings.Map(func(r rune) rune {
		if r < ' ' || r == 0xFFFE || r == 0xFFFF || r == 0x7f {
			return ' '
		}
		return r
	}, strings.ToValidUTF8(text, "?")))
}

// inWords reads a drawing in order.
func inWords(d harness.Drawing) string {
	names := map[string]string{}
	for _, p := range d.Parts {
		names[p.ID] = strings.TrimSpace(p.Name + " " + p.Rating)
	}
	var says []string
	for _, l := range d.Lines {
		says = append(says, fmt.Sprintf("%s: %s to %s", strings.TrimSpace(l.Label), names[l.From], names[l.To]))
	}
	return strings.Join(says, ". ")
}
