package session

import (
	"cmp"
	"slices"
	"strings"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/quantity"
)

// FileTest is what a file does on a hard blade.
type FileTest string

// What a file does.
const (
	Skates FileTest = "skates" // hard
	Bites  FileTest = "bites"  // soft
)

// Seen is what was seen and read of cycles, hardening or tempering; what was not is left out.
type Seen struct {
	TempC       float64  `json:"tempC,omitempty" doc:"of the steel by its colour, or of the oven as it was read"`
	BathC       float64  `json:"bathC,omitempty" doc:"how warm the bath was"`
	TimeS       float64  `json:"timeS,omitempty"`
	WarpMm      float64  `json:"warpMm,omitempty" doc:"out of straight, over the length of the blade"`
	File        FileTest `json:"file,omitempty" enum:"skates,bites"`
	GrainNumber float64  `json:"grainNumber,omitempty" doc:"ASTM, of a coupon's fracture"`
	HRC         float64  `json:"hrc,omitempty"`
}

// nothing tells whether not a thing was seen.
func (s *Seen) nothing() bool { return s == nil || *s == (Seen{}) }

func (s *Seen) validate(k fact.Check, c *Course) {
	if s == nil {
		return
	}
	if s.TempC != 0 {
		k.Range("tempC", s.TempC, 50, mostC)
	}
	if s.BathC != 0 {
		k.Range("bathC", s.BathC, -20, 250)
	}
	k.Range("timeS", s.TimeS, 0, 48*3600)
	k.Range("warpMm", s.WarpMm, -c.LongestMm(), c.LongestMm())
	fact.OneOf(k, "file", s.File, "", Skates, Bites)
	if s.GrainNumber != 0 {
		k.Range("grainNumber", s.GrainNumber, -3, 16)
	}
	if s.HRC != 0 {
		k.Range("hrc", s.HRC, 10, 70)
	}
}

func (s *Seen) compare(o *Seen) int {
	if s == nil || o == nil {
		return nils(s == nil, o == nil)
	}
	return cmp.Or(
		cmp.Compare(s.TempC, o.TempC), cmp.Compare(s.BathC, o.BathC), cmp.Compare(s.TimeS, o.TimeS), cmp.Compare(s.WarpMm, o.WarpMm),
		cmp.Compare(s.File, o.File), cmp.Compare(s.GrainNumber, o.GrainNumber), cmp.Compare(s.HRC, o.HRC),
	)
}

// TreatAt is the place of a step of the treatment by its id; −1 where there is none.
func (c *Course) TreatAt(id string) int {
	return slices.IndexFunc(c.Treatment, func(s harden.Step) bool { return s.ID == id })
}

// toHarden goes on to the treatment, whatever of the forging was told.
func (f *folding) toHarden(ms int64) {
	if len(f.c.Treatment) > 0 && f.s.TreatMs == 0 {
		f.laidDown(ms, false)
		f.s.Hardening, f.s.TreatMs = true, ms
	}
}

// treated ends a step of the treatment; those before it that nobody told of are passed over.
func (f *folding) treated(e *Event, ms int64) {
	at := f.s.Treat
	if e.Step != "" {
		at = f.c.TreatAt(e.Step)
	}
	if at < f.s.Treat || at >= len(f.c.Treatment) {
		return // it was told already, on another screen
	}
	f.toHarden(ms)
	f.s.Treat, f.s.TreatMs = at+1, ms
	f.told(e, ms)
}

// treating tells whether the treatment is what is in hand.
func (s *State) treating(c *Course) bool { return s.Hardening && s.Treat < len(c.Treatment) }

// treat fills in what is seen of a treatment, where it is in hand or done.
func (s *State) treat(c *Course, v *View, nowMs int64) bool {
	v.Treating, v.Treated = s.treating(c), len(c.Treatment) > 0 && s.Treat >= len(c.Treatment)
	if !v.Treating && !v.Treated {
		return false
	}
	v.Phase, v.Step, v.Heats, v.Cycles = Finished, len(c.Steps), v.Trip, v.Cycle
	if v.Treated {
		return true
	}
	v.Treat = s.Treat
	v.TreatS = seconds(s.TreatMs, nowMs)
	if st := &c.Treatment[s.Treat]; st.CountS > 0 {
		v.TreatLeftS = st.CountS - v.TreatS
		v.Last = v.TreatLeftS <= lastS && v.TreatLeftS > 0
	}
	return true
}

// ParseSeen reads one thing that was seen as it is typed. A time without a unit is in seconds
// where a step lasts seconds, else in minutes. Errors are a *FieldError.
func ParseSeen(what harden.Sight, text string, quick bool, units quantity.System, into *Seen) error {
	text = strings.TrimSpace(text)
	if text == "" {
		return nil
	}
	parse := func(kind quantity.Kind, to *float64) error {
		v, err := quantity.Parse(text, kind, units)
		if err != nil {
			return &FieldError{string(what), err}
		}
		*to = v
		return nil
	}
	switch what {
	case harden.SeeTemp:
		return parse(quantity.Temperature, &into.TempC)
	case harden.SeeBath:
		return parse(quantity.Temperature, &into.BathC)
	case harden.SeeWarp:
		return parse(quantity.Length, &into.WarpMm)
	case harden.SeeGrain:
		return parse(quantity.Number, &into.GrainNumber)
	case harden.SeeHard:
		return parse(quantity.Number, &into.HRC)
	case harden.SeeFile:
		into.File = FileTest(text)
		return nil
	case harden.SeeTime:
		per := 60.0
		if quick {
			per = 1
		}
		number := text
		for _, u := range []struct {
			name string
			s    float64
		}{{"min", 60}, {"sec", 1}, {"s", 1}, {"h", 3600}} {
			if rest, ok := strings.CutSuffix(text, u.name); ok {
				number, per = strings.TrimSpace(rest), u.s
				break
			}
		}
		v, err := quantity.Parse(number, quantity.Number, units)
		if err != nil {
			return &FieldError{string(what), err}
		}
		into.TimeS = v * per
	}
	return nil
}
