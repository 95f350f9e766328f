package session

import (
	"math"
	"slices"
	"strconv"

	"coldember/core/fact"
	"coldember/core/quantity"
)

// Instrument is what reads, or is pressed, by itself.
type Instrument string

// Instruments.
const (
	Caliper   Instrument = "caliper"
	Pyrometer Instrument = "pyrometer"
	Scale     Instrument = "scale"
	Pedal     Instrument = "pedal"
)

// Instruments lists them.
func Instruments() []Instrument { return []Instrument{Caliper, Pyrometer, Scale, Pedal} }

// UnitsOf an instrument, that a figure of it may be told in; of a pedal none.
func UnitsOf(i Instrument) []string {
	switch i {
	case Caliper:
		return []string{"mm", "in"}
	case Pyrometer:
		return []string{"C", "F"}
	case Scale:
		return []string{"g", "kg", "oz", "lb"}
	}
	return nil
}

// Figure is what an instrument told.
type Figure struct {
	Instrument Instrument
	Value      float64
	Unit       string
	By         string // the name of the instrument, as the shop knows it
}

// Want is a station that is to be checked.
type Want struct {
	Quantity Quantity `json:"quantity" enum:"height,thickness,edgeThickness,rise"`
	AtMm     float64  `json:"atMm"`
	Mm       float64  `json:"mm" doc:"as planned, cold"`
	HotMm    float64  `json:"hotMm,omitempty" doc:"as it reads at the anvil; 0: as cold"`
	Step     string   `json:"step"`
}

// What an instrument may say of what is wanted (judgement): beyond so many times it is of another unit, or of another place;
// and how near to a station one counts as read.
const (
	otherUnit = 3.0
	sameAtMm  = .5
)

// Wanted are the stations to be checked now, the next first: the goal of the step that was worked last, then the readings
// of its heat. What was read since the piece came out is left out.
func Wanted(c *Course, s *Shown) []Want {
	at := s.View.Step
	if s.View.Phase != OutOf {
		at--
	}
	if at < 0 || at >= len(c.Steps) {
		return nil
	}
	st := &c.Steps[at]
	var out []Want
	add := func(w Want) {
		read := func(t Told) bool {
			return t.Kind == Read && t.Reading != nil && t.OfTrip == s.View.Trip && t.Reading.Quantity == w.Quantity && math.Abs(t.Reading.AtMm-w.AtMm) < sameAtMm
		}
		if w.Mm > 0 && !slices.ContainsFunc(s.State.Told, read) {
			w.Step = st.ID
			out = append(out, w)
		}
	}
	if g := st.Goal; g != nil {
		add(Want{Quantity: Quantity(g.Measure), AtMm: g.AtMm, Mm: g.Mm, HotMm: g.HotMm})
	}
	for _, r := range c.HeatOf(at).Readings {
		add(Want{Quantity: "thickness", AtMm: r.AtMm, Mm: r.ThicknessMm, HotMm: r.ThicknessHotMm})
		add(Want{Quantity: "height", AtMm: r.AtMm, Mm: r.HeightMm, HotMm: r.HeightHotMm})
	}
	return out
}

// Land is the event that a figure becomes where a session stands: of a caliper the next station to be checked, of a
// pedal what going on does. What it is told by and when is the caller's. Errors are fact.FieldErrors.
func Land(c *Course, s *Shown, f Figure) (Event, error) {
	k := fact.NewCheck()
	fact.OneOf(k, "kind", f.Instrument, Instruments()...)
	if err := k.Err(); err != nil {
		return Event{}, err
	}
	if f.Instrument == Pedal {
		if s.Next == "" {
			k.Fail("kind", "reading.nothingNext", nil)
			return Event{}, k.Err()
		}
		e := Event{Kind: s.Next, Side: s.View.Side}
		if s.View.Phase == OutOf && s.View.Step < len(c.Steps) {
			e.Step = c.Steps[s.View.Step].ID
		}
		return e, nil
	}
	if !slices.Contains(UnitsOf(f.Instrument), f.Unit) {
		k.Fail("unit", "reading.unit."+string(f.Instrument), nil)
		return Event{}, k.Err()
	}
	r := &Reading{By: f.By}
	var err error
	kind := map[Instrument]quantity.Kind{Caliper: quantity.Length, Pyrometer: quantity.Temperature, Scale: quantity.Mass}[f.Instrument]
	value, err := quantity.Parse(strconv.FormatFloat(f.Value, 'f', -1, 64)+" "+f.Unit, kind, quantity.Metric)
	if err != nil || math.IsNaN(f.Value) {
		k.Fail("value", "reading.value", nil)
		return Event{}, k.Err()
	}
	e := Event{Kind: Read, Reading: r}
	switch f.Instrument {
	case Pyrometer:
		r.Quantity, r.TempC = Temperature, value
	case Scale:
		r.Quantity, r.MassG = Weight, value
	default:
		wanted := Wanted(c, s)
		if len(wanted) == 0 {
			k.Fail("value", "reading.noneWanted", nil)
			return Event{}, k.Err()
		}
		w := wanted[0]
		if value < w.Mm/otherUnit || value > w.Mm*otherUnit {
			k.Fail("value", "reading.otherUnit", fact.Figures{"valueMm": value, "wantMm": w.Mm})
			return Event{}, k.Err()
		}
		r.Quantity, r.Mm, r.AtMm, e.Step = w.Quantity, value, w.AtMm, w.Step
		r.Hot = s.View.Phase.Hot()
	}
	r.validate(k, c)
	return e, k.Err()
}
