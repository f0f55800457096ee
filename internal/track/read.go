package track

import (
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"time"
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
	return table(start)
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
			return nil, &Error{line, "file", "", "is not GPX: " + err.Error()}
		}
		start, ok := token.(xml.StartElement)
		if !ok || start.Name.Local != "trkpt" {
			continue
		}
		var p point
		if err := dec.DecodeElement(&p, &start); err != nil {
			return nil, &Error{line, "track point", "", "cannot be read: " + err.Error()}
		}
		if p.Time == "" {
			return nil, &Error{line, "track point", "", "has no time; record the track with time"}
		}
		at, err := when(p.Time)
		if err != nil {
			return nil, &Error{line, "time", p.Time, "is not a time such as 2030-05-01T08:15:00Z"}
		}
		if !(math.Abs(p.Lat) <= 90 && math.Abs(p.Lon) <= 180) {
			return nil, &Error{line, "position", fmt.Sprintf("%g, %g", p.Lat, p.Lon), "is not on the earth"}
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

// columns are the columns of a table by what their heads may say.
type columns struct{ time, kmh, rpm int }

// unit is by what a speed is multiplied to be in km/h.
type heads struct {
	columns
	toKmh float64
}

func headed(row []string) (heads, bool) {
	h := heads{columns{-1, -1, -1}, 1}
	for i, cell := range row {
		cell = strings.ToLower(strings.TrimSpace(cell))
		switch {
		case h.time < 0 && (strings.Contains(cell, "time") || cell == "t" || cell == "s" || strings.HasPrefix(cell, "seconds") || strings.Contains(cell, "date")):
			h.time = i
		case h.rpm < 0 && (strings.Contains(cell, "rpm") || strings.Contains(cell, "engine speed") || strings.Contains(cell, "revs")):
			h.rpm = i
		case h.kmh < 0 && (strings.Contains(cell, "speed") || strings.Contains(cell, "km/h") || strings.Contains(cell, "kmh") || strings.Contains(cell, "mph") || cell == "v"):
			h.kmh = i
			switch {
			case strings.Contains(cell, "mph"):
				h.toKmh = 1.609344
			case strings.Contains(cell, "m/s"):
				h.toKmh = 3.6
			}
		}
	}
	return h, h.time >= 0 && (h.kmh >= 0 || h.rpm >= 0)
}

// table reads a table with a line of heads: a time, and a speed or the engine's.
func table(data []byte) ([]Sample, error) {
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma = delimiter(data)
	r.FieldsPerRecord, r.TrimLeadingSpace, r.LazyQuotes, r.ReuseRecord = -1, true, true, true
	first, err := r.Read()
	if err != nil {
		return nil, ErrEmpty
	}
	h, ok := headed(first)
	if !ok {
		return nil, &Error{1, "heads", strings.Join(first, ", "), "name no time with a speed or rpm; write a first line such as “time, speed km/h” or “time, rpm”"}
	}
	var out []Sample
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			return out, nil
		}
		line, _ := r.FieldPos(0)
		if err != nil {
			return nil, &Error{line, "line", "", "cannot be read: " + err.Error()}
		}
		s, err := sampleOf(row, h, line, r.Comma)
		if err != nil {
			return nil, err
		}
		if out = append(out, s); len(out) > Samples {
			return out, nil // refused by its length
		}
	}
}

func sampleOf(row []string, h heads, line int, comma rune) (Sample, error) {
	s := Sample{Kmh: math.NaN(), RPM: math.NaN(), Line: line}
	cell := func(i int) string {
		if i < 0 || i >= len(row) {
			return ""
		}
		return strings.TrimSpace(row[i])
	}
	at, err := when(cell(h.time))
	if err != nil {
		return s, &Error{line, "time", cell(h.time), "is not a time: seconds, 08:15:00 or 2030-05-01T08:15:00"}
	}
	s.At = at
	if h.kmh >= 0 {
		if s.Kmh, err = number(cell(h.kmh), comma); err != nil {
			return s, &Error{line, "speed", cell(h.kmh), "is not a number"}
		}
		s.Kmh *= h.toKmh
	}
	if h.rpm >= 0 {
		if s.RPM, err = number(cell(h.rpm), comma); err != nil {
			return s, &Error{line, "rpm", cell(h.rpm), "is not a number"}
		}
	}
	return s, nil
}

func number(text string, comma rune) (float64, error) {
	if comma != ',' {
		text = strings.Replace(text, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(text, 64)
	if err == nil && (math.IsNaN(v) || math.IsInf(v, 0)) {
		err = strconv.ErrRange
	}
	return v, err
}

// delimiter is what stands most often between the heads.
func delimiter(data []byte) rune {
	line, _, _ := bytes.Cut(data, []byte("\n"))
	best, most := ',', 0
	for _, d := range []rune{',', ';', '\t'} {
		if n := bytes.Count(line, []byte(string(d))); n > most {
			best, most = d, n
		}
	}
	return best
}

var forms = []string{time.RFC3339Nano, "2006-01-02T15:04:05.999", "2006-01-02 15:04:05.999", "2006-01-02 15:04", "02.01.2006 15:04:05", "15:04:05.999", "15:04"}

// when reads a time as seconds: from some beginning, of the day, or of the calendar.
func when(text string) (float64, error) {
	if v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64); err == nil {
		if math.IsNaN(v) || math.Abs(v) > 1e13 {
			return 0, strconv.ErrRange
		}
		if v > 1e11 {
			v /= 1000 // milliseconds of the calendar
		}
		return v, nil
	}
	for _, form := range forms {
		if t, err := time.Parse(form, text); err == nil {
			return float64(t.UnixMilli()) / 1000, nil
		}
	}
	return 0, strconv.ErrSyntax
}
