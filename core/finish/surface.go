package finish

import "sort"

// Surface is what the faces are left at.
type Surface string

// The surfaces, from the quickest.
const (
	AsForged  Surface = "forged"   // flats as they were forged, brushed and oiled; bevels from the belt
	BeltSatin Surface = "belt"     // as a belt of 220 leaves it, drawn along the blade
	Satin400  Surface = "satin400" // by hand to 400
	Etched    Surface = "etched"   // by hand to 600, and etched
	Satin800  Surface = "satin800" // by hand to 800
	Mirror    Surface = "mirror"   // by hand to 1000, and buffed
)

// Surfaces lists them.
func Surfaces() []Surface {
	return []Surface{AsForged, BeltSatin, Satin400, Etched, Satin800, Mirror}
}

// papers are the grits that a surface is sanded with by hand.
func (s Surface) papers() []int {
	switch s {
	case Satin400:
		return []int{320, 400}
	case Etched:
		return []int{320, 400, 600}
	case Satin800:
		return []int{320, 400, 600, 800}
	case Mirror:
		return []int{320, 400, 600, 800, 1000}
	}
	return nil
}

// SurfaceOf is the surface that is chosen, or as usual: an etch only where there is a pattern to
// show.
func (f *Choices) SurfaceOf(layered bool) Surface {
	switch {
	case f.Surface != "":
		return f.Surface
	case layered:
		return Etched
	}
	return BeltSatin
}

// scratchMm is how deep a grit's scratches are.
func scratchMm(grit int, worn bool) float64 {
	share := freshScratch
	if worn {
		share = wornScratch
	}
	return grainUm[grit] / 1000 * share
}

// grade is one grit over the faces. LeftMm is what it leaves on each of them for all that follow,
// over the finish, or before the quench over what is left for it: every later grit takes out the
// scratches of the one before it, and nothing more.
type grade struct {
	id       string
	grit     int
	hand     bool // by hand, with fresh paper
	soft     bool // before the quench
	beforeMm float64
	leftMm   float64
}

// grades are the grits over the faces in their order. Steel that is hard as it was forged has none
// before the quench, nor has one that was ground before it was measured.
func (f *Choices) grades(to Surface, asForged bool) []grade {
	var out []grade
	first := f.grit()
	if !asForged && !f.Hardened {
		out = append(out, grade{id: "bevels", grit: first, soft: true})
		if first < 120 { // scratches across an edge are where cracks begin
			out = append(out, grade{id: "along", grit: 120, soft: true})
		}
	}
	if !asForged {
		first = max(60, first)
	}
	const last = 220
	out = append(out, grade{id: hardID(first), grit: first})
	for _, g := range []int{36, 60, 80, 120, 220} {
		if g > first && g <= last && (g != 80 || first == 36) {
			out = append(out, grade{id: hardID(g), grit: g})
		}
	}
	for _, g := range to.papers() {
		out = append(out, grade{id: sandID(g), grit: g, hand: true})
	}
	for i := len(out) - 1; i >= 0; i-- {
		g := &out[i]
		scratch := scratchMm(g.grit, f.Worn && !g.hand)
		if i+1 < len(out) {
			out[i+1].beforeMm = scratch
			if out[i+1].soft == g.soft {
				g.leftMm = out[i+1].leftMm + scratch
			}
		}
	}
	return out
}

// LeftForAfterMm is what is left on each face at the quench: the skin of the soak, or what takes
// the scratches of the soft grits out and of all that follow.
func (f *Choices) LeftForAfterMm(layered bool) float64 {
	soft := *f
	soft.Hardened = false
	for _, g := range soft.grades(f.SurfaceOf(layered), false) {
		if !g.soft {
			return max(leftAfterMm, g.leftMm+g.beforeMm)
		}
	}
	return leftAfterMm
}

// Timed is a surface with what the whole knife then takes, as its account says.
type Timed struct {
	Surface Surface `json:"surface" enum:"forged,belt,satin400,etched,satin800,mirror"`
	Minutes float64 `json:"minutes"`
	LowMin  float64 `json:"lowMin"`
	HighMin float64 `json:"highMin"`
	Chosen  bool    `json:"chosen,omitempty"`
}

// TimedSurfaces is every surface with the time of the whole knife, from the quickest; b is what it
// took before.
func TimedSurfaces(w *Work, b Before) []Timed {
	out := []Timed{}
	of := map[bool]*ground{} // by whether the flats stay
	for _, s := range Surfaces() {
		v := *w
		v.Choices.Surface, v.Steel.KeepsFlats = s, s == AsForged
		v.Left.FaceMm = v.Choices.LeftForAfterMm(w.Layered)
		g := of[v.Steel.KeepsFlats]
		if g == nil {
			g = v.Steel.ground()
			of[v.Steel.KeepsFlats] = g
		}
		a := AccountOf(steps(&v, g), b, Prices{})
		out = append(out, Timed{s, a.Min, a.Low, a.High, s == w.surface()})
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].Minutes < out[j].Minutes })
	return out
}
