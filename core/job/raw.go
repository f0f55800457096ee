package job

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
	"unicode/utf8"
)

// deepest is how far objects may stand in each other.
const deepest = 12

// rawProblem is what makes a text no document: where it stands, as people count, and what is wrong there.
type rawProblem struct {
	path, wrong string
}

func (e *rawProblem) Error() string { return e.wrong }

// NotJSON says why a text is no JSON, in words: how it is encoded, or where it goes wrong; "" where it is.
func NotJSON(data []byte) string {
	if wrong := encoding(data); wrong != "" {
		return wrong
	}
	_, err := object(data)
	if err == nil {
		return ""
	}
	return err.Error()
}

// encoding says how a text is encoded that is not UTF-8; "" where it is.
func encoding(data []byte) string {
	switch {
	case bytes.HasPrefix(data, []byte{0xff, 0xfe}), bytes.HasPrefix(data, []byte{0xfe, 0xff}):
		return "is UTF-16 text; save it as UTF-8"
	case bytes.HasPrefix(data, []byte{0xef, 0xbb, 0xbf}):
		return "begins with a byte-order mark; save it as UTF-8 without one"
	case utf8.Valid(data):
		return ""
	}
	at := 0
	for at < len(data) {
		r, size := utf8.DecodeRune(data[at:])
		if r == utf8.RuneError && size == 1 {
			break
		}
		at += size
	}
	line, column := lineOf(data, int64(at))
	return fmt.Sprintf("is not valid UTF-8 at line %d, column %d; a Windows or Latin code page writes such bytes: save it as "+
		"UTF-8", line, column)
}

// object reads one JSON object and nothing after it. Unlike the standard library it refuses a key that stands
// twice, which would silently win over the first.
func object(data []byte) (map[string]any, error) {
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.UseNumber()
	value, err := readValue(dec, "", 0)
	if err != nil {
		return nil, placed(data, dec, err)
	}
	raw, is := value.(map[string]any)
	if !is {
		return nil, &rawProblem{wrong: "is no object"}
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		line, column := lineOf(data, dec.InputOffset())
		return nil, &rawProblem{wrong: fmt.Sprintf("goes on after its end, at line %d, column %d", line, column)}
	}
	return raw, nil
}

// readValue reads the next value of a decoder, which stands at a path.
func readValue(dec *json.Decoder, path string, depth int) (any, error) {
	if depth > deepest {
		return nil, &rawProblem{path, "stands too deep"}
	}
	token, err := dec.Token()
	if err != nil {
		return nil, err
	}
	delim, is := token.(json.Delim)
	switch {
	case !is:
		return token, nil
	case delim == '[':
		list := []any{}
		for dec.More() {
			v, err := readValue(dec, path, depth+1)
			if err != nil {
				return nil, err
			}
			list = append(list, v)
		}
		_, err := dec.Token()
		return list, err
	}
	fields := map[string]any{}
	for dec.More() {
		key, err := dec.Token()
		if err != nil {
			return nil, err
		}
		name, _ := key.(string) // keys are text
		at := strings.TrimPrefix(path+"."+name, ".")
		if _, twice := fields[name]; twice {
			return nil, &rawProblem{at, "stands twice"}
		}
		if fields[name], err = readValue(dec, at, depth+1); err != nil {
			return nil, err
		}
	}
	_, err = dec.Token()
	return fields, err
}

// placed is an error of the reader with the line and column at which it met it.
func placed(data []byte, dec *json.Decoder, err error) error {
	var ours *rawProblem
	if errors.As(err, &ours) {
		return err
	}
	at := dec.InputOffset()
	var syntax *json.SyntaxError
	if errors.As(err, &syntax) {
		at = max(at, syntax.Offset-1)
	}
	line, column := lineOf(data, at)
	what := "something is wrong"
	if errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, io.EOF) || at >= int64(len(data)) {
		what = "it ends too early"
	}
	return &rawProblem{wrong: fmt.Sprintf("is not JSON: %s at line %d, column %d", what, line, column)}
}

// lineOf is where a byte stands, as people count.
func lineOf(data []byte, at int64) (line, column int) {
	before := data[:min(max(0, at), int64(len(data)))]
	line = 1 + bytes.Count(before, []byte("\n"))
	return line, 1 + len([]rune(string(before[bytes.LastIndexByte(before, '\n')+1:])))
}
