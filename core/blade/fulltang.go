package blade

import (
	"math"

	"coldember/core/fact"
)

// TangForm names an outline that a full tang is given to start from.
type TangForm string

// The forms: even; with a belly for the palm; waisted behind the shoulder; with a butt that
// flares on both sides, or hooks down on the side of the edge; dropped behind the blade; with
// a rounded butt that falls; with grooves for the fingers; with one notch for the first.
const (
	EvenTang    TangForm = "even"
	SwellTang   TangForm = "swell"
	WaistTang   TangForm = "waist"
	FlaredTang  TangForm = "flared"
	HookedTang  TangForm = "hooked"
	DroppedTang TangForm = "dropped"
	RoundTang   TangForm = "round"
	GroovedTang TangForm = "grooved"
	NotchedTang TangForm = "notched"
)

// TangForms lists them.
func TangForms() []TangForm {
	return []TangForm{EvenTang, SwellTang, WaistTang, FlaredTang, HookedTang, DroppedTang, RoundTang, GroovedTang, NotchedTang}
}

// forms are their nodes: along the tang, and over the spine of the heel, as shares of length
// and of the height at the shoulder. The butt is then rounded.
var forms = map[TangForm]Outline{
	EvenTang: {Spine: []Node{{0, 0}, {1, 0}}, Edge: []Node{{0, -1}, {1, -1}}},
	SwellTang: {
		Spine: []Node{{0, 0}, {.24, .02}, {.5, .07}, {.78, .01}, {1, -.02}},
		Edge:  []Node{{0, -1}, {.2, -.97}, {.48, -1.18}, {.78, -.97}, {1, -1.04}},
	},
	WaistTang: {
		Spine: []Node{{0, 0}, {.2, -.12}, {.56, .03}, {1, -.02}},
		Edge:  []Node{{0, -1}, {.16, -.86}, {.5, -1.08}, {.77, -.98}, {1, -1.12}},
	},
	FlaredTang: {
		Spine: []Node{{0, 0}, {.35, -.08}, {.68, -.04}, {1, .2}},
		Edge:  []Node{{0, -1}, {.3, -.95}, {.63, -.97}, {1, -1.3}},
	},
	HookedTang: {
		Spine: []Node{{0, 0}, {.4, .02}, {.74, -.04}, {1, -.26}},
		Edge:  []Node{{0, -1}, {.25, -.95}, {.5, -1.1}, {.73, -.96}, {.94, -1.5}, {1, -1.5}},
	},
	DroppedTang: {
		Spine: []Node{{0, 0}, {.25, .01}, {.6, -.14}, {1, -.5}},
		Edge:  []Node{{0, -1}, {.2, -1}, {.55, -1.2}, {1, -1.56}},
	},
	RoundTang: {
		Spine: []Node{{0, 0}, {.4, .03}, {.72, -.06}, {.86, -.2}, {1, -.5}},
		Edge:  []Node{{0, -1}, {.3, -1}, {.6, -1.08}, {.84, -1.36}, {1, -1.42}},
	},
	GroovedTang: {
		Spine: []Node{{0, 0}, {.45, .05}, {1, -.05}},
		Edge: []Node{
			{0, -1}, {.07, -1.04}, {.17, -.88}, {.27, -1.05}, {.38, -.9}, {.49, -1.06}, {.6, -.91}, {.71, -1.05}, {.81, -.92}, {.9, -1.05}, {1, -1.06},
		},
	},
	NotchedTang: {
		Spine: []Node{{0, 0}, {.5, .05}, {1, -.04}},
		Edge:  []Node{{0, -1}, {.05, -1.02}, {.14, -.74}, {.23, -1.04}, {.52, -1.12}, {.8, -1}, {1, -1.1}},
	},
}

// How the butt of a form is rounded: over this share of the length, and of the height.
const (
	roundedLong = .07
	roundedHigh = .3
)

// rounded gives a side of a form a quarter of an ellipse at the butt, whose last node says
// where it would run to; in is the way to the tang's middle.
func rounded(nodes []Node, in float64) []Node {
	c, err := fit(nodes, Smooth, nil, "")
	if err != nil {
		return nodes
	}
	var out []Node
	for _, n := range nodes {
		if n[0] < 1-roundedLong-.02 {
			out = append(out, n)
		}
	}
	for _, u := range []float64{0, .45, .75, .93, 1} {
		x := 1 - roundedLong*(1-u)
		out = append(out, Node{x, c.Predict(x) + in*roundedHigh*(1-math.Sqrt(1-u*u))})
	}
	return out
}

// TangForm gives a full tang the outline of a form, at its length and its height at the
// shoulder; an unknown form leaves it as it is.
func (d *Design) TangForm(f TangForm) bool {
	o, ok := forms[f]
	if !ok || d.TangKind != FullTang {
		return false
	}
	o = Outline{Join: Smooth, Spine: rounded(o.Spine, -1), Edge: rounded(o.Edge, 1)}
	o = o.stretched(d.Tang.LengthMm, d.Tang.HeightAtShoulderMm).raised(-d.Tang.DropMm)
	d.SetTangOutline(o)
	return true
}

// TangOutline is the outline of a full tang as nodes at its present length and height: the
// smith's own; few nodes that follow the grip that is on it; or its straight taper. nil for
// other tangs.
func (d Design) TangOutline() *Outline {
	switch t := d.Tang; {
	case d.TangKind != FullTang || t.LengthMm <= 0:
		return nil
	case t.Outline != nil:
		o := t.scaledOutline()
		return &o
	case d.Handle != nil:
		o := d.gripOutline()
		o.Spine, o.Edge = fewer(o.Spine), fewer(o.Edge)
		return &o
	default:
		o := t.taperOutline()
		return &o
	}
}

// MadeTang is the tang as it is made. A full tang shows all round, so that without an outline
// of its own it is as high as the grip on it all along; without a grip it falls straight.
func (d Design) MadeTang() Tang {
	t := d.Tang
	t.Outline = nil
	if d.TangKind == FullTang && t.LengthMm > 0 {
		var o Outline
		switch {
		case d.Tang.Outline != nil:
			o = t.with(d.Tang.Outline).scaledOutline()
		case d.Handle != nil:
			o = d.gripOutline()
		default:
			o = t.taperOutline()
		}
		t.Outline = &o
	}
	if t.profile() != nil {
		t.sides = nil // New says what is wrong
	}
	return t
}

func (t Tang) with(o *Outline) Tang {
	t.Outline = o
	return t
}

// scaledOutline is the outline at the length and the height at the shoulder that the tang has.
func (t Tang) scaledOutline() Outline {
	o := *t.Outline
	if len(o.Spine) < 2 || len(o.Edge) < 2 {
		return o
	}
	top, high, long := o.Spine[0][1], o.Spine[0][1]-o.Edge[0][1], o.Spine[len(o.Spine)-1][0]
	if high <= 0 || long <= 0 {
		return o
	}
	return o.raised(-top).stretched(t.LengthMm/long, t.HeightAtShoulderMm/high).raised(-t.DropMm)
}

// taperOutline is the straight taper of a tang that narrows toward its own middle.
func (t Tang) taperOutline() Outline {
	fall := (t.HeightAtShoulderMm - t.HeightAtEndMm) / 2
	return Outline{
		Join:  Straight,
		Spine: []Node{{0, -t.DropMm}, {t.LengthMm, -t.DropMm - fall}},
		Edge:  []Node{{0, -t.DropMm - t.HeightAtShoulderMm}, {t.LengthMm, -t.DropMm - t.HeightAtShoulderMm + fall}},
	}
}

// gripOutline is that of the grip on the tang: as high as its front under guard and bolster,
// and as high as its butt behind it.
func (d Design) gripOutline() Outline {
	const steps = 48
	h, l := d.Handle, d.Tang.LengthMm
	front := math.Min(l, h.Guard.LengthMm+h.Bolster.LengthMm)
	out := Outline{Join: Straight}
	high := h.heights()
	add := func(s float64) {
		at := math.Max(0, math.Min(h.LengthMm, s-front))
		y := -h.AxisMm(at)
		out.Spine, out.Edge = append(out.Spine, Node{s, y + high(at)/2}), append(out.Edge, Node{s, y - high(at)/2})
	}
	add(0)
	from := 0.0
	for i := range steps + 1 {
		if s := front + math.Min(h.LengthMm, l-front)*float64(i)/steps; s > from+1e-6 {
			add(s)
			from = s
		}
	}
	if l > from+1e-6 {
		add(l)
	}
	last := len(out.Spine) - 1
	out.Spine[last][0], out.Edge[last][0] = l, l
	return out
}

// SetTangOutline takes an outline as the tang's own: its length and its height at both ends
// follow it.
func (d *Design) SetTangOutline(o Outline) {
	t := &d.Tang
	first, last := o.Spine[0], o.Spine[len(o.Spine)-1]
	t.LengthMm, t.DropMm = last[0], -first[1]
	t.HeightAtShoulderMm = first[1] - o.Edge[0][1]
	t.HeightAtEndMm = last[1] - o.Edge[len(o.Edge)-1][1]
	t.Outline = &o
}

// ClearTangOutline gives the tang up its own outline: it follows the grip again, or its taper.
func (d *Design) ClearTangOutline() {
	d.Tang.Outline = nil
	d.Tang.HeightAtEndMm = math.Min(d.Tang.HeightAtEndMm, math.Max(3, d.Ricasso.HeightMm))
	d.Tang.DropMm = math.Max(0, math.Min(d.Tang.DropMm, d.Ricasso.HeightMm-d.Tang.HeightAtShoulderMm))
}

// Limits of a tang's outline: how far it goes above the spine, and how high it gets.
const (
	mostRiseMm = 40.0
	leastRimMm = 0.5 // of steel round a hole
)

// validateTangOutline reports an own outline that cannot be.
func (d Design) validateTangOutline(c fact.Check) {
	o := d.Tang.Outline
	if o == nil {
		return
	}
	if d.TangKind != FullTang {
		c.Fail("outline", "blade.tangOutlineFull", nil)
		return
	}
	o.validate(c)
	for name, nodes := range map[string][]Node{"outline.spine": o.Spine, "outline.edge": o.Edge} {
		for _, n := range nodes {
			if !(n[1] <= mostRiseMm && n[1] >= -maxHeightMm) {
				c.Range(name, n[1], -maxHeightMm, mostRiseMm)
				return
			}
		}
	}
}
