package trace_test

import (
	"testing"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/parts"
	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/standin"
)

// The first belief of a large job by twelve readings (limit 1.5 s), and one after a further reading (limit 0.3 s).
func BenchmarkBelieve(b *testing.B) {
	doc := documents(b, 40)
	largest, most := 0, 0
	for name, d := range doc {
		if n := len(design.Of(d, parts.Stock()).System.Components); n > most {
			largest, most = name, n
		}
	}
	evidence := func(d *design.Design, readings int) trace.Evidence {
		p := prove.Wider(d)
		v := standin.Build(d, p, 7)
		for _, f := range fault.Of(d) {
			if f.Kind == fault.Joint {
				v = v.With(f, 80)
				break
			}
		}
		e := trace.Evidence{Format: trace.Format, Version: trace.Version, Seen: []trace.Observed{{Symptom: "slow-charge"}}}
		for _, r := range p.Readings {
			if len(e.Seen) <= readings && r.Of == "" && r.Unit == prove.Volts && (r.Station == prove.FastIdle ||
				r.Station == prove.KeyOut) {
				value, _ := v.Reads(r)
				e.Seen = append(e.Seen, trace.Observed{Reading: r.ID, Entry: r.Says(value)})
			}
		}
		return e
	}
	b.Run("first", func(b *testing.B) {
		for b.Loop() {
			d := design.Of(doc[largest], parts.Stock())
			trace.Of(d).Believe(evidence(d, 12))
		}
		s := design.Of(doc[largest], parts.Stock()).System
		b.ReportMetric(float64(most), "components")
		b.ReportMetric(float64(len(s.Wires)), "wires")
		b.ReportMetric(float64(len(s.Attached)), "loads")
		b.ReportMetric(float64(len(fault.Of(design.Of(doc[largest], parts.Stock())))), "faults")
	})
	b.Run("next", func(b *testing.B) {
		d := design.Of(doc[largest], parts.Stock())
		trace.Of(d).Believe(evidence(d, 11))
		e := evidence(d, 12)
		for b.Loop() {
			trace.Of(d).Believe(e)
		}
	})
}
