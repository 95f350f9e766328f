package figure

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
)

// Zone is a stretch of a blade along x from its point.
type Zone struct {
	Name         string
	FromMm, ToMm float64
}

// pointHeightShare: the point is the stretch where the blade is lower than this
// share of its greatest height, but not more than pointMaxShare of its length.
const (
	pointHeightShare = 0.85
	pointMaxShare    = 0.45
)

// ZonesOf divides a blade.
func ZonesOf(b *blade.Body) []Zone {
	l := b.LengthMm()
	highest := 0.0
	const n = 80
	for i := 1; i <= n; i++ {
		x := l * float64(i) / n
		highest = math.Max(highest, b.SpineY(x)-b.EdgeY(x))
	}
	end := pointMaxShare * l
	for i := 1; i <= n; i++ {
		if x := l * float64(i) / n; b.SpineY(x)-b.EdgeY(x) >= pointHeightShare*highest {
			end = math.Min(end, x)
			break
		}
	}
	zones := []Zone{{plan.ZonePoint, 0, end}, {plan.ZoneBlade, end, l}}
	if r := b.Blade.Ricasso; r != nil {
		zones = append(zones, Zone{plan.ZoneRicasso, l, l + r.LengthMm})
		l += r.LengthMm
	}
	if t := b.Blade.Tang; t != nil {
		zones = append(zones, Zone{plan.ZoneTang, l, l + t.LengthMm})
	}
	return zones
}

// Slice is a section of the whole piece at x.
type Slice struct {
	Zone              string
	SpineY            float64
	EdgeY             float64
	HeightMm, AreaMm2 float64
	SpineMm, EdgeMm   float64 // thicknesses
	WholeMm2          float64 // area before a false edge
}

// SliceAt cuts the whole piece at x mm from the point; false where it does not reach.
func SliceAt(b *blade.Body, zones []Zone, x float64) (Slice, bool) {
	l := b.LengthMm()
	heel := b.SpineY(l)
	for _, z := range zones {
		if x > z.ToMm && z.Name != zones[len(zones)-1].Name {
			continue
		}
		switch z.Name {
		case plan.ZoneRicasso:
			r := b.Blade.Ricasso
			top := heel + r.RiseMm
			h := r.HeightAt(x - z.FromMm)
			return Slice{z.Name, top, top - h, h, h * r.ThicknessMm, r.ThicknessMm, r.ThicknessMm, h * r.ThicknessMm}, true
		case plan.ZoneTang:
			h, t := b.Blade.Tang.At(x - z.FromMm)
			top := heel - b.Blade.Tang.TopMm(x-z.FromMm)
			return Slice{z.Name, top, top - h, h, h * t, t, t, h * t}, true
		default:
			s := b.SectionAt(x)
			if s.HeightMm <= 0 {
				return Slice{}, false
			}
			out := Slice{z.Name, b.SpineY(x), b.EdgeY(x), s.HeightMm, s.AreaMm2(), s.SpineMm, s.ThicknessAt(0), 0}
			out.WholeMm2 = out.AreaMm2
			if s.SwedgeHeightMm > 0 {
				s.SwedgeHeightMm = 0
				out.WholeMm2 = s.AreaMm2()
			}
			return out, true
		}
	}
	return Slice{}, false
}

// Cell is a stretch of the forged shape that the simulation moves as one.
type Cell struct {
	Zone         string
	FromMm, ToMm float64
	VolumeMm3    float64
	Final        forge.Target
	Preform      forge.Target
	Bevelled     forge.Target // before its false edge or its notch
	CentreMm     float64      // height of its centre line over the spine of the heel
	Drawn        []drawnSlice
	Rod          bool // of a rod welded on, not of the bar
}

// drawnSlice is a station of the forged shape that a cell is drawn through.
type drawnSlice struct {
	Share                       float64 // share of the cell's length
	HeightMm, SpineMm, CentreMm float64 // of the forged shape there
}

// Shares of the simulated cells by zone, at least one each.
var cellShare = map[string]float64{plan.ZonePoint: .2, plan.ZoneBlade: .4, plan.ZoneRicasso: .1, plan.ZoneTang: .3}

// previewCells is how many cells a preview simulates at the least, and previewCellMm how
// long they are on the mean at the most: where a long blade is worked in stretches, one cell
// more or less in a stretch must not show in the bar.
const (
	previewCells  = 40
	previewCellMm = 4
)

// CellsOf cuts the forged shape into cells and gives each its final section and
// the preform it has before bevelling. Behind seamMm of tang (0: no seam) they
// are of a rod welded on.
func CellsOf(b *blade.Body, zones []Zone, count int, bevels func(widthMm float64) float64, seamMm float64) []Cell {
	if count == 0 {
		count = max(previewCells, int(math.Round((zones[len(zones)-1].ToMm-zones[0].FromMm)/previewCellMm)))
	}
	var out []Cell
	cut := func(name string, from, to float64, n int, rod bool) {
		for i := range n {
			c := Cell{Zone: name, FromMm: from + (to-from)*float64(i)/float64(n), ToMm: from + (to-from)*float64(i+1)/float64(n), Rod: rod}
			c.fill(b, zones, bevels)
			c.Trace(b, zones, perCell)
			out = append(out, c)
		}
	}
	for _, z := range zones {
		n := max(1, int(math.Round(cellShare[z.Name]*float64(count))))
		if l := z.ToMm - z.FromMm; z.Name == plan.ZoneTang && seamMm > 0 && seamMm < l {
			own := max(1, min(n-1, int(math.Round(float64(n)*seamMm/l))))
			cut(z.Name, z.FromMm, z.FromMm+seamMm, own, false)
			cut(z.Name, z.FromMm+seamMm, z.ToMm, max(1, n-own), true)
			continue
		}
		cut(z.Name, z.FromMm, z.ToMm, n, false)
	}
	return out
}

// Trace notes the forged shape at the n stations the cell is drawn through.
func (c *Cell) Trace(b *blade.Body, zones []Zone, n int) {
	c.Drawn = make([]drawnSlice, n)
	for k := range c.Drawn {
		d := drawnSlice{Share: (float64(k) + .5) / float64(n), HeightMm: c.Final.WidthMm, SpineMm: c.Final.SpineMm, CentreMm: c.CentreMm}
		switch k {
		case 0:
			d.Share = 0.001
		case n - 1:
			d.Share = 0.999
		}
		if p, ok := SliceAt(b, zones, c.FromMm+d.Share*(c.ToMm-c.FromMm)); ok {
			d.HeightMm, d.SpineMm, d.CentreMm = p.HeightMm, p.SpineMm, (p.SpineY+p.EdgeY)/2
		}
		c.Drawn[k] = d
	}
}

func (c *Cell) fill(b *blade.Body, zones []Zone, bevels func(widthMm float64) float64) {
	const k = 4
	var h, s, e, centre, n, area, whole float64
	for i := range k {
		x := c.FromMm + (c.ToMm-c.FromMm)*(float64(i)+.5)/k
		if p, ok := SliceAt(b, zones, x); ok {
			area, whole = area+p.AreaMm2, whole+p.WholeMm2
			h, s, e, centre, n = h+p.HeightMm, s+p.SpineMm, e+p.EdgeMm, centre+(p.SpineY+p.EdgeY)/2, n+1
		}
	}
	h, s, e, c.CentreMm = h/n, s/n, e/n, centre/n
	switch c.Zone {
	case plan.ZonePoint, plan.ZoneBlade:
		c.VolumeMm3, _ = b.VolumeMm3(c.FromMm, c.ToMm)
	case plan.ZoneRicasso:
		c.VolumeMm3 = b.Blade.Ricasso.SideMm2(c.FromMm-b.LengthMm(), c.ToMm-b.LengthMm()) * s
		h = c.VolumeMm3 / s / (c.ToMm - c.FromMm)
	default:
		shoulder := zones[len(zones)-1].FromMm
		c.VolumeMm3 = b.Blade.Tang.VolumeMm3(c.FromMm-shoulder, c.ToMm-shoulder)
		if len(b.Blade.Tang.Holes) > 0 {
			c.VolumeMm3 -= b.Blade.Tang.HoleMm3(c.FromMm-shoulder, c.ToMm-shoulder)
		}
	}
	mean := c.VolumeMm3 / (c.ToMm - c.FromMm) / h
	c.Final = forge.Target{WidthMm: h, ThicknessMm: mean, EdgeMm: e, SpineMm: s}
	c.Preform, c.Bevelled = c.Final, c.Final
	switch c.Zone {
	case plan.ZoneRicasso:
		c.Bevelled.WidthMm = b.Blade.Ricasso.HeightMm
	case plan.ZoneTang:
		whole, at := 0.0, c.FromMm-zones[len(zones)-1].FromMm
		for i := range k {
			whole += b.Blade.Tang.WholeAt(at+(c.ToMm-c.FromMm)*(float64(i)+.5)/k) / k
		}
		c.Bevelled.WidthMm = math.Max(h, whole)
	}
	if area > 0 {
		c.Bevelled.ThicknessMm = math.Min(s, mean*whole/area)
	}
	if c.Zone != plan.ZonePoint && c.Zone != plan.ZoneBlade || s <= mean {
		return
	}
	// before bevels the stretch is a rectangle as thick as its spine, narrower
	// by what bevelling will spread
	w := h
	for range 4 {
		w = h * math.Exp(-bevels(w)*math.Log(s/mean))
	}
	c.Preform = forge.Target{WidthMm: w, ThicknessMm: s, EdgeMm: s, SpineMm: s}
}
