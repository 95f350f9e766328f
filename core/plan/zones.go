package plan

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
)

// Zone names from the point back.
const (
	ZonePoint   = "point"
	ZoneBlade   = "blade"
	ZoneRicasso = "ricasso"
	ZoneTang    = "tang"
)

// zone is a stretch of a blade along x from its point.
type zone struct {
	Name     string
	From, To float64
}

// pointHeightShare: the point is the stretch where the blade is lower than this
// share of its greatest height, but not more than pointMaxShare of its length.
const (
	pointHeightShare = 0.85
	pointMaxShare    = 0.45
)

// zonesOf divides a blade.
func zonesOf(b *blade.Body) []zone {
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
	zones := []zone{{ZonePoint, 0, end}, {ZoneBlade, end, l}}
	if r := b.Blade.Ricasso; r != nil {
		zones = append(zones, zone{ZoneRicasso, l, l + r.LengthMm})
		l += r.LengthMm
	}
	if t := b.Blade.Tang; t != nil {
		zones = append(zones, zone{ZoneTang, l, l + t.LengthMm})
	}
	return zones
}

// slice is a section of the whole piece at x.
type slice struct {
	zone         string
	spineY       float64
	edgeY        float64
	height, area float64
	spine, edge  float64 // thicknesses
	noSwedge     float64 // area before a false edge
}

func sliceAt(b *blade.Body, zones []zone, x float64) (slice, bool) {
	l := b.LengthMm()
	heel := b.SpineY(l)
	for _, z := range zones {
		if x > z.To && z.Name != zones[len(zones)-1].Name {
			continue
		}
		switch z.Name {
		case ZoneRicasso:
			r := b.Blade.Ricasso
			top := heel
			h := r.HeightAt(x - z.From)
			return slice{z.Name, top, top - h, h, h * r.ThicknessMm, r.ThicknessMm, r.ThicknessMm, h * r.ThicknessMm}, true
		case ZoneTang:
			h, t := b.Blade.Tang.At(x - z.From)
			top := heel - b.Blade.Tang.TopMm(x-z.From)
			return slice{z.Name, top, top - h, h, h * t, t, t, h * t}, true
		default:
			s := b.SectionAt(x)
			if s.HeightMm <= 0 {
				return slice{}, false
			}
			out := slice{z.Name, b.SpineY(x), b.EdgeY(x), s.HeightMm, s.AreaMm2(), s.SpineMm, s.ThicknessAt(0), 0}
			out.noSwedge = out.area
			if s.SwedgeHeightMm > 0 {
				s.SwedgeHeightMm = 0
				out.noSwedge = s.AreaMm2()
			}
			return out, true
		}
	}
	return slice{}, false
}

// cell is a stretch of the forged shape that the simulation moves as one.
type cell struct {
	zone     string
	from, to float64
	volume   float64
	final    forge.Target
	preform  forge.Target
	bevelled forge.Target // before its false edge or its notch
	centre   float64      // height of its centre line over the spine of the heel
	drawn    []drawnSlice
	rod      bool // of a rod welded on, not of the bar
}

// drawnSlice is a station of the forged shape that a cell is drawn through.
type drawnSlice struct {
	u                     float64 // share of the cell's length
	height, spine, centre float64 // of the forged shape there
}

// Shares of the simulated cells by zone, at least one each.
var cellShare = map[string]float64{ZonePoint: .2, ZoneBlade: .4, ZoneRicasso: .1, ZoneTang: .3}

// previewCells is how many cells a preview simulates.
const previewCells = 40

// cellsOf cuts the forged shape into cells and gives each its final section and
// the preform it has before bevelling. Behind seamMm of tang (0: no seam) they
// are of a rod welded on.
func cellsOf(b *blade.Body, zones []zone, count int, m forge.Method, seamMm float64) []cell {
	if count == 0 {
		count = previewCells
	}
	var out []cell
	cut := func(name string, from, to float64, n int, rod bool) {
		for i := range n {
			c := cell{zone: name, from: from + (to-from)*float64(i)/float64(n), to: from + (to-from)*float64(i+1)/float64(n), rod: rod}
			c.fill(b, zones, m)
			c.trace(b, zones, perCell)
			out = append(out, c)
		}
	}
	for _, z := range zones {
		n := max(1, int(math.Round(cellShare[z.Name]*float64(count))))
		if l := z.To - z.From; z.Name == ZoneTang && seamMm > 0 && seamMm < l {
			own := max(1, min(n-1, int(math.Round(float64(n)*seamMm/l))))
			cut(z.Name, z.From, z.From+seamMm, own, false)
			cut(z.Name, z.From+seamMm, z.To, max(1, n-own), true)
			continue
		}
		cut(z.Name, z.From, z.To, n, false)
	}
	return out
}

// trace notes the forged shape at the n stations the cell is drawn through.
func (c *cell) trace(b *blade.Body, zones []zone, n int) {
	c.drawn = make([]drawnSlice, n)
	for k := range c.drawn {
		d := drawnSlice{u: (float64(k) + .5) / float64(n), height: c.final.WidthMm, spine: c.final.SpineMm, centre: c.centre}
		switch k {
		case 0:
			d.u = 0.001
		case n - 1:
			d.u = 0.999
		}
		if p, ok := sliceAt(b, zones, c.from+d.u*(c.to-c.from)); ok {
			d.height, d.spine, d.centre = p.height, p.spine, (p.spineY+p.edgeY)/2
		}
		c.drawn[k] = d
	}
}

func (c *cell) fill(b *blade.Body, zones []zone, m forge.Method) {
	const k = 4
	var h, s, e, centre, n, area, whole float64
	for i := range k {
		x := c.from + (c.to-c.from)*(float64(i)+.5)/k
		if p, ok := sliceAt(b, zones, x); ok {
			area, whole = area+p.area, whole+p.noSwedge
			h, s, e, centre, n = h+p.height, s+p.spine, e+p.edge, centre+(p.spineY+p.edgeY)/2, n+1
		}
	}
	h, s, e, c.centre = h/n, s/n, e/n, centre/n
	switch c.zone {
	case ZonePoint, ZoneBlade:
		c.volume, _ = b.VolumeMm3(c.from, c.to)
	case ZoneRicasso:
		c.volume = b.Blade.Ricasso.SideMm2(c.from-b.LengthMm(), c.to-b.LengthMm()) * s
		h = c.volume / s / (c.to - c.from)
	default:
		h0, t0 := b.Blade.Tang.At(c.from - zones[len(zones)-1].From)
		h1, t1 := b.Blade.Tang.At(c.to - zones[len(zones)-1].From)
		c.volume = (c.to - c.from) / 6 * (2*h0*t0 + h0*t1 + h1*t0 + 2*h1*t1)
	}
	mean := c.volume / (c.to - c.from) / h
	c.final = forge.Target{WidthMm: h, ThicknessMm: mean, EdgeMm: e, SpineMm: s}
	c.preform, c.bevelled = c.final, c.final
	if c.zone == ZoneRicasso {
		c.bevelled.WidthMm = b.Blade.Ricasso.HeightMm
	}
	if area > 0 {
		c.bevelled.ThicknessMm = math.Min(s, mean*whole/area)
	}
	if c.zone != ZonePoint && c.zone != ZoneBlade || s <= mean {
		return
	}
	// before bevels the stretch is a rectangle as thick as its spine, narrower
	// by what bevelling will spread
	w := h
	for range 4 {
		w = h * math.Exp(-forge.BevelSpread(m, forge.BevelBiteMm, w)*math.Log(s/mean))
	}
	c.preform = forge.Target{WidthMm: w, ThicknessMm: s, EdgeMm: s, SpineMm: s}
}
