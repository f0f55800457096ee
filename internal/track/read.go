package track

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strings"

	"epitrope/internal/table"
)

// File reads a track in any of the forms that are known, by what is in it.
func File(data []byte) (Read, error) {
	samples, err := samples(data)
	if err != nil {
		return Read{}, err
	}
	return Pattern(samples)
}

func samples(data []byte) ([]Sample, error) {
	start := bytes.TrimSpace(bytes.TrimPrefix(data, []byte("\xef\xbb\xbf")))
	if bytes.HasPrefix(start, []byte("<")) {
		return gpx(start)
	}
	return driving(start)
}

// gpx reads the track points of a GPX file: position and time; speed follows from both.
func gpx(data []byte) ([]Sample, error) {
	dec := xml.NewDecoder(bytes.NewReader(data))
	var out []Sample
	var before *point
	for {
		token, err := dec.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		line, _ := dec.InputPos()
		if err != nil {
			return nil, table.Wrong(line, "file", "", "is not GPX: "+err.Error())
		}
		start, ok := token.(xml.StartElement)
		if !ok || start.Name.Local != "trkpt" {
			continue
		}
		var p point
		if err := dec.DecodeElement(&p, &start); err != nil {
			return nil, table.Wrong(line, "track point", "", "cannot be read: "+err.Error())
		}
		if p.Time == "" {
			return nil, table.Wrong(line, "track point", "", "has no time; record the track with time")
		}
		at, err := table.When(p.Time)
		if err != nil {
			return nil, table.Wrong(line, "time", p.Time, "is not a time such as 2030-05-01T08:15:00Z")
		}
		if !(math.Abs(p.Lat) <= 90 && math.Abs(p.Lon) <= 180) {
			return nil, table.Wrong(line, "position", fmt.Sprintf("%g, %g", p.Lat, p.Lon), "is not on the earth")
		}
		p.at = at
		if before != nil && p.at > before.at {
			kmh := 3.6 * metres(*before, p) / (p.at - before.at)
			out = append(out, Sample{At: before.at, Kmh: math.Min(kmh, fastestKmh), RPM: math.NaN(), Line: line})
		}
		if len(out) > Samples {
			break
		}
		before = &p
	}
	if before != nil && len(out) > 0 {
		out = append(out, Sample{At: before.at, Kmh: out[len(out)-1].Kmh, RPM: math.NaN()})
	}
	return out, nil
}

type point struct {
	Lat  float64 `xml:"lat,attr"`
	Lon  float64 `xml:"lon,attr"`
	Time string  `xml:"time"`
	at   float64
}

// metres is the distance between two points of the earth. Source: haversine, mean
// radius of the earth 6,371 km.
func metres(a, b point) float64 {
	const radius, degree = 6_371_000.0, math.Pi / 180
	dLat, dLon := (b.Lat-a.Lat)*degree, (b.Lon-a.Lon)*degree
	h := math.Pow(math.Sin(dLat/2), 2) + math.Cos(a.Lat*degree)*math.Cos(b.Lat*degree)*math.Pow(math.Sin(dLon/2), 2)
	return 2 * radius * math.Asin(math.Min(1, math.Sqrt(h)))
}

// columns are those of a table of driving.
var columns = []table.Column{
	{Name: "time", Words: []string{"time", "date", "seconds"}, Whole: []string{"t", "s"}, Time: true},
	{Name: "rpm", Words: []string{"rpm", "engine speed", "revs"}},
	{Name: "speed", Words: []string{"speed", "km/h", "kmh", "mph"}, Whole: []string{"v"},
		Units: map[string]float64{"mph": 1.609344, "m/s": 3.6}},
}

// driving reads a table with a line of heads: a time, and a speed or the engine's.
func driving(data []byte) ([]Sample, error) {
	rows, have, err := table.Read(data, columns, Samples)
	if errors.Is(err, table.ErrEmpty) {
		return nil, ErrEmpty
	}
	if have != nil && (!have[0] || !have[1] && !have[2]) {
		first, _, _ := strings.Cut(string(data), "\n")
		return nil, &Error{Line: 1, Field: "heads", Value: first[:min(len(first), 60)],
			Wrong: "name no time with a speed or rpm; write a first line such as “time, speed km/h” or “time, rpm”"}
	}
	if err != nil {
		return nil, err
	}
	out := make([]Sample, len(rows))
	for i, r := range rows {
		out[i] = Sample{At: r.Values[0], RPM: r.Values[1], Kmh: r.Values[2], Line: r.Line}
	}
	return out, nil
}
