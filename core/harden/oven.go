package harden

import "coldember/core/fact"

// Way is how a blade is tempered.
type Way string

// The ways. A torch draws the colour from the spine in minutes; all others take hours.
const (
	InOven    Way = "oven"
	InSand    Way = "sand" // on a tray of sand in an oven, which evens its swing
	InOilBath Way = "oilBath"
	ByTorch   Way = "torch"
)

// Ways lists them.
func Ways() []Way { return []Way{InOven, InSand, InOilBath, ByTorch} }

// usualWay is by how much each swings, K, and how long it takes (judgement): a kitchen oven swings
// widely, sand evens that, a stirred bath keeps to a few degrees, and an eye is good to one shade.
var usualWay = map[Way]struct {
	swingK, hours float64
	times         int
}{InOven: {10, 2, 2}, InSand: {4, 2, 2}, InOilBath: {3, 1, 2}, ByTorch: {15, .05, 3}}

// An oil bath is not taken hotter than this, °C: quenching oils flash from about here on
// (judgement; the flash point of the oil itself comes first).
const mostOilBathC = 200

// torchMostH is the longest that a torch is held to a blade.
const torchMostH = .5

// Oven is what a shop tempers in: an oven, a tray of sand in one, a bath of oil, a kiln.
type Oven struct {
	Way    Way     `json:"way" enum:"oven,sand,oilBath"`
	SwingK float64 `json:"swingK" doc:"by which it swings about its setting"`
	LongMm float64 `json:"longMm,omitempty" doc:"longest blade that it holds; 0: long enough"`
	MostC  float64 `json:"mostC,omitempty" doc:"hottest that it can be set to; 0: hot enough"`
	Holds  int     `json:"holds" doc:"so many blades at once"`
	Kiln   bool    `json:"kiln,omitempty" doc:"soaks for hardening too"`
}

// UsualOvens are those most shops begin with, by an id.
func UsualOvens() map[string]Oven {
	return map[string]Oven{
		"kitchen": {Way: InOven, SwingK: 15, LongMm: 420, MostC: 250, Holds: 4},
		"sand":    {Way: InSand, SwingK: 4, LongMm: 380, MostC: 250, Holds: 3},
		"kiln":    {Way: InOven, SwingK: 4, LongMm: 450, MostC: 1200, Holds: 4, Kiln: true},
		"oilBath": {Way: InOilBath, SwingK: 3, LongMm: 350, MostC: mostOilBathC, Holds: 6},
	}
}

// UsualBaths are tanks that shops begin with, by an id.
func UsualBaths() map[string]Bath {
	out := map[string]Bath{}
	for _, c := range []BathClass{MediumOil, FastOil, VeryFastOil, Water, Brine, Plates} {
		out[string(c)] = NewBath(c)
	}
	return out
}

// Validate reports every figure that cannot be.
func (o *Oven) Validate(c fact.Check) {
	fact.OneOf(c, "way", o.Way, InOven, InSand, InOilBath)
	c.Range("swingK", o.SwingK, 0, 60)
	if o.LongMm != 0 {
		c.Range("longMm", o.LongMm, 50, 3000)
	}
	if o.MostC != 0 {
		c.Range("mostC", o.MostC, 100, 1350)
	}
	c.Range("holds", float64(o.Holds), 1, 1000)
}

// Validate reports every figure that cannot be.
func (b *Bath) Validate(c fact.Check) {
	fact.OneOf(c, "class", b.Class, BathClasses()...)
	c.Range("severityPerIn", b.SeverityPerIn, .005, 6)
	c.Range("volumeL", b.VolumeL, .5, 2000)
	c.Range("warmC", b.WarmC, coldestBathC(b.Class), warmestBathC(b.Class))
	if b.LongMm != 0 {
		c.Range("longMm", b.LongMm, 50, 3000)
	}
}

// SetWay tempers another way, as is usual for it.
func (t *Treatment) SetWay(w Way) {
	u := usualWay[w]
	t.Way, t.SwingK, t.Hours, t.Times = w, u.swingK, u.hours, u.times
	t.OvenC, t.OvenMm, t.OvenMostC = 0, 0, 0
}

// TakeUp tempers in an oven of the shop: hours and times stay, but for those of a torch.
func (t *Treatment) TakeUp(o Oven) {
	if t.Way == ByTorch || o.Way == InOilBath != (t.Way == InOilBath) {
		t.SetWay(o.Way)
	}
	t.Way, t.SwingK, t.OvenMm, t.OvenMostC = o.Way, o.SwingK, o.LongMm, o.MostC
	if o.Kiln {
		t.Kiln = true
	}
}

// By is the way a treatment tempers: an oven where none is said.
func (t *Treatment) By() Way {
	if t.Way == "" {
		return InOven
	}
	return t.Way
}
