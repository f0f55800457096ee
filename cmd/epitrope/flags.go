package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"strings"

	"epitrope/core/unit"
)

// errHelp is a request for help, already answered.
var errHelp = errors.New("help was asked for")

// inputError is something wrong with what was given.
type inputError struct{ text string }

func (e *inputError) Error() string { return e.text }

func badInput(format string, args ...any) error { return &inputError{fmt.Sprintf(format, args...)} }

// parseFlags reads the flags of a command, in any order with its arguments, and
// returns the arguments.
func parseFlags(set *flag.FlagSet, args []string, out io.Writer) ([]string, error) {
	set.SetOutput(io.Discard)
	var rest []string
	for {
		err := set.Parse(args)
		if errors.Is(err, flag.ErrHelp) {
			set.SetOutput(out)
			set.Usage()
			return nil, errHelp
		}
		if err != nil {
			return nil, &inputError{flagWords.Replace(err.Error())}
		}
		if set.NArg() == 0 {
			return rest, nil
		}
		rest, args = append(rest, set.Arg(0)), set.Args()[1:]
	}
}

// flagWords says the flag package's errors in the words of the usage text.
var flagWords = strings.NewReplacer("flag provided but not defined: -", "unknown flag --", " for flag -", " for --",
	"flag needs an argument: -", "a value is missing for --")

// quantity is a flag that takes any unit and has limits.
type quantity struct {
	dim      unit.Dimension
	min, max float64
	value    float64
	given    bool
}

func (q *quantity) String() string { return "" }

// Set reads the flag's text.
func (q *quantity) Set(text string) error {
	v, err := q.dim.Parse(text)
	if err != nil {
		return err
	}
	if v < q.min || v > q.max {
		return fmt.Errorf("out of range; allowed are %s to %s", unit.Plain(q.min, "", 3), unit.Plain(q.max, q.dim.Base, 3))
	}
	q.value, q.given = v, true
	return nil
}

// printJSON writes v as indented JSON.
func printJSON(out io.Writer, v any) error {
	enc := json.NewEncoder(out)
	enc.SetIndent("", "  ")
	enc.SetEscapeHTML(false)
	return enc.Encode(v)
}
