package track

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strings"

	"epitrope/internal/table"
)

// Bounds of what is read of a GPX file at once: nothing in one is longer, or stands deeper.
const (
	longestPart = 64 << 10
	deepest     = 64
	longestTime = 64
)

// point is a point of a track.
type point struct {
	at       float64 // s
	lat, lon float64 // °
	line     int
}

// gpx reads the track points of a GPX file, one by one: position and time; speed follows from both.
func gpx(r io.Reader) (samples []Sample, says []string, err error) {
	points, err := pointsOf(xml.NewDecoder(&parts{r: r}))
	if err != nil {
		return nil, nil, err
	}
	points, leaps, back, err := plausible(points)
	if err != nil {
		return nil, nil, err
	}
	if back > 0 {
		says = append(says, fmt.Sprintf("%d moments left out: their time runs backward, or stands", back))
	}
	if leaps > 0 {
		says = append(says, fmt.Sprintf("%d points left out that leap further than any vehicle drives", leaps))
	}
	stands := standing(points)
	jitters := 0
	for i := 1; i < len(points); i++ {
		a, b := points[i-1], points[i]
		kmh := 3.6 * metres(a, b) / (b.at - a.at)
		if stands[i-1] && stands[i] {
			if kmh >= standsKmh {
				jitters++
			}
			kmh = 0
		}
		samples = append(samples, Sample{At: a.at, Kmh: math.Min(kmh, fastestKmh), RPM: math.NaN(), Line: a.line})
	}
	if n := len(samples); n > 0 {
		samples = append(samples, Sample{At: points[n].at, Kmh: samples[n-1].Kmh, RPM: math.NaN(), Line: points[n].line})
	}
	if jitters > 0 {
		says = append(says, fmt.Sprintf("%d points that wander about one place are taken as standing", jitters))
	}
	return samples, says, nil
}

// pointsOf are the track points with their times, in the order of the file.
func pointsOf(dec *xml.Decoder) ([]point, error) {
	var list []point
	var p *point
	timed, inTime, depth := false, false, 0
	text := ""
	for {
		token, err := dec.RawToken()
		line, _ := dec.InputPos()
		if errors.Is(err, io.EOF) {
			if p != nil || depth > 0 {
				return nil, table.Wrong(line, "file", "", "is not GPX: it ends too early")
			}
			return list, nil
		}
		if err != nil {
			return nil, notGPX(line, err)
		}
		switch t := token.(type) {
		case xml.StartElement:
			if depth++; depth > deepest {
				return nil, table.Wrong(line, "file", "", "is not GPX: its parts stand too deep")
			}
			switch {
			case t.Name.Local == "trkpt" && len(list) == Samples:
				return nil, tooMany(len(list) + 1)
			case t.Name.Local == "trkpt":
				if p, err = pointAt(t, line); err != nil {
					return nil, err
				}
				timed = false
			case t.Name.Local == "time" && p != nil:
				inTime, text = true, ""
			}
		case xml.CharData:
			if inTime {
				if text += string(t[:min(len(t), longestTime)]); len(text) > longestTime {
					return nil, table.Wrong(line, "time", clip(text), "is not a time such as 2030-05-01T08:15:00Z")
				}
			}
		case xml.EndElement:
			depth--
			switch {
			case t.Name.Local == "time" && inTime:
				inTime, timed = false, true
				if p.at, err = table.When(strings.TrimSpace(text)); err != nil {
					return nil, table.Wrong(line, "time", clip(text), "is not a time such as 2030-05-01T08:15:00Z")
				}
			case t.Name.Local == "trkpt" && p != nil:
				if !timed {
					return nil, table.Wrong(line, "track point", "", "has no time; record the track with time")
				}
				list = append(list, *p)
				p = nil
			}
		}
	}
}

func pointAt(t xml.StartElement, line int) (*point, error) {
	p := &point{lat: math.NaN(), lon: math.NaN(), line: line}
	for _, a := range t.Attr {
		var into *float64
		switch a.Name.Local {
		case "lat":
			into = &p.lat
		case "lon":
			into = &p.lon
		default:
			continue
		}
		if _, err := fmt.Sscanf(strings.TrimSpace(a.Value), "%g", into); err != nil {
			return nil, table.Wrong(line, "position", clip(a.Value), "is not a number of degrees")
		}
	}
	if !(math.Abs(p.lat) <= 90 && math.Abs(p.lon) <= 180) {
		return nil, table.Wrong(line, "position", fmt.Sprintf("%g, %g", p.lat, p.lon), "is not on the earth")
	}
	return p, nil
}

// notGPX says what is wrong with a file in our own words.
func notGPX(line int, err error) error {
	if errors.Is(err, errTooLong) {
		return table.Wrong(line, "file", "", "is not GPX: one part of it is longer than 64 kB")
	}
	return table.Wrong(line, "file", "", "is not GPX: it cannot be read as XML from there on")
}

func clip(s string) string {
	if len(s) > 40 {
		s = s[:40] + "…"
	}
	return strings.ToValidUTF8(s, "")
}

// leapsS is how far apart in time points may be whose distance tells nothing of a leap. Source: common practice,
// no source, as for those below.
const leapsS = 600.0

// mostLeaps is what share of points may leap.
const mostLeaps = 0.25

// plausible leaves out points whose time runs backward, and those that leap further than any vehicle drives.
// A place that is leapt to and kept is where the vehicle is: then what was before it leapt.
func plausible(all []point) (kept []point, leaps, back int, err error) {
	waiting := 0 // points left out one after another
	for _, p := range all {
		n := len(kept)
		if n > 0 && p.at <= kept[n-1].at {
			back++
			continue
		}
		if n > 0 && p.at-kept[n-1].at < leapsS && 3.6*metres(kept[n-1], p)/(p.at-kept[n-1].at) > fastestKmh {
			leaps++
			if waiting++; waiting <= mostAway {
				continue
			}
		}
		waiting = 0
		kept = append(kept, p)
	}
	switch {
	case float64(leaps) > mostLeaps*float64(len(all)):
		return nil, 0, 0, &Error{Field: "position", Wrong: fmt.Sprintf("leaps further than any vehicle drives at %d of %d points", leaps,
			len(all))}
	case float64(back) > mostLeaps*float64(len(all)):
		return nil, 0, 0, &Error{Field: "time", Wrong: fmt.Sprintf("runs backward at %d of %d moments", back, len(all))}
	}
	return kept, leaps, back, nil
}

// mostAway is how many points in a row may be away until they are believed.
const mostAway = 20

// What stands: within so many metres for a while before and after. Source: common practice, no source: a
// receiver that stands wanders by tens of metres.
const (
	wandersM = 50.0
	aroundS  = 60.0
)

// standing says of each point whether the vehicle stands there: it stays about one place from a while before it
// to a while after.
func standing(points []point) []bool {
	stands := make([]bool, len(points))
	from, to := 0, 0
	for i, p := range points {
		for points[from].at < p.at-aroundS {
			from++
		}
		to = max(to, i)
		for to+1 < len(points) && points[to+1].at <= p.at+aroundS {
			to++
		}
		stands[i] = to > from && aboutOnePlace(points[from:to+1])
	}
	return stands
}

// aboutOnePlace says whether points keep within a circle about their middle.
func aboutOnePlace(points []point) bool {
	var middle point
	for _, p := range points {
		middle.lat += p.lat / float64(len(points))
		middle.lon += p.lon / float64(len(points))
	}
	for _, p := range points {
		if metres(p, middle) > wandersM {
			return false
		}
	}
	return true
}

// metres is the distance between two points of the earth. Source: haversine, mean
// radius of the earth 6,371 km.
func metres(a, b point) float64 {
	const radius, degree = 6_371_000.0, math.Pi / 180
	dLat, dLon := (b.lat-a.lat)*degree, (b.lon-a.lon)*degree
	h := math.Pow(math.Sin(dLat/2), 2) + math.Cos(a.lat*degree)*math.Cos(b.lat*degree)*math.Pow(math.Sin(dLon/2), 2)
	return 2 * radius * math.Asin(math.Min(1, math.Sqrt(h)))
}

// errTooLong is a part of a file that has no end.
var errTooLong = errors.New("a part is too long")

// parts reads XML and refuses a part, between two brackets, that is longer than it may be.
type parts struct {
	r    io.Reader
	long int
}

func (p *parts) Read(into []byte) (int, error) {
	n, err := p.r.Read(into)
	for _, b := range into[:n] {
		if p.long++; b == '<' || b == '>' {
			p.long = 0
		}
		if p.long > longestPart {
			return 0, errTooLong
		}
	}
	return n, err
}
