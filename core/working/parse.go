package working

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
)

// node is a piece of a parsed equation: it can be evaluated and it can be shown
// with its numbers filled in.
type node interface {
	eval(values []float64) float64
	fill(inputs []Input) string
}

type number struct {
	value float64
	text  string
}

type letter struct{ index int }

type binary struct {
	op          rune
	left, right node
}

type negative struct{ of node }

type call struct {
	name string
	args []node
}

type group struct{ of node }

func (n number) eval([]float64) float64   { return n.value }
func (l letter) eval(v []float64) float64 { return v[l.index] }
func (n negative) eval(v []float64) float64 {
	return -n.of.eval(v)
}
func (g group) eval(v []float64) float64 { return g.of.eval(v) }

func (b binary) eval(v []float64) float64 {
	x, y := b.left.eval(v), b.right.eval(v)
	switch b.op {
	case '+':
		return x + y
	case '−':
		return x - y
	case '·':
		return x * y
	case '/':
		return x / y
	default:
		return math.Pow(x, y)
	}
}

// functions are what an equation may call, with how many arguments each takes.
var functions = map[string]int{"√": 1, "ln": 1, "min": 2, "max": 2}

func (c call) eval(v []float64) float64 {
	x := c.args[0].eval(v)
	switch c.name {
	case "√":
		return math.Sqrt(x)
	case "ln":
		return math.Log(x)
	case "min":
		return math.Min(x, c.args[1].eval(v))
	default:
		return math.Max(x, c.args[1].eval(v))
	}
}

func (n number) fill([]Input) string      { return n.text }
func (l letter) fill(in []Input) string   { return in[l.index].Text }
func (n negative) fill(in []Input) string { return "−" + n.of.fill(in) }
func (g group) fill(in []Input) string    { return "(" + g.of.fill(in) + ")" }

func (b binary) fill(in []Input) string {
	if b.op == '^' {
		return b.left.fill(in) + "^" + b.right.fill(in)
	}
	return b.left.fill(in) + " " + string(b.op) + " " + b.right.fill(in)
}

func (c call) fill(in []Input) string {
	args := make([]string, len(c.args))
	for i, a := range c.args {
		args[i] = a.fill(in)
	}
	return c.name + "(" + strings.Join(args, ", ") + ")"
}

// deepest is how far an equation may nest; it keeps the parser from exhausting
// the stack on hostile text.
const deepest = 50

type parser struct {
	runes   []rune
	at      int
	depth   int
	letters map[string]int
}

// parse reads the right-hand side of an equation:
//
//	sum     = product { ("+" | "−") product }
//	product = power { ("·" | "/") power }
//	power   = ["−"] atom [ "^" power ]
//	atom    = number | letter | function "(" sum { "," sum } ")" | "(" sum ")"
func parse(text string, letters map[string]int) (node, error) {
	p := &parser{runes: []rune(text), letters: letters}
	root, err := p.sum()
	if err != nil {
		return nil, err
	}
	if r := p.peek(); r != 0 {
		return nil, fmt.Errorf("%q is not expected here", r)
	}
	return root, nil
}

func (p *parser) peek() rune {
	for p.at < len(p.runes) && unicode.IsSpace(p.runes[p.at]) {
		p.at++
	}
	if p.at == len(p.runes) {
		return 0
	}
	return p.runes[p.at]
}

func (p *parser) sum() (node, error) { return p.chain("+−", p.product) }

func (p *parser) product() (node, error) { return p.chain("·/", p.power) }

// chain reads operands joined by any of ops, grouping from the left.
func (p *parser) chain(ops string, operand func() (node, error)) (node, error) {
	left, err := operand()
	for err == nil {
		op := p.peek()
		if op == 0 || !strings.ContainsRune(ops, op) {
			return left, nil
		}
		p.at++
		var right node
		right, err = operand()
		left = binary{op, left, right}
	}
	return nil, err
}

func (p *parser) power() (node, error) {
	p.depth++
	defer func() { p.depth-- }()
	if p.depth > deepest {
		return nil, errors.New("nested too deeply")
	}
	if p.peek() == '−' {
		p.at++
		of, err := p.power()
		return negative{of}, err
	}
	base, err := p.atom()
	if err != nil || p.peek() != '^' {
		return base, err
	}
	p.at++
	exponent, err := p.power()
	return binary{'^', base, exponent}, err
}

func (p *parser) atom() (node, error) {
	switch r := p.peek(); {
	case r == 0:
		return nil, errors.New("ends too early")
	case r == '(':
		p.at++
		of, err := p.sum()
		if err != nil {
			return nil, err
		}
		return group{of}, p.expect(')')
	case r == '√':
		p.at++
		return p.call("√")
	case unicode.IsDigit(r):
		text := p.take(func(r rune) bool { return unicode.IsDigit(r) || r == '.' })
		value, err := strconv.ParseFloat(text, 64)
		return number{value, text}, err
	case unicode.IsLetter(r):
		return p.name()
	default:
		return nil, fmt.Errorf("%q is not expected here", r)
	}
}

func (p *parser) name() (node, error) {
	name := p.take(func(r rune) bool {
		return unicode.IsLetter(r) || unicode.IsDigit(r) || r == '_'
	})
	if _, ok := functions[name]; ok {
		return p.call(name)
	}
	index, ok := p.letters[name]
	if !ok {
		return nil, fmt.Errorf("%s is not declared", name)
	}
	return letter{index}, nil
}

func (p *parser) call(name string) (node, error) {
	if err := p.expect('('); err != nil {
		return nil, err
	}
	c := call{name: name}
	for {
		arg, err := p.sum()
		if err != nil {
			return nil, err
		}
		c.args = append(c.args, arg)
		if p.peek() != ',' {
			break
		}
		p.at++
	}
	if len(c.args) != functions[name] {
		return nil, fmt.Errorf("%s takes %d, not %d", name, functions[name], len(c.args))
	}
	return c, p.expect(')')
}

func (p *parser) take(of func(rune) bool) string {
	start := p.at
	for p.at < len(p.runes) && of(p.runes[p.at]) {
		p.at++
	}
	return string(p.runes[start:p.at])
}

func (p *parser) expect(want rune) error {
	if p.peek() != want {
		return fmt.Errorf("%q is missing", want)
	}
	p.at++
	return nil
}
