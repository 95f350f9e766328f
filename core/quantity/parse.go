package quantity

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Kind is what a text is meant to measure.
type Kind string

// The kinds of quantity that can be typed.
const (
	Length      Kind = "length"      // stored in mm
	Mass        Kind = "mass"        // stored in g
	Temperature Kind = "temperature" // stored in °C
	Number      Kind = "number"      // plain, no unit
	Percent     Kind = "percent"     // stored as a fraction; "8" and "8 %" are both 0.08
	Speed       Kind = "speed"       // stored in m/s
	MassRate    Kind = "massRate"    // stored in kg/h
	MassPrice   Kind = "massPrice"   // stored in the shop's money a kilogram
)

// KindOf reads what a figure measures off its name, since names carry their unit:
// …Mm is a length (but …PerMm and …Per100Mm a plain number), …Kg a mass, …MPerS a speed, …KgPerH a rate, …C a temperature, …Fraction and …Share a percentage;
// all else is a plain number. It is the one place that knows.
func KindOf(name string) Kind {
	switch {
	case strings.HasSuffix(name, "PerMm"), strings.HasSuffix(name, "Per100Mm"):
		return Number
	case strings.HasSuffix(name, "Mm"):
		return Length
	case strings.HasSuffix(name, "Fraction"), strings.HasSuffix(name, "Share"):
		return Percent
	case strings.HasSuffix(name, "Kg"):
		return Mass
	case strings.HasSuffix(name, "MPerS"):
		return Speed
	case strings.HasSuffix(name, "KgPerH"):
		return MassRate
	case name == "steelPrice", name == "fuelPrice", strings.HasSuffix(name, ".steelPrice"), strings.HasSuffix(name, ".fuelPrice"):
		return MassPrice
	case strings.HasSuffix(name, "C"):
		return Temperature
	}
	return Number
}

// Code names what is wrong with a text; the message catalogue has the words.
type Code string

// Codes of ParseError.
const (
	CodeEmpty         Code = "quantity.empty"
	CodeUnexpected    Code = "quantity.unexpected"
	CodeUnit          Code = "quantity.unit"
	CodeZeroDivisor   Code = "quantity.zeroDivisor"
	CodeMissingNumber Code = "quantity.missingNumber"
	CodeTooLarge      Code = "quantity.tooLarge"
	CodeThousands     Code = "quantity.thousands" // a comma that may part thousands or be a decimal one
)

// ParseError says what is wrong with a typed text and where: Offset is the
// byte position of the offending character (len(Text) if something is missing
// at the end).
type ParseError struct {
	Text   string `json:"text"`
	Offset int    `json:"offset"`
	Code   Code   `json:"code"`
	Found  string `json:"found,omitempty"`
}

func (e *ParseError) Error() string {
	return fmt.Sprintf("%s at %d in %q", e.Code, e.Offset, e.Text)
}

// maxMagnitude bounds what is accepted (1 km in mm), so that no sum overflows
// into a meaningless number.
const maxMagnitude = 1e6

var units = map[Kind]map[string]float64{
	Length: {
		"mm": 1, "cm": 10, "m": 1000,
		"in": mmPerInch, "inch": mmPerInch, "inches": mmPerInch, "\"": mmPerInch, "″": mmPerInch, "”": mmPerInch,
	},
	Mass:    {"g": 1, "kg": 1000, "oz": gPerOunce, "lb": gPerPound, "lbs": gPerPound},
	Number:  {"": 1},
	Percent: {"%": 0.01},
}

// What the units of inch and pound are, by definition.
const (
	mmPerInch = 25.4
	gPerPound = 453.59237
	gPerOunce = gPerPound / 16
	mPerFoot  = .3048
)

// defaultUnit is the factor of a number typed without a unit.
func defaultUnit(k Kind, s System) float64 {
	switch k {
	case Length:
		if s.Inches() {
			return mmPerInch
		}
		return 1
	case Percent:
		return 0.01
	default:
		return 1
	}
}

// Parse reads text as a quantity of kind k and returns it in the kind's stored
// unit. A number may be decimal (point or comma), a fraction "3/8" or "⅜", or a mixed
// number "1 1/4", "1-1/4" or "1¼"; terms may be added and subtracted; each term may carry
// its own unit, and takes the system's unit if it does not. A comma before exactly three
// digits is asked back, since 1,250 is read either way (where the comma is the sign before
// tenths, 1.250 is). The error, if any, is a
// *ParseError. Signs are allowed: whether a negative value makes sense is for
// the caller's range to say.
func Parse(text string, k Kind, s System) (float64, error) {
	if k == Temperature {
		return parseTemperature(text, s)
	}
	if _, ok := perUnit[k]; ok {
		return parseTwoPart(text, k, s)
	}
	p := &parser{text: text, kind: k, fallback: defaultUnit(k, s), units: units[k], system: s}
	return p.sum()
}

func parseTemperature(text string, s System) (float64, error) {
	trimmed := strings.TrimSpace(text)
	lower := strings.ToLower(trimmed)
	fahrenheit := s.Fahrenheit()
	for _, u := range []struct {
		suffix string
		f      bool
	}{{"°f", true}, {"f", true}, {"°c", false}, {"c", false}, {"°", fahrenheit}} {
		if strings.HasSuffix(lower, u.suffix) {
			fahrenheit = u.f
			trimmed = trimmed[:len(trimmed)-len(u.suffix)]
			break
		}
	}
	p := &parser{text: trimmed, kind: Temperature, fallback: 1, units: map[string]float64{}, system: s}
	v, err := p.sum()
	if err != nil {
		if pe, ok := err.(*ParseError); ok { //nolint:errorlint // our own, unwrapped
			pe.Text = text
		}
		return 0, err
	}
	if fahrenheit {
		v = (v - 32) / 1.8
	}
	return v, nil
}

type parser struct {
	text     string
	pos      int
	kind     Kind
	fallback float64
	units    map[string]float64
	system   System
}

func (p *parser) fail(at int, c Code) error {
	found := ""
	if at < len(p.text) {
		found = firstRune(p.text[at:])
	}
	return &ParseError{Text: p.text, Offset: at, Code: c, Found: found}
}

func firstRune(s string) string {
	for _, r := range s {
		return string(r)
	}
	return ""
}

func (p *parser) space() {
	for p.pos < len(p.text) {
		switch {
		case p.text[p.pos] == ' ' || p.text[p.pos] == '\t':
			p.pos++
		case strings.HasPrefix(p.text[p.pos:], "\u00a0"):
			p.pos += 2
		default:
			return
		}
	}
}

func (p *parser) sum() (float64, error) {
	p.space()
	if p.pos == len(p.text) {
		return 0, p.fail(p.pos, CodeEmpty)
	}
	total, sign := 0.0, 1.0
	for first := true; ; first = false {
		p.space()
		switch {
		case p.pos < len(p.text) && (p.text[p.pos] == '+' || p.text[p.pos] == '-'):
			if p.text[p.pos] == '-' {
				sign = -1
			}
			p.pos++
		case !first:
			return 0, p.fail(p.pos, CodeUnexpected)
		}
		at := p.pos
		v, err := p.term()
		if err != nil {
			return 0, err
		}
		total += sign * v
		if math.Abs(total) > maxMagnitude || math.IsNaN(total) {
			return 0, p.fail(at, CodeTooLarge)
		}
		sign = 1
		p.space()
		if p.pos == len(p.text) {
			return total, nil
		}
	}
}

// vulgar are the fractions that have a letter of their own.
var vulgar = map[string]float64{
	"½": 1. / 2, "¼": 1. / 4, "¾": 3. / 4, "⅓": 1. / 3, "⅔": 2. / 3, "⅛": 1. / 8, "⅜": 3. / 8, "⅝": 5. / 8, "⅞": 7. / 8,
}

// letter takes a fraction that has a letter of its own, if one comes next.
func (p *parser) letter() (float64, bool) {
	r := firstRune(p.text[p.pos:])
	v, ok := vulgar[r]
	if ok {
		p.pos += len(r)
	}
	return v, ok
}

// slash tells whether a fraction goes on here.
func (p *parser) slash() bool {
	return p.pos < len(p.text) && p.text[p.pos] == '/' || strings.HasPrefix(p.text[p.pos:], fractionSlash)
}

const fractionSlash = "\u2044"

// joined skips the dash that joins a whole number to its fraction, as in 1-1/4: with
// nothing between, and only where a fraction follows.
func (p *parser) joined() {
	rest := p.text[p.pos:]
	if !strings.HasPrefix(rest, "-") {
		return
	}
	if _, ok := vulgar[firstRune(rest[1:])]; ok {
		p.pos++
		return
	}
	n := 1
	for n < len(rest) && isDigit(rest[n]) {
		n++
	}
	if n > 1 && (strings.HasPrefix(rest[n:], "/") || strings.HasPrefix(rest[n:], fractionSlash)) {
		p.pos++
	}
}

// term reads "1 1/4 in", "3/8", "25.4mm", "1¼".
func (p *parser) term() (float64, error) {
	p.space()
	at := p.pos
	v, only := p.letter()
	if !only {
		var err error
		if v, err = p.number(); err != nil {
			return 0, err
		}
		if !strings.ContainsAny(p.text[at:p.pos], ".,") {
			p.joined()
		}
	}
	return p.rest(v, only)
}

// rest reads what may follow the first number of a term.
func (p *parser) rest(v float64, letter bool) (float64, error) {
	var err error
	p.space()
	if f, ok := p.letter(); ok && !letter {
		v += f
	} else if p.slash() {
		if v, err = p.divide(v); err != nil {
			return 0, err
		}
	} else if p.pos < len(p.text) && isDigit(p.text[p.pos]) {
		f, err := p.number()
		if err != nil {
			return 0, err
		}
		p.space()
		if !p.slash() {
			return 0, p.fail(p.pos, CodeUnexpected)
		}
		if f, err = p.divide(f); err != nil {
			return 0, err
		}
		v += f
	}
	p.space()
	factor, err := p.unit()
	if err != nil {
		return 0, err
	}
	return v * factor, nil
}

func (p *parser) divide(v float64) (float64, error) {
	p.pos += len(firstRune(p.text[p.pos:])) // the slash
	p.space()
	at := p.pos
	d, err := p.number()
	if err != nil {
		return 0, err
	}
	if d == 0 {
		return 0, p.fail(at, CodeZeroDivisor)
	}
	return v / d, nil
}

func isDigit(b byte) bool { return b >= '0' && b <= '9' }

func (p *parser) number() (float64, error) {
	start, digits, marks := p.pos, 0, 0
	for p.pos < len(p.text) {
		c := p.text[p.pos]
		if !isDigit(c) && (marks > 0 || (c != '.' && c != ',')) {
			break
		}
		if isDigit(c) {
			digits++
		} else {
			marks++
		}
		p.pos++
	}
	if digits == 0 {
		return 0, p.fail(start, CodeMissingNumber)
	}
	_, thousands := p.system.signs()
	if whole, part, ok := strings.Cut(p.text[start:p.pos], thousands); ok && len(part) == 3 && strings.Trim(whole, "0") != "" {
		return 0, p.fail(start+len(whole), CodeThousands)
	}
	v, err := strconv.ParseFloat(strings.Replace(p.text[start:p.pos], ",", ".", 1), 64)
	if err != nil || v > maxMagnitude {
		return 0, p.fail(start, CodeTooLarge)
	}
	return v, nil
}

func (p *parser) unit() (float64, error) {
	start := p.pos
	for p.pos < len(p.text) && !strings.ContainsRune(" \t+-/.,0123456789", rune(p.text[p.pos])) && !p.atLetter() &&
		!strings.HasPrefix(p.text[p.pos:], "\u00a0") {
		p.pos++
	}
	name := strings.ToLower(p.text[start:p.pos])
	if name == "" {
		return p.fallback, nil
	}
	f, ok := p.units[strings.TrimSuffix(name, ".")]
	if !ok {
		return 0, p.fail(start, CodeUnit)
	}
	return f, nil
}

// atLetter tells whether a fraction that has a letter of its own comes next.
func (p *parser) atLetter() bool {
	_, ok := vulgar[firstRune(p.text[p.pos:])]
	return ok
}
